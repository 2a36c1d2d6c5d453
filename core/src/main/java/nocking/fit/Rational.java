package nocking.fit;

import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import nocking.algebra.Expr;
import nocking.quantity.Numbers;
import nocking.quantity.Span;

/**
 * x = (p₀ + p₁·t + …)/(1 + q₁·t + …) with t = (V − Vm)/Vh between −1 and 1 over the points, and the
 * same with powers of V itself: x = (a₀ + a₁·V + …)/(1 + b₁·V + …). A pole between the points is
 * refused, however small the errors at them.
 */
public final class Rational extends NonlinearModel {
  /** Highest degree above and below. */
  public static final int MOST = 3;

  private static final int ROUNDS = 8;
  private static final int LOOKS = 2000;

  private final int above;
  private final int below;

  /**
   * @param above degree of the numerator, 0 to {@link #MOST}
   * @param below degree of the denominator, 1 to {@link #MOST}
   */
  public Rational(int above, int below) {
    this.above = above;
    this.below = below;
  }

  @Override
  public String key() {
    return "rational:%d/%d".formatted(above, below);
  }

  @Override
  public String title() {
    return "Rational %d/%d".formatted(above, below);
  }

  @Override
  public int fewestPoints() {
    return above + below + 1;
  }

  @Override
  public Expr equation() {
    return ratio(Scaling.variable(), "p", "q");
  }

  private Expr ratio(Expr t, String over, String under) {
    Expr top = Expr.sym(over + above);
    for (int k = above - 1; k >= 0; k--) top = Expr.sym(over + k).plus(t.times(top));
    Expr bottom = Expr.sym(under + below);
    for (int k = below - 1; k >= 1; k--) bottom = Expr.sym(under + k).plus(t.times(bottom));
    return top.over(Expr.ONE.plus(t.times(bottom)));
  }

  @Override
  List<String> names() {
    return names("p", "q");
  }

  private List<String> names(String over, String under) {
    var list = new ArrayList<String>();
    for (int k = 0; k <= above; k++) list.add(over + k);
    for (int k = 1; k <= below; k++) list.add(under + k);
    return list;
  }

  @Override
  void accept(Samples s) {
    // Whether there is a pole shows only in what comes of it.
  }

  private static Samples scaled(Samples s, double centre, double half) {
    double[] t = new double[s.size()];
    for (int i = 0; i < t.length; i++) t[i] = (s.raw()[i] - centre) / half;
    return new Samples(t, s.quantity(), s.weights());
  }

  @Override
  public Estimate estimate(Samples s) {
    s.require(fewestPoints(), title());
    Span raw = s.rawSpan();
    double half = raw.width() / 2;
    Samples t = scaled(s, raw.at(0.5), half);
    return from(s, t, raw.at(0.5), half, starts(t));
  }

  @Override
  public Estimate estimate(Samples s, Estimate near) {
    s.require(fewestPoints(), title());
    List<Coefficient> c = near.coefficients();
    double centre = c.get(c.size() - 2).value();
    double half = c.getLast().value();
    return from(s, scaled(s, centre, half), centre, half, List.of(values(near)));
  }

  private Estimate from(Samples s, Samples t, double centre, double half, List<double[]> starts) {
    // In t itself the symbol of the raw value stands for t.
    Expr own = ratio(Expr.sym(Curve.RAW), "p", "q");
    var squares = new NonlinearLeastSquares(own, names(), t);
    NonlinearLeastSquares.Found found = squares.best(starts);
    if (found == null) {
      throw new FitException("%s does not come to rest on these points".formatted(title()));
    }
    double pole = pole(found.values());
    if (!Double.isNaN(pole)) {
      throw new FitException(
          "%s has a pole between the points, at raw %s"
              .formatted(title(), Numbers.trimmed(centre + half * pole, 5)));
    }
    Estimate inT = estimate(t, squares, found);
    var coefficients = new ArrayList<>(inT.coefficients());
    coefficients.addAll(Scaling.constants(centre, half));
    DoubleUnaryOperator error = v -> inT.standardError().applyAsDouble((v - centre) / half);
    Estimate inV = inRaw(s, found, centre, half);
    return new Estimate(coefficients, inV.inRaw(), inV.covariance(), error, inT.leverages());
  }

  /** The same curve in powers of V, polished there so that its errors are those of its own form. */
  private Estimate inRaw(Samples s, NonlinearLeastSquares.Found found, double centre, double half) {
    double[] p = new double[above + 1];
    System.arraycopy(found.values(), 0, p, 0, above + 1);
    double[] q = new double[below + 1];
    q[0] = 1;
    System.arraycopy(found.values(), above + 1, q, 1, below);
    double[] a = shifted(p, centre, half);
    double[] b = shifted(q, centre, half);
    List<String> names = names("a", "b");
    double[] start = new double[above + below + 1];
    for (int k = 0; k <= above; k++) start[k] = a[k] / b[0];
    for (int k = 1; k <= below; k++) start[above + k] = b[k] / b[0];
    var squares = new NonlinearLeastSquares(ratio(Expr.sym(Curve.RAW), "a", "b"), names, s);
    NonlinearLeastSquares.Found polished = squares.polished(start);
    // A denominator that is nothing at V = 0 has no form that begins with 1.
    if (polished == null) return Estimate.plain(List.of());
    int freedom = s.size() - start.length;
    double[] v = polished.values();
    double[][] c = freedom > 0 ? squares.covariance(v, polished.squares() / freedom) : null;
    var list = new ArrayList<Coefficient>();
    for (int k = 0; k < v.length; k++) {
      list.add(new Coefficient(names.get(k), v[k], c == null ? Double.NaN : Math.sqrt(c[k][k])));
    }
    return new Estimate(
        list, list, c == null ? new double[0][] : c, x -> Double.NaN, new double[0]);
  }

  /** A polynomial in t as one in V, t = (V − centre)/half, by Horner's rule. */
  private static double[] shifted(double[] c, double centre, double half) {
    int n = c.length;
    double[] b = new double[n];
    for (int k = n - 1; k >= 0; k--) {
      // b ← b·(V − centre)/half + c_k
      for (int j = n - 1; j >= 0; j--) {
        b[j] = ((j > 0 ? b[j - 1] : 0) - centre * b[j]) / half;
      }
      b[0] += c[k];
    }
    return b;
  }

  /** Where the denominator is nothing between −1 and 1; NaN where it is nowhere. */
  private double pole(double[] values) {
    double last = 0;
    for (int i = 0; i <= LOOKS; i++) {
      double t = -1 + 2.0 * i / LOOKS;
      double q = 0;
      for (int k = below; k >= 1; k--) q = q * t + values[above + k];
      q = 1 + q * t;
      if (q == 0 || last * q < 0) return t;
      last = q;
    }
    return Double.NaN;
  }

  /**
   * x·(1 + q₁t + …) = p₀ + p₁t + … stands linear; each further round divides the rows by the
   * denominator of the one before (C. K. Sanathanan and J. Koerner, IEEE Trans. Autom. Control 8,
   * 1963), which brings it to the errors of x itself.
   */
  @Override
  List<double[]> starts(Samples s) {
    var list = new ArrayList<double[]>();
    int n = s.size();
    int constants = above + below + 1;
    double[] weights = s.weights().clone();
    for (int round = 0; round < ROUNDS; round++) {
      double[][] columns = new double[constants][n];
      for (int i = 0; i < n; i++) {
        double power = 1;
        for (int k = 0; k <= Math.max(above, below); k++) {
          if (k <= above) columns[k][i] = power;
          if (k >= 1 && k <= below) columns[above + k][i] = -s.quantity()[i] * power;
          power *= s.raw()[i];
        }
      }
      double[] c = Columns.solve(s.quantity(), weights, columns);
      if (c == null) break;
      list.add(c);
      boolean sound = true;
      for (int i = 0; i < n; i++) {
        double q = 0;
        for (int k = below; k >= 1; k--) q = q * s.raw()[i] + c[above + k];
        q = 1 + q * s.raw()[i];
        weights[i] = s.weights()[i] / (q * q);
        sound &= Double.isFinite(weights[i]) && weights[i] > 0;
      }
      if (!sound) break;
    }
    return list.reversed();
  }
}
