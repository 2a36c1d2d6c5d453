package nocking.band;

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

  double low() {
    return from == null ? Double.NEGATIVE_INFINITY : from.number();
  }

  double high() {
    return to == null ? Double.POSITIVE_INFINITY : to.number();
  }
}
