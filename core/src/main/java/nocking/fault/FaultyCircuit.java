package nocking.fault;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import nocking.element.Element;
import nocking.element.Field;
import nocking.element.Signal;
import nocking.network.Circuit;
import nocking.path.SensorCurve;
import nocking.prior.FaultKind;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.sensor.AcVoltage;
import nocking.sensor.CurrentLoop;
import nocking.sensor.Potentiometer;
import nocking.sensor.Sensor;
import nocking.sensor.StrainBridge;
import nocking.stage.BridgeRectifier;
import nocking.stage.InstrumentationAmp;
import nocking.stage.Sensed;
import nocking.stage.Shunt;
import nocking.stage.Stage;
import nocking.wiring.Pin;

/**
 * Builds a channel with its wires as a circuit, with what is wrong in it, at one input.
 *
 * <p>What the datasheet leaves open is taken so: a sensor with electronics draws what its card says
 * ({@link nocking.wiring.Supplied}); without supply, or the wrong way round, its output is held
 * towards its own ground, or to what the card says of a dead one, by its output resistance; an
 * output that is stated stiff gives way behind {@value #DRIVER} Ω when it is shorted; a strain
 * bridge has four equal arms. With its smoothing capacitor open a rectifier gives the rectified
 * mean, and with one diode open it is refilled half as often.
 */
final class FaultyCircuit {
  /** Output resistance of a stiff driver that is overdriven, ohms. */
  static final double DRIVER = 100;

  private static final String SUPPLY = "S";
  private static final String GROUND = Circuit.GROUND;

  private final Subject subject;
  private final Faults faults;
  private final double rail;
  private final double x;
  private final List<Stage> stages;
  private final Circuit circuit = new Circuit();
  private String supplyPin = "";
  private String groundPin = GROUND;
  private String signalPin = "";
  private String signal = "";
  private String signalMinus = GROUND;
  private String sensorMinus = "";
  private String supply = "";
  private String supplyTerminal = "";
  private String groundTerminal = GROUND;
  private boolean wired;
  private final Map<Pin.Function, List<String>> jointsOf = new EnumMap<>(Pin.Function.class);

  /**
   * @param x what the reference says, channel's unit
   * @param rail share of the nominal supply that a sound supply gives
   */
  FaultyCircuit(Subject subject, Faults faults, double x, double rail) {
    this.subject = subject;
    this.faults = faults;
    this.rail = rail;
    this.x = truly(x);
    this.stages = alteredStages();
    build();
  }

  Circuit circuit() {
    return circuit;
  }

  /** The stages as the fault has altered them. */
  List<Stage> stages() {
    return stages;
  }

  /** The sensor's end of the supply wire; empty where none goes there. */
  String supplyPin() {
    return supplyPin;
  }

  /** The sensor's own ground. */
  String groundPin() {
    return groundPin;
  }

  /** The sensor's end of the signal wire. */
  String signalPin() {
    return signalPin;
  }

  /** The receiver's end of the signal wire, the first node that carries a voltage. */
  String signal() {
    return signal;
  }

  /** What the receiver measures the signal against. */
  String signalMinus() {
    return signalMinus;
  }

  /** What the signal is measured against at the sensor. */
  String sensorMinus() {
    return sensorMinus;
  }

  /** Share of a resistor that the largest part of its string takes; 1 for a single part. */
  double largestShare(Circuit.Resistor r) {
    return subject.largestShare(r.owner(), r.name());
  }

  /** What feeds the sensor; empty where its volts are not known. */
  String supply() {
    return supply;
  }

  /** The receiver's end of the supply wire, behind a resistor of the receiver's own. */
  String supplyTerminal() {
    return supplyTerminal.isEmpty() ? supply : supplyTerminal;
  }

  /** Faults that are a change of a parameter and not of the circuit. */
  private List<Stage> alteredStages() {
    var list = new ArrayList<>(subject.stages());
    for (Fault fault : faults.list()) alter(list, fault);
    return list;
  }

  private static void alter(List<Stage> list, Fault fault) {
    int i = fault.element() - 1;
    if (fault.kind() == FaultKind.DIODE_OPEN) {
      alter(list, i, "fac", 0.5);
    } else if (i >= 0 && i < list.size() && list.get(i) instanceof InstrumentationAmp amp) {
      // Its gain resistor is no part of the circuit but of the part's law.
      switch (fault.kind()) {
        case PART_OPEN -> alter(list, i, "Rg", 1e12);
        case PART_SHORT -> alter(list, i, "Rg", Circuit.CONTACT / amp.number("Rg"));
        case PART_DRIFT, PART_DECADE -> alter(list, i, "Rg", fault.severity());
        default -> {}
      }
    }
  }

  private static void alter(List<Stage> list, int i, String symbol, double factor) {
    Stage s = list.get(i);
    Field f = s.field(symbol);
    list.set(i, Element.with(s, f, Value.of(s.value(f).number() * factor)));
  }

  private Sensor fitted() {
    return faults.of(FaultKind.OTHER_SENSOR).map(Fault::other).orElse(subject.sensor());
  }

  /** What is at the sensor when the reference says {@code x}. */
  private double truly(double said) {
    Span w = subject.channel().definition().working();
    double x = said;
    for (Fault fault : faults.list()) {
      x =
          switch (fault.kind()) {
            case REFERENCE_OFF -> x + fault.severity() * w.width();
            case REFERENCE_SCALE -> x * fault.severity();
            case REFERENCE_UNIT -> fault.unit().convert(x, subject.channel().unit());
            case MIRRORED -> w.low() + w.high() - x;
            default -> x;
          };
    }
    return x;
  }

  /** Share of the nominal supply that is there. */
  private double fedShare() {
    return faults.supply(rail);
  }

  /** What the sensor gives, in V, Ω or A, before wires and loads. */
  double given() {
    Sensor s = fitted();
    double v = subject.output(s, x);
    for (Fault fault : faults.list()) {
      switch (fault.kind()) {
        case SENSOR_DRIFT -> v *= fault.severity();
        case SENSOR_OFFSET -> v += fault.severity() * outputSpan();
        case CAPACITOR_OPEN -> v *= ((AcVoltage) s).averageOverPeak();
        default -> {}
      }
    }
    return v;
  }

  private double outputSpan() {
    SensorCurve c = subject.curve(subject.sensor());
    Span w = subject.channel().definition().working();
    return Math.abs(c.at(w.high()) - c.at(w.low()));
  }

  private void build() {
    Signal carried = subject.sensor().signal();
    boolean sensed = carried == Signal.RESISTANCE || carried == Signal.CURRENT;
    circuit.of(0);
    if (!sensed) buildVoltageSensor();
    for (int i = 0; i < stages.size(); i++) {
      String in = node(i);
      String out = node(i + 1);
      Sensed own = i == 0 && sensed ? new Wired(given()) : Sensed.of(Signal.RESISTANCE, 1);
      stages.get(i).build(circuit.of(i + 1), in, out, own);
      if (i == 0 && differential()) {
        circuit.cut(out + ".minus");
        circuit.source(out + ".minus", signalMinus, stages.get(0).number("Vneg"));
      }
      stages.get(i).rails().ifPresent(r -> circuit.limit(out, r));
      if (stages.get(i) instanceof BridgeRectifier) {
        if (faults.has(FaultKind.CAPACITOR_OPEN)) circuit.refill(out, 0);
        if (faults.has(FaultKind.DIODE_OPEN)) circuit.refill(out, 1);
      }
    }
    String last = node(stages.size());
    Value input = subject.channel().design().converter().inputResistance();
    if (input != null) {
      circuit.of(stages.size() + 1).resistor("Rin", last, GROUND, input.number());
    }
    if (!wired) throw new IllegalStateException("the sensor is not in the circuit");
    for (Fault fault : faults.list()) applyToParts(fault);
    if (!supply.isEmpty() && fedShare() != 1) circuit.feed(supply, fedShare());
    for (Fault fault : faults.list()) applyBetweenNodes(fault);
  }

  /** Name of the node behind so many stages. */
  static String node(int i) {
    return "TP" + (i + 1);
  }

  private boolean differential() {
    return subject.sensor() instanceof StrainBridge
        && !stages.isEmpty()
        && stages.getFirst() instanceof InstrumentationAmp;
  }

  /** The wire of a function: the sensor's end of it, for what the receiver's end is. */
  private String wire(Pin.Function function, String receiver) {
    FaultKind open =
        switch (function) {
          case SUPPLY -> FaultKind.SUPPLY_OPEN;
          case GROUND -> FaultKind.GROUND_OPEN;
          case SIGNAL -> FaultKind.SIGNAL_OPEN;
          case TEACH -> throw new IllegalArgumentException("a teach wire is no part of the path");
        };
    FaultKind lead =
        switch (function) {
          case SUPPLY -> FaultKind.SUPPLY_LEAD;
          case GROUND -> FaultKind.GROUND_LEAD;
          case SIGNAL -> FaultKind.SIGNAL_LEAD;
          case TEACH -> throw new IllegalArgumentException("a teach wire is no part of the path");
        };
    int joints = subject.channel().wiring().plan().joints().size();
    var at = new String[joints];
    String here = receiver;
    for (int segment = joints; segment >= 0; segment--) {
      String towardsSensor = "pin." + function.title() + (segment == 0 ? "" : "." + segment);
      here = stretch(function, open, lead, segment, towardsSensor, here);
      if (segment > 0) at[segment - 1] = here;
    }
    jointsOf.put(function, List.of(at));
    return here;
  }

  /**
   * One stretch of a wire: the node at its sensor's end, which is the other one where it is sound.
   */
  private String stretch(
      Pin.Function function,
      FaultKind open,
      FaultKind lead,
      int segment,
      String sensor,
      String receiver) {
    if (faults.of(open, segment).isPresent()) return sensor;
    String end = receiver;
    Optional<Fault> offset = faults.of(FaultKind.GROUND_OFFSET, segment);
    if (function == Pin.Function.GROUND && offset.isPresent()) {
      String before = sensor + ".offset";
      circuit.source(before, end, offset.get().severity());
      end = before;
    }
    Optional<Fault> resistance = faults.of(lead, segment);
    if (resistance.isPresent()) {
      circuit.resistor(sensor, end, resistance.get().severity());
      end = sensor;
    }
    return end;
  }

  /** Node of the wiper that gives the reference of a blend, for a stage from 1. */
  static String wiper(int stage) {
    return node(stage) + ".ref";
  }

  /**
   * The node of a wire at a place between the ends, from 1; empty where no such wire goes there.
   */
  String joint(Pin.Function function, int place) {
    List<String> nodes = jointsOf.getOrDefault(function, List.of());
    return place <= nodes.size() ? nodes.get(place - 1) : "";
  }

  private void buildVoltageSensor() {
    Sensor s = fitted();
    wired = true;
    signal = node(0);
    signalPin = wire(Pin.Function.SIGNAL, signal);
    endResistors();
    groundPin = wire(Pin.Function.GROUND, groundTerminal);
    sensorMinus = groundPin;
    boolean alternating = s instanceof AcVoltage;
    if (!alternating && subject.supply().isPresent()) {
      supply = SUPPLY;
      circuit.source(SUPPLY, GROUND, subject.supply().get());
      if (supplyTerminal.isEmpty()) supplyTerminal = SUPPLY;
      supplyPin = wire(Pin.Function.SUPPLY, supplyTerminal);
      if (faults.has(FaultKind.SWAPPED)) {
        supplyPin = groundTerminal;
        groundPin = supplyTerminal;
        sensorMinus = groundPin;
      }
    }
    if (s instanceof Potentiometer p) potentiometer(p);
    else if (s instanceof StrainBridge b && differential()) bridge(b);
    else electronics(s);
  }

  private void potentiometer(Potentiometer p) {
    boolean own = p.resistors() == Potentiometer.EndSide.SENSOR;
    String bottom = own && p.bottom() != null ? "track.bottom" : groundPin;
    String top = own && p.top() != null ? "track.top" : supplyPin;
    if (!bottom.equals(groundPin)) link("Rb", bottom, groundPin, p.bottomOhms());
    link("Rp below", signalPin, bottom, p.trackBelow(x));
    link("Rp above", top, signalPin, p.trackAbove(x));
    if (!top.equals(supplyPin)) link("Rt", supplyPin, top, p.topOhms());
  }

  /** Resistors at the receiver between its supply, its ground and the wires to a potentiometer. */
  private void endResistors() {
    if (!(fitted() instanceof Potentiometer p) || p.resistors() != Potentiometer.EndSide.RECEIVER)
      return;
    if (p.bottom() != null) {
      groundTerminal = "terminal.ground";
      circuit.resistor("Rb", groundTerminal, GROUND, p.bottomOhms());
    }
    if (p.top() != null && subject.supply().isPresent()) {
      supplyTerminal = "terminal.supply";
      circuit.resistor("Rt", SUPPLY, supplyTerminal, p.topOhms());
    }
  }

  private void link(String name, String a, String b, double ohms) {
    if (a.equals(b)) return;
    circuit.resistor(name, a, b, Math.max(ohms, Circuit.CONTACT / 1000));
  }

  /** Four arms, two of which grow while the other two shrink. */
  private void bridge(StrainBridge s) {
    double r = s.sourceResistance().number() > 0 ? s.sourceResistance().number() : 350;
    double d = given() / s.excitation().number();
    signalMinus = "m";
    sensorMinus = "m";
    circuit
        .resistor("arm 1", supplyPin, signalPin, r * (1 - d))
        .resistor("arm 2", signalPin, groundPin, r * (1 + d))
        .resistor("arm 3", supplyPin, "m", r * (1 + d))
        .resistor("arm 4", "m", groundPin, r * (1 - d));
  }

  private void electronics(Sensor s) {
    double resistance =
        s.fields().stream()
            .filter(f -> f.symbol().equals("Rs"))
            .findFirst()
            .map(f -> s.value(f).number())
            .orElse(0.0);
    boolean shorted =
        faults.has(FaultKind.SIGNAL_TO_GROUND, FaultKind.SIGNAL_TO_SUPPLY)
            || faults.list().stream().anyMatch(FaultyCircuit::shortsInput);
    if (resistance == 0 && shorted) resistance = DRIVER;
    double volts = given();
    boolean ratiometric = s.ratiometricSupply().isPresent() && !supplyPin.isEmpty();
    boolean unfed = faults.has(FaultKind.SUPPLY_OPEN, FaultKind.GROUND_OPEN, FaultKind.SUPPLY_DEAD);
    boolean dead =
        faults.has(FaultKind.SWAPPED) || unfed && !ratiometric && !(s instanceof AcVoltage);
    if (dead) volts = subject.supplied().deadVolts();
    String output = resistance > 0 ? "emf" : signalPin;
    if (!supplyPin.isEmpty()) {
      double fed = subject.supply().get();
      if (!ratiometric && !dead) volts = Math.min(volts, fed * supplyShare(fed));
      circuit.resistor(supplyPin, groundPin, fed / draws());
    }
    if (ratiometric && !dead) {
      double ratio = volts / s.ratiometricSupply().get();
      circuit.controlled(supplyPin, groundPin, output, groundPin, ratio);
    } else {
      circuit.source(output, groundPin, volts);
    }
    if (resistance > 0) circuit.resistor(output, signalPin, resistance);
  }

  private static boolean shortsInput(Fault f) {
    return f.kind() == FaultKind.PART_SHORT && (f.part().equals("Rh") || f.part().equals("Rin"));
  }

  /** Part of the supply that reaches a sensor with electronics, which bounds what it can give. */
  private double supplyShare(double fed) {
    double ohms = fed / draws();
    double share = fedShare();
    for (Fault fault : faults.list()) {
      share *=
          switch (fault.kind()) {
            case SUPPLY_LEAD, GROUND_LEAD -> ohms / (ohms + fault.severity());
            case GROUND_OFFSET -> (fed - fault.severity()) / fed;
            default -> 1;
          };
    }
    return share;
  }

  /** Supply current of the sensor's electronics; for an open ground it is what is asked about. */
  private double draws() {
    return faults
        .of(FaultKind.GROUND_OPEN)
        .map(Fault::severity)
        .filter(amperes -> !amperes.isNaN())
        .orElse(subject.supplied().amperes());
  }

  /** A resistive or current sensor at the end of its wires. */
  private final class Wired implements Sensed {
    private final double value;

    private Wired(double value) {
      this.value = value;
    }

    @Override
    public double value() {
      return value;
    }

    @Override
    public void between(Circuit c, String from, String to) {
      wired = true;
      if (subject.sensor() instanceof CurrentLoop) {
        loop(from, to);
        return;
      }
      boolean fromSupply = from.endsWith(".supply");
      signal = fromSupply ? to : from;
      supply = fromSupply ? from : node(1) + ".supply";
      if (!c.feeds(supply)) supply = "";
      signalPin = wire(Pin.Function.SIGNAL, signal);
      String far;
      if (fromSupply) {
        supplyPin = wire(Pin.Function.SUPPLY, from);
        far = supplyPin;
      } else {
        groundPin = wire(Pin.Function.GROUND, to);
        far = groundPin;
      }
      sensorMinus = far;
      c.of(0).resistor("R", signalPin, far, value);
    }

    private void loop(String from, String to) {
      signal = to;
      supply = from.equals(GROUND) ? "" : from;
      signalPin = wire(Pin.Function.SIGNAL, to);
      supplyPin = supply.isEmpty() ? "" : wire(Pin.Function.SUPPLY, from);
      sensorMinus = signalPin;
      groundPin = GROUND;
      if (faults.has(
          FaultKind.SUPPLY_OPEN, FaultKind.SIGNAL_OPEN, FaultKind.SWAPPED, FaultKind.SUPPLY_DEAD)) {
        return;
      }
      if (supply.isEmpty()) {
        circuit.current(GROUND, signalPin, value);
        return;
      }
      var shunt = (Shunt) stages.getFirst();
      double needs = shunt.transmitter() == null ? 0 : shunt.transmitter().number();
      circuit.loop(supplyPin, "loop", value, needs);
      double leads = shunt.wire() == null ? 0 : shunt.wire().number();
      circuit.resistor("loop", signalPin, Math.max(leads, Circuit.CONTACT / 1000));
    }
  }

  private void applyToParts(Fault fault) {
    switch (fault.kind()) {
      case PART_OPEN -> circuit.scale(fault.element(), fault.part(), Double.POSITIVE_INFINITY);
      case PART_SHORT ->
          circuit.scale(
              fault.element(),
              fault.part(),
              1 - subject.largestShare(fault.element(), fault.part()));
      case PART_DRIFT, PART_DECADE ->
          circuit.scale(fault.element(), fault.part(), fault.severity());
      default -> {}
    }
  }

  private void applyBetweenNodes(Fault fault) {
    switch (fault.kind()) {
      case SIGNAL_TO_GROUND -> circuit.resistor(signal, groundTerminal, Circuit.CONTACT);
      case SIGNAL_TO_SUPPLY -> circuit.resistor(signal, supplyTerminal(), Circuit.CONTACT);
      case LEAK_TO_GROUND -> circuit.resistor(signal, groundTerminal, fault.severity());
      case LEAK_TO_SUPPLY -> circuit.resistor(signal, supplyTerminal(), fault.severity());
      case SUPPLY_OPEN -> {
        // A pull-up is fed at the receiver: there it is the feed itself that is missing.
        if (supplyPin.isEmpty() && !supply.isEmpty()) circuit.cut(supply);
      }
      default -> {}
    }
  }
}
