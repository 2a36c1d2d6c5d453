package nocking.tolerance;

import java.util.Arrays;

/**
 * What the draws of a Monte Carlo run say of the error at one input, channel's unit. A draw for
 * which the equation has no value, such as a part that no circuit could hold, is left out and does
 * not empty the statistics; they are NaN when fewer than two are left.
 *
 * @param low start of the interval that holds 95 % of the draws, as many below as above
 * @param high its end
 */
public record Sampled(double mean, double sd, double low, double high) {

  /** Statistics of draws (JCGM 101:2008, 7.6 and 7.7.1); the array is put in another order. */
  static Sampled of(double[] draws) {
    double[] known = draws;
    if (Arrays.stream(draws).anyMatch(Double::isNaN)) {
      known = Arrays.stream(draws).filter(d -> !Double.isNaN(d)).toArray();
    }
    return ofKnown(known);
  }

  private static Sampled ofKnown(double[] draws) {
    int n = draws.length;
    if (n < 2) return new Sampled(Double.NaN, Double.NaN, Double.NaN, Double.NaN);
    double sum = 0;
    for (double d : draws) sum += d;
    double mean = sum / n;
    double squares = 0;
    for (double d : draws) squares += (d - mean) * (d - mean);
    double sd = Math.sqrt(squares / (n - 1));
    return new Sampled(mean, sd, quantile(draws, 0.025), quantile(draws, 0.975));
  }

  private static double quantile(double[] draws, double p) {
    double at = p * (draws.length - 1);
    int i = (int) at;
    select(draws, i);
    double here = draws[i];
    if (i + 1 >= draws.length) return here;
    double next = Double.POSITIVE_INFINITY;
    for (int j = i + 1; j < draws.length; j++) next = Math.min(next, draws[j]);
    return here + (at - i) * (next - here);
  }

  /**
   * Puts the k-th smallest at its place, the smaller ones before it and the larger ones behind
   * (Hoare, "Algorithm 65: Find", Comm. ACM 4, 1961): two quantiles need no whole sort.
   */
  private static void select(double[] a, int k) {
    int low = 0;
    int high = a.length - 1;
    while (low < high) {
      double pivot = a[k];
      int i = low;
      int j = high;
      while (i <= j) {
        while (a[i] < pivot) i++;
        while (a[j] > pivot) j--;
        if (i <= j) {
          double t = a[i];
          a[i++] = a[j];
          a[j--] = t;
        }
      }
      if (j < k) low = i;
      if (k < i) high = j;
    }
  }
}
