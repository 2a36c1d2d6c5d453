package nocking.app.stage.define;

import java.util.List;
import nocking.channel.Channel;
import nocking.channel.Definition;
import nocking.element.Element;
import nocking.element.Field;
import nocking.element.Parameter;
import nocking.quantity.Value;
import nocking.sensor.Sensor;

/** A sensor model's first values on a channel: its points at the ends of the working range. */
final class SensorStart {
  private SensorStart() {}

  static Sensor of(Sensor model, Channel channel) {
    Definition d = channel.definition();
    List<Field> ends =
        model.fields().stream()
            .filter(f -> f.parameter().unit().equals(Parameter.QUANTITY) && isEnd(f))
            .toList();
    return Element.replace(
        model, ends, (field, v) -> isLow(field) ? copy(d.low()) : copy(d.high()));
  }

  private static boolean isEnd(Field f) {
    return !f.symbol().equals("x0");
  }

  private static boolean isLow(Field f) {
    return f.symbol().equals("xa") || f.symbol().equals("xlo");
  }

  private static Value copy(Value v) {
    return Value.of(v.number());
  }
}
