package nocking.parts;

import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
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
   * @param part what one part may bear
   * @param most parts of a network, 1 to 6; a string of equal ones may have more
   */
  public static Candidates search(
      Assortment assortment, double highest, double fits, double total, PartLimit part, int most) {
    double wanted = resistance(highest, fits, total);
    Candidates found = Combination.search(assortment, wanted, most, part, fits / total);
    List<Solution> solutions =
        found.solutions().stream()
            .filter(s -> part.holds(s.parts().getFirst().network(), amperes(s, highest, fits)))
            .map(s -> solution(s, s.parts().getFirst().network(), highest, fits, total))
            .toList();
    if (part.isNone()) return new Candidates(solutions, found.exact());
    Candidates string =
        StringDesign.search(
            assortment,
            wanted,
            highest - fits,
            Math.min(part.watts(), Double.MAX_VALUE),
            Math.min(part.volts(), Double.MAX_VALUE),
            1);
    // Few parts that miss the value are no better than a string that meets it.
    List<Solution> both =
        Stream.concat(
                solutions.stream(),
                string.solutions().stream()
                    .map(s -> solution(s, s.parts().getFirst().network(), highest, fits, total)))
            .sorted(
                Comparator.comparingDouble((Solution s) -> Math.abs(s.error()))
                    .thenComparing(Solution::count))
            .limit(Candidates.SHOWN)
            .toList();
    return new Candidates(both, found.exact());
  }

  /**
   * What would do where one part may not bear what is needed; empty where that is not why nothing
   * was found.
   */
  public static String instead(
      Assortment assortment, double highest, double fits, double total, PartLimit part, int most) {
    if (part.isNone()) return "";
    return part.instead(
        search(assortment, highest, fits, total, PartLimit.NONE, most).solutions(),
        s -> amperes(s, highest, fits));
  }

  /** Through the extender while the divider behind it stands at what it takes. */
  private static double amperes(Solution s, double highest, double fits) {
    return (highest - fits) / s.parts().getFirst().network().ohms();
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
