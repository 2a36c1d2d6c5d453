package nocking.table;

import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;

/**
 * The raw values that a receiver can hold: whole steps of a decimal.
 *
 * @param decimals of the raw value, 0 to 9
 * @param first number of the first step that is looked at
 * @param last number of the last one, above {@code first}
 */
public record RawAxis(int decimals, int first, int last) {
  /** Most steps of an axis: more are no receiver's, and would not fit a search. */
  public static final int MOST = 4_000_000;

  public RawAxis {
    if (last <= first)
      throw new QuantityException("a table needs at least two different raw values");
    if ((long) last - first > MOST) {
      throw new QuantityException(
          "the raw column has %d steps from end to end, %d at most%s"
              .formatted(
                  (long) last - first, MOST, decimals > 0 ? "; ask for fewer raw decimals" : ""));
    }
  }

  /** From the first step that is not below a value to the last that is not above another one. */
  public static RawAxis within(double low, double high, int decimals) {
    double scale = Math.pow(10, decimals);
    // What earlier arithmetic rounded away is no reason to leave a step out.
    double from = Math.ceil(low * scale - 1e-6);
    double to = Math.floor(high * scale + 1e-6);
    if (Math.abs(from) > 2e9 || Math.abs(to) > 2e9) {
      throw new QuantityException(
          "raw values from %s to %s with %d decimals are too many steps"
              .formatted(Numbers.plain(low), Numbers.plain(high), decimals));
    }
    return new RawAxis(decimals, (int) from, (int) to);
  }

  public int size() {
    return last - first + 1;
  }

  /** True for a step between its ends. */
  public boolean has(int step) {
    return step >= first && step <= last;
  }

  /** Raw value of a step. */
  public double at(int step) {
    return step / Math.pow(10, decimals);
  }

  /** Step nearest to a raw value, at the ends at most. */
  public int step(double raw) {
    return (int) Math.clamp(Math.rint(raw * Math.pow(10, decimals)), first, last);
  }
}
