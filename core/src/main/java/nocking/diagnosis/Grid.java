package nocking.diagnosis;

import java.util.Arrays;
import java.util.HashSet;
import java.util.Set;
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
  private final Set<Object> settled = new HashSet<>();
  private double[] fractions;

  Grid(Hypothesis hypothesis) {
    this.hypothesis = hypothesis;
    fractions = hypothesis.grid();
  }

  /**
   * Halves every interval in which the two ratios disagree by more than a reading can tell.
   *
   * @param what place and input that are looked at; once is enough for each
   * @param solve value of a place under a fault
   * @param sigma what a reading of that value leaves open
   */
  void refine(Object what, ToDoubleFunction<Fault> solve, DoubleUnaryOperator sigma) {
    if (fractions.length < 4 || !settled.add(what)) return;
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

  /** How many degrees are solved; it grows when the grid is refined. */
  int size() {
    return fractions.length;
  }

  /** What one place shows under the fault over its degrees, as the solved ones say. */
  Curve curve(Function<Fault, Column.Prediction> solve) {
    double[] s = severities();
    var solved = new Column.Prediction[s.length];
    double[] v = new double[s.length];
    for (int g = 0; g < s.length; g++) {
      solved[g] = solve.apply(hypothesis.at(fractions[g]));
      v[g] = solved[g].value();
    }
    var left = new Moebius[s.length - 1];
    var right = new Moebius[s.length - 1];
    for (int k = 0; k < s.length - 1; k++) {
      left[k] = moebius(s, v, k, Math.max(0, k - 1));
      right[k] = moebius(s, v, k, Math.min(k, s.length - 3));
    }
    return new Curve(fractions, solved, left, right);
  }

  /**
   * A place over the degrees.
   *
   * @param left through a degree before each interval, its start and its end
   * @param right through its start, its end and a degree behind it
   */
  record Curve(double[] fractions, Column.Prediction[] solved, Moebius[] left, Moebius[] right) {

    /**
     * Predictions at rising fractions: value, both slopes, and what is open between two degrees.
     */
    double[][] at(double[] wanted, double[] severities) {
      var out = new double[4][wanted.length];
      int k = 0;
      for (int i = 0; i < wanted.length; i++) {
        while (k < left.length - 1 && wanted[i] > fractions[k + 1]) k++;
        double t = (wanted[i] - fractions[k]) / (fractions[k + 1] - fractions[k]);
        double a = left[k].at(severities[i]);
        double b = right[k].at(severities[i]);
        Column.Prediction from = solved[k];
        Column.Prediction to = solved[k + 1];
        out[0][i] = (a + b) / 2;
        out[1][i] = from.slope() + (to.slope() - from.slope()) * t;
        out[2][i] = from.railSlope() + (to.railSlope() - from.railSlope()) * t;
        out[3][i] = Math.abs(a - b) / 2;
      }
      return out;
    }
  }

  private static Moebius moebius(double[] s, double[] v, int k, int from) {
    int first = Math.min(from, s.length - 3);
    return Moebius.through(
        s[first], v[first], s[first + 1], v[first + 1], s[first + 2], v[first + 2], s[k], s[k + 1]);
  }
}
