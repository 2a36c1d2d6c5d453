package nocking.wiring;

import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/**
 * Volts at the converter beyond which a reading can only be a fault.
 *
 * @param low below it nothing is measured; null where no fault lies below the normal band
 * @param high above it nothing is measured; null where no fault lies above the normal band
 */
public record Thresholds(Value low, Value high) {

  public Thresholds {
    if (low == null && high == null) {
      throw new QuantityException("thresholds need a low or a high limit");
    }
    if (low != null && high != null && !(low.number() < high.number())) {
      throw new QuantityException(
          "the low threshold %s V must lie below the high one, %s V"
              .formatted(low.typed(), high.typed()));
    }
  }

  /** True when volts lie where only a fault can be. */
  public boolean fault(double volts) {
    return low != null && volts < low.number() || high != null && volts > high.number();
  }

  /** For example {@code below 0.30 V or above 4.62 V}. */
  public String says() {
    String below = low == null ? "" : "below " + Numbers.trimmed(low.number(), 4) + " V";
    String above = high == null ? "" : "above " + Numbers.trimmed(high.number(), 4) + " V";
    return below.isEmpty() || above.isEmpty() ? below + above : below + " or " + above;
  }
}
