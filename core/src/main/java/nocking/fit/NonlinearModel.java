package nocking.fit;

import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleUnaryOperator;

/**
 * A formula whose constants do not all stand linear. Where they start is worked out from the points
 * and never asked for.
 */
abstract sealed class NonlinearModel implements FormulaModel
    permits Exponential, PowerLaw, Rational, SteinhartHart, BetaEquation {

  /** Names of the constants that are fitted, in the order of the starts. */
  abstract List<String> names();

  /** Values from which the iteration starts, the most promising first. */
  abstract List<double[]> starts(Samples s);

  /**
   * @throws FitException for points that the formula has no value for
   */
  abstract void accept(Samples s);

  @Override
  public Estimate estimate(Samples s) {
    s.require(fewestPoints(), title());
    accept(s);
    return from(s, starts(s));
  }

  /** Where all points have led to, all but one lead to by a few steps. */
  @Override
  public Estimate estimate(Samples s, Estimate near) {
    s.require(fewestPoints(), title());
    return from(s, List.of(values(near)));
  }

  /** The fitted ones among the constants. */
  final double[] values(Estimate e) {
    return e.coefficients().stream()
        .filter(c -> !Scaling.chosen(c))
        .mapToDouble(Coefficient::value)
        .toArray();
  }

  private Estimate from(Samples s, List<double[]> starts) {
    var squares = new NonlinearLeastSquares(equation(), names(), s);
    NonlinearLeastSquares.Found found = squares.best(starts);
    if (found == null) {
      throw new FitException("%s does not come to rest on these points".formatted(title()));
    }
    return estimate(s, squares, found);
  }

  /** What is known of the constants once they are found. */
  Estimate estimate(Samples s, NonlinearLeastSquares squares, NonlinearLeastSquares.Found found) {
    double[] p = found.values();
    int freedom = s.size() - p.length;
    double[][] c = freedom > 0 ? squares.covariance(p, found.squares() / freedom) : null;
    var list = new ArrayList<Coefficient>();
    for (int k = 0; k < p.length; k++) {
      list.add(new Coefficient(names().get(k), p[k], c == null ? Double.NaN : Math.sqrt(c[k][k])));
    }
    DoubleUnaryOperator error = c == null ? v -> Double.NaN : squares.standardError(p, c);
    return new Estimate(
        list,
        list,
        c == null ? new double[0][] : c,
        error,
        s.size() > REFITTED ? squares.leverages(p) : new double[0]);
  }
}
