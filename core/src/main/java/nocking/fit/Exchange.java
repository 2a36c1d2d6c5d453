package nocking.fit;

import java.util.Arrays;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.LUDecomposition;

/**
 * Least E with |y − p(v)| ≤ E at every point, p a polynomial: the exchange of one reference point
 * at a time (E. L. Stiefel, "Über diskrete und lineare Tschebyscheff-Approximationen", Numer. Math.
 * 1, 1959), which is the simplex method on the dual problem. A reference is degree + 2 points on
 * which the error comes to E with signs of their own; a point where it is larger enters, and what
 * leaves keeps all multipliers at or above 0, so that E only grows. Repeated raw values need no
 * thought of their own.
 */
final class Exchange {
  /** Share of the spread of the quantity to which E is closed in. */
  private static final double CLOSE = 1e-13;

  private final double[] t;
  private final double[] y;
  private final int constants;
  private final double centre;
  private final double half;
  private final double[] chebyshev;

  Exchange(Samples s, int degree) {
    var raw = s.rawSpan();
    centre = raw.at(0.5);
    half = raw.width() > 0 ? raw.width() / 2 : 1;
    t = Arrays.stream(s.raw()).map(v -> (v - centre) / half).toArray();
    y = s.quantity();
    constants = degree + 1;
    int places = (int) Arrays.stream(t).distinct().count();
    if (places < constants) {
      throw new FitException("some raw values lie too close together to be told apart");
    }
    chebyshev = places == constants ? interpolated() : exchanged();
  }

  double centre() {
    return centre;
  }

  double half() {
    return half;
  }

  private double[] basis(double at) {
    double[] b = new double[constants];
    b[0] = 1;
    if (constants > 1) b[1] = at;
    for (int k = 2; k < constants; k++) b[k] = 2 * at * b[k - 1] - b[k - 2];
    return b;
  }

  private double value(double[] c, double at) {
    double[] b = basis(at);
    double sum = 0;
    for (int k = 0; k < constants; k++) sum += c[k] * b[k];
    return sum;
  }

  /** As many places as constants: through the middle of what came at each. */
  private double[] interpolated() {
    double[] places = Arrays.stream(t).distinct().toArray();
    double[][] rows = new double[constants][];
    double[] middle = new double[constants];
    for (int i = 0; i < constants; i++) {
      rows[i] = basis(places[i]);
      double low = Double.POSITIVE_INFINITY;
      double high = Double.NEGATIVE_INFINITY;
      for (int k = 0; k < t.length; k++) {
        if (t[k] != places[i]) continue;
        low = Math.min(low, y[k]);
        high = Math.max(high, y[k]);
      }
      middle[i] = (low + high) / 2;
    }
    return new LUDecomposition(new Array2DRowRealMatrix(rows, false))
        .getSolver()
        .solve(new ArrayRealVector(middle, false))
        .toArray();
  }

  /** Points and signs of a reference. */
  private record Reference(int[] points, double[] signs) {}

  /** Places spread over the range, with signs by turns: its multipliers are above 0. */
  private Reference first() {
    Integer[] order = new Integer[t.length];
    Arrays.setAll(order, i -> i);
    Arrays.sort(order, (a, b) -> Double.compare(t[a], t[b]));
    int[] different = new int[t.length];
    int n = 0;
    for (int i = 0; i < order.length; i++) {
      if (n == 0 || t[order[i]] != t[different[n - 1]]) different[n++] = order[i];
    }
    int m = constants + 1;
    int[] points = new int[m];
    double[] signs = new double[m];
    for (int i = 0; i < m; i++) {
      // The places of Chebyshev's extremes begin near the end.
      points[i] = different[(int) Math.round((n - 1) * (double) i / (m - 1))];
      signs[i] = i % 2 == 0 ? 1 : -1;
    }
    return new Reference(points, signs);
  }

  private double[] exchanged() {
    Reference r = first();
    double scale = Arrays.stream(y).map(Math::abs).max().orElse(0);
    double[] best = null;
    double before = -1;
    // Each round brings a larger E; rounding alone could make it stand still.
    for (int round = 0; round < 50 * (t.length + 20); round++) {
      double[] solved = solve(r);
      if (solved == null) break;
      double e = solved[constants];
      if (best != null && e < before - CLOSE * scale) break;
      best = solved;
      before = e;
      int worst = 0;
      double most = -1;
      for (int i = 0; i < t.length; i++) {
        double left = Math.abs(y[i] - value(solved, t[i]));
        if (left > most) {
          most = left;
          worst = i;
        }
      }
      if (most <= e + CLOSE * scale) break;
      r = exchange(r, worst, Math.signum(y[worst] - value(solved, t[worst])));
      if (r == null) break;
    }
    return Arrays.copyOf(best, constants);
  }

  private double[][] rows(Reference r) {
    int m = constants + 1;
    double[][] rows = new double[m][m];
    for (int i = 0; i < m; i++) {
      double[] b = basis(t[r.points[i]]);
      for (int k = 0; k < constants; k++) rows[i][k] = r.signs[i] * b[k];
      rows[i][constants] = 1;
    }
    return rows;
  }

  /** Coefficients and E on a reference: sᵢ·p(tᵢ) + E = sᵢ·yᵢ. */
  private double[] solve(Reference r) {
    double[] right = new double[constants + 1];
    for (int i = 0; i < right.length; i++) right[i] = r.signs[i] * y[r.points[i]];
    return solved(rows(r), right, false);
  }

  private static double[] solved(double[][] rows, double[] right, boolean transposed) {
    var m = new Array2DRowRealMatrix(rows, false);
    try {
      return new LUDecomposition(transposed ? m.transpose() : m, 1e-300)
          .getSolver()
          .solve(new ArrayRealVector(right, false))
          .toArray();
    } catch (MathRuntimeException e) {
      return null;
    }
  }

  /** The reference with a point in it, in the place of the one that leaves first. */
  private Reference exchange(Reference r, int point, double sign) {
    int m = constants + 1;
    double[] unit = new double[m];
    unit[constants] = 1;
    double[] multipliers = solved(rows(r), unit, true);
    double[] column = new double[m];
    double[] b = basis(t[point]);
    for (int k = 0; k < constants; k++) column[k] = sign * b[k];
    column[constants] = 1;
    double[] direction = solved(rows(r), column, true);
    if (multipliers == null || direction == null) return null;
    int leaves = -1;
    double least = Double.POSITIVE_INFINITY;
    for (int i = 0; i < m; i++) {
      if (direction[i] <= 1e-12) continue;
      double ratio = Math.max(0, multipliers[i]) / direction[i];
      if (ratio < least) {
        least = ratio;
        leaves = i;
      }
    }
    if (leaves < 0) return null;
    int[] points = r.points.clone();
    double[] signs = r.signs.clone();
    points[leaves] = point;
    signs[leaves] = sign;
    return new Reference(points, signs);
  }

  /** Coefficients of the powers of t. */
  double[] powers() {
    double[] power = new double[constants];
    double[][] basis = new double[constants][constants];
    for (int k = 0; k < constants; k++) {
      if (k < 2) basis[k][k] = 1;
      for (int j = 0; k >= 2 && j < constants; j++) {
        basis[k][j] = 2 * (j > 0 ? basis[k - 1][j - 1] : 0) - basis[k - 2][j];
      }
      for (int j = 0; j < constants; j++) power[j] += chebyshev[k] * basis[k][j];
    }
    return power;
  }
}
