package nocking.tolerance;

import java.util.Arrays;

/**
 * What the draws of a Monte Carlo run say of the error at one input, channel's unit.
 *
 * @param low start of the interval that holds 95 % of the draws, as many below as above
 * @param high its end
 */
public record Sampled(double mean, double sd, double low, double high) {

  /** Statistics of draws (JCGM 101:2008, 7.6 and 7.7.1); the array is sorted by this. */
  static Sampled of(double[] draws) {
    Arrays.sort(draws);
    int n = draws.length;
    // A draw for which the equation has no value sorts to the end as NaN and makes all of it NaN.
    double mean = Arrays.stream(draws).average().orElse(Double.NaN);
    double squares = 0;
    for (double d : draws) squares += (d - mean) * (d - mean);
    return new Sampled(
        mean, Math.sqrt(squares / (n - 1)), quantile(draws, 0.025), quantile(draws, 0.975));
  }

  private static double quantile(double[] sorted, double p) {
    double at = p * (sorted.length - 1);
    int i = (int) at;
    if (i + 1 >= sorted.length) return sorted[sorted.length - 1];
    return sorted[i] + (at - i) * (sorted[i + 1] - sorted[i]);
  }
}
