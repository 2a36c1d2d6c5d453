package nocking.band;

import java.util.List;
import java.util.stream.DoubleStream;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/**
 * A named position of a selector.
 *
 * @param centre volts at the converter that it is taken for
 * @param half half of its window in volts, above 0; null for the suggested one
 * @param up volts where it settled, coming from the position before
 * @param down volts where it settled, coming from the position behind
 */
public record BandPosition(
    String name, Value centre, Value half, List<Value> up, List<Value> down) {

  public BandPosition {
    if (name == null || name.isBlank()) throw new QuantityException("a position needs a name");
    if (centre == null) throw new QuantityException("position " + name + " needs its centre");
    if (half != null && !(half.number() > 0)) {
      throw new QuantityException(
          "position %s: half a window must be above 0 V; read %s".formatted(name, half.typed()));
    }
    up = up == null ? List.of() : List.copyOf(up);
    down = down == null ? List.of() : List.copyOf(down);
  }

  public static BandPosition of(String name, Value centre) {
    return new BandPosition(name, centre, null, List.of(), List.of());
  }

  public BandPosition withName(String v) {
    return new BandPosition(v, centre, half, up, down);
  }

  public BandPosition withCentre(Value v) {
    return new BandPosition(name, v, half, up, down);
  }

  public BandPosition withHalf(Value v) {
    return new BandPosition(name, centre, v, up, down);
  }

  public BandPosition withSettles(List<Value> upwards, List<Value> downwards) {
    return new BandPosition(name, centre, half, upwards, downwards);
  }

  /** All observed voltages, up and down. */
  public double[] observed() {
    return DoubleStream.concat(
            up.stream().mapToDouble(Value::number), down.stream().mapToDouble(Value::number))
        .toArray();
  }

  static double mean(List<Value> values) {
    return values.stream().mapToDouble(Value::number).average().orElse(Double.NaN);
  }
}
