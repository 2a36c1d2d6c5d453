package nocking.finding;

import java.util.ArrayList;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.check.CheckTable.Measured;
import nocking.points.RawUnit;
import nocking.view.ChannelView;

/**
 * Points or a check were read at the sensor itself, in ohms or milliamperes: what the circuit
 * behind it really does is not in them.
 */
final class SensorAlone implements Rule {
  @Override
  public Stream<Finding> examine(ChannelView e) {
    var list = new ArrayList<Finding>();
    points(e).ifPresent(list::add);
    check(e).ifPresent(list::add);
    return list.stream();
  }

  private static Optional<Finding> points(ChannelView e) {
    Channel c = e.channel();
    RawUnit raw = c.calibration().points().raw();
    if (!raw.ofSensor() || c.calibration().points().counting().isEmpty()) return Optional.empty();
    if (e.design().path().isEmpty()) {
      return Optional.of(
          Finding.of(
              "points-without-path",
              Severity.WARNING,
              WorkStep.CONDITION,
              "The points in %s stand for no volts yet".formatted(raw.title()),
              "They are worked through the stages as designed, and the design cannot be worked"
                  + " out. Nothing is fitted until it can."));
    }
    if (e.calibration().scale().isEmpty()) {
      return Optional.of(
          Finding.of(
              "points-other-signal",
              Severity.STOP,
              WorkStep.COLLECT,
              "The points are in %s, and the sensor gives %s"
                  .formatted(raw.title(), c.design().sensor().signal().says()),
              "They are of another sensor, or the sensor was exchanged since. They count for"
                  + " nothing here."));
    }
    return Optional.of(
        Finding.of(
            "points-of-sensor",
            Severity.ADVICE,
            WorkStep.COLLECT,
            "The points are of the sensor alone, in " + raw.title(),
            "They are worked through the stages as designed: what parts, wires and reference really"
                + " are is not in them. Check a few inputs in volts, or on the display."));
  }

  private static Optional<Finding> check(ChannelView e) {
    Measured as = e.channel().acceptance().check().measured();
    if (!as.ofSensor() || e.acceptance().measured() == 0) return Optional.empty();
    boolean tells = as.raw().flatMap(e.calibration()::scaleOf).isPresent();
    return Optional.of(
        tells
            ? Finding.of(
                "check-of-sensor",
                Severity.ADVICE,
                WorkStep.CHECK,
                "The check is of the sensor alone, in " + as.title(),
                "It says nothing of the parts and wires behind it: they are taken as designed.")
            : Finding.of(
                "check-tells-nothing",
                Severity.WARNING,
                WorkStep.CHECK,
                "A check in %s tells nothing here".formatted(as.title()),
                "The curve was measured behind the circuit, or the sensor gives something else."
                    + " Check in volts, in counts or on the display."));
  }
}
