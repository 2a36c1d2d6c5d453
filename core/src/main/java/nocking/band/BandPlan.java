package nocking.band;

import java.util.ArrayList;
import java.util.List;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/**
 * How volts are decoded into positions, and the quantity into alarms.
 *
 * @param positions in the order of the travel
 * @param dwell seconds that a voltage must stay in a window before it counts; null when not settled
 * @param lever length of the lever that turns the sensor, millimetres; null for none
 * @param turn turn of the sensor over the whole range of the converter, degrees; null when unknown
 * @param alarms in rising order
 * @param hysteresis by which an alarm must be undershot before it goes, channel's unit; null for 0
 */
public record BandPlan(
    List<BandPosition> positions,
    Value dwell,
    Value lever,
    Value turn,
    List<AlarmBand> alarms,
    Value hysteresis,
    List<SwitchPoint> switches) {
  public static final BandPlan EMPTY =
      new BandPlan(List.of(), null, null, null, List.of(), null, List.of());

  public BandPlan {
    positions = positions == null ? List.of() : List.copyOf(positions);
    alarms = alarms == null ? List.of() : List.copyOf(alarms);
    switches = switches == null ? List.of() : List.copyOf(switches);
    if (dwell != null && !(dwell.number() >= 0)) {
      throw new QuantityException("a dwell must be at least 0 s; read " + dwell.typed());
    }
    if (hysteresis != null && !(hysteresis.number() >= 0)) {
      throw new QuantityException("a hysteresis must be at least 0; read " + hysteresis.typed());
    }
    if (lever != null && !(lever.number() > 0)) {
      throw new QuantityException("a lever must be longer than 0 mm; read " + lever.typed());
    }
    if (turn != null && !(turn.number() > 0 && turn.number() <= 360)) {
      throw new QuantityException("a turn must be above 0° and at most 360°; read " + turn.typed());
    }
  }

  public boolean isEmpty() {
    return equals(EMPTY);
  }

  public BandPlan withPositions(List<BandPosition> v) {
    return new BandPlan(v, dwell, lever, turn, alarms, hysteresis, switches);
  }

  /** The plan with one position replaced. */
  public BandPlan with(int index, BandPosition position) {
    var next = new ArrayList<>(positions);
    next.set(index, position);
    return withPositions(next);
  }

  public BandPlan withDwell(Value v) {
    return new BandPlan(positions, v, lever, turn, alarms, hysteresis, switches);
  }

  public BandPlan withLever(Value length, Value degrees) {
    return new BandPlan(positions, dwell, length, degrees, alarms, hysteresis, switches);
  }

  public BandPlan withAlarms(List<AlarmBand> v) {
    return new BandPlan(positions, dwell, lever, turn, v, hysteresis, switches);
  }

  public BandPlan withHysteresis(Value v) {
    return new BandPlan(positions, dwell, lever, turn, alarms, v, switches);
  }

  public BandPlan withSwitches(List<SwitchPoint> v) {
    return new BandPlan(positions, dwell, lever, turn, alarms, hysteresis, v);
  }
}
