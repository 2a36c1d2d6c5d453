package nocking.diagnosis;

import java.util.Arrays;
import java.util.function.DoubleUnaryOperator;
import java.util.function.Function;
import java.util.function.ToDoubleFunction;
import nocking.fault.Fault;

/**
 * The degrees of one fault at which its circuit is solved. Between them every node of a linear
 * network is a ratio of straight lines, read from three of them; where the ratio from the left and
 * the one from the right disagree an output comes to its rail, and more degrees are solved.
 */
final class Grid {
  private static final int MOST = 64;
  private static final double NARROWEST = 1e-4;

  private final Hypothesis hypothesis;
  private double[] fractions;

  Grid(Hypothesis hypothesis) {
    this.hypothesis = hypothesis;
    fractions = hypothesis.grid();
  }

  /**
   * Halves every interval in which the two ratios disagree by more than a reading can tell.
   *
   * @param solve value of a place under a fault
   * @param sigma what a reading of that value leaves open
   */
  void refine(ToDoubleFunction<Fault> solve, DoubleUnaryOperator sigma) {
    if (fractions.length < 4) return;
    boolean again = true;
    while (again && fractions.length < MOST) {
      again = false;
      double[] s = severities();
      double[] v = new double[s.length];
      for (int g = 0; g < s.length; g++) v[g] = solve.applyAsDouble(hypothesis.at(fractions[g]));
      double[] next = new double[2 * s.length];
      int n = 0;
      for (int k = 0; k < s.length; k++) {
        next[n++] = fractions[k];
        if (k == s.length - 1 || fractions[k + 1] - fractions[k] < NARROWEST) continue;
        double half = (fractions[k] + fractions[k + 1]) / 2;
        double at = hypothesis.at(half).severity();
        double left = moebius(s, v, k, Math.max(0, k - 1)).at(at);
        double right = moebius(s, v, k, Math.min(k, s.length - 3)).at(at);
        if (!(Math.abs(left - right) > sigma.applyAsDouble((left + right) / 2))) continue;
        next[n++] = half;
        again = true;
      }
      fractions = Arrays.copyOf(next, n);
    }
  }

  private double[] severities() {
    return Arrays.stream(fractions).map(f -> hypothesis.at(f).severity()).toArray();
  }

  /** Predictions at rising fractions: value, both slopes, and what is open between two degrees. */
  double[][] between(Function<Fault, Column.Prediction> solve, double[] wanted) {
    double[] s = severities();
    var solved = new Column.Prediction[s.length];
    double[] v = new double[s.length];
    for (int g = 0; g < s.length; g++) {
      solved[g] = solve.apply(hypothesis.at(fractions[g]));
      v[g] = solved[g].value();
    }
    var out = new double[4][wanted.length];
    int k = -1;
    Moebius left = null;
    Moebius right = null;
    for (int i = 0; i < wanted.length; i++) {
      double severity = hypothesis.at(wanted[i]).severity();
      while (left == null || k < s.length - 2 && wanted[i] > fractions[k + 1]) {
        k++;
        left = moebius(s, v, k, Math.max(0, k - 1));
        right = moebius(s, v, k, Math.min(k, s.length - 3));
      }
      double t = (wanted[i] - fractions[k]) / (fractions[k + 1] - fractions[k]);
      double a = left.at(severity);
      double b = right.at(severity);
      out[0][i] = (a + b) / 2;
      out[1][i] = solved[k].slope() + (solved[k + 1].slope() - solved[k].slope()) * t;
      out[2][i] = solved[k].railSlope() + (solved[k + 1].railSlope() - solved[k].railSlope()) * t;
      out[3][i] = Math.abs(a - b) / 2;
    }
    return out;
  }

  private static Moebius moebius(double[] s, double[] v, int k, int from) {
    int first = Math.min(from, s.length - 3);
    return Moebius.through(
        s[first], v[first], s[first + 1], v[first + 1], s[first + 2], v[first + 2], s[k], s[k + 1]);
  }
}
