package nocking.fault;

import java.util.ArrayList;
import java.util.List;
import nocking.quantity.Value;

/**
 * The wires of a channel.
 *
 * @param supply volts that feed the sensor; null when the sensor's own definition states it or it
 *     is not known
 */
public record WirePlan(Value supply, List<Pin> pins) {
  public static final WirePlan DEFAULT =
      new WirePlan(
          null,
          List.of(
              new Pin(Pin.Function.SUPPLY, "", "", null),
              new Pin(Pin.Function.GROUND, "", "", null),
              new Pin(Pin.Function.SIGNAL, "", "", null)));

  public WirePlan {
    pins = List.copyOf(pins);
  }

  public WirePlan with(int index, Pin pin) {
    var next = new ArrayList<>(pins);
    next.set(index, pin);
    return new WirePlan(supply, next);
  }

  public WirePlan withSupply(Value v) {
    return new WirePlan(v, pins);
  }
}
