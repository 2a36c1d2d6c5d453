package nocking.run;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import nocking.quantity.QuantityException;

/** When the readings of one channel count as settled; limits are in the channel's raw unit. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
  @JsonSubTypes.Type(value = SettleRule.Stable.class, name = "stable"),
  @JsonSubTypes.Type(value = SettleRule.Dwell.class, name = "dwell"),
  @JsonSubTypes.Type(value = SettleRule.ByHand.class, name = "by-hand")
})
public sealed interface SettleRule {

  /**
   * Standard deviation and slope of a window are both within limits.
   *
   * @param deviation the most that the standard deviation of the window's readings may be, above 0
   * @param slope the most that the readings may move in a second, above 0; the slope counts with
   *     twice its standard error, so that noise does not pass for rest
   * @param window seconds that are looked at, above 0
   */
  record Stable(double deviation, double slope, double window) implements SettleRule {
    public Stable {
      positive(deviation, "the standard deviation");
      positive(slope, "the slope");
      positive(window, "the window");
    }
  }

  /**
   * A fixed wait.
   *
   * @param seconds at least 0
   */
  record Dwell(double seconds) implements SettleRule {
    public Dwell {
      if (!(seconds >= 0) || Double.isInfinite(seconds)) {
        throw new QuantityException("a wait of %s s; it is 0 s or more".formatted(seconds));
      }
    }
  }

  /** The operator says when. */
  record ByHand() implements SettleRule {}

  private static void positive(double v, String what) {
    if (!(v > 0) || Double.isInfinite(v)) {
      throw new QuantityException("%s to settle by is %s; it is above 0".formatted(what, v));
    }
  }

  /**
   * Limits by which a first-order lag has come within a distance of its end.
   *
   * <p>Behind a lag τ a reading that moves by m per second is m·τ from where it goes: so the slope
   * may be {@code within / lag}. The slope of n evenly spaced readings with scatter σ over a window
   * w has the standard error σ √12 / (w √n) (least squares, large n), and twice that has to leave
   * room below the limit; the window is as long as that takes, a third of the limit.
   *
   * @param within distance that may be left, in the raw unit, above 0
   * @param scatter standard deviation of one reading, at least 0
   * @param lag time constant in seconds, above 0
   * @param every seconds between readings, above 0
   */
  static Stable proposed(double within, double scatter, double lag, double every) {
    positive(within, "the distance");
    positive(lag, "the lag");
    positive(every, "the time between readings");
    double slope = within / lag;
    double ofNoise = Math.cbrt(12 * every * Math.pow(Settling.CAUTION * scatter / (slope / 3), 2));
    double window = Math.max(Math.max(ofNoise, Settling.FEWEST * every), lag / 4);
    // The scatter of few readings varies by a third and more; a slope at its limit adds its own.
    double deviation = 1.5 * Math.hypot(scatter, slope * window / Math.sqrt(12));
    return new Stable(Math.max(deviation, 1e-3 * within), slope, Math.ceil(window / every) * every);
  }
}
