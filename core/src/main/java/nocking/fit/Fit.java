package nocking.fit;

import java.util.List;

/**
 * A fitted model with the figures that judge it. Errors are reading − reference, in the quantity.
 *
 * @param model key, for example {@code line}
 * @param errors one a sample, in the samples' order
 * @param worstError largest |error|
 * @param worstAt applied quantity where it stands
 * @param rms root of the mean squared error
 * @param residualSd √(Σe²/(n − p)); NaN when n = p
 * @param rSquared 1 − Σe²/Σ(x − x̄)²; about zero, not the mean, for a line through zero
 * @param leaveOneOut largest |error| at a point that the fit has not seen; NaN when none can be
 *     left out
 * @param aicc corrected Akaike criterion (Hurvich and Tsai 1989); NaN with too few points
 * @param monotone true when the curve never turns on the points' range
 */
public record Fit(
    String model,
    Curve curve,
    List<Coefficient> coefficients,
    double[] errors,
    double worstError,
    double worstAt,
    double rms,
    double residualSd,
    double rSquared,
    double leaveOneOut,
    double aicc,
    boolean monotone) {}
