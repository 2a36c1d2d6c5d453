package nocking.path;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import nocking.converter.Converter;
import nocking.element.Element;
import nocking.element.Field;
import nocking.element.Measurand;
import nocking.element.Signal;
import nocking.element.Symbols;
import nocking.network.Circuit;
import nocking.quantity.Span;
import nocking.sensor.Sensor;
import nocking.stage.Sensed;
import nocking.stage.Stage;

/** A path at one input as a circuit of parts, with what every resistor of it takes. */
public final class PathCircuit {

  /**
   * What a resistor takes.
   *
   * @param element 1 … n for the stages
   * @param volts across it, without sign; RMS where they alternate, as ratings are (IEC 60115-1)
   */
  public record Stress(int element, Field field, double ohms, double volts) {
    public double watts() {
      return volts * volts / ohms;
    }
  }

  private static final String EMF = "emf";

  /** Ohms through which a stiff output's current is measured. */
  private static final double METERED = 1e-2;

  /** Amperes that are put into a place to see what it shows. */
  private static final double PUSH = 1e-6;

  /** Steps of a range at which it is looked at. */
  private static final int PLACES = 16;

  private final Circuit circuit = new Circuit();
  private final List<Stage> stages;
  private final Sensor sensor;

  /**
   * @param least ohms before a voltage's terminal; 0 for none but its own
   */
  private PathCircuit(
      Measurand measured,
      Sensor sensor,
      List<Stage> stages,
      Converter converter,
      double x,
      double least) {
    this.stages = stages;
    this.sensor = sensor;
    var table = new SymbolTable(List.of(measured.symbol()));
    Symbols own = table.add(sensor, 0);
    Map<String, Double> values = new HashMap<>(table.values());
    values.put(measured.symbol(), x);
    double open = sensor.output(measured, own).evaluate(values);
    if (sensor.signal() == Signal.VOLTAGE || sensor.signal() == Signal.ALTERNATING) {
      double series =
          Math.max(
              least,
              sensor.seriesResistance(measured, own).map(r -> r.evaluate(values)).orElse(0.0));
      circuit.source(EMF, Circuit.GROUND, open);
      if (series > 0) circuit.resistor(EMF, node(0), series);
      else circuit.source(node(0), EMF, 0);
    }
    for (int i = 0; i < stages.size(); i++) {
      stages
          .get(i)
          .build(circuit.of(i + 1), node(i), node(i + 1), Sensed.of(sensor.signal(), open));
      String out = node(i + 1);
      stages.get(i).rails().ifPresent(r -> circuit.limit(out, r));
    }
    circuit.of(stages.size() + 1);
    if (converter.inputResistance() != null) {
      circuit.resistor(
          "Rin", node(stages.size()), Circuit.GROUND, converter.inputResistance().number());
    }
  }

  /** Name of the node behind so many stages. */
  public static String node(int i) {
    return "TP" + (i + 1);
  }

  /** The circuit at one input of the quantity. */
  public static PathCircuit of(
      Measurand measured, Sensor sensor, List<Stage> stages, Converter converter, double x) {
    return new PathCircuit(measured, sensor, stages, converter, x, 0);
  }

  /** Voltage of every node as if no output had rails. */
  public Map<String, Double> solve() {
    return circuit.solve();
  }

  /**
   * Where the circuit comes to rest, outputs held at their rails.
   *
   * @throws IllegalStateException when it has no single solution
   */
  Circuit.OperatingPoint operatingPoint() {
    return circuit.operatingPoint(new Span(0, 0));
  }

  /**
   * Ohms that the place behind so many stages shows to what is put at it, whatever feeds it from
   * before and loads it from behind: what charges a capacitor there. As if no output had rails.
   */
  public double ohmsAt(int stages) {
    String place = node(stages);
    double rest = circuit.solve().get(place);
    Circuit pushed = circuit.copy().current(Circuit.GROUND, place, PUSH);
    return (pushed.solve().get(place) - rest) / PUSH;
  }

  /**
   * The most that it shows over a range: where a filter behind so many stages is slowest.
   *
   * @param stages a place behind one of {@code all}
   */
  public static double mostOhmsAt(
      Measurand measured,
      Sensor sensor,
      List<Stage> all,
      Converter converter,
      Span range,
      int stages) {
    double most = 0;
    for (int i = 0; i <= PLACES; i++) {
      double x = range.at((double) i / PLACES);
      most = Math.max(most, of(measured, sensor, all, converter, x).ohmsAt(stages));
    }
    return most;
  }

  boolean has(String node) {
    return circuit.has(node);
  }

  /** {@link Circuit#rectifierShare} of the rectifier behind so many stages. */
  double rectifierShare(int stage) {
    return circuit.rectifierShare(node(stage + 1));
  }

  /**
   * Amperes that a resistive sensor carries, or that one with a voltage gives away at its terminal;
   * without a sign, to about six digits. A loop carries its own current and is not asked here.
   */
  public static double sensorAmperes(
      Measurand measured, Sensor sensor, List<Stage> stages, Converter converter, double x) {
    var c = new PathCircuit(measured, sensor, stages, converter, x, METERED);
    Circuit.OperatingPoint volts = c.operatingPoint();
    return c.circuit.resistors().stream()
        .filter(r -> r.a().equals(EMF) || r.owner() == 1 && r.name().isEmpty())
        .mapToDouble(r -> Math.abs(volts.volts(r.a(), r.b())) / r.ohms())
        .findFirst()
        .orElse(0);
  }

  /** Peak over RMS of what goes into the stage behind so many others. */
  private double peakOverRms(int before) {
    Signal s = sensor.signal();
    for (int i = 0; i < before; i++) s = stages.get(i).gives(s);
    return s == Signal.ALTERNATING ? sensor.peakOverRms() : 1;
  }

  /** What the resistors of the stages take, in the order of the path. */
  public List<Stress> stresses() {
    Circuit.OperatingPoint volts = operatingPoint();
    var list = new ArrayList<Stress>();
    for (Circuit.Resistor part : circuit.resistors()) {
      if (part.owner() < 1 || part.owner() > stages.size() || part.name().isEmpty()) continue;
      Element stage = stages.get(part.owner() - 1);
      String symbol = part.name().split(" ")[0];
      Field f = stage.field(symbol);
      // A track that a wiper divides is no single resistor with ratings of its own.
      if (stage.value(f).number() != part.ohms()) continue;
      double across = Math.abs(volts.volts(part.a(), part.b())) / peakOverRms(part.owner() - 1);
      list.add(new Stress(part.owner(), f, part.ohms(), across));
    }
    return list;
  }
}
