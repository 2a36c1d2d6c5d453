package nocking.run;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import nocking.quantity.QuantityException;

/** When the readings of one channel count as settled; limits are in the channel's raw unit. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
  @JsonSubTypes.Type(value = SettleRule.Rest.class, name = "rest"),
  @JsonSubTypes.Type(value = SettleRule.Stable.class, name = "stable"),
  @JsonSubTypes.Type(value = SettleRule.Dwell.class, name = "dwell"),
  @JsonSubTypes.Type(value = SettleRule.ByHand.class, name = "by-hand")
})
public sealed interface SettleRule {
  /** Seconds. */
  double A_DAY = 86_400;

  /**
   * What may still come is within a distance, for all that the readings tell ({@link Approach}).
   *
   * @param within distance from where it comes to rest that is left over, above 0
   * @param lag usual time constant in seconds, above 0 and a day at most; one that was seen in the
   *     run takes its place
   * @param creep share of a step that may come much later than the rest, 0 … 0.5; 0 for none
   * @param sensitivity by how much a reading changes with one of what is applied, so that a
   *     reference that still moves is followed; 0 where that is not known
   */
  record Rest(double within, double lag, double creep, double sensitivity) implements SettleRule {
    public Rest {
      positive(within, "the distance");
      positive(lag, "the usual lag");
      if (lag > A_DAY) {
        throw new QuantityException("a usual lag of %s s; it is a day at most".formatted(lag));
      }
      if (!(creep >= 0 && creep <= 0.5)) {
        throw new QuantityException("a creep of %s of a step; it is 0 … 0.5".formatted(creep));
      }
      if (!Double.isFinite(sensitivity)) {
        throw new QuantityException("the sensitivity is %s; it is a number".formatted(sensitivity));
      }
    }

    /** The same with a usual lag that is better known. */
    public Rest withLag(double seconds) {
      return new Rest(within, seconds, 0, sensitivity);
    }

    /** The same where what is applied says nothing of the reading. */
    public Rest withoutReference() {
      return new Rest(within, lag, creep, 0);
    }
  }

  /**
   * Standard deviation and slope of a window are both within limits.
   *
   * @param deviation the most that the standard deviation of the window's readings may be, above 0
   * @param slope the most that the readings may move in a second, above 0; the slope counts with
   *     twice its standard error, so that noise does not pass for rest
   * @param window seconds that are looked at, above 0, a day at most
   */
  record Stable(double deviation, double slope, double window) implements SettleRule {
    public Stable {
      positive(deviation, "the standard deviation");
      positive(slope, "the slope");
      positive(window, "the window");
      if (window > A_DAY) {
        throw new QuantityException("a window of %s s; it is a day at most".formatted(window));
      }
    }
  }

  /**
   * A fixed wait.
   *
   * @param seconds 0 … a day
   */
  record Dwell(double seconds) implements SettleRule {
    public Dwell {
      if (!(seconds >= 0 && seconds <= A_DAY)) {
        throw new QuantityException("a wait of %s s; it is 0 s … a day".formatted(seconds));
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
}
