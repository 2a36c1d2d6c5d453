package nocking.finding;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.points.DeadZones;
import nocking.points.ReferencePoint;
import nocking.view.ChannelView;

/** The sensor does not answer at an end of what was applied, though its design does. */
final class DeadEnds implements Rule {
  /** Readings of which the scatter is the meter's own. */
  private static final int REPEATED = 3;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    List<ReferencePoint> points = e.channel().calibration().points().counting();
    double scatter =
        points.stream()
            .filter(p -> p.readings().size() >= REPEATED)
            .mapToDouble(p -> p.standardDeviation() / Math.sqrt(p.readings().size()))
            .average()
            .orElse(Double.NaN);
    if (e.design().path().isEmpty() || Double.isNaN(scatter)) return Stream.empty();
    DeadZones zones = DeadZones.of(points, scatter);
    return Stream.concat(said(e, zones.bottom(), "below"), said(e, zones.top(), "above"));
  }

  private static Stream<Finding> said(ChannelView e, Optional<Double> end, String side) {
    return end.stream()
        .map(
            x ->
                Finding.of(
                    "dead-" + side.toLowerCase(Locale.ROOT),
                    Severity.WARNING,
                    WorkStep.COLLECT,
                    "It does not answer %s %s".formatted(side, e.design().amount(x)),
                    "Up to there the readings are alike within their scatter: no curve can tell these inputs apart."
                        + " Move the probe, or let the range end there."));
  }
}
