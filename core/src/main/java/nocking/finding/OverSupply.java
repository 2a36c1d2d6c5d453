package nocking.finding;

import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.Value;
import nocking.stage.Clamp;
import nocking.stage.Stage;
import nocking.view.ChannelView;

/** A sensor at its supply, as a broken ground makes it, drives the converter beyond its limits. */
final class OverSupply implements Rule {
  private static final double ALLOWED = 0.3;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    Channel c = e.channel();
    if (e.design().path().isEmpty()) return Stream.empty();
    Optional<Double> supply = c.design().sensor().ratiometricSupply();
    boolean limited = c.design().stages().stream().anyMatch(s -> s.rails().isPresent());
    if (supply.isEmpty() || limited || c.design().sensor().possibleOutput().isEmpty()) {
      return Stream.empty();
    }
    double reference = c.design().converter().reference().number();
    double at = passive(e.design().path().get(), c.design().sensor().possibleOutput().get().high());
    if (at <= reference + ALLOWED) return Stream.empty();
    Value low = Value.of(-ALLOWED);
    Value high = Value.of(reference + ALLOWED);
    Stage clamp = new Clamp(Value.of(1000), low, high);
    return Stream.of(
        Finding.of(
                "over-supply",
                Severity.ADVICE,
                WorkStep.CONDITION,
                "A broken ground puts %s on the converter"
                    .formatted(Numbers.engineering(at, "V", 3)),
                "The sensor's output then stands at its supply; the input is made for %s. A clamp behind a resistor protects it."
                    .formatted(Numbers.compact(reference, "V", 3)))
            .with(
                new Fix(
                    "Insert a clamp",
                    ch -> ch.design(d -> d.insertStage(ch.design().stages().size(), clamp)))));
  }

  /** Volts at the converter for volts at the sensor, through stages without rails. */
  private static double passive(SignalPath path, double volts) {
    double v = volts;
    for (int i = 1; i < path.points().size(); i++) v = path.relation(i, v);
    return v;
  }
}
