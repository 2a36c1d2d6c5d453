package nocking.finding;

import java.util.Locale;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.algebra.AlgebraException;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.converter.Converter;
import nocking.element.Measurand;
import nocking.element.Signal;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.view.ChannelView;

/** The sensor output sags under its load: the ratio alone would be wrong. */
final class LoadingMatters implements Rule {

  private static final double MATTERS = 0.002;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    Channel c = e.channel();
    if (e.design().path().isEmpty() || c.design().sensor().signal() != Signal.VOLTAGE)
      return Stream.empty();
    double at = worst(e);
    double loaded = e.design().path().get().at(at).nodes().getFirst().value();
    double free = e.design().sensorCurve().orElseThrow().at(at);
    double sag = 1 - loaded / free;
    if (!(Math.abs(sag) > MATTERS)) return behind(e).stream();
    return Stream.of(
        Finding.of(
            "loading",
            Severity.ADVICE,
            WorkStep.CONDITION,
            "Loading moves TP1 by %s %%".formatted(Numbers.significant(100 * Math.abs(sag), 2)),
            "At %s the sensor gives %s, not %s. The equation counts this."
                .formatted(
                    e.design().amount(at),
                    Numbers.engineering(loaded, "V", 4),
                    Numbers.engineering(free, "V", 4))));
  }

  /** The node behind a stage that sags most under what hangs on it. */
  private static Optional<Finding> behind(ChannelView e) {
    Channel c = e.channel();
    double x = e.channel().definition().high().number();
    SignalPath path = e.design().path().orElseThrow();
    double most = MATTERS;
    int at = -1;
    double free = Double.NaN;
    for (int i = 0; i < c.design().stages().size(); i++) {
      double loaded = path.at(x).nodes().get(i + 1).value();
      double alone = alone(c, path, i, x);
      double sag = Math.abs(1 - loaded / alone);
      if (path.at(x).clipped() || !(sag > most)) continue;
      most = sag;
      at = i;
      free = alone;
    }
    if (at < 0) return Optional.empty();
    return Optional.of(
        Finding.of(
                "loading",
                Severity.ADVICE,
                WorkStep.CONDITION,
                "Loading moves TP%d by %s %%".formatted(at + 2, Numbers.significant(100 * most, 2)),
                "At %s the %s would give %s by itself and gives %s. The equation counts this."
                    .formatted(
                        e.design().amount(x),
                        c.design().stages().get(at).title().toLowerCase(Locale.ROOT),
                        Numbers.engineering(free, "V", 4),
                        Numbers.engineering(path.at(x).nodes().get(at + 1).value(), "V", 4)))
            .at(at));
  }

  /** Output of a stage with nothing behind it. */
  private static double alone(Channel c, SignalPath path, int stage, double x) {
    try {
      SignalPath upTo =
          SignalPath.of(
              new Measurand(path.quantitySymbol(), c.unit()),
              c.design().sensor(),
              c.design().stages().subList(0, stage + 1),
              Converter.of(
                  c.design().converter().bits(), c.design().converter().reference(), null));
      return upTo.at(x).output();
    } catch (QuantityException | AlgebraException e) {
      // A part of the path that ends in no voltage has no output of its own.
      return Double.NaN;
    }
  }

  /** Input at which the load matters most: a potentiometer is softest at its middle. */
  private static double worst(ChannelView e) {
    Span working = e.channel().definition().working();
    double worst = working.high();
    double most = -1;
    for (int i = 0; i <= 20; i++) {
      double x = working.at(i / 20.0);
      double sag =
          Math.abs(
              e.design().path().get().at(x).nodes().getFirst().value()
                  - e.design().sensorCurve().orElseThrow().at(x));
      if (sag > most * (1 + 1e-9)) {
        most = sag;
        worst = x;
      }
    }
    return worst;
  }
}
