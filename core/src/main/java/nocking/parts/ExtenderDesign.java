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

  /**
   * Networks for that resistance.
   *
   * @param perPart volts that may stand across one part; infinity where that is of no concern
   * @param most parts of a network, 1 to 6; a string of equal ones may have more
   */
  public static Candidates search(
      Assortment assortment, double highest, double fits, double total, double perPart, int most) {
    double wanted = resistance(highest, fits, total);
    Candidates found = Combination.search(assortment, wanted, most);
    List<Solution> solutions =
        found.solutions().stream()
            .map(s -> solution(s, s.parts().getFirst().network(), highest, fits, total))
            .filter(s -> volts(s, highest, fits) <= perPart)
            .toList();
    if (!solutions.isEmpty() || Double.isInfinite(perPart)) {
      return new Candidates(solutions, found.exact());
    }
    Candidates string =
        StringDesign.search(assortment, wanted, highest - fits, Double.MAX_VALUE, perPart, 1);
    return new Candidates(
        string.solutions().stream()
            .map(s -> solution(s, s.parts().getFirst().network(), highest, fits, total))
            .toList(),
        string.exact());
  }

  private static double volts(Solution s, double highest, double fits) {
    return (highest - fits) * s.parts().getFirst().network().highestShare();
  }

  private static Solution solution(
      Solution s, Network n, double highest, double fits, double total) {
    double amperes = fits / total;
    double across = (highest - fits) * n.highestShare();
    return new Solution(
        List.of(new Solution.Named("Rx", n)),
        s.value(),
        s.error(),
        s.worstCase(),
        amperes * amperes * n.ohms() * n.hottestShare(),
        "then %s fit, at most %s across one part"
            .formatted(
                Numbers.engineering(fits * (total + n.ohms()) / total, "V", 4),
                Numbers.engineering(across, "V", 3)),
        List.of(new SeriesResistor(new Value(n.ohms(), n.text()))));
  }
}
