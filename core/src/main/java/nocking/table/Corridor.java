package nocking.table;

import java.util.Arrays;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;

/**
 * Between what the straight lines of a table have to stay at each raw step, in units of the step of
 * the output. A step without data asks for nothing.
 *
 * @param first number of the first raw step; data stand there and at the last one
 * @param low least value at each step; −∞ where there are no data
 * @param high largest value, not below {@code low}; +∞ where there are no data
 */
record Corridor(int first, double[] low, double[] high) {
  /**
   * How far below the middle between two outputs a line has to stay so as not to be rounded up. A
   * line between whole numbers over fewer than two million steps comes no nearer without being
   * there.
   */
  private static final double BELOW = 1e-7;

  int last() {
    return first + low.length - 1;
  }

  int size() {
    return low.length;
  }

  boolean asks(int index) {
    return low[index] > Double.NEGATIVE_INFINITY;
  }

  /** The same from its end to its beginning. */
  Corridor reversed() {
    int n = low.length;
    double[] l = new double[n];
    double[] h = new double[n];
    for (int i = 0; i < n; i++) {
      l[i] = low[n - 1 - i];
      h[i] = high[n - 1 - i];
    }
    return new Corridor(first, l, h);
  }

  /** Whole outputs within it at a step; of a step without data as many as at the one before. */
  long outputs(int index) {
    int k = index;
    while (!asks(k)) k--;
    return (long) (Math.floor(high[k]) - Math.ceil(low[k])) + 1;
  }

  /**
   * For what is true at each step.
   *
   * @param least smallest true value of each step from the first on, in the quantity; NaN where
   *     there are no data
   * @param most largest one; the same where there is one alone
   * @param tolerance above 0, in the quantity
   * @param step of the output, in the quantity
   * @param rounded true when the receiver rounds its result to a step, half up; false when the line
   *     itself is read
   * @throws QuantityException where a raw step has true values too far apart, or no output step
   *     lies within the tolerance
   */
  static Corridor of(
      RawAxis axis, double[] least, double[] most, double tolerance, double step, boolean rounded) {
    int n = least.length;
    double[] low = new double[n];
    double[] high = new double[n];
    Arrays.fill(low, Double.NEGATIVE_INFINITY);
    Arrays.fill(high, Double.POSITIVE_INFINITY);
    // A tolerance is typed in decimals: what their binary form lacks must not cost a step.
    double hair = 1e-9;
    for (int i = 0; i < n; i++) {
      if (Double.isNaN(least[i])) continue;
      double from = (most[i] - tolerance) / step - hair;
      double to = (least[i] + tolerance) / step + hair;
      double a = Math.ceil(from);
      double b = Math.floor(to);
      if (to < from || a > b)
        throw new QuantityException(why(axis, i, least[i], most[i], tolerance, step));
      low[i] = rounded ? a - 0.5 : from;
      high[i] = rounded ? b + 0.5 - BELOW : to;
    }
    return new Corridor(axis.first(), low, high);
  }

  private static String why(
      RawAxis axis, int i, double least, double most, double tolerance, double step) {
    String at = Numbers.fixed(axis.at(axis.first() + i), axis.decimals());
    return most - least > 2 * tolerance
        ? "at raw %s the true values lie %s apart, more than twice the tolerance of %s: no table holds it"
            .formatted(at, Numbers.trimmed(most - least, 4), Numbers.trimmed(tolerance, 4))
        : "at raw %s no output in steps of %s lies within %s of what is true there"
            .formatted(at, Numbers.plain(step), Numbers.trimmed(tolerance, 4));
  }
}
