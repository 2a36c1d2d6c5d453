package nocking.wiring;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import nocking.quantity.Value;

/**
 * The wires of a channel.
 *
 * @param supply volts that feed the sensor; null when the sensor's own definition states it or it
 *     is not known
 * @param pairs resistances that were measured before power
 * @param thresholds where a reading can only be a fault; null until they are settled
 */
public record WirePlan(
    Value supply, List<Pin> pins, List<PairReading> pairs, Thresholds thresholds) {
  public static final WirePlan DEFAULT =
      of(
          null,
          List.of(
              Pin.of(Pin.Function.SUPPLY, "", ""),
              Pin.of(Pin.Function.GROUND, "", ""),
              Pin.of(Pin.Function.SIGNAL, "", "")));

  public WirePlan {
    pins = List.copyOf(pins);
    pairs = pairs == null ? List.of() : List.copyOf(pairs);
  }

  /** A plan of which nothing has been measured. */
  public static WirePlan of(Value supply, List<Pin> pins) {
    return new WirePlan(supply, pins, List.of(), null);
  }

  public WirePlan with(int index, Pin pin) {
    var next = new ArrayList<>(pins);
    next.set(index, pin);
    return new WirePlan(supply, next, pairs, thresholds);
  }

  public WirePlan withSupply(Value v) {
    return new WirePlan(v, pins, pairs, thresholds);
  }

  /** The plan with other wires; what was measured between the old ones goes. */
  public WirePlan withPins(List<Pin> v) {
    return new WirePlan(supply, v, List.of(), thresholds);
  }

  public WirePlan withThresholds(Thresholds v) {
    return new WirePlan(supply, pins, pairs, v);
  }

  /** The plan with a resistance between two pins; null takes it out. */
  public WirePlan withPair(int first, int second, Value ohms) {
    var next = new ArrayList<>(pairs);
    next.removeIf(p -> p.first() == first && p.second() == second);
    if (ohms != null) next.add(new PairReading(first, second, ohms));
    return new WirePlan(supply, pins, next, thresholds);
  }

  public Optional<Value> pair(int first, int second) {
    return pairs.stream()
        .filter(p -> p.first() == first && p.second() == second)
        .map(PairReading::measured)
        .findFirst();
  }

  /** Index of the first wire with a function; −1 when there is none. */
  public int indexOf(Pin.Function function) {
    for (int i = 0; i < pins.size(); i++) {
      if (pins.get(i).function() == function) return i;
    }
    return -1;
  }
}
