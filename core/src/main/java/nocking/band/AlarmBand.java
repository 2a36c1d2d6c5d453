package nocking.band;

import java.util.function.DoubleFunction;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/**
 * A band of the quantity with a name: low, in range, high.
 *
 * @param from lower end, channel's unit; null where it has none
 * @param to upper end, channel's unit; null where it has none
 */
public record AlarmBand(String name, Value from, Value to) {
  public AlarmBand {
    if (name == null || name.isBlank()) throw new QuantityException("an alarm band needs a name");
  }

  /**
   * The ends in words: below, above, or from … to; nothing for a band without ends.
   *
   * @param write an end, with its digits
   * @param unit behind the last number
   */
  public String says(DoubleFunction<String> write, String unit) {
    if (from == null && to == null) return "";
    if (from == null) return "below " + write.apply(to.number()) + unit;
    if (to == null) return "above " + write.apply(from.number()) + unit;
    return write.apply(from.number()) + " … " + write.apply(to.number()) + unit;
  }

  /** Lower end; negative infinity for none. */
  public double low() {
    return from == null ? Double.NEGATIVE_INFINITY : from.number();
  }

  /** Upper end; infinity for none. */
  public double high() {
    return to == null ? Double.POSITIVE_INFINITY : to.number();
  }
}
