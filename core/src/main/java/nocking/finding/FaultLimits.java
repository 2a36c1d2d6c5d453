package nocking.finding;

import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.fault.FaultMatrix;
import nocking.fault.FaultRow;
import nocking.fault.ThresholdProposal;
import nocking.prior.FaultKind;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.view.ChannelView;
import nocking.wiring.Thresholds;

/** The volts beyond which a reading can only be a fault: not settled yet, or in the wrong place. */
final class FaultLimits implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    return e.wiring().brokenWires().stream().flatMap(m -> limits(e, m));
  }

  private static Stream<Finding> limits(ChannelView e, FaultMatrix matrix) {
    ThresholdProposal proposal = matrix.thresholds();
    Thresholds set = e.channel().wiring().plan().thresholds();
    if (set == null && proposal.thresholds().isEmpty() && !proposal.hidden().isEmpty()) {
      return Stream.of(untellable(matrix, proposal));
    }
    if (set == null) {
      return proposal.thresholds().stream()
          .map(
              t ->
                  Finding.of(
                          "fault-limits",
                          Severity.ADVICE,
                          WorkStep.WIRE,
                          "Broken wires are detectable " + t.says(),
                          room(proposal) + untold(proposal))
                      .with(use(t)));
    }
    Span normal = matrix.band().volts();
    boolean cuts =
        set.low() != null && set.low().number() > normal.low()
            || set.high() != null && set.high().number() < normal.high();
    if (!cuts) return missed(e, matrix, proposal, set).stream();
    Finding f =
        Finding.of(
            "fault-limits-cut",
            Severity.WARNING,
            WorkStep.WIRE,
            "The fault thresholds cut into good readings",
            "A fault is taken %s; a sound channel gives %s to %s."
                .formatted(
                    set.says(),
                    Numbers.engineering(normal.low(), "V", 3),
                    Numbers.engineering(normal.high(), "V", 3)));
    return Stream.of(proposal.thresholds().map(t -> f.with(use(t))).orElse(f));
  }

  /**
   * Limits were taken for the design as it was then: what others would tell of the present one, and
   * these do not.
   */
  private static Optional<Finding> missed(
      ChannelView e, FaultMatrix matrix, ThresholdProposal proposal, Thresholds set) {
    if (proposal.thresholds().isEmpty()) return Optional.empty();
    double reference = e.channel().design().converter().reference().number();
    Thresholds better = proposal.thresholds().get();
    List<FaultRow> rows =
        matrix.rows().stream()
            .filter(r -> r.fault().kind() != FaultKind.NONE && !r.floating())
            .filter(r -> tells(better, r, reference) && !tells(set, r, reference))
            .toList();
    if (rows.isEmpty()) return Optional.empty();
    FaultRow worst = rows.getFirst();
    String shows =
        Double.isNaN(worst.shownAtRest())
            ? ""
            : " and shows " + e.design().amount(worst.shownAtRest());
    String others =
        rows.size() == 1
            ? ""
            : " So %s: %s."
                .formatted(
                    rows.size() == 2 ? "does" : "do",
                    rows.stream()
                        .skip(1)
                        .map(r -> r.fault().name())
                        .collect(Collectors.joining(", ")));
    return Optional.of(
        Finding.of(
                "fault-limits-miss",
                Severity.WARNING,
                WorkStep.WIRE,
                "The fault thresholds miss a broken wire",
                "%s gives %s%s, and a fault is taken %s.%s A fault %s would tell it."
                    .formatted(
                        worst.fault().line(),
                        Numbers.engineering(worst.volts().middle(), "V", 3),
                        shows,
                        set.says(),
                        others,
                        better.says()))
            .with(use(better)));
  }

  /** True where a reading of the fault lies beyond the limits wherever the quantity stands. */
  private static boolean tells(Thresholds t, FaultRow r, double reference) {
    boolean below = t.low() != null && r.volts().high() <= t.low().number();
    double seen = Math.min(reference, r.volts().low());
    return below || t.high() != null && seen >= t.high().number();
  }

  /** A finding of its own, since a reading that looks alive is worse than none. */
  private static Finding untellable(FaultMatrix matrix, ThresholdProposal p) {
    Span normal = matrix.band().volts();
    return Finding.of(
        "faults-untold",
        Severity.ADVICE,
        WorkStep.WIRE,
        "No broken wire is detectable",
        "Good readings take %s to %s; %s read the same or nothing certain. Leave room at both ends of the converter, or hold the input with a resistor."
            .formatted(
                Numbers.engineering(normal.low(), "V", 3),
                Numbers.engineering(normal.high(), "V", 3),
                p.hidden().stream().map(r -> r.fault().name()).collect(Collectors.joining(", "))));
  }

  private static Fix use(Thresholds t) {
    return new Fix("Use these", c -> c.wiring(w -> w.withPlan(w.plan().withThresholds(t))));
  }

  private static String room(ThresholdProposal p) {
    boolean both = !Double.isNaN(p.low()) && !Double.isNaN(p.high());
    String low = Numbers.engineering(p.low(), "V", 2);
    String high = Numbers.engineering(p.high(), "V", 2);
    if (both) return "They leave %s and %s to good readings.".formatted(low, high);
    return "It leaves %s to good readings.".formatted(Double.isNaN(p.low()) ? high : low);
  }

  private static String untold(ThresholdProposal p) {
    if (p.hidden().isEmpty()) return "";
    return " Undetectable by any threshold: %s."
        .formatted(
            p.hidden().stream().map(r -> r.fault().name()).collect(Collectors.joining(", ")));
  }
}
