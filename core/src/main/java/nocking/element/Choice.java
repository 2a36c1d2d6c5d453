package nocking.element;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** A record component of an element that is one of an enum's values; the enum is {@link Titled}. */
@Retention(RetentionPolicy.RUNTIME)
@Target({ElementType.RECORD_COMPONENT, ElementType.METHOD})
public @interface Choice {
  /** What a form calls it. */
  String label();
}
