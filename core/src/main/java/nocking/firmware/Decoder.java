package nocking.firmware;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.DoubleToIntFunction;
import java.util.function.DoubleUnaryOperator;
import java.util.function.IntUnaryOperator;
import nocking.band.AlarmBand;
import nocking.band.BandPlan;
import nocking.band.Positions;
import nocking.band.SwitchPoint;
import nocking.converter.Converter;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;
import nocking.wiring.Thresholds;

/**
 * From a converter's code to a state: a position of a selector, an alarm, or a fault.
 *
 * <p>A code stands for the middle of its step. Every code has exactly one state: a fault where its
 * volts lie beyond the limits of the wires; else the window that holds them, the nearest centre
 * where two do, or the alarm band that holds its reading from its lower end up to but not including
 * the upper one; else the state between. A state that was reached is kept as long as the reading
 * stays inside its band widened by the hysteresis at either end; a fault is never put off by one.
 * What comes next counts only when it has lasted for the dwell.
 */
public final class Decoder {
  /** Largest number of codes that are looked at one by one. */
  private static final int MOST_CODES = 1 << 20;

  private static final String BETWEEN = "between";
  private static final String FAULT_LOW = "fault low";
  private static final String FAULT_HIGH = "fault high";

  private final List<String> states;
  private final int faults;
  private final int codes;
  private final int[] first;
  private final int[] state;
  private final int[] stayFirst;
  private final int[] stayLast;
  private final long dwell;

  /**
   * @param faults index of the first state that is a fault; the number of states where none is
   */
  private Decoder(
      List<String> states,
      int faults,
      int codes,
      IntUnaryOperator of,
      int[] stayFirst,
      int[] stayLast,
      Value dwell) {
    this.states = List.copyOf(states);
    this.faults = faults;
    this.codes = codes;
    this.stayFirst = stayFirst;
    this.stayLast = stayLast;
    this.dwell = dwell == null ? 0 : Math.round(1e3 * dwell.number());
    var firsts = new ArrayList<Integer>();
    var runs = new ArrayList<Integer>();
    for (int code = 0; code < codes; code++) {
      int s = of.applyAsInt(code);
      if (runs.isEmpty() || runs.getLast() != s) {
        firsts.add(code);
        runs.add(s);
      }
    }
    first = firsts.stream().mapToInt(Integer::intValue).toArray();
    state = runs.stream().mapToInt(Integer::intValue).toArray();
  }

  /**
   * The positions of a selector.
   *
   * @param limits volts of sound wires; null for none
   * @param dwell seconds; null for 0
   */
  public static Decoder ofPositions(
      List<Positions.Window> windows, Thresholds limits, Converter converter, Value dwell) {
    if (windows.isEmpty()) throw new QuantityException("there is no position to decode");
    var states = new ArrayList<>(windows.stream().map(Positions.Window::name).toList());
    int between = states.size();
    states.add(BETWEEN);
    return unkept(states, limits, converter, volts -> position(windows, volts, between), dwell);
  }

  /** Name of the state of volts at the converter, for the positions of a selector. */
  public static String positionAt(List<Positions.Window> windows, Thresholds limits, double volts) {
    int fault = fault(limits, volts, 0);
    if (fault >= 0) return fault == 0 ? FAULT_LOW : FAULT_HIGH;
    int i = position(windows, volts, windows.size());
    return i < windows.size() ? windows.get(i).name() : BETWEEN;
  }

  /** Name of the state of volts at the converter, for alarms, without what came before. */
  public static String alarmAt(
      BandPlan plan, DoubleUnaryOperator reading, Thresholds limits, double volts) {
    int fault = fault(limits, volts, 0);
    if (fault >= 0) return fault == 0 ? FAULT_LOW : FAULT_HIGH;
    int i = alarm(plan.alarms(), reading.applyAsDouble(volts), plan.alarms().size());
    return i < plan.alarms().size() ? plan.alarms().get(i).name() : BETWEEN;
  }

  private static int position(List<Positions.Window> windows, double volts, int between) {
    int best = between;
    for (int i = 0; i < windows.size(); i++) {
      Positions.Window w = windows.get(i);
      if (!w.holds(volts)) continue;
      if (best == between
          || Math.abs(volts - w.centre()) < Math.abs(volts - windows.get(best).centre())) best = i;
    }
    return best;
  }

  /**
   * The alarms of a quantity.
   *
   * @param reading quantity that the receiver takes volts for; NaN where it takes them for none
   * @param limits volts of sound wires; null for none
   */
  public static Decoder ofAlarms(
      BandPlan plan, DoubleUnaryOperator reading, Thresholds limits, Converter converter) {
    List<AlarmBand> alarms = plan.alarms();
    if (alarms.isEmpty()) throw new QuantityException("there is no alarm to decode");
    var states = new ArrayList<>(alarms.stream().map(AlarmBand::name).toList());
    int between = states.size();
    states.add(BETWEEN);
    int faults = withFaults(states, limits);
    int codes = codes(converter);
    double hysteresis = plan.hysteresis() == null ? 0 : plan.hysteresis().number();
    var x = new double[codes];
    for (int code = 0; code < codes; code++) {
      x[code] = reading.applyAsDouble(converter.volts(code));
    }
    int[] stayFirst = new int[states.size()];
    int[] stayLast = new int[states.size()];
    Arrays.fill(stayLast, -1);
    for (int i = 0; i < alarms.size() && hysteresis > 0; i++) {
      AlarmBand band = alarms.get(i);
      boolean any = false;
      for (int code = 0; code < codes; code++) {
        boolean kept = x[code] >= band.low() - hysteresis && x[code] < band.high() + hysteresis;
        if (!kept) continue;
        if (any && stayLast[i] != code - 1) {
          throw new QuantityException(
              "the reading comes back to '%s' at code %d: no single stretch of codes is that band"
                  .formatted(band.name(), code));
        }
        if (!any) stayFirst[i] = code;
        any = true;
        stayLast[i] = code;
      }
    }
    return new Decoder(
        states,
        faults,
        codes,
        code -> {
          int fault = fault(limits, converter.volts(code), faults);
          return fault >= 0 ? fault : alarm(alarms, x[code], between);
        },
        stayFirst,
        stayLast,
        null);
  }

  /**
   * What a contact on the same mechanism must read at a code: its input high, low, or either inside
   * its window.
   *
   * @param place quantity for volts; NaN where there is none
   * @param limits volts of sound wires; null for none
   */
  public static Decoder ofContact(
      SwitchPoint contact, DoubleUnaryOperator place, Thresholds limits, Converter converter) {
    var states = new ArrayList<>(List.of(SwitchPoint.LOW, SwitchPoint.HIGH, SwitchPoint.EITHER));
    return unkept(
        states,
        limits,
        converter,
        volts -> states.indexOf(contact.levelAt(place.applyAsDouble(volts))),
        null);
  }

  /**
   * A decoder of which no state is kept by a hysteresis.
   *
   * @param states those without the faults
   * @param of index of the state of volts while the wires are sound
   */
  private static Decoder unkept(
      List<String> states,
      Thresholds limits,
      Converter converter,
      DoubleToIntFunction of,
      Value dwell) {
    int faults = withFaults(states, limits);
    int[] never = new int[states.size()];
    Arrays.fill(never, -1);
    return new Decoder(
        states,
        faults,
        codes(converter),
        code -> {
          double volts = converter.volts(code);
          int fault = fault(limits, volts, faults);
          return fault >= 0 ? fault : of.applyAsInt(volts);
        },
        new int[states.size()],
        never,
        dwell);
  }

  private static int alarm(List<AlarmBand> alarms, double x, int between) {
    for (int i = 0; i < alarms.size(); i++) {
      if (x >= alarms.get(i).low() && x < alarms.get(i).high()) return i;
    }
    return between;
  }

  private static int codes(Converter converter) {
    if (converter.codes() > MOST_CODES) {
      throw new QuantityException(
          "a decoder is made for converters of at most 20 bits; this one has %d"
              .formatted(converter.effectiveBits()));
    }
    return converter.codes();
  }

  private static int withFaults(List<String> states, Thresholds limits) {
    int at = states.size();
    if (limits != null) states.addAll(List.of(FAULT_LOW, FAULT_HIGH));
    return at;
  }

  private static int fault(Thresholds limits, double volts, int faults) {
    if (limits == null || !limits.fault(volts)) return -1;
    boolean low = limits.low() != null && volts < limits.low().number();
    return low ? faults : faults + 1;
  }

  /** Names of the states, in the order of their numbers. */
  public List<String> states() {
    return states;
  }

  public int codes() {
    return codes;
  }

  /** Milliseconds for which a state must last before it counts. */
  public long dwell() {
    return dwell;
  }

  /** State of a code by itself; beyond its ends that of the last code. */
  public int state(int code) {
    int i = Arrays.binarySearch(first, code);
    if (i < 0) i = Math.max(0, -i - 2);
    return state[i];
  }

  /** State of a code after a state, which may be kept by the hysteresis. */
  public int next(int before, int code) {
    int now = state(code);
    if (now >= faults) return now;
    return code >= stayFirst[before] && code <= stayLast[before] ? before : now;
  }

  /** The runs of codes: the first code of each. */
  int[] first() {
    return first.clone();
  }

  /** State of each run. */
  int[] runs() {
    return state.clone();
  }

  int faults() {
    return faults;
  }

  int[] stayFirst() {
    return stayFirst.clone();
  }

  int[] stayLast() {
    return stayLast.clone();
  }

  /** Codes after one another, as a receiver follows them. */
  public final class Follower {
    private int now;
    private int pending;
    private long since;

    /** Begins with the state of a code. */
    public Follower(int code, long milliseconds) {
      now = state(code);
      pending = now;
      since = milliseconds;
    }

    /** State after another code. */
    public int update(int code, long milliseconds) {
      int next = next(now, code);
      if (next != pending) {
        pending = next;
        since = milliseconds;
      }
      if (pending != now && milliseconds - since >= dwell) now = pending;
      return now;
    }
  }
}
