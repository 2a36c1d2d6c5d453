package nocking.placement;

import java.util.function.DoubleFunction;

/**
 * What points leave between them, in the quantity.
 *
 * @param misfit what the model cannot follow, at its worst
 * @param band what the scatter of the readings leaves for 95 %, at its worst
 * @param worst most that both together can come to
 * @param at where that is
 */
public record Leaves(double misfit, double band, double worst, double at) {
  /** Standard deviations of a band for 95 % (normal distribution). */
  static final double COVERAGE = 1.96;

  /** Too few points: anything may be left. */
  static final Leaves NOTHING_KNOWN =
      new Leaves(
          Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY, Double.NaN);

  /**
   * @param both misfit and band at a quantity
   */
  static Leaves worst(Nominal n, DoubleFunction<double[]> both) {
    double misfit = 0;
    double band = 0;
    double worst = -1;
    double at = Double.NaN;
    for (double q : n.looks()) {
      double[] m = both.apply(q);
      misfit = Math.max(misfit, Math.abs(m[0]));
      band = Math.max(band, m[1]);
      if (Math.abs(m[0]) + m[1] > worst) {
        worst = Math.abs(m[0]) + m[1];
        at = q;
      }
    }
    return new Leaves(misfit, band, worst, at);
  }
}
