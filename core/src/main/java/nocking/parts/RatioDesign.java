package nocking.parts;

import java.util.List;
import nocking.quantity.QuantityException;

/** Two resistors for a ratio, as the gain R_f/R_g of an amplifier. Exact. */
public final class RatioDesign {
  private static final double SMALLEST = 1e3;
  private static final double LARGEST = 2.2e6;

  private RatioDesign() {}

  /**
   * The best pairs with both resistors between 1 kΩ and 2.2 MΩ.
   *
   * @param over name of the resistor above the line
   * @param under name of the one below it
   */
  public static Design search(Assortment assortment, String over, String under, double ratio) {
    if (!(ratio > 0)) throw new QuantityException("a ratio of resistors must be above 0");
    var best = new Design.Best();
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
        offer(best, assortment.part(i), assortment.part(j), over, under, ratio);
      }
    }
    return best.design(true);
  }

  private static void offer(
      Design.Best best, StockPart a, StockPart b, String over, String under, double ratio) {
    double made = a.ohms() / b.ohms();
    double error = made / ratio - 1;
    if (!best.wants(error)) return;
    double up = (1 + a.tolerance() / 100) / (1 - b.tolerance() / 100) * (1 + error) - 1;
    double down = (1 - a.tolerance() / 100) / (1 + b.tolerance() / 100) * (1 + error) - 1;
    best.offer(
        new Solution(
            List.of(
                new Solution.Named(over, Network.of(a)), new Solution.Named(under, Network.of(b))),
            made,
            error,
            Math.max(Math.abs(up), Math.abs(down)),
            Double.NaN,
            "",
            List.of()));
  }
}
