package nocking.sensor;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.Optional;
import nocking.algebra.Expr;
import nocking.element.Measurand;
import nocking.element.Parameter;
import nocking.element.Signal;
import nocking.element.Symbols;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * Transmitter on a current loop: I = I_a + (I_b − I_a)·(x − x_a)/(x_b − x_a), 4…20 mA or 0…20 mA.
 *
 * @param low x_a, channel's unit
 * @param high x_b, channel's unit, other than x_a
 * @param lowCurrent I_a, amperes
 * @param highCurrent I_b, amperes
 */
@JsonTypeName("loop")
public record CurrentLoop(
    @Parameter(symbol = "xa", label = "Range from", unit = "x") Value low,
    @Parameter(symbol = "xb", label = "Range to", unit = "x") Value high,
    @Parameter(symbol = "Ia", label = "Current at the start", unit = "A", least = 0)
        Value lowCurrent,
    @Parameter(symbol = "Ib", label = "Current at the end", unit = "A", above = 0)
        Value highCurrent)
    implements Sensor {

  /** Currents of a measured value; below and above stands the signal of a fault (NAMUR NE 43). */
  public static final Span NORMAL = new Span(3.8e-3, 20.5e-3);

  /** At or below this the transmitter reports a failure, amperes (NAMUR NE 43). */
  public static final double FAILURE_LOW = 3.6e-3;

  /** At or above this the transmitter reports a failure, amperes (NAMUR NE 43). */
  public static final double FAILURE_HIGH = 21e-3;

  static final CurrentLoop EXAMPLE =
      new CurrentLoop(
          Value.of(0), Value.of(100), new Value(0.004, "4 mA"), new Value(0.020, "20 mA"));

  @Override
  public String model() {
    return "loop";
  }

  @Override
  public String title() {
    return "Current loop";
  }

  @Override
  public String inHand() {
    return "4–20 mA";
  }

  @Override
  public String alsoCalled() {
    return "transmitter loop";
  }

  @Override
  public String summary() {
    return "%s…%s mA for %s…%s"
        .formatted(
            Numbers.trimmed(1000 * lowCurrent.number(), 4),
            Numbers.trimmed(1000 * highCurrent.number(), 4),
            Numbers.trimmed(low.number(), 4),
            Numbers.trimmed(high.number(), 4));
  }

  @Override
  public Signal signal() {
    return Signal.CURRENT;
  }

  @Override
  public Expr output(Measurand x, Symbols own) {
    return TwoPointSensor.line(x.expr(), own, "xa", "Ia", "xb", "Ib", low.number() == 0);
  }

  /** Beyond the signals of a failure no transmitter drives its loop (NAMUR NE 43). */
  @Override
  public Optional<Span> possibleOutput() {
    return Optional.of(new Span(Math.min(least(), FAILURE_LOW), Math.max(most(), FAILURE_HIGH)));
  }

  /**
   * True for a loop that starts above nothing, so that a dead one can be told from an empty one.
   */
  public boolean liveZero() {
    return least() > 0;
  }

  /** True for a current by which a transmitter reports a failure, or with which it is dead. */
  public boolean failure(double amperes) {
    return liveZero() && (amperes <= FAILURE_LOW || amperes >= FAILURE_HIGH);
  }

  /** Amperes at that end of the range where they are least, whichever it is. */
  public double least() {
    return Math.min(lowCurrent.number(), highCurrent.number());
  }

  /** Amperes at that end of the range where they are most. */
  public double most() {
    return Math.max(lowCurrent.number(), highCurrent.number());
  }

  /** The quantity at which it would drive so many amperes; the straight line goes on. */
  public double quantity(double amperes) {
    double share = (amperes - lowCurrent.number()) / (highCurrent.number() - lowCurrent.number());
    return low.number() + share * (high.number() - low.number());
  }

  /** The loop that is taken for this one: from nothing on instead of 4 mA, or the other way. */
  public CurrentLoop takenFor() {
    Value other = Value.of(liveZero() ? 0 : 0.004);
    return lowCurrent.number() <= highCurrent.number()
        ? new CurrentLoop(low, high, other, highCurrent)
        : new CurrentLoop(low, high, lowCurrent, other);
  }

  @Override
  public Span rated(Unit quantity) {
    return Span.between(low.number(), high.number());
  }
}
