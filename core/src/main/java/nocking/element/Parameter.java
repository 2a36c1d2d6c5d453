package nocking.element;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** One parameter of an element, on a record component of type {@code Value}. */
@Retention(RetentionPolicy.RUNTIME)
@Target({ElementType.RECORD_COMPONENT, ElementType.METHOD})
public @interface Parameter {
  /** Unit of a value of the channel's quantity. */
  String QUANTITY = "x";

  /** Symbol in equations, in ASCII: R1, Vref, beta. Made unique along the path. */
  String symbol();

  /** What a form calls it. */
  String label();

  /**
   * Unit symbol; {@code x} is the channel's own unit, and {@code V/x} is volts per one of it (a
   * difference where the unit has a zero of its own).
   */
  String unit() default "";

  /** The value must be greater than this. */
  double above() default Double.NEGATIVE_INFINITY;

  /** The value must be at least this. */
  double least() default Double.NEGATIVE_INFINITY;

  /** The value must be at most this. */
  double most() default Double.POSITIVE_INFINITY;

  /** True for a whole number, such as the bits of a converter. */
  boolean whole() default false;

  /**
   * What holds while the field is empty ({@code null}), in a word or two; no words where it must
   * not be empty.
   */
  String whenEmpty() default "";
}
