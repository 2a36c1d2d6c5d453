package nocking.parts;

import java.util.List;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;
import nocking.stage.SeriesResistor;

/**
 * A resistor in series with a divider that is already there, so that a higher voltage fits: R_x =
 * (V_x − V_max)/I_max with I_max = V_max/(R₁ + R₂).
 */
public final class ExtenderDesign {
  private ExtenderDesign() {}

  /**
   * @param highest V_x, volts that shall fit
   * @param fits V_max, volts that the divider takes now
   * @param total R₁ + R₂ of the divider, ohms
   */
  public static double resistance(double highest, double fits, double total) {
    if (!(fits > 0) || !(highest > fits) || !(total > 0)) {
      throw new QuantityException(
          "an extender needs a voltage above the %s V that fit now, and a divider above 0 Ω"
              .formatted(Value.of(fits).typed()));
    }
    return (highest - fits) * total / fits;
  }

  /** Networks for that resistance; {@code most} parts, 1 to 6. */
  public static Design search(
      Assortment assortment, double highest, double fits, double total, int most) {
    double wanted = resistance(highest, fits, total);
    Design found = Combination.search(assortment, wanted, most);
    double amperes = fits / total;
    List<Solution> solutions =
        found.solutions().stream()
            .map(
                s -> {
                  Network n = s.parts().getFirst().network();
                  return new Solution(
                      List.of(new Solution.Named("Rx", n)),
                      s.value(),
                      s.error(),
                      s.worstCase(),
                      amperes * amperes * n.ohms() * n.hottestShare(),
                      "then %s fit"
                          .formatted(
                              Numbers.engineering(fits * (total + n.ohms()) / total, "V", 4)),
                      List.of(new SeriesResistor(new Value(n.ohms(), n.text()))));
                })
            .toList();
    return new Design(solutions, found.exact());
  }
}
