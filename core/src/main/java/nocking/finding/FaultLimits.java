package nocking.finding;

import java.util.stream.Collectors;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.fault.FaultMatrix;
import nocking.fault.ThresholdProposal;
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
    if (!cuts) return Stream.empty();
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
