package nocking.fit;

import java.util.function.DoubleUnaryOperator;

/**
 * Least squares by polynomials that are orthogonal over the points themselves: G. E. Forsythe,
 * "Generation and use of orthogonal polynomials for data-fitting with a digital computer", J. SIAM
 * 5 (1957). With t = (v − centre)/half,
 *
 * <pre>p₀ = 1,  p₍ₖ₊₁₎ = (t − αₖ)·pₖ − βₖ·p₍ₖ₋₁₎,  y = Σ aₖ·pₖ</pre>
 *
 * <p>No system is solved, and all is carried with twice the digits of a double, the conversion into
 * powers too: what is left of them is right for sets on which an orthogonal decomposition in plain
 * double precision keeps eight digits.
 */
final class OrthogonalPolynomials {
  private final int degree;
  private final int size;
  private final DoubleDouble centre;
  private final DoubleDouble half;
  private final DoubleDouble[] alpha;
  private final DoubleDouble[] beta;
  private final DoubleDouble[] norm;
  private final DoubleDouble[] a;
  private final double squares;
  private final double[] leverages;

  /**
   * @param v places, at least {@code degree + 1} different ones
   * @param y values there
   * @param w weights above 0
   */
  OrthogonalPolynomials(double[] v, double[] y, double[] w, int degree) {
    this.degree = degree;
    size = v.length;
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (double x : v) {
      low = Math.min(low, x);
      high = Math.max(high, x);
    }
    // Rounded to doubles, so that the scaling can be written down without loss.
    centre = DoubleDouble.of((low + high) / 2);
    double reach = (high - low) / 2;
    half = DoubleDouble.of(reach > 0 ? reach : 1);
    alpha = new DoubleDouble[degree + 1];
    beta = new DoubleDouble[degree + 1];
    norm = new DoubleDouble[degree + 1];
    a = new DoubleDouble[degree + 1];
    leverages = new double[size];
    squares = build(v, y, w);
  }

  private DoubleDouble scaled(double v) {
    return DoubleDouble.of(v).minus(centre).over(half);
  }

  private double build(double[] v, double[] y, double[] w) {
    var t = new DoubleDouble[size];
    var left = new DoubleDouble[size];
    var before = new DoubleDouble[size];
    var now = new DoubleDouble[size];
    for (int i = 0; i < size; i++) {
      t[i] = scaled(v[i]);
      left[i] = DoubleDouble.of(y[i]);
      before[i] = DoubleDouble.ZERO;
      now[i] = DoubleDouble.ONE;
    }
    for (int k = 0; k <= degree; k++) {
      DoubleDouble n = DoubleDouble.ZERO;
      DoubleDouble moment = DoubleDouble.ZERO;
      DoubleDouble share = DoubleDouble.ZERO;
      for (int i = 0; i < size; i++) {
        DoubleDouble weighted = now[i].times(w[i]);
        DoubleDouble square = weighted.times(now[i]);
        n = n.plus(square);
        moment = moment.plus(square.times(t[i]));
        share = share.plus(weighted.times(left[i]));
      }
      norm[k] = n;
      alpha[k] = moment.over(n);
      beta[k] = k == 0 ? DoubleDouble.ZERO : n.over(norm[k - 1]);
      a[k] = share.over(n);
      for (int i = 0; i < size; i++) {
        left[i] = left[i].minus(a[k].times(now[i]));
        leverages[i] += w[i] * now[i].value() * now[i].value() / n.value();
        DoubleDouble next = t[i].minus(alpha[k]).times(now[i]).minus(beta[k].times(before[i]));
        before[i] = now[i];
        now[i] = next;
      }
    }
    DoubleDouble sum = DoubleDouble.ZERO;
    for (int i = 0; i < size; i++) sum = sum.plus(left[i].times(left[i]).times(w[i]));
    return sum.value();
  }

  double centre() {
    return centre.value();
  }

  double half() {
    return half.value();
  }

  double[] leverages() {
    return leverages;
  }

  /** Residual variance Σwe²/(n − p); NaN where nothing is left to tell it from. */
  double variance() {
    int freedom = size - degree - 1;
    return freedom > 0 ? squares / freedom : Double.NaN;
  }

  /** Coefficients of the powers of t, from the constant on. */
  double[] scaledPowers() {
    return combined(powers(DoubleDouble.ZERO, DoubleDouble.ONE));
  }

  /** Coefficients of the powers of v itself. */
  double[] rawPowers() {
    return combined(inRaw());
  }

  private DoubleDouble[][] inRaw() {
    DoubleDouble slope = DoubleDouble.ONE.over(half);
    return powers(centre.times(slope).negated(), slope);
  }

  private double[] combined(DoubleDouble[][] p) {
    double[] c = new double[degree + 1];
    for (int j = 0; j <= degree; j++) {
      DoubleDouble sum = DoubleDouble.ZERO;
      for (int k = j; k <= degree; k++) sum = sum.plus(a[k].times(p[k][j]));
      c[j] = sum.value();
    }
    return c;
  }

  /** Each pₖ in powers of u, where t = offset + slope·u. */
  private DoubleDouble[][] powers(DoubleDouble offset, DoubleDouble slope) {
    var p = new DoubleDouble[degree + 1][degree + 1];
    for (DoubleDouble[] row : p) java.util.Arrays.fill(row, DoubleDouble.ZERO);
    p[0][0] = DoubleDouble.ONE;
    for (int k = 0; k < degree; k++) {
      DoubleDouble constant = offset.minus(alpha[k]);
      for (int j = 0; j <= k + 1; j++) {
        DoubleDouble v = p[k][j].times(constant);
        if (j > 0) v = v.plus(p[k][j - 1].times(slope));
        if (k > 0) v = v.minus(beta[k].times(p[k - 1][j]));
        p[k + 1][j] = v;
      }
    }
    return p;
  }

  /** Covariance of the coefficients of the powers of v. */
  double[][] covariance() {
    DoubleDouble[][] p = inRaw();
    double s2 = variance();
    double[][] c = new double[degree + 1][degree + 1];
    for (int i = 0; i <= degree; i++) {
      for (int j = 0; j <= degree; j++) {
        DoubleDouble sum = DoubleDouble.ZERO;
        for (int k = Math.max(i, j); k <= degree; k++) {
          sum = sum.plus(p[k][i].times(p[k][j]).over(norm[k]));
        }
        c[i][j] = s2 * sum.value();
      }
    }
    return c;
  }

  /** Standard error of the curve at v: s·√(Σ pₖ(v)²/Σwpₖ²). */
  DoubleUnaryOperator standardError() {
    double s2 = variance();
    return v -> {
      double t = (v - centre.value()) / half.value();
      double before = 0;
      double now = 1;
      double sum = 0;
      for (int k = 0; k <= degree; k++) {
        sum += now * now / norm[k].value();
        double next = (t - alpha[k].value()) * now - beta[k].value() * before;
        before = now;
        now = next;
      }
      return Math.sqrt(s2 * sum);
    };
  }
}
