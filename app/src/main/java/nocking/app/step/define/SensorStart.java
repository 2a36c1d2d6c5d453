package nocking.app.step.define;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.IntStream;
import nocking.channel.Channel;
import nocking.channel.Definition;
import nocking.element.Element;
import nocking.element.Field;
import nocking.element.Parameter;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.BipolarSensor;
import nocking.sensor.Sensor;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;

/** A sensor model's first values on a channel: its points at the ends of the working range. */
final class SensorStart {
  private static final Set<String> LOW = Set.of("xa", "xlo");
  private static final Set<String> HIGH = Set.of("xb", "xhi", "xFS");

  private SensorStart() {}

  static Sensor of(Sensor model, Channel channel) {
    Definition d = channel.definition();
    List<Field> ends =
        model.fields().stream()
            .filter(f -> f.parameter().unit().equals(Parameter.QUANTITY))
            .filter(f -> LOW.contains(f.symbol()) || HIGH.contains(f.symbol()))
            .toList();
    Sensor started =
        Element.replace(
            model,
            ends,
            (field, v) -> Value.of((LOW.contains(field.symbol()) ? d.low() : d.high()).number()));
    return switch (started) {
      case TableSensor t -> spread(t, d.working());
      case BipolarSensor b -> reaching(b, d.working());
      default -> started;
    };
  }

  /**
   * A channel of which nothing but its unit and its sensor's model was said, in another unit: what
   * nobody typed stays the round number that it was.
   *
   * @return empty where something was typed, which is then converted
   */
  static Optional<Channel> inUnit(Channel c, Unit to) {
    Definition fresh = Channel.blank(c.id(), c.tag()).definition();
    Definition d = c.definition();
    boolean range = d.low().equals(fresh.low()) && d.high().equals(fresh.high());
    boolean bare =
        range
            && d.tolerance() == null
            && d.rest() == null
            && d.pivot() == null
            && c.calibration().points().points().isEmpty();
    if (!bare) return Optional.empty();
    Channel then = c.define(n -> n.withUnit(to.symbol()));
    Sensor sensor = c.design().sensor();
    if (sensor == null) return Optional.of(then);
    return Sensor.models().stream()
        .filter(m -> m.model().equals(sensor.model()) && of(m, c).equals(sensor))
        .findFirst()
        .map(m -> then.design(n -> n.withSensor(of(m, then))));
  }

  /** The example's outputs at equal steps over the working range. */
  private static TableSensor spread(TableSensor t, Span working) {
    int n = t.points().size();
    List<TablePoint> rows =
        IntStream.range(0, n)
            .mapToObj(
                i ->
                    new TablePoint(
                        Value.of(working.at((double) i / (n - 1))), t.points().get(i).output()))
            .toList();
    return new TableSensor(rows, t.interpolation(), t.signal(), t.sourceResistance());
  }

  /** A signed quantity: as far either way as the working range goes, one volt in all. */
  private static BipolarSensor reaching(BipolarSensor b, Span working) {
    double reach = Math.max(Math.abs(working.low()), Math.abs(working.high()));
    return new BipolarSensor(b.rest(), Value.of(1 / reach), Value.of(reach), b.sourceResistance());
  }
}
