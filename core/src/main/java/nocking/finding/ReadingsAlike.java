package nocking.finding;

import java.util.List;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.points.ReferencePoint;
import nocking.quantity.Numbers;
import nocking.view.ChannelView;

/** Different inputs were applied and the readings did not follow. */
final class ReadingsAlike implements Rule {

  /** Share of the change that the design expects below which nothing has followed. */
  private static final double FOLLOWED = 0.02;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    List<ReferencePoint> points = e.channel().calibration().points().counting();
    boolean told = e.design().path().isPresent() && e.calibration().scale().isPresent();
    if (!told || points.size() < 2) return Stream.empty();
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    double least = Double.POSITIVE_INFINITY;
    double most = Double.NEGATIVE_INFINITY;
    for (ReferencePoint p : points) {
      double expected = e.design().path().get().at(p.applied().number()).output();
      low = Math.min(low, e.calibration().volts(p));
      high = Math.max(high, e.calibration().volts(p));
      if (Double.isNaN(expected)) continue;
      least = Math.min(least, expected);
      most = Math.max(most, expected);
    }
    double step = e.design().path().get().converter().step();
    if (!(most - least > 10 * step) || high - low > Math.max(2 * step, FOLLOWED * (most - least))) {
      return Stream.empty();
    }
    return Stream.of(
        Finding.of(
            "readings-alike",
            Severity.WARNING,
            WorkStep.COLLECT,
            "All %d readings are alike".formatted(points.size()),
            "They stay within %s of %s; the design expects %s to %s. The signal does not follow: look for a dead sensor, a clipped stage or an open wire."
                .formatted(
                    Numbers.engineering(high - low, "V", 2),
                    Numbers.engineering((low + high) / 2, "V", 4),
                    Numbers.engineering(least, "V", 3),
                    Numbers.engineering(most, "V", 3))));
  }
}
