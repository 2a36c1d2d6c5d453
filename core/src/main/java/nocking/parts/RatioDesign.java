package nocking.parts;

import java.util.List;
import nocking.quantity.QuantityException;

/**
 * Resistors for a ratio, as the gain R_f/R_g of an amplifier. Exact with two; with more, the one
 * above the line is combined from the others against a few usual ones below it. Values of a series
 * are steps of one ratio, so that two of them miss a gain by up to half a step.
 */
public final class RatioDesign {
  private static final double SMALLEST = 1e3;
  private static final double LARGEST = 2.2e6;

  private static final double[] USUAL = {1e3, 2.2e3, 4.7e3, 10e3, 22e3, 47e3};

  private RatioDesign() {}

  /**
   * The best resistors between 1 kΩ and 2.2 MΩ.
   *
   * @param over name of the resistor above the line
   * @param under name of the one below it
   * @param most single resistors that may be used, 2 to 5
   */
  public static Candidates search(
      Assortment assortment, String over, String under, double ratio, int most) {
    if (!(ratio > 0)) throw new QuantityException("a ratio of resistors must be above 0");
    var best = new Candidates.Best();
    int from = assortment.atLeast(SMALLEST);
    for (int j = from; j < assortment.size() && assortment.ohms(j) <= LARGEST; j++) {
      double r = assortment.ohms(j);
      int at = assortment.atLeast(r * ratio);
      int index = j;
      for (int i :
          Combination.beside(
              at,
              assortment.size(),
              k ->
                  assortment.enough(k, index)
                      && assortment.ohms(k) >= SMALLEST
                      && assortment.ohms(k) <= LARGEST)) {
        Network a = Network.of(assortment.part(i));
        offer(best, a, Network.of(assortment.part(j)), over, under, ratio);
      }
    }
    if (most > 2) combined(best, assortment, over, under, ratio, Math.min(most, 5) - 1);
    return best.candidates(most <= 2);
  }

  private static void combined(
      Candidates.Best best, Assortment a, String over, String under, double ratio, int most) {
    for (double usual : USUAL) {
      int j = a.atLeast(usual);
      if (j >= a.size()) continue;
      Network below = Network.of(a.part(j));
      Assortment rest = a.without(j);
      double wanted = below.ohms() * ratio;
      if (rest.size() == 0 || wanted < SMALLEST || wanted > LARGEST) continue;
      for (Solution s : Combination.search(rest, wanted, most).solutions()) {
        offer(best, s.parts().getFirst().network(), below, over, under, ratio);
      }
    }
  }

  private static void offer(
      Candidates.Best best, Network a, Network b, String over, String under, double ratio) {
    double made = a.ohms() / b.ohms();
    double error = made / ratio - 1;
    if (!best.wants(error)) return;
    double up = a.limit(1) / b.limit(-1) / ratio - 1;
    double down = a.limit(-1) / b.limit(1) / ratio - 1;
    best.offer(
        new Solution(
            List.of(new Solution.Named(over, a), new Solution.Named(under, b)),
            made,
            error,
            Math.max(Math.abs(up), Math.abs(down)),
            Double.NaN,
            "",
            List.of()));
  }
}
