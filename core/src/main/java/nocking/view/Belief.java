package nocking.view;

import java.util.function.DoubleUnaryOperator;
import nocking.quantity.Numbers;
import nocking.quantity.Span;

/**
 * How a receiver that goes by a curve of its own reads the quantity over the working range, in the
 * channel's unit: believed ≈ gain · true + offset, the line through both ends.
 *
 * @param bent the farthest that what it believes lies from that line
 * @param worst largest |believed − true|; infinite where it shows nothing somewhere
 * @param worstAt true value there
 * @param believedThere what it believes there; NaN where it shows nothing
 * @param low believed at the low end
 * @param high believed at the high end
 */
public record Belief(
    double gain,
    double offset,
    double bent,
    double worst,
    double worstAt,
    double believedThere,
    double low,
    double high) {
  private static final int STEPS = 200;

  /**
   * @param shown what the receiver shows for a true value
   */
  static Belief of(DoubleUnaryOperator shown, Span working) {
    double low = shown.applyAsDouble(working.low());
    double high = shown.applyAsDouble(working.high());
    double gain = (high - low) / working.width();
    double bent = 0;
    double worst = -1;
    double worstAt = working.low();
    double there = low;
    for (int i = 0; i <= STEPS; i++) {
      double x = working.at((double) i / STEPS);
      double y = shown.applyAsDouble(x);
      double off = Double.isNaN(y) ? Double.POSITIVE_INFINITY : Math.abs(y - x);
      if (off > worst) {
        worst = off;
        worstAt = x;
        there = y;
      }
      bent = Math.max(bent, Math.abs(y - (low + gain * (x - working.low()))));
    }
    return new Belief(gain, low - gain * working.low(), bent, worst, worstAt, there, low, high);
  }

  /** In words: {@code effective gain 0.6623, offset −2.1 kPa}, or what the ends read as. */
  public String says(DesignView d) {
    Span working = d.definition().working();
    return straight(working)
        ? "effective gain %s, offset %s"
            .formatted(
                Numbers.significant(gain, 4),
                (Numbers.signed(offset, d.decimals()) + " " + d.definition().unit()).strip())
        : "%s … %s reads as %s … %s, and not along a straight line"
            .formatted(
                d.reading(working.low()), d.amount(working.high()), d.reading(low), d.amount(high));
  }

  /** True where one gain and one offset say it all, to a thousandth of the working range. */
  public boolean straight(Span working) {
    return bent <= 1e-3 * working.width();
  }
}
