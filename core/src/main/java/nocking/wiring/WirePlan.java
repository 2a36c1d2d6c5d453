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
 * @param joints names of the places between the ends where all wires can be measured, from the
 *     sensor to the receiver: a splice, a terminal strip, a break-out lead
 */
public record WirePlan(
    Value supply,
    List<Pin> pins,
    List<PairReading> pairs,
    Thresholds thresholds,
    Supplied supplied,
    Boolean sharedReference,
    List<String> joints) {
  /** Most places between the ends. */
  public static final int MOST_JOINTS = 6;

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
    joints = joints == null ? List.of() : List.copyOf(joints);
    if (joints.size() > MOST_JOINTS) {
      throw new QuantityException(
          "at most %d places between the ends; read %d".formatted(MOST_JOINTS, joints.size()));
    }
    if (joints.stream().anyMatch(String::isBlank)) {
      throw new QuantityException("a place between the ends needs a name, for example splice");
    }
  }

  /** A plan of which nothing has been measured. */
  public static WirePlan of(Value supply, List<Pin> pins) {
    return new WirePlan(supply, pins, List.of(), null, Supplied.USUAL, false, List.of());
  }

  public WirePlan with(int index, Pin pin) {
    var next = new ArrayList<>(pins);
    next.set(index, pin);
    return new WirePlan(supply, next, pairs, thresholds, supplied, sharedReference, joints);
  }

  public WirePlan withSupply(Value v) {
    return new WirePlan(v, pins, pairs, thresholds, supplied, sharedReference, joints);
  }

  /** The plan with other wires; what was measured between the old ones goes. */
  public WirePlan withPins(List<Pin> v) {
    return new WirePlan(supply, v, List.of(), thresholds, supplied, sharedReference, joints);
  }

  public WirePlan withThresholds(Thresholds v) {
    return new WirePlan(supply, pins, pairs, v, supplied, sharedReference, joints);
  }

  public WirePlan withSupplied(Supplied v) {
    return new WirePlan(supply, pins, pairs, thresholds, v, sharedReference, joints);
  }

  public WirePlan withSharedReference(boolean v) {
    return new WirePlan(supply, pins, pairs, thresholds, supplied, v, joints);
  }

  /** The plan with a resistance between two pins; null takes it out. */
  public WirePlan withPair(int first, int second, Value ohms) {
    var next = new ArrayList<>(pairs);
    next.removeIf(p -> p.first() == first && p.second() == second);
    if (ohms != null) next.add(new PairReading(first, second, ohms));
    return new WirePlan(supply, pins, next, thresholds, supplied, sharedReference, joints);
  }

  public WirePlan withJoints(List<String> v) {
    return new WirePlan(supply, pins, pairs, thresholds, supplied, sharedReference, v);
  }

  /** A place in words, with the name that it has here: {@code signal at the terminal strip}. */
  public String title(Place p) {
    boolean named = p.node() >= 1 && p.node() <= joints.size();
    return switch (p.kind()) {
      case SIGNAL_AT_JOINT, SUPPLY_AT_JOINT, GROUND_AT_JOINT ->
          named ? p.kind().key() + " at " + joints.get(p.node() - 1) : p.title();
      default -> p.title();
    };
  }

  /**
   * Where a stretch of the wires lies, in words.
   *
   * @param segment 0 beside the sensor, one for each place between the ends
   */
  public String between(int segment) {
    String from = segment == 0 ? "the sensor" : joints.get(segment - 1);
    String to = segment == joints.size() ? "the receiver" : joints.get(segment);
    return "between %s and %s".formatted(from, to);
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
