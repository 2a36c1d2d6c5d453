package nocking.finding;

import java.util.List;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.element.Element;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.Value;
import nocking.sensor.Sensor;

/** The sensor output sags under its load: the ratio alone would be wrong. */
final class LoadingMatters implements Rule {

  private static final double MATTERS = 0.002;

  @Override
  public Stream<Finding> examine(Evidence e) {
    Channel c = e.channel();
    if (e.path().isEmpty() || c.sensor().sourceResistance().number() == 0) return Stream.empty();
    double at = c.definition().high().number();
    double loaded = e.path().get().at(at).nodes().getFirst().volts();
    double free = openCircuit(c, at);
    double sag = 1 - loaded / free;
    if (!(Math.abs(sag) > MATTERS)) return Stream.empty();
    return Stream.of(
        Finding.of(
            "loading",
            Severity.ADVICE,
            WorkStep.CONDITION,
            "Loading moves TP1 by %s %%".formatted(Numbers.significant(100 * Math.abs(sag), 2)),
            "At %s the sensor gives %s, not %s, through its %s. The equation counts this."
                .formatted(
                    e.amount(at),
                    Numbers.engineering(loaded, "V", 4),
                    Numbers.engineering(free, "V", 4),
                    Numbers.engineering(c.sensor().sourceResistance().number(), "Ω", 3))));
  }

  private static double openCircuit(Channel c, double at) {
    Sensor stiff = Element.with(c.sensor(), c.sensor().field("Rs"), Value.of(0));
    return SignalPath.of("x", stiff, List.of(), c.converter()).at(at).nodes().getFirst().volts();
  }
}
