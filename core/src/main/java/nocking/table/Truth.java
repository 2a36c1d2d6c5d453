package nocking.table;

import java.util.Arrays;
import java.util.function.DoubleUnaryOperator;
import nocking.fit.Samples;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;

/**
 * What is true at each raw step: one value from a curve, or as many as bench data have there, and
 * none where they have none.
 *
 * @param axis raw steps from the first to the last that have a value
 * @param least smallest true value of each step, in the quantity; NaN where there is none
 * @param most largest one
 * @param mean their mean
 * @param given true for the steps that were given; between them, where there are values too, these
 *     lie on straight lines
 */
public record Truth(RawAxis axis, double[] least, double[] most, double[] mean, boolean[] given) {
  /** Output steps up to which the search tells places apart. */
  private static final double MOST = 1e11;

  /**
   * A curve at every raw step of a span.
   *
   * @throws QuantityException where the curve has no value
   */
  public static Truth of(DoubleUnaryOperator curve, double low, double high, int rawDecimals) {
    RawAxis axis = RawAxis.within(low, high, rawDecimals);
    double[] y = new double[axis.size()];
    for (int i = 0; i < y.length; i++) {
      double raw = axis.at(axis.first() + i);
      y[i] = curve.applyAsDouble(raw);
      if (!Double.isFinite(y[i])) {
        throw new QuantityException("the curve has no value at raw " + Numbers.plain(raw));
      }
    }
    boolean[] given = new boolean[y.length];
    Arrays.fill(given, true);
    return new Truth(axis, y, y, y, given);
  }

  /**
   * Bench data in any order, in time and room that grow with their number and that of the steps.
   *
   * @throws QuantityException for raw values that are no whole steps of their decimals, or all
   *     alike
   */
  public static Truth of(Samples pairs, int rawDecimals) {
    double scale = Math.pow(10, rawDecimals);
    double lowest = Double.POSITIVE_INFINITY;
    double highest = Double.NEGATIVE_INFINITY;
    for (double raw : pairs.raw()) {
      double step = raw * scale;
      if (Math.abs(step - Math.rint(step)) > 1e-6 * Math.max(1, Math.abs(step) * 1e-9)) {
        throw new QuantityException(
            "raw value %s has more than %d decimals".formatted(Numbers.plain(raw), rawDecimals));
      }
      lowest = Math.min(lowest, raw);
      highest = Math.max(highest, raw);
    }
    RawAxis axis = RawAxis.within(lowest, highest, rawDecimals);
    int n = axis.size();
    double[] least = new double[n];
    double[] most = new double[n];
    double[] sum = new double[n];
    int[] count = new int[n];
    Arrays.fill(least, Double.NaN);
    Arrays.fill(most, Double.NaN);
    for (int i = 0; i < pairs.size(); i++) {
      int k = (int) Math.rint(pairs.raw()[i] * scale) - axis.first();
      double y = pairs.quantity()[i];
      if (count[k]++ == 0) {
        least[k] = y;
        most[k] = y;
      } else {
        least[k] = Math.min(least[k], y);
        most[k] = Math.max(most[k], y);
      }
      sum[k] += y;
    }
    boolean[] given = new boolean[n];
    for (int k = 0; k < n; k++) {
      given[k] = count[k] > 0;
      sum[k] = given[k] ? sum[k] / count[k] : Double.NaN;
    }
    return new Truth(axis, least, most, sum, given);
  }

  /** The same with straight lines between the raw steps that have a value: a datasheet's rows. */
  public Truth joined() {
    double[] l = least.clone();
    double[] m = most.clone();
    double[] y = mean.clone();
    int before = 0;
    for (int i = 1; i < y.length; i++) {
      if (!known(i)) continue;
      for (int k = before + 1; k < i; k++) {
        y[k] = mean[before] + (mean[i] - mean[before]) * (k - before) / (i - before);
        l[k] = y[k];
        m[k] = y[k];
      }
      before = i;
    }
    return new Truth(axis, l, m, y, given);
  }

  /** True when no raw step has more than one true value. */
  public boolean single() {
    for (int i = 0; i < mean.length; i++) if (known(i) && least[i] != most[i]) return false;
    return true;
  }

  /** True where values stand that were not given. */
  public boolean hasLines() {
    for (int i = 0; i < mean.length; i++) if (known(i) && !given[i]) return true;
    return false;
  }

  /**
   * Refuses outputs that are more steps than any receiver counts, and than arithmetic keeps apart.
   *
   * @throws QuantityException naming the value
   */
  void requireSteps(int outDecimals) {
    double scale = Math.pow(10, outDecimals);
    for (int i = 0; i < mean.length; i++) {
      if (!known(i) || Math.max(Math.abs(least[i]), Math.abs(most[i])) * scale <= MOST) continue;
      throw new QuantityException(
          "an output of %s with %d decimals is more steps than a table can hold"
              .formatted(Numbers.plain(mean[i]), outDecimals));
    }
  }

  boolean known(int index) {
    return !Double.isNaN(mean[index]);
  }

  /** Mean value at a raw step, on a straight line between its neighbours where it has none. */
  public double at(int step) {
    int i = Math.clamp(step - (long) axis.first(), 0, mean.length - 1);
    if (known(i)) return mean[i];
    int a = i;
    int b = i;
    while (!known(a)) a--;
    while (!known(b)) b++;
    return mean[a] + (mean[b] - mean[a]) * (i - a) / (b - a);
  }

  /** How far the true values of one raw step lie apart, at most. */
  public double spread() {
    double most = 0;
    for (int i = 0; i < least.length; i++) {
      if (known(i)) most = Math.max(most, this.most[i] - least[i]);
    }
    return most;
  }

  /** From the smallest true value to the largest. */
  public double span() {
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (int i = 0; i < least.length; i++) {
      if (!known(i)) continue;
      low = Math.min(low, least[i]);
      high = Math.max(high, most[i]);
    }
    return high - low;
  }
}
