package nocking.finding;

import java.util.OptionalDouble;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.Definition;
import nocking.channel.WorkStep;
import nocking.element.Signal;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.view.ChannelView;
import nocking.wiring.Pin;

/**
 * The voltage that was measured at rest fits the other kind of pressure: a gauge sensor at rest
 * reads nothing, an absolute one the atmosphere.
 */
final class RestReading implements Rule {
  private static final double AGREES = 0.03;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    Channel c = e.channel();
    Definition d = c.definition();
    if (d.gauge() == null
        || e.design().path().isEmpty()
        || c.design().sensor().signal() != Signal.VOLTAGE) {
      return Stream.empty();
    }
    OptionalDouble measured =
        c.wiring().plan().pins().stream()
            .filter(p -> p.function() == Pin.Function.SIGNAL && p.measured() != null)
            .mapToDouble(p -> p.measured().number())
            .findFirst();
    if (measured.isEmpty() || !c.unit().dimension().equals(Unit.of("kPa").dimension())) {
      return Stream.empty();
    }
    double atmosphere =
        Unit.of("kPa").convert(c.design().surroundings().atmosphere().number(), c.unit());
    double expected = d.gauge() ? 0 : atmosphere;
    double other = d.gauge() ? atmosphere : 0;
    double near = AGREES * Math.max(d.working().width(), atmosphere);
    SignalPath path = e.design().path().get();
    double seen = measured.getAsDouble();
    boolean fits = Math.abs(seen - first(path, expected)) <= perUnit(path, near);
    boolean fitsOther = Math.abs(seen - first(path, other)) <= perUnit(path, near);
    if (fits || !fitsOther) return Stream.empty();
    return Stream.of(
        Finding.of(
                "gauge-at-rest",
                Severity.WARNING,
                WorkStep.DEFINE,
                "Gauge or absolute?",
                "At rest the meter showed %s; a%s sensor would show %s, a%s one %s."
                    .formatted(
                        Numbers.engineering(seen, "V", 3),
                        d.gauge() ? " gauge" : "n absolute",
                        Numbers.engineering(first(path, expected), "V", 3),
                        d.gauge() ? "n absolute" : " gauge",
                        Numbers.engineering(first(path, other), "V", 3)))
            .with(
                new Fix(
                    d.gauge() ? "It is absolute" : "It is gauge",
                    ch -> ch.define(k -> k.withGauge(!k.gauge())))));
  }

  private static double first(SignalPath path, double x) {
    return path.at(x).nodes().getFirst().value();
  }

  private static double perUnit(SignalPath path, double amount) {
    return Math.abs(first(path, amount) - first(path, 0));
  }
}
