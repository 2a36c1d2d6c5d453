package nocking.run;

/**
 * The time constant of an approach, from slopes at times about a window apart: behind a first-order
 * lag the slope falls by e in each time constant, so τ = Δt / ln(m₁/m₂).
 */
final class LagEstimate {
  /** Slopes have to differ by this factor before a lag is read from them. */
  private static final double TELLING = 1.6;

  /** Standard errors that a slope has to be from none: less would be a third of the lag. */
  private static final double CLEAR = 20;

  private double thenT = Double.NaN;
  private double thenSlope = Double.NaN;
  private double seconds = Double.NaN;

  /**
   * @param error standard error of the slope; a slope that noise could make tells nothing
   * @param full true when the window has passed once
   */
  void take(double t, double slope, double error, boolean full) {
    if (!full || !(Math.abs(slope) > CLEAR * error)) return;
    boolean turned = Double.isNaN(thenSlope) || slope * thenSlope <= 0;
    if (turned || Math.abs(slope) > Math.abs(thenSlope)) {
      thenT = t;
      thenSlope = slope;
      return;
    }
    double ratio = thenSlope / slope;
    if (ratio < TELLING) return;
    seconds = (t - thenT) / Math.log(ratio);
    thenT = t;
    thenSlope = slope;
  }

  void forget() {
    thenT = Double.NaN;
    thenSlope = Double.NaN;
    seconds = Double.NaN;
  }

  /** NaN while it cannot be told. */
  double seconds() {
    return seconds;
  }
}
