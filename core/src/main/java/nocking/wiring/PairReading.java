package nocking.wiring;

import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * Resistance between two pins with the receiver unplugged and no supply.
 *
 * @param first index in the wire plan
 * @param second index in the wire plan, above {@code first}
 * @param measured ohms; {@link #OPEN} and above where the meter shows no connection
 */
public record PairReading(int first, int second, Value measured) {
  /** What no meter on the bench tells from an open circuit, ohms. */
  public static final double OPEN = 1e9;

  public PairReading {
    if (first < 0 || !(first < second)) {
      throw new QuantityException("a pair needs two different pins in their order");
    }
    if (measured == null || measured.number() < 0) {
      throw new QuantityException("a resistance must be at least 0 Ω");
    }
  }

  /** Reads what a meter shows; {@code open} and {@code OL} stand for no connection. */
  public static Value read(String text) {
    String t = text.strip();
    if (t.equalsIgnoreCase("open") || t.equalsIgnoreCase("OL")) return new Value(OPEN, t);
    return Value.typed(text, Unit.OHM);
  }
}
