package nocking.fit;

import java.util.List;
import java.util.function.DoubleUnaryOperator;

/**
 * The constants of a model for a set of points, and how sure they are.
 *
 * @param coefficients constants that the curve goes by, those among them that were chosen for
 *     scaling
 * @param inRaw the same curve with powers of the raw value itself, where that is another form; else
 *     the free ones of {@code coefficients}
 * @param covariance of {@code inRaw}, in their order; empty where the points leave no freedom to
 *     tell it or the model is none of least squares
 * @param standardError of the curve at a raw value, in the quantity; NaN where it is not known
 * @param leverages h_i, the share that a point has in the curve at its own place; empty where the
 *     model has none
 */
public record Estimate(
    List<Coefficient> coefficients,
    List<Coefficient> inRaw,
    double[][] covariance,
    DoubleUnaryOperator standardError,
    double[] leverages) {
  private static final double[][] NO_COVARIANCE = {};
  private static final double[] NO_LEVERAGES = {};

  /** Constants of which the points do not say how sure they are. */
  static Estimate plain(List<Coefficient> coefficients) {
    return new Estimate(coefficients, coefficients, NO_COVARIANCE, v -> Double.NaN, NO_LEVERAGES);
  }
}
