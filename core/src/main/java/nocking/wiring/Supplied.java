package nocking.wiring;

import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Value;

/**
 * How a sensor stands on its supply: what the verdict on an open supply or ground wire hangs on.
 *
 * @param current that a sensor with electronics draws, amperes, above 0; null when the datasheet
 *     does not say, then {@link #CURRENT} is taken and {@link #CURRENTS} is possible
 * @param dead what its output gives without supply, volts; null for 0 V
 * @param within how far a sound supply may be off, percent, 0 to 50; null for {@link #WITHIN}
 */
public record Supplied(Value current, Value dead, Value within) {
  /** Supply current that is taken where none is stated, amperes. */
  public static final double CURRENT = 5e-3;

  /** Supply currents of usual sensors with electronics, amperes. */
  public static final Span CURRENTS = new Span(1e-3, 20e-3);

  /** Percent by which a sound supply may be off where nothing is stated. */
  public static final double WITHIN = 5;

  /** Nothing is stated. */
  public static final Supplied USUAL = new Supplied(null, null, null);

  public Supplied {
    if (current != null && !(current.number() > 0 && current.number() <= 10)) {
      throw new QuantityException(
          "a supply current must be above 0 and at most 10 A; read " + current.typed());
    }
    if (within != null && !(within.number() >= 0 && within.number() <= 50)) {
      throw new QuantityException("a supply may be off by 0 to 50 %; read " + within.typed());
    }
  }

  /** Amperes to calculate with. */
  public double amperes() {
    return current == null ? CURRENT : current.number();
  }

  /** Amperes that are possible. */
  public Span possible() {
    return current == null ? CURRENTS : new Span(current.number(), current.number());
  }

  /** Volts at the output without supply. */
  public double deadVolts() {
    return dead == null ? 0 : dead.number();
  }

  /** How far a sound supply may be off, as a fraction. */
  public double share() {
    return (within == null ? WITHIN : within.number()) / 100;
  }
}
