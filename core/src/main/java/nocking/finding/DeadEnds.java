package nocking.finding;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.path.SignalPath;
import nocking.points.DeadZones;
import nocking.points.RawScale;
import nocking.points.ReferencePoint;
import nocking.quantity.Value;
import nocking.view.ChannelView;

/** The sensor does not answer at an end of what was applied, though its design does. */
final class DeadEnds implements Rule {
  /** Readings of which the scatter is the meter's own. */
  private static final int REPEATED = 3;

  /** Scatters that the design's own answer has to be above. */
  private static final double CLEAR = 10;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    Optional<RawScale> scale = e.design().path().flatMap(p -> e.calibration().scale());
    if (scale.isEmpty()) return Stream.empty();
    // In ohms a scatter of one decade is none of another.
    List<ReferencePoint> points =
        e.channel().calibration().points().counting().stream()
            .map(p -> inVolts(p, scale.get()))
            .filter(ReferencePoint::counts)
            .toList();
    double scatter =
        points.stream()
            .filter(p -> p.readings().size() >= REPEATED)
            .mapToDouble(p -> p.standardDeviation() / Math.sqrt(p.readings().size()))
            .average()
            .orElse(Double.NaN);
    if (Double.isNaN(scatter)) return Stream.empty();
    DeadZones zones = DeadZones.of(points, scatter);
    double first = points.stream().mapToDouble(p -> p.applied().number()).min().orElse(Double.NaN);
    double last = points.stream().mapToDouble(p -> p.applied().number()).max().orElse(Double.NaN);
    return Stream.concat(
        said(e, scatter, zones.bottom(), first, "below"),
        said(e, scatter, zones.top(), last, "above"));
  }

  private static ReferencePoint inVolts(ReferencePoint p, RawScale scale) {
    return p.withReadings(
        p.readings().stream()
            .map(v -> scale.volts(v.number()))
            .filter(Double::isFinite)
            .map(Value::of)
            .toList());
  }

  /**
   * @param scatter of a mean, in volts
   * @param from the outer end of what was applied
   */
  private static Stream<Finding> said(
      ChannelView e, double scatter, Optional<Double> end, double from, String side) {
    SignalPath path = e.design().path().orElseThrow();
    double least = Math.max(CLEAR * scatter, e.channel().design().converter().step());
    // What the design gives no difference for either is as it should be.
    return end.stream()
        .filter(x -> Math.abs(path.output(x) - path.output(from)) > least)
        .map(
            x ->
                Finding.of(
                    "dead-" + side,
                    Severity.WARNING,
                    WorkStep.COLLECT,
                    "It does not answer %s %s".formatted(side, e.design().amount(x)),
                    "Over there the readings are alike within their scatter: no curve can tell these inputs apart."
                        + " Move the probe, or let the range end there."));
  }
}
