package nocking.run;

/**
 * Where the readings of a channel are going, as far as they tell; in the channel's raw unit and
 * seconds.
 *
 * @param now where they are, without their noise
 * @param end where they come to
 * @param error standard uncertainty of {@code end}: half of the interval that holds it with 95 %
 * @param lag time constant with which they go there; NaN where nothing moves that could tell it
 * @param noise standard deviation of one reading about its course
 * @param swing height of a swing about the course; 0 for none
 * @param period of the swing in seconds; NaN for none
 * @param odd true where the course is none that comes to rest: what is said of it is a guess
 */
public record Outlook(
    double now,
    double end,
    double error,
    double lag,
    double noise,
    double swing,
    double period,
    boolean odd) {
  static final Outlook NONE =
      new Outlook(
          Double.NaN,
          Double.NaN,
          Double.POSITIVE_INFINITY,
          Double.NaN,
          Double.NaN,
          0,
          Double.NaN,
          true);

  /** What is still to come. */
  public double toCome() {
    return end - now;
  }

  /** The same, all of it higher by so much. */
  Outlook higher(double by) {
    return new Outlook(now + by, end + by, error, lag, noise, swing, period, odd);
  }

  /** True when enough was read to say anything. */
  public boolean known() {
    return Double.isFinite(error);
  }

  /** What is still to come after some seconds more. */
  public double toCome(double seconds) {
    return Double.isNaN(lag) ? toCome() : toCome() * Math.exp(-seconds / lag);
  }

  /** What of a swing is left in the mean of readings over some time, begun at the worst moment. */
  double leftOfSwing(double seconds) {
    if (swing == 0) return 0;
    double x = Math.PI * seconds / period;
    return x < 1e-9 ? swing : swing * Math.min(1, Math.abs(Math.sin(x)) / x);
  }
}
