package nocking.finding;

import java.util.List;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.points.ReferencePoint;
import nocking.view.ChannelView;

/** The same input reads differently on the way up and on the way down, by more than is allowed. */
final class UpAndDown implements Rule {
  /** Share of the range within which two hits are of one set point. */
  private static final double NEAR = 0.01;

  private static double departure(ChannelView e, ReferencePoint p) {
    return e.design().path().orElseThrow().quantity(e.calibration().volts(p))
        - p.applied().number();
  }

  @Override
  public Stream<Finding> examine(ChannelView e) {
    double tolerance = e.channel().definition().toleranceOrNaN();
    if (e.design().path().isEmpty() || Double.isNaN(tolerance)) return Stream.empty();
    List<ReferencePoint> all = e.channel().calibration().points().points();
    // A set point is hardly ever hit twice: what lies between the two hits is taken off.
    double near = NEAR * e.channel().definition().working().width();
    double worst = 0;
    int at = -1;
    for (int i = 0; i < all.size(); i++) {
      ReferencePoint down = all.get(i);
      if (!down.counts() || !down.down()) continue;
      for (ReferencePoint up : all) {
        boolean pair = up.counts() && !up.down();
        if (!pair || Math.abs(up.applied().number() - down.applied().number()) > near) continue;
        double apart = departure(e, down) - departure(e, up);
        if (Double.isFinite(apart) && Math.abs(apart) > Math.abs(worst)) {
          worst = apart;
          at = i;
        }
      }
    }
    if (at < 0 || Math.abs(worst) <= tolerance) return Stream.empty();
    return Stream.of(
        Finding.of(
                "hysteresis",
                Severity.WARNING,
                WorkStep.COLLECT,
                "Up and down are %s apart".formatted(e.design().error(Math.abs(worst))),
                "At %s the reading depends on where one comes from, by more than the tolerance of %s: no single curve fits both ways."
                    .formatted(
                        e.design().amount(all.get(at).applied().number()),
                        e.design().error(tolerance)))
            .at(at));
  }
}
