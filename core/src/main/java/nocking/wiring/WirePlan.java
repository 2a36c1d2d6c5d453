package nocking.wiring;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/**
 * The wires of a channel.
 *
 * @param supply volts that feed the sensor; null when the sensor's own definition states it or it
 *     is not known
 * @param pairs resistances that were measured before power
 * @param thresholds where a reading can only be a fault; null until they are settled
 * @param supplied how the sensor stands on its supply
 * @param sharedReference true when the converter's reference is the very rail that the signal is a
 *     fraction of; two sources of the same number are two sources
 */
public record WirePlan(
    Value supply,
    List<Pin> pins,
    List<PairReading> pairs,
    Thresholds thresholds,
    Supplied supplied,
    Boolean sharedReference) {
  public static final WirePlan DEFAULT =
      of(
          null,
          List.of(
              Pin.of(Pin.Function.SUPPLY, "", ""),
              Pin.of(Pin.Function.GROUND, "", ""),
              Pin.of(Pin.Function.SIGNAL, "", "")));

  public WirePlan {
    if (supply != null && !(supply.number() > 0)) {
      throw new QuantityException("the sensor supply must be above 0 V; read " + supply.typed());
    }
    pins = List.copyOf(pins);
    pairs = pairs == null ? List.of() : List.copyOf(pairs);
    sharedReference = sharedReference != null && sharedReference;
    supplied = supplied == null ? Supplied.USUAL : supplied;
  }

  /** A plan of which nothing has been measured. */
  public static WirePlan of(Value supply, List<Pin> pins) {
    return new WirePlan(supply, pins, List.of(), null, Supplied.USUAL, false);
  }

  public WirePlan with(int index, Pin pin) {
    var next = new ArrayList<>(pins);
    next.set(index, pin);
    return new WirePlan(supply, next, pairs, thresholds, supplied, sharedReference);
  }

  public WirePlan withSupply(Value v) {
    return new WirePlan(v, pins, pairs, thresholds, supplied, sharedReference);
  }

  /** The plan with other wires; what was measured between the old ones goes. */
  public WirePlan withPins(List<Pin> v) {
    return new WirePlan(supply, v, List.of(), thresholds, supplied, sharedReference);
  }

  public WirePlan withThresholds(Thresholds v) {
    return new WirePlan(supply, pins, pairs, v, supplied, sharedReference);
  }

  public WirePlan withSupplied(Supplied v) {
    return new WirePlan(supply, pins, pairs, thresholds, v, sharedReference);
  }

  public WirePlan withSharedReference(boolean v) {
    return new WirePlan(supply, pins, pairs, thresholds, supplied, v);
  }

  /** The plan with a resistance between two pins; null takes it out. */
  public WirePlan withPair(int first, int second, Value ohms) {
    var next = new ArrayList<>(pairs);
    next.removeIf(p -> p.first() == first && p.second() == second);
    if (ohms != null) next.add(new PairReading(first, second, ohms));
    return new WirePlan(supply, pins, next, thresholds, supplied, sharedReference);
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
