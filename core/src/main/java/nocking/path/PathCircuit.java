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
import nocking.sensor.Sensor;
import nocking.stage.Stage;

/** A path at one input as a circuit of parts, with what every resistor of it takes. */
public final class PathCircuit {

  /**
   * What a resistor takes.
   *
   * @param element 1 … n for the stages
   * @param volts across it, without sign
   */
  public record Stress(int element, Field field, double ohms, double volts) {
    public double watts() {
      return volts * volts / ohms;
    }
  }

  private final Circuit circuit = new Circuit();
  private final List<Stage> stages;
  private final int[] firstResistor;

  private PathCircuit(
      Measurand measured, Sensor sensor, List<Stage> stages, Converter converter, double x) {
    this.stages = stages;
    firstResistor = new int[stages.size() + 1];
    var table = new SymbolTable(List.of(measured.symbol()));
    Symbols own = table.add(sensor, 0);
    Map<String, Double> values = new HashMap<>(table.values());
    values.put(measured.symbol(), x);
    double open = sensor.output(measured, own).evaluate(values);
    if (sensor.signal() == Signal.VOLTAGE || sensor.signal() == Signal.ALTERNATING) {
      double series =
          sensor.seriesResistance(measured, own).map(r -> r.evaluate(values)).orElse(0.0);
      circuit.source("emf", Circuit.GROUND, open);
      if (series > 0) circuit.resistor("emf", node(0), series);
      else circuit.source(node(0), "emf", 0);
    }
    for (int i = 0; i < stages.size(); i++) {
      firstResistor[i] = circuit.resistors().size();
      stages.get(i).build(circuit, node(i), node(i + 1), open);
    }
    firstResistor[stages.size()] = circuit.resistors().size();
    if (converter.inputResistance() != null) {
      circuit.resistor(node(stages.size()), Circuit.GROUND, converter.inputResistance().number());
    }
  }

  private static String node(int i) {
    return "TP" + (i + 1);
  }

  /** The circuit at one input of the quantity; it is linear, so rails are not in it. */
  public static PathCircuit of(
      Measurand measured, Sensor sensor, List<Stage> stages, Converter converter, double x) {
    return new PathCircuit(measured, sensor, stages, converter, x);
  }

  /** Voltage of every node. */
  public Map<String, Double> solve() {
    return circuit.solve();
  }

  /** What the resistors of the stages take, in the order of the path. */
  public List<Stress> stresses() {
    Map<String, Double> volts = solve();
    List<Circuit.Resistor> all = circuit.resistors();
    var list = new ArrayList<Stress>();
    for (int i = 0; i < stages.size(); i++) {
      Element stage = stages.get(i);
      for (Field f : stage.fields()) {
        if (!f.parameter().unit().equals("ohm") || stage.value(f) == null) continue;
        double ohms = stage.value(f).number();
        for (int r = firstResistor[i]; r < firstResistor[i + 1]; r++) {
          Circuit.Resistor part = all.get(r);
          if (part.ohms() != ohms) continue;
          double across = Math.abs(volts.get(part.a()) - volts.get(part.b()));
          list.add(new Stress(i + 1, f, ohms, across));
        }
      }
    }
    return list;
  }
}
