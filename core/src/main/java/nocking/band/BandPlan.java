package nocking.band;

import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
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

  /** How far a new position stands above the last, volts. */
  private static final double POSITION_STEP = 0.5;

  private static final double TENTH_MILLIVOLTS = 1e4;

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
    return withPositions(replaced(positions, index, position));
  }

  /** The plan with one alarm band replaced. */
  public BandPlan with(int index, AlarmBand alarm) {
    return withAlarms(replaced(alarms, index, alarm));
  }

  /** The plan with one switch replaced. */
  public BandPlan with(int index, SwitchPoint contact) {
    return withSwitches(replaced(switches, index, contact));
  }

  public BandPlan withoutPosition(int index) {
    return withPositions(without(positions, index));
  }

  public BandPlan withoutAlarm(int index) {
    return withAlarms(without(alarms, index));
  }

  public BandPlan withoutSwitch(int index) {
    return withSwitches(without(switches, index));
  }

  private static <T> List<T> replaced(List<T> list, int index, T by) {
    var next = new ArrayList<>(list);
    next.set(index, by);
    return next;
  }

  private static <T> List<T> without(List<T> list, int index) {
    var next = new ArrayList<>(list);
    next.remove(index);
    return next;
  }

  /**
   * The plan with one more position: half a volt above the last, the first at a fifth of the range.
   *
   * @param reference volts of the converter's full scale
   */
  public BandPlan plusPosition(double reference) {
    var next = new ArrayList<>(positions);
    double volts =
        next.isEmpty() ? reference / 5 : next.getLast().centre().number() + POSITION_STEP;
    next.add(BandPosition.of("position " + (next.size() + 1), Value.of(volts)));
    return withPositions(next);
  }

  /**
   * The plan with positions at a selector's stations.
   *
   * @param stations their names, at 1, 2, 3 …
   * @param volts what the converter sees at a station; kept to a tenth of a millivolt
   */
  public BandPlan withStations(List<String> stations, DoubleUnaryOperator volts) {
    var next = new ArrayList<BandPosition>();
    for (int i = 0; i < stations.size(); i++) {
      double centre = Math.rint(volts.applyAsDouble(i + 1.0) * TENTH_MILLIVOLTS) / TENTH_MILLIVOLTS;
      next.add(BandPosition.of(stations.get(i), Value.of(centre)));
    }
    return withPositions(next);
  }

  /** The plan with one more alarm band, which begins where the last ends; the first are three. */
  public BandPlan plusAlarm(Span working) {
    var next = new ArrayList<>(alarms);
    if (next.isEmpty()) {
      Value low = Value.of(working.at(0.2));
      Value high = Value.of(working.at(0.8));
      next.add(new AlarmBand("low", null, low));
      next.add(new AlarmBand("in range", low, high));
      next.add(new AlarmBand("high", high, null));
    } else {
      next.add(new AlarmBand("band " + (next.size() + 1), next.getLast().to(), null));
    }
    return withAlarms(next);
  }

  /** The plan with one more switch at the start of the range, with a fiftieth of it as window. */
  public BandPlan plusSwitch(Span working) {
    var next = new ArrayList<>(switches);
    next.add(
        new SwitchPoint(
            "contact " + (next.size() + 1),
            Value.of(working.low()),
            Value.of(working.width() / 50),
            null,
            null,
            false));
    return withSwitches(next);
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
