package nocking.finding;

import java.util.List;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.element.Signal;
import nocking.path.SensorCurve;
import nocking.quantity.Numbers;
import nocking.quantity.Value;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.stage.PullDown;
import nocking.stage.PullUp;
import nocking.stage.Stage;
import nocking.view.ChannelView;

/**
 * A resistive sensor a thousand times off its pull-up: ohms were typed where the meter or the
 * datasheet showed kilo-ohms, or the other way round.
 */
final class PrefixSlip implements Rule {
  private static final double NEAR = 12;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    Channel c = e.channel();
    if (c.design().sensor() == null
        || c.design().sensor().signal() != Signal.RESISTANCE
        || c.design().stages().isEmpty()) {
      return Stream.empty();
    }
    double pull = pull(c.design().stages().getFirst());
    if (Double.isNaN(pull) || e.design().sensorCurve().isEmpty()) return Stream.empty();
    SensorCurve curve = e.design().sensorCurve().get();
    double at = curve.rated().clamp(c.definition().working().middle());
    double ohms = curve.at(at);
    for (double factor : new double[] {1000, 0.001}) {
      double mended = ohms * factor / pull;
      double now = ohms / pull;
      boolean off = now > NEAR || now < 1 / NEAR;
      if (off && mended < NEAR && mended > 1 / NEAR) return Stream.of(slip(e, ohms, pull, factor));
    }
    return Stream.empty();
  }

  private static double pull(Stage s) {
    return switch (s) {
      case PullUp p -> p.resistance().number();
      case PullDown p -> p.resistance().number();
      default -> Double.NaN;
    };
  }

  private static Finding slip(ChannelView e, double ohms, double pull, double factor) {
    boolean small = factor > 1;
    Finding f =
        Finding.of(
            "prefix-slip",
            Severity.WARNING,
            WorkStep.DEFINE,
            small ? "Ohms where kilo-ohms were meant?" : "Kilo-ohms where ohms were meant?",
            "The sensor is %s in the middle of the range and its pull resistor %s: hardly any of the converter is used, and the numbers look a thousand times too %s."
                .formatted(
                    Numbers.engineering(ohms, "Ω", 3),
                    Numbers.compact(pull, "Ω", 3),
                    small ? "small" : "large"));
    if (!(e.channel().design().sensor() instanceof TableSensor t)) return f;
    return f.with(
        new Fix(
            small ? "Take the table ×1000" : "Take the table ÷1000",
            c -> c.design(d -> d.withSensor(scaled(t, factor)))));
  }

  private static TableSensor scaled(TableSensor t, double factor) {
    List<TablePoint> rows =
        t.points().stream()
            .map(
                p -> {
                  double v = p.output().number() * factor;
                  double round = Double.parseDouble(Numbers.significant(v, 12));
                  return new TablePoint(
                      p.at(), new Value(round, Numbers.compact(round, "", 9).replace(" ", "")));
                })
            .toList();
    return new TableSensor(rows, t.interpolation(), t.signal(), t.sourceResistance());
  }
}
