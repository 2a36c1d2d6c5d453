package nocking.fit;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import nocking.quantity.Numbers;

/**
 * Which model to take: the simplest whose error on points it has not seen stays inside the
 * tolerance; without a tolerance, or when none does, the one with the least such error. Models with
 * equally many constants are told apart by AICc.
 *
 * @param reason one sentence with the numbers
 */
public record Recommendation(String model, String reason) {

  /**
   * @param fits judged models in any order
   * @param tolerance in the quantity, above 0; NaN when none is stated
   * @param unit of the quantity, for the sentence
   */
  public static Optional<Recommendation> of(List<Fit> fits, double tolerance, String unit) {
    List<Fit> judged = fits.stream().filter(f -> !Double.isNaN(f.leaveOneOut())).toList();
    if (judged.isEmpty()) return Optional.empty();
    Comparator<Fit> simplest =
        Comparator.<Fit>comparingInt(Fit::constants)
            .thenComparingDouble(f -> Double.isNaN(f.aicc()) ? f.rms() : f.aicc());
    Optional<Fit> good = judged.stream().filter(f -> f.leaveOneOut() <= tolerance).min(simplest);
    Fit best = judged.stream().min(Comparator.comparingDouble(Fit::leaveOneOut)).orElseThrow();
    if (good.isPresent()) {
      return Optional.of(
          new Recommendation(good.get().model(), goodReason(good.get(), best, tolerance, unit)));
    }
    String why =
        Double.isNaN(tolerance)
            ? "%s has the least error on points it has not seen, %s; no tolerance is stated."
                .formatted(best.curve().title(), amount(best.leaveOneOut(), unit))
            : "No model stays within %s on points it has not seen; %s comes closest with %s."
                .formatted(
                    amount(tolerance, unit),
                    best.curve().title(),
                    amount(best.leaveOneOut(), unit));
    return Optional.of(new Recommendation(best.model(), why));
  }

  private static String goodReason(Fit good, Fit best, double tolerance, String unit) {
    String head =
        "Simplest that is good enough: %s. It leaves %s on a point it has not seen, within %s."
            .formatted(
                good.curve().title(), amount(good.leaveOneOut(), unit), amount(tolerance, unit));
    return best == good
        ? head
        : head
            + " %s would leave %s."
                .formatted(best.curve().title(), amount(best.leaveOneOut(), unit));
  }

  private static String amount(double v, String unit) {
    return (Numbers.significant(v, 2) + " " + unit).strip();
  }
}
