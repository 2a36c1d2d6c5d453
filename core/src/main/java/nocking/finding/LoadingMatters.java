package nocking.finding;

import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.element.Signal;
import nocking.quantity.Numbers;
import nocking.quantity.Span;

/** The sensor output sags under its load: the ratio alone would be wrong. */
final class LoadingMatters implements Rule {

  private static final double MATTERS = 0.002;

  @Override
  public Stream<Finding> examine(Evidence e) {
    Channel c = e.channel();
    if (e.path().isEmpty() || c.sensor().signal() != Signal.VOLTAGE) return Stream.empty();
    double at = worst(e);
    double loaded = e.path().get().at(at).nodes().getFirst().value();
    double free = e.sensorCurve().orElseThrow().at(at);
    double sag = 1 - loaded / free;
    if (!(Math.abs(sag) > MATTERS)) return Stream.empty();
    return Stream.of(
        Finding.of(
            "loading",
            Severity.ADVICE,
            WorkStep.CONDITION,
            "Loading moves TP1 by %s %%".formatted(Numbers.significant(100 * Math.abs(sag), 2)),
            "At %s the sensor gives %s, not %s. The equation counts this."
                .formatted(
                    e.amount(at),
                    Numbers.engineering(loaded, "V", 4),
                    Numbers.engineering(free, "V", 4))));
  }

  /** Input at which the load matters most: a potentiometer is softest at its middle. */
  private static double worst(Evidence e) {
    Span working = e.channel().definition().working();
    double worst = working.high();
    double most = -1;
    for (int i = 0; i <= 20; i++) {
      double x = working.at(i / 20.0);
      double sag =
          Math.abs(
              e.path().get().at(x).nodes().getFirst().value()
                  - e.sensorCurve().orElseThrow().at(x));
      if (sag > most * (1 + 1e-9)) {
        most = sag;
        worst = x;
      }
    }
    return worst;
  }
}
