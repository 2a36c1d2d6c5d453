package nocking.parts;

import java.util.Comparator;
import java.util.List;
import java.util.function.ToDoubleFunction;
import nocking.quantity.Numbers;

/**
 * What a single part of a network may bear.
 *
 * @param watts infinite for no limit
 * @param volts infinite for no limit
 */
public record PartLimit(double watts, double volts) {
  public static final PartLimit NONE =
      new PartLimit(Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY);

  /** A limit of the power alone. */
  public static PartLimit ofWatts(double watts) {
    return new PartLimit(watts, Double.POSITIVE_INFINITY);
  }

  public boolean isNone() {
    return equals(NONE);
  }

  /** True where no part of a network takes more with a current through the whole. */
  public boolean holds(Network n, double amperes) {
    return hottest(n, amperes) <= watts && highest(n, amperes) <= volts;
  }

  /** True where neither of two single resistors takes more. */
  boolean holds(double r1, double r2, double amperes) {
    double most = Math.max(r1, r2);
    return amperes * amperes * most <= watts && amperes * most <= volts;
  }

  /** Watts in the hottest part. */
  public static double hottest(Network n, double amperes) {
    return amperes * amperes * n.ohms() * n.hottestShare();
  }

  /** Volts across the part that bears the most. */
  static double highest(Network n, double amperes) {
    return Math.abs(amperes) * n.ohms() * n.highestShare();
  }

  /**
   * What would do instead, among solutions that were found without a limit; empty where none was.
   *
   * @param amperes through the parts of each solution
   */
  public String instead(List<Solution> free, ToDoubleFunction<Solution> amperes) {
    if (free.isEmpty()) return "";
    // Among those that come as near as the best, the one whose hottest part stays coolest.
    double near = Math.abs(free.getFirst().error()) + 1e-9;
    Solution s =
        free.stream()
            .filter(f -> Math.abs(f.error()) <= near)
            .min(Comparator.comparingDouble(f -> hottest(f, amperes.applyAsDouble(f))))
            .orElseThrow();
    double i = amperes.applyAsDouble(s);
    double least = hottest(s, i);
    double across = s.parts().stream().mapToDouble(p -> highest(p.network(), i)).max().orElse(0);
    String power =
        least > watts
            ? "%s: %s is needed"
                .formatted(PartSize.saysWatts(least), Numbers.engineering(least, "W", 2))
            : "";
    String voltage =
        across > volts
            ? "%s: %s stand across it"
                .formatted(PartSize.saysVolts(across), Numbers.engineering(across, "V", 3))
            : "";
    return power.isEmpty() || voltage.isEmpty() ? power + voltage : power + "; " + voltage;
  }

  private static double hottest(Solution s, double amperes) {
    return s.parts().stream().mapToDouble(p -> hottest(p.network(), amperes)).max().orElse(0);
  }
}
