package nocking.fit;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import nocking.quantity.Numbers;

/**
 * Which model to take: the simplest whose error on points it has not seen stays inside the
 * tolerance; without a tolerance the simplest that more constants would hardly better, and where
 * none holds the tolerance the one with the least such error. Models with equally many constants
 * are told apart by AICc. A curve that turns back over the points is no candidate.
 *
 * @param holds false where no model holds the tolerance: the one that comes closest is no advice
 * @param reason the numbers that decide, in words
 */
public record Recommendation(String model, boolean holds, String reason) {
  /** What more constants must save before they are worth it. */
  private static final double WORTH = 0.7;

  /** What is smaller is that of the arithmetic, in whatever unit. */
  private static final double ROUNDING = 1e-12;

  /** Constants up to which a model can say that a point is wrong, and not the model. */
  private static final int SIMPLE = 2;

  /** Points between which a lone one stands out, and can be looked for one by one. */
  private static final int FEWEST = 4;

  private static final int MOST = 200;

  /** Share of the quantity's span below which errors are those of the arithmetic. */
  private static final double NOTHING = 1e-9;

  /**
   * @param fits judged models in any order
   * @param tolerance in the quantity, above 0; NaN when none is stated
   * @param unit of the quantity, for the sentence
   */
  public static Optional<Recommendation> of(List<Fit> fits, double tolerance, String unit) {
    List<Fit> judged = fits.stream().filter(f -> !Double.isNaN(f.leaveOneOut())).toList();
    List<Fit> usable = judged.stream().filter(Fit::monotone).toList();
    if (!usable.isEmpty()) judged = usable;
    if (judged.isEmpty()) return Optional.empty();
    Comparator<Fit> simplest =
        Comparator.comparingInt(Fit::constants)
            .thenComparingDouble(f -> Double.isNaN(f.aicc()) ? f.rms() : f.aicc());
    Fit best = judged.stream().min(Comparator.comparingDouble(Fit::leaveOneOut)).orElseThrow();
    double enough = Double.isNaN(tolerance) ? enough(best) : tolerance;
    Optional<Fit> good = judged.stream().filter(f -> f.leaveOneOut() <= enough).min(simplest);
    if (good.isEmpty()) {
      String why =
          "No model stays within %s on points it has not seen; %s comes closest with %s."
              .formatted(
                  amount(tolerance, unit), best.curve().title(), amount(best.leaveOneOut(), unit));
      return Optional.of(new Recommendation(best.model(), false, why));
    }
    return Optional.of(
        new Recommendation(good.get().model(), true, reason(good.get(), judged, tolerance, unit)));
  }

  /**
   * The same with the points at hand: where no model holds the tolerance, whether one would but for
   * a single point, which is named and not left out.
   */
  public static Optional<Recommendation> of(
      List<Fit> fits, Samples samples, double tolerance, String unit) {
    return of(fits, tolerance, unit)
        .map(
            r -> {
              if (r.holds || samples.size() < FEWEST || samples.size() > MOST) return r;
              String but = but(fits, samples, tolerance, unit);
              return but.isEmpty() ? r : new Recommendation(r.model, false, r.reason + but);
            });
  }

  /** What a simple model leaves without the one point that stands in its way; empty for none. */
  private static String but(List<Fit> fits, Samples samples, double tolerance, String unit) {
    for (Fit f : fits) {
      if (f.constants() > SIMPLE || f.unseen().length != samples.size()) continue;
      int point = -1;
      double left = 0;
      for (int i = 0; i < samples.size(); i++) {
        double worst = withoutPoint(f, samples, i);
        if (!(worst <= tolerance)) continue;
        // Where one of several could be the culprit nobody is.
        if (point >= 0) return "";
        point = i;
        left = worst;
      }
      if (point >= 0) {
        return " Without the point at %s %s would leave %s."
            .formatted(
                (Numbers.trimmed(samples.quantity()[point], 5) + " " + unit).strip(),
                f.curve().title(),
                amount(left, unit));
      }
    }
    return "";
  }

  /** Worst error of a model at the points that are left, fitted to them; NaN where it cannot be. */
  private static double withoutPoint(Fit f, Samples samples, int point) {
    if (f.constants() == 0) {
      double worst = 0;
      for (int i = 0; i < f.errors().length; i++) {
        if (i != point) worst = Math.max(worst, Math.abs(f.errors()[i]));
      }
      return worst;
    }
    try {
      return FitModel.of(f.model())
          .map(m -> m.fit(samples.without(point)).worstError())
          .orElse(Double.NaN);
    } catch (FitException e) {
      return Double.NaN;
    }
  }

  /** What is as good as the best: a little more, and whatever is rounding. */
  private static double enough(Fit best) {
    return Math.max(best.leaveOneOut() / WORTH, NOTHING * best.span());
  }

  private static String reason(Fit good, List<Fit> judged, double tolerance, String unit) {
    var text = new StringBuilder();
    String unseen = amount(good.leaveOneOut(), unit);
    if (Double.isNaN(tolerance)) {
      text.append(
          "%s leaves %s on a point it has not seen; no tolerance is stated."
              .formatted(good.curve().title(), unseen));
    } else {
      text.append(
          "Simplest that is good enough: %s. It leaves %s on a point it has not seen, within %s."
              .formatted(good.curve().title(), unseen, amount(tolerance, unit)));
    }
    simpler(good, judged)
        .ifPresent(
            f ->
                text.append(
                    " %s would leave %s, at %s."
                        .formatted(
                            f.curve().title(),
                            amount(f.leaveOneOut(), unit),
                            amount(f.unseenAt(), unit))));
    Optional<Fit> more =
        judged.stream()
            .filter(f -> f.constants() > good.constants())
            .min(Comparator.comparingDouble(Fit::leaveOneOut));
    more.ifPresent(
        f ->
            text.append(
                f.leaveOneOut() < WORTH * good.leaveOneOut()
                    ? " %s would leave %s."
                        .formatted(f.curve().title(), amount(f.leaveOneOut(), unit))
                    : " More constants gain nothing."));
    return text.toString();
  }

  /** The best of those that have fewer constants. */
  private static Optional<Fit> simpler(Fit good, List<Fit> judged) {
    return judged.stream()
        .filter(f -> f.constants() > 0 && f.constants() < good.constants())
        .min(Comparator.comparingDouble(Fit::leaveOneOut));
  }

  private static String amount(double v, String unit) {
    return ((v < ROUNDING ? "0" : Numbers.significant(v, 2)) + " " + unit).strip();
  }
}
