package nocking.table;

import java.util.Arrays;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;

/**
 * Between what the straight lines of a table have to stay at each raw step, in units of the step of
 * the output. A step without data asks for nothing; data stand at the first and the last one.
 *
 * @param low least value at each step; −∞ where there are no data
 * @param high largest value, not below {@code low}; +∞ where there are no data
 * @param hard false for steps at which it lies on a straight line between others: a line that keeps
 *     those keeps them, only a break-point there has to look
 */
record Corridor(double[] low, double[] high, boolean[] hard) {
  /**
   * How far below the middle between two outputs a line has to stay so as not to be rounded up. A
   * line between whole numbers over fewer than five million steps comes no nearer without being
   * there.
   */
  private static final double BELOW = 1e-7;

  /** A tolerance is typed in decimals: what their binary form lacks must not cost a step. */
  private static final double HAIR = 1e-9;

  /** Steps between two that are hard. */
  private static final int BETWEEN = 48;

  /** A few units in the last place of a double. */
  private static final double ROUNDING = 1e-15;

  int size() {
    return low.length;
  }

  /** True for a step that a line has to look at. */
  boolean hard(int index) {
    return hard[index];
  }

  boolean asks(int index) {
    return low[index] > Double.NEGATIVE_INFINITY;
  }

  /**
   * Steps that are looked at where a few more or less do not matter: all that are hard, and between
   * two of them so many that what lies on the line between them is kept well enough. Looking at
   * fewer steps never makes a bound larger.
   */
  int[] stops() {
    int n = size();
    int[] all = new int[n];
    int count = 0;
    int last = -1;
    for (int i = 0; i < n; i++) {
      if (!hard[i]) continue;
      int apart = Math.max(1, (i - last) / BETWEEN);
      for (int k = last + apart; last >= 0 && k < i; k += apart) if (asks(k)) all[count++] = k;
      all[count++] = i;
      last = i;
    }
    return Arrays.copyOf(all, count);
  }

  /** The same from its end to its beginning. */
  Corridor reversed() {
    int n = low.length;
    double[] l = new double[n];
    double[] h = new double[n];
    boolean[] f = new boolean[n];
    for (int i = 0; i < n; i++) {
      f[i] = hard[n - 1 - i];
      l[i] = low[n - 1 - i];
      h[i] = high[n - 1 - i];
    }
    return new Corridor(l, h, f);
  }

  /** Whole outputs within it at a step that has data. */
  long outputs(int index) {
    return Math.max(0, (long) (Math.floor(high[index]) - Math.ceil(low[index])) + 1);
  }

  /**
   * For what is true at each step. Where values lie on lines between those that were given, what
   * rounding takes is taken from the tolerance instead: half a step.
   *
   * @param tolerance above 0, in the quantity
   * @param step of the output, in the quantity
   * @param rounded true when the receiver rounds its result to a step, half up; false when the line
   *     itself is read
   * @throws QuantityException where a raw step has true values too far apart, or no output step
   *     lies within the tolerance
   */
  static Corridor of(Truth truth, double tolerance, double step, boolean rounded) {
    int n = truth.axis().size();
    double[] low = new double[n];
    double[] high = new double[n];
    Arrays.fill(low, Double.NEGATIVE_INFINITY);
    Arrays.fill(high, Double.POSITIVE_INFINITY);
    boolean lines = truth.hasLines();
    double less = allowance(truth, step, rounded);
    for (int i = 0; i < n; i++) {
      if (!truth.known(i)) continue;
      double from = (truth.most()[i] - tolerance + less) / step - HAIR;
      double to = (truth.least()[i] + tolerance - less) / step + HAIR;
      double a = Math.ceil(from);
      double b = Math.floor(to);
      // A line may pass between two outputs; what is rounded, and a break-point, may not.
      boolean whole = rounded && !lines || i == 0 || i == n - 1;
      if (to < from || whole && a > b) throw new QuantityException(why(truth, i, tolerance, step));
      low[i] = rounded && !lines ? a - 0.5 : from;
      high[i] = rounded && !lines ? b + 0.5 - BELOW : to;
    }
    return new Corridor(low, high, truth.given());
  }

  /**
   * What the arithmetic of slopes may lose, in output steps: comparisons that are wrong by less
   * make no table smaller and none larger.
   */
  double hair() {
    double largest = 0;
    for (int i = 0; i < low.length; i++) {
      if (asks(i)) largest = Math.max(largest, Math.max(Math.abs(low[i]), Math.abs(high[i])));
    }
    return HAIR + ROUNDING * largest;
  }

  /** What is taken from the tolerance for rounding, in the quantity. */
  static double allowance(Truth truth, double step, boolean rounded) {
    return rounded && truth.hasLines() ? step / 2 : 0;
  }

  private static String why(Truth truth, int i, double tolerance, double step) {
    RawAxis axis = truth.axis();
    double apart = truth.most()[i] - truth.least()[i];
    String at = Numbers.fixed(axis.at(axis.first() + i), axis.decimals());
    return apart > 2 * tolerance
        ? "at raw %s the true values lie %s apart, more than twice the tolerance of %s: no table holds it"
            .formatted(at, Numbers.trimmed(apart, 4), Numbers.trimmed(tolerance, 4))
        : "at raw %s no output in steps of %s lies within %s of what is true there"
            .formatted(at, Numbers.plain(step), Numbers.trimmed(tolerance, 4));
  }
}
