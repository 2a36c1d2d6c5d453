package nocking.fault;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import nocking.element.Signal;
import nocking.network.Circuit;
import nocking.prior.FaultKind;
import nocking.quantity.Span;
import nocking.sensor.AcVoltage;
import nocking.stage.Shunt;
import nocking.wiring.PairReading;
import nocking.wiring.Pin;
import nocking.wiring.Place;

/**
 * A channel with its wires and what is wrong in it, at one input, as a meter and the display see
 * it.
 */
public final class FaultyPath {
  private static final String GROUND = Circuit.GROUND;
  private static final double TEST_CURRENT = 1e-4;

  private final Subject subject;
  private final Faults faults;
  private final double rail;
  private final FaultyCircuit built;
  private Circuit.OperatingPoint point;

  private FaultyPath(Subject subject, Faults faults, double x, double rail) {
    this.subject = subject;
    this.faults = faults;
    this.rail = rail;
    built = new FaultyCircuit(subject, faults, x, rail);
  }

  /** The channel with a fault at an input in its own unit. */
  public static FaultyPath of(Subject subject, Fault fault, double x) {
    return onRail(subject, fault, x, 1);
  }

  /** The channel with all of some faults. */
  public static FaultyPath of(Subject subject, Faults faults, double x) {
    return onRail(subject, faults, x, 1);
  }

  /** The same on a supply that gives a share of its nominal volts, as a sound one may. */
  public static FaultyPath onRail(Subject subject, Fault fault, double x, double share) {
    return onRail(subject, Faults.of(fault), x, share);
  }

  /** The channel with all of some faults on a supply that gives a share of its nominal volts. */
  public static FaultyPath onRail(Subject subject, Faults faults, double x, double share) {
    return new FaultyPath(subject, faults, x, share);
  }

  /** What a place reads. */
  public record Reading(double value, Span span, boolean floats) {
    static Reading of(double v) {
      return new Reading(v, Double.isNaN(v) ? new Span(0, 0) : new Span(v, v), false);
    }
  }

  private String lastNode() {
    return FaultyCircuit.node(built.stages().size());
  }

  /** True where the supply's volts are known. */
  boolean fed() {
    return !built.supply().isEmpty();
  }

  /** True where a wire brings the supply to the sensor. */
  boolean hasSupplyPin() {
    return !built.supplyPin().isEmpty();
  }

  /** True where a wire joins the sensor to ground. */
  boolean hasGroundPin() {
    return !built.sensorMinus().equals(built.signalPin())
        && !built.sensorMinus().equals(built.supplyPin());
  }

  /** The circuit itself, for a referee. */
  Circuit circuit() {
    return built.circuit();
  }

  /** Volts that a floating node may take: the converter's range or the supply, if that is more. */
  private Span floating() {
    double top = subject.channel().design().converter().reference().number();
    return new Span(0, Math.max(top, subject.supply().orElse(0.0)));
  }

  /**
   * What a place reads.
   *
   * @param meter input resistance of a voltmeter, ohms; infinity for none
   */
  public Reading read(Place place, double meter) {
    return solved(() -> solvedAt(place, meter));
  }

  /**
   * Numbers far from any job can leave a circuit without a single solution: nothing is known then.
   */
  private static Reading solved(Supplier<Reading> reading) {
    try {
      return reading.get();
    } catch (IllegalStateException e) {
      return Reading.of(Double.NaN);
    }
  }

  private Reading solvedAt(Place place, double meter) {
    return switch (place.kind()) {
      case DISPLAY -> display();
      case SUPPLY_AT_RECEIVER -> volts(built.supplyTerminal(), GROUND, meter);
      case SUPPLY_AT_SENSOR -> volts(built.supplyPin(), built.groundPin(), meter);
      case GROUND_AT_SENSOR -> volts(built.groundPin(), GROUND, meter);
      case SIGNAL_AT_SENSOR -> atSensor(meter);
      // The black lead stays on the receiver's ground: that is how a path is walked.
      case SIGNAL_AT_JOINT ->
          alternating(atJoint(Pin.Function.SIGNAL, place.node(), built.signalMinus(), meter));
      case SUPPLY_AT_JOINT -> atJoint(Pin.Function.SUPPLY, place.node(), GROUND, meter);
      case GROUND_AT_JOINT -> atJoint(Pin.Function.GROUND, place.node(), GROUND, meter);
      case REFERENCE_WIPER -> volts(FaultyCircuit.wiper(place.node()), GROUND, meter);
      case SIGNAL_AT_RECEIVER ->
          last(built.signal(), alternating(volts(built.signal(), built.signalMinus(), meter)));
      case TEST_POINT -> last("TP" + place.node(), volts("TP" + place.node(), GROUND, meter));
      case OHMS_AT_SENSOR -> Reading.of(unplugged(true));
      case OHMS_AT_RECEIVER -> Reading.of(unplugged(false));
      case LOOP_CURRENT -> loopCurrent();
    };
  }

  private Reading atJoint(Pin.Function function, int joint, String minus, double meter) {
    return volts(built.joint(function, joint), minus, meter);
  }

  private Reading atSensor(double meter) {
    return alternating(volts(built.signalPin(), built.sensorMinus(), meter));
  }

  private Reading last(String node, Reading r) {
    return node.equals(lastNode()) ? measured(r) : r;
  }

  /** An alternating voltage is carried as its peak; a meter shows its RMS. */
  private Reading alternating(Reading peak) {
    if (!(subject.sensor() instanceof AcVoltage ac) || ac.signal() != Signal.ALTERNATING) {
      return peak;
    }
    // The mean that is left without the capacitor stands for the same wave at the input.
    double undo = faults.has(FaultKind.CAPACITOR_OPEN) ? 1 / ac.averageOverPeak() : 1;
    return Reading.of(peak.value() * undo / ac.peakOverRms());
  }

  /** The circuit at rest with nothing connected to it. */
  private Circuit.OperatingPoint point() {
    if (point == null) point = circuit().operatingPoint(floating());
    return point;
  }

  private Reading volts(String plus, String minus, double meter) {
    if (plus.isEmpty() || !circuit().has(minus)) return Reading.of(Double.NaN);
    // A node that no part of the circuit is joined to is held by nothing but the meter.
    if (!circuit().has(plus)) {
      return Double.isFinite(meter)
          ? Reading.of(0)
          : new Reading(floating().middle(), floating(), true);
    }
    Circuit.OperatingPoint at =
        Double.isFinite(meter) && !plus.equals(minus)
            ? circuit().copy().resistor(plus, minus, meter).operatingPoint(floating())
            : point();
    return new Reading(at.volts(plus, minus), at.span(plus, minus), at.floats(plus, minus));
  }

  /**
   * Volts at the converter with everything connected and no meter, as the converter sees them: a
   * reference that sinks with the supply makes a low supply unseen.
   */
  public Reading converter() {
    Reading v = solved(() -> measured(volts(lastNode(), GROUND, Double.POSITIVE_INFINITY)));
    double share = referenceShare();
    return share == 1
        ? v
        : new Reading(
            v.value() / share,
            new Span(v.span().low() / share, v.span().high() / share),
            v.floats());
  }

  /** Volts at the converter with a resistor to ground in front of a stage, or behind the last. */
  Reading pulledDown(int stage, double ohms) {
    return solved(
        () -> {
          Circuit.OperatingPoint at =
              circuit()
                  .copy()
                  .resistor(FaultyCircuit.node(stage), GROUND, ohms)
                  .operatingPoint(floating());
          String last = lastNode();
          return measured(
              new Reading(at.volts(last, GROUND), at.span(last, GROUND), at.floats(last, GROUND)));
        });
  }

  /** Share of its reference that the converter has. */
  double referenceShare() {
    // A dead supply takes the converter with it: there is no reference to count by.
    boolean counts = subject.channel().wiring().plan().sharedReference();
    return counts && !faults.has(FaultKind.SUPPLY_DEAD) ? faults.supply(rail) : 1;
  }

  /** The calculated volts of the last node as the calibrated circuit really gives them. */
  private Reading measured(Reading calculated) {
    if (calculated.floats() || Double.isNaN(calculated.value())) return calculated;
    return Reading.of(subject.calibrated(calculated.value()));
  }

  /** What the display says. */
  private Reading display() {
    Reading in = converter();
    double a = shown(in.span().low());
    double b = shown(in.span().high());
    boolean known = !Double.isNaN(a) && !Double.isNaN(b);
    return new Reading(
        known ? (a + b) / 2 : Double.NaN, known ? Span.between(a, b) : new Span(0, 0), in.floats());
  }

  /** Volts as the converter takes them: in steps, between its ends. */
  private double shown(double volts) {
    var converter = subject.channel().design().converter();
    return ShownReading.shown(subject, faults, converter.volts(converter.code(volts)));
  }

  private Reading loopCurrent() {
    if (!circuit().has("loop")) return Reading.of(0);
    Circuit.OperatingPoint s = point();
    var shunt = (Shunt) built.stages().getFirst();
    double leads = shunt.wire() == null ? 0 : shunt.wire().number();
    return Reading.of(s.volts("loop", built.signalPin()) / Math.max(leads, Circuit.CONTACT / 1000));
  }

  /** Ohms of a resistive sensor by itself, or through its cable with what leaks across it. */
  private double unplugged(boolean atSensor) {
    var c = new Circuit();
    double part = built.given();
    for (Fault fault : faults.list()) {
      if (fault.element() != 0) continue;
      part =
          switch (fault.kind()) {
            case PART_OPEN -> Double.POSITIVE_INFINITY;
            case PART_SHORT -> Circuit.CONTACT;
            case PART_DRIFT -> part * fault.severity();
            default -> part;
          };
    }
    if (atSensor) return Math.min(part, PairReading.OPEN);
    c.resistor("a", "b", Math.min(part, PairReading.OPEN));
    double lead = 0;
    for (Fault fault : faults.list()) {
      lead +=
          switch (fault.kind()) {
            case SUPPLY_OPEN -> built.supplyPin().isEmpty() ? 0 : PairReading.OPEN;
            case GROUND_OPEN, SIGNAL_OPEN -> PairReading.OPEN;
            case SUPPLY_LEAD -> built.supplyPin().isEmpty() ? 0 : fault.severity();
            case GROUND_LEAD, SIGNAL_LEAD -> fault.severity();
            default -> 0;
          };
    }
    String end = lead == 0 ? "a" : "c";
    if (lead > 0) c.resistor("c", "a", lead);
    boolean acrossGround = built.supplyPin().isEmpty();
    for (Fault fault : faults.list()) {
      switch (fault.kind()) {
        case SIGNAL_TO_GROUND -> {
          if (acrossGround) c.resistor(end, "b", Circuit.CONTACT);
        }
        case SIGNAL_TO_SUPPLY -> {
          if (!acrossGround) c.resistor(end, "b", Circuit.CONTACT);
        }
        case LEAK_TO_GROUND -> {
          if (acrossGround) c.resistor(end, "b", fault.severity());
        }
        case LEAK_TO_SUPPLY -> {
          if (!acrossGround) c.resistor(end, "b", fault.severity());
        }
        default -> {}
      }
    }
    c.current(GROUND, end, TEST_CURRENT).source("b", GROUND, 0);
    double ohms = c.solve().get(end) / TEST_CURRENT;
    return Math.min(ohms, PairReading.OPEN);
  }

  /**
   * What a resistor of the stages takes.
   *
   * @param volts across it without sign, RMS where they alternate
   * @param share of it that the largest part of a string takes; 1 for a single part
   */
  record Stress(Circuit.Resistor part, double volts, double share) {
    double watts() {
      return volts * volts / part.ohms();
    }
  }

  /** What the resistors of the stages take; none where the circuit has no single solution. */
  List<Stress> stresses() {
    var list = new ArrayList<Stress>();
    Circuit.OperatingPoint at = solution();
    if (at == null) return list;
    for (Circuit.Resistor r : circuit().resistors()) {
      boolean ofStage = r.owner() >= 1 && r.owner() <= built.stages().size();
      // A track that a wiper divides is no single resistor with ratings of its own.
      if (!ofStage || r.name().isEmpty() || r.name().contains(" ")) continue;
      double share = built.largestShare(r);
      if (faults.shorts(r)) {
        if (share == 1) continue;
        // The others of a string take what the one that is shorted took.
        share = Math.min(1, share / (1 - share));
      }
      double peak = Math.abs(at.volts(r.a(), r.b()));
      double volts = peak / peakOverRms(r.owner() - 1);
      list.add(new Stress(r, volts, share));
    }
    return list;
  }

  private Circuit.OperatingPoint solution() {
    try {
      return point();
    } catch (IllegalStateException e) {
      // Numbers far from any job.
      return null;
    }
  }

  /** Volts at the converter's input that something drives; NaN where nothing holds it. */
  double pin() {
    Circuit.OperatingPoint at = solution();
    String last = lastNode();
    boolean driven = at != null && circuit().has(last) && !at.floats(last, GROUND);
    return driven ? at.volts(last, GROUND) : Double.NaN;
  }

  /**
   * Amperes through what would hold the converter's input at some volts, without sign; NaN where
   * the circuit has no single solution then.
   */
  double heldAt(double volts, double ohms) {
    String last = lastNode();
    Circuit held =
        circuit().copy().source("pin.holds", GROUND, volts).resistor(last, "pin.holds", ohms);
    try {
      return Math.abs(held.operatingPoint(floating()).volts(last, "pin.holds")) / ohms;
    } catch (IllegalStateException e) {
      return Double.NaN;
    }
  }

  /**
   * A place that a hand can get at.
   *
   * @param name of the place, whatever its node is called
   * @param volts against ground without sign, peak
   * @param peakOverRms 1 where it does not alternate
   */
  record Touched(String name, double volts, double peakOverRms) {}

  /** What stands where a hand can get at; without places that nothing holds. */
  List<Touched> touched() {
    var list = new ArrayList<Touched>();
    Circuit.OperatingPoint at = solution();
    if (at == null) return list;
    double peak = peakOverRms(0);
    touch(list, at, "signal at the sensor", built.signalPin(), peak);
    touch(list, at, "supply at the sensor", built.supplyPin(), 1);
    touch(list, at, "ground at the sensor", built.groundPin(), peak);
    touch(list, at, "signal at the receiver", built.signal(), peak);
    for (int i = 1; i <= built.stages().size(); i++) {
      String node = FaultyCircuit.node(i);
      if (!node.equals(built.signal())) touch(list, at, node, node, peakOverRms(i));
    }
    return list;
  }

  private void touch(
      List<Touched> list, Circuit.OperatingPoint at, String name, String node, double peak) {
    if (node.isEmpty() || node.equals(GROUND) || !circuit().has(node)) return;
    if (at.floats(node, GROUND)) return;
    list.add(new Touched(name, Math.abs(at.volts(node, GROUND)), peak));
  }

  /** Peak over RMS of what goes into the stage behind so many others. */
  private double peakOverRms(int stages) {
    Signal s = subject.sensor().signal();
    for (int i = 0; i < stages; i++) s = built.stages().get(i).gives(s);
    return s == Signal.ALTERNATING ? subject.sensor().peakOverRms() : 1;
  }
}
