package nocking.finding;

import java.util.Comparator;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.quantity.Numbers;
import nocking.quantity.Sentence;
import nocking.tolerance.BudgetPoint;
import nocking.tolerance.Errors;
import nocking.tolerance.Share;
import nocking.view.ChannelView;

/** The parts allow a larger error than the tolerance of the channel. */
final class ToleranceMatters implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    double tolerance = e.channel().definition().toleranceOrNaN();
    if (Double.isNaN(tolerance) || e.design().budget().isEmpty()) return Stream.empty();
    BudgetPoint worst =
        e.design().budget().stream()
            .max(Comparator.comparingDouble(p -> p.before().worstCase()))
            .orElseThrow();
    boolean parts = worst.before().ranking().stream().anyMatch(s -> s.owner().isPresent());
    if (!parts || worst.before().worstCase() <= tolerance) return Stream.empty();
    double after =
        e.design().budget().stream().mapToDouble(p -> p.after().worstCase()).max().orElseThrow();
    boolean helps = after <= tolerance;
    Errors seen = helps ? worst.before() : largestAfter(e).after();
    Share first = seen.ranking().getFirst();
    String headline =
        "%s matters most: %s %% of the %s error"
            .formatted(
                Sentence.capital(first.name()),
                Numbers.fixed(100 * first.share(), 0),
                helps ? "uncalibrated" : "calibrated");
    String detail =
        helps
            ? "The parts allow ±%s at %s against ±%s; a two-point calibration leaves ±%s."
                .formatted(
                    amount(e, worst.before().worstCase()),
                    e.design().amount(worst.quantity()),
                    amount(e, tolerance),
                    e.design().error(after))
            : "Even after a two-point calibration ±%s may be left, against ±%s: drift, resolution and the reference stay."
                .formatted(amount(e, after), amount(e, tolerance));
    Finding f =
        Finding.of(
            "tolerance",
            helps ? Severity.ADVICE : Severity.WARNING,
            WorkStep.CONDITION,
            headline,
            detail);
    return Stream.of(first.owner().map(o -> f.at(o.element() - 1)).orElse(f));
  }

  /** Three digits, so that an error just beyond the tolerance does not look like it. */
  private static String amount(ChannelView e, double v) {
    return (Numbers.trimmed(v, 3) + " " + e.channel().definition().unit()).strip();
  }

  private static BudgetPoint largestAfter(ChannelView e) {
    return e.design().budget().stream()
        .max(Comparator.comparingDouble(p -> p.after().worstCase()))
        .orElseThrow();
  }
}
