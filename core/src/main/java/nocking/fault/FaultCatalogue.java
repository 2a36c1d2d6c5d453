package nocking.fault;

import static nocking.prior.FaultKind.*;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import nocking.channel.SensorCard;
import nocking.element.Element;
import nocking.element.Field;
import nocking.element.Signal;
import nocking.network.Circuit;
import nocking.path.ParameterRef;
import nocking.prior.FaultKind;
import nocking.quantity.Dimension;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.AcVoltage;
import nocking.sensor.CurrentLoop;
import nocking.sensor.Potentiometer;
import nocking.sensor.Sensor;
import nocking.sensor.StrainBridge;
import nocking.sensor.Thermocouple;
import nocking.stage.BridgeRectifier;
import nocking.stage.InstrumentationAmp;
import nocking.stage.Stage;
import nocking.wiring.Supplied;
import nocking.wiring.WirePlan;

/** All single faults that a channel can have. */
public final class FaultCatalogue {
  private static final List<String> UNITS =
      List.of(
          "°F", "K", "psi", "bar", "inHg", "mmH2O", "kgf", "lbf", "lb", "in", "ft", "cm", "mm", "m",
          "L", "rad");

  private static final double[] DECADES = {10, 0.1, 100, 0.01};

  /** Resistors of a sensor that someone solders in beside it. */
  static final Set<String> END_RESISTORS = Set.of("Rt", "Rb");

  private final Subject subject;
  private final List<Fault> list = new ArrayList<>();

  private FaultCatalogue(Subject subject) {
    this.subject = subject;
  }

  /** Every fault of a channel, the sound one first; graded ones in the middle of their range. */
  public static List<Fault> of(Subject subject) {
    return of(subject, subject.channel().wiring().plan());
  }

  /** The same without telling the stretches of a wire apart: the receiver cannot. */
  static List<Fault> ofWholeWires(Subject subject) {
    return of(subject, subject.channel().wiring().plan().withJoints(List.of()));
  }

  /** Kinds of faults that sit in one stretch of a wire. */
  public static boolean hasPlace(FaultKind kind) {
    return switch (kind) {
      case SUPPLY_OPEN,
          GROUND_OPEN,
          SIGNAL_OPEN,
          SUPPLY_LEAD,
          GROUND_LEAD,
          SIGNAL_LEAD,
          GROUND_OFFSET ->
          true;
      default -> false;
    };
  }

  private static List<Fault> of(Subject subject, WirePlan plan) {
    var c = new FaultCatalogue(subject);
    c.list.add(Fault.NONE);
    c.wires();
    c.parts();
    c.sensor();
    c.numbers();
    c.measuring();
    c.list.add(Fault.of(UNLISTED));
    if (plan.joints().isEmpty()) return List.copyOf(c.list);
    return c.list.stream().flatMap(f -> stretches(f, plan)).toList();
  }

  private static Stream<Fault> stretches(Fault f, WirePlan plan) {
    if (!hasPlace(f.kind())) return Stream.of(f);
    return IntStream.rangeClosed(0, plan.joints().size()).mapToObj(i -> f.in(i, plan.between(i)));
  }

  private void add(FaultKind kind) {
    list.add(Fault.of(kind, kind.severity(0.5)));
  }

  private void wires() {
    Sensor s = subject.sensor();
    boolean alternating = s.signal() == Signal.ALTERNATING;
    boolean twoWires = s.signal() == Signal.RESISTANCE || alternating;
    boolean loop = s instanceof CurrentLoop;
    FaultyPath sound =
        FaultyPath.of(subject, Fault.NONE, subject.channel().definition().working().middle());
    boolean fed = sound.fed();
    boolean supplyPin = sound.hasSupplyPin();
    boolean groundPin = !loop && sound.hasGroundPin();
    if (fed) add(SUPPLY_DEAD);
    if (fed) add(SUPPLY_OPEN);
    boolean electronics =
        s.signal() == Signal.VOLTAGE
            && !(s instanceof Potentiometer)
            && !(s instanceof StrainBridge)
            && supplyPin;
    boolean unsaid = electronics && subject.supplied().current() == null;
    if (groundPin) list.add(Fault.of(GROUND_OPEN, unsaid ? Supplied.CURRENT : Double.NaN));
    add(SIGNAL_OPEN);
    if (fed) add(SIGNAL_TO_SUPPLY);
    add(SIGNAL_TO_GROUND);
    if (fed && !twoWires) add(SWAPPED);
    if (fed) add(SUPPLY_LOW);
    if (fed) add(SUPPLY_HIGH);
    if (groundPin && !twoWires) add(GROUND_OFFSET);
    if (supplyPin) add(SUPPLY_LEAD);
    if (groundPin && !alternating) add(GROUND_LEAD);
    add(SIGNAL_LEAD);
    add(LEAK_TO_GROUND);
    if (fed) add(LEAK_TO_SUPPLY);
    add(INTERMITTENT);
  }

  private void parts() {
    FaultyPath sound =
        FaultyPath.of(subject, Fault.NONE, subject.channel().definition().working().middle());
    for (Circuit.Resistor r : sound.circuit().resistors()) {
      if (r.name().isEmpty() || drivenStiffly(r)) continue;
      part(r.owner(), r.name());
    }
    for (int i = 0; i < subject.stages().size(); i++) {
      Stage stage = subject.stages().get(i);
      if (stage instanceof InstrumentationAmp) part(i + 1, "Rg");
      if (stage instanceof BridgeRectifier && subject.sensor() instanceof AcVoltage) {
        list.add(Fault.ofPart(DIODE_OPEN, i + 1, "", "", Double.NaN));
        list.add(Fault.ofPart(CAPACITOR_OPEN, i + 1, "", "", Double.NaN));
      }
    }
  }

  /** An input resistance behind an amplifier changes nothing. */
  private boolean drivenStiffly(Circuit.Resistor r) {
    List<Stage> stages = subject.stages();
    return r.name().equals("Rin")
        && !stages.isEmpty()
        && r.owner() == stages.size() + 1
        && stages.getLast().outputResistance() == 0;
  }

  private void part(int element, String name) {
    String what = partName(subject, element, name);
    boolean string = subject.largestShare(element, name) < 1;
    list.add(Fault.ofPart(PART_OPEN, element, name, what, Double.NaN));
    list.add(
        Fault.ofPart(PART_SHORT, element, name, string ? "one part of " + what : what, Double.NaN));
    list.add(Fault.ofPart(PART_DRIFT, element, name, what, 1.1));
    // A resistor of another decade was soldered in; the sensor itself and the converter have none.
    boolean soldered = element >= 1 && element <= subject.stages().size();
    if (!soldered && !END_RESISTORS.contains(name)) return;
    for (double factor : DECADES) {
      list.add(Fault.ofPart(PART_DECADE, element, name, what + " is " + times(factor), factor));
    }
  }

  /** A resistor in words: its name and whose it is. */
  static String partName(Subject subject, int element, String name) {
    if (element == 0) {
      return switch (name) {
        case "R" -> "sensor element";
        case "Rp above" -> "track above the wiper";
        case "Rp below" -> "track below the wiper";
        case "Rt" -> "resistor above the track";
        case "Rb" -> "resistor below the track";
        default -> "bridge " + name;
      };
    }
    if (element > subject.stages().size()) return "receiver's input resistance";
    String title = subject.stages().get(element - 1).title().toLowerCase(Locale.ROOT);
    return name + " of the " + title;
  }

  private void sensor() {
    Sensor s = subject.sensor();
    boolean own = s.signal() == Signal.VOLTAGE && !(s instanceof Potentiometer);
    if (own || s instanceof CurrentLoop) {
      add(SENSOR_DRIFT);
      add(SENSOR_OFFSET);
    }
    if (s.signal() != Signal.ALTERNATING) add(MIRRORED);
    for (SensorCard card : subject.neighbours()) {
      Sensor other = card.sensorIn(subject.channel().unit());
      boolean sameBuild =
          other.getClass() == s.getClass()
              || own && other.signal() == Signal.VOLTAGE && !(other instanceof Potentiometer)
              || s.signal() == Signal.RESISTANCE;
      if (sameBuild) list.add(Fault.ofSensor(OTHER_SENSOR, card, other));
    }
  }

  private void numbers() {
    for (double factor : new double[] {0.1, 10, 0.01, 100, 0.001, 1000}) {
      list.add(ofNumber(DECIMAL, "reads " + times(factor), factor));
    }
    Sensor s = subject.sensor();
    if (s.signal() != Signal.ALTERNATING) {
      for (double factor : new double[] {0.001, 1000}) {
        list.add(ofNumber(SENSOR_PREFIX, times(1 / factor), factor));
      }
    }
    units();
    if (subject.channel().definition().gauge() != null) {
      double sign = subject.channel().definition().gauge() ? 1 : -1;
      list.add(Fault.of(GAUGE_ABSOLUTE, sign));
    }
    for (SensorCard card : subject.neighbours()) {
      list.add(Fault.ofSensor(OTHER_CURVE, card, card.sensorIn(subject.channel().unit())));
    }
    if (s instanceof CurrentLoop) otherLoop((CurrentLoop) s);
    list.add(Fault.of(REVERSED));
    swaps();
    if (s instanceof AcVoltage) {
      list.add(ofNumber(RMS_PEAK, "shows the peak", Math.sqrt(2)));
      list.add(ofNumber(RMS_PEAK, "divided twice by √2", Math.sqrt(0.5)));
    }
    if (s instanceof Thermocouple) {
      Sensor ignored = Element.with(s, s.field("Tcj"), Value.of(0));
      list.add(new Fault(COLD_JUNCTION, "", 0, "", ignored, null, Double.NaN, -1));
    }
  }

  /** What is wrong with the reference, the meter or the eye that reads them. */
  private void measuring() {
    add(NOT_ENABLED);
    add(REFERENCE_OFF);
    add(REFERENCE_SCALE);
    Unit own = subject.channel().unit();
    for (Unit u : otherUnits()) {
      String what = u.symbol() + " taken for " + own.symbol();
      list.add(new Fault(REFERENCE_UNIT, what, -1, "", null, u, 1, -1));
    }
    add(METER_PREFIX);
  }

  private static Fault ofNumber(FaultKind kind, String what, double factor) {
    return new Fault(kind, what, -1, "", null, null, factor, -1);
  }

  private static String times(double factor) {
    return factor >= 1
        ? "×" + Numbers.plain(Math.rint(factor))
        : "÷" + Numbers.plain(Math.rint(1 / factor));
  }

  /** 0…20 mA taken for 4…20 mA, or the other way round. */
  private void otherLoop(CurrentLoop s) {
    String name = s.liveZero() ? "0…20 mA" : "4…20 mA";
    list.add(new Fault(OTHER_CURVE, name, 0, "", s.takenFor(), null, Double.NaN, -1));
  }

  private void units() {
    Unit own = subject.channel().unit();
    for (Unit u : otherUnits()) {
      String symbol = u.symbol();
      list.add(new Fault(WRONG_UNIT, symbol + " shown as " + own.symbol(), -1, "", null, u, 1, -1));
      list.add(
          new Fault(WRONG_UNIT, own.symbol() + " taken for " + symbol, -1, "", null, u, -1, -1));
    }
  }

  private List<Unit> otherUnits() {
    Unit own = subject.channel().unit();
    if (own.dimension().equals(Dimension.NONE)) return List.of();
    return UNITS.stream()
        .map(Unit::of)
        .filter(u -> u.dimension().equals(own.dimension()))
        .filter(u -> u.factor() != own.factor() || u.offset() != own.offset())
        .toList();
  }

  /** Two resistors of one stage exchanged in the formula, where the design's formula is used. */
  private void swaps() {
    if (!subject.channel().calibration().byDesign()) return;
    Map<Integer, List<String>> byElement = new LinkedHashMap<>();
    for (Map.Entry<String, ParameterRef> e : subject.path().owners().entrySet()) {
      Field f = e.getValue().field();
      if (!f.parameter().unit().equals("ohm")
          || !subject.path().inverse().symbols().contains(e.getKey())) continue;
      byElement.computeIfAbsent(e.getValue().element(), k -> new ArrayList<>()).add(e.getKey());
    }
    for (List<String> symbols : byElement.values()) {
      symbols.sort(null);
      for (int i = 0; i < symbols.size(); i++) {
        for (int j = i + 1; j < symbols.size(); j++) swap(symbols.get(i), symbols.get(j));
      }
    }
  }

  private void swap(String a, String b) {
    Map<String, Double> constants = subject.path().constants();
    if (constants.get(a).equals(constants.get(b))) return;
    list.add(
        new Fault(SWAPPED_SYMBOLS, a + " and " + b, -1, a + "/" + b, null, null, Double.NaN, -1));
  }
}
