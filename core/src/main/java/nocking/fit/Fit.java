package nocking.fit;

import java.util.List;
import java.util.function.DoubleUnaryOperator;
import org.hipparchus.distribution.continuous.TDistribution;

/**
 * A fitted model with the figures that judge it. Errors are reading − reference, in the quantity.
 *
 * @param model key, for example {@code line}
 * @param coefficients constants that the curve goes by
 * @param inRaw the same curve in powers of the raw value itself, where that is another form
 * @param constants how many of them are free
 * @param errors one a sample, in the samples' order
 * @param unseen error at each sample of the fit made without it; NaN where there is none
 * @param worstError largest |error|
 * @param worstAt applied quantity where it stands
 * @param rms root of the mean squared error
 * @param residualSd √(Σe²/(n − p)); NaN when n = p
 * @param rSquared 1 − Σe²/Σ(x − x̄)²; about zero, not the mean, for a line through zero
 * @param leaveOneOut largest |error| at a point that the fit has not seen; NaN when none can be
 *     left out
 * @param unseenAt applied quantity at which {@code leaveOneOut} stands
 * @param span what the applied quantities span
 * @param aicc corrected Akaike criterion (Hurvich and Tsai 1989); NaN with too few points
 * @param monotone true when the curve never turns on the points' range
 * @param covariance of {@code inRaw}; empty where it is not known
 * @param standardError of the curve at a raw value; NaN where it is not known
 */
public record Fit(
    String model,
    Curve curve,
    List<Coefficient> coefficients,
    List<Coefficient> inRaw,
    int constants,
    double[] errors,
    double[] unseen,
    double worstError,
    double worstAt,
    double rms,
    double residualSd,
    double rSquared,
    double leaveOneOut,
    double unseenAt,
    double span,
    double aicc,
    boolean monotone,
    double[][] covariance,
    DoubleUnaryOperator standardError) {
  private static final double COVERED = 0.95;

  /**
   * Half of what the curve may be off at a raw value, with 95 % of confidence, from the scatter of
   * its own points: Student's t times the standard error (JCGM 100:2008, G.3). In the quantity; NaN
   * where it is not known.
   */
  public DoubleUnaryOperator uncertainty() {
    int freedom = errors.length - constants;
    if (freedom < 1 || covariance.length == 0) return raw -> Double.NaN;
    double t = new TDistribution(freedom).inverseCumulativeProbability((1 + COVERED) / 2);
    return raw -> t * standardError.applyAsDouble(raw);
  }
}
