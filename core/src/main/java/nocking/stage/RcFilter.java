package nocking.stage;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.Optional;
import nocking.algebra.Expr;
import nocking.element.Parameter;
import nocking.element.Symbols;
import nocking.network.Circuit;
import nocking.quantity.Numbers;
import nocking.quantity.Value;

/**
 * RC low-pass: at rest only a series resistor. From a stiff output its cut-off is f_c = 1/(2πRC);
 * what feeds it is in series with R, and a step has settled to half a count of an N bit converter
 * after R'C·ln(2^(N+1)), R' being all that charges the capacitor.
 *
 * @param resistance R, ohms, above 0
 * @param capacitance C, farads, above 0
 */
@JsonTypeName("rc-filter")
public record RcFilter(
    @Parameter(symbol = "R", label = "Resistor", unit = "ohm", above = 0) Value resistance,
    @Parameter(symbol = "C", label = "Capacitor", unit = "F", above = 0) Value capacitance)
    implements Stage {

  static final RcFilter EXAMPLE = new RcFilter(Value.of(1e3), new Value(100e-9, "100n"));

  @Override
  public String title() {
    return "RC low-pass";
  }

  /** Cut-off frequency in hertz from a stiff output. */
  public double cutOff() {
    return 1 / (2 * Math.PI * resistance.number() * capacitance.number());
  }

  /**
   * Seconds until a full-scale step is within half a count.
   *
   * @param ohms that charge the capacitor: R with what feeds it, beside what loads it
   */
  public double settling(double ohms, int bits) {
    return ohms * capacitance.number() * Math.log(Math.pow(2, bits + 1.0));
  }

  @Override
  public String summary() {
    return Numbers.compact(cutOff(), "Hz", 3);
  }

  @Override
  public String gain() {
    return "cut-off %s from a stiff output".formatted(Numbers.engineering(cutOff(), "Hz", 3));
  }

  @Override
  public Expr relation(Expr input, Optional<Load> load, Symbols own) {
    return Load.node(input, own.of("R"), load);
  }

  @Override
  public Optional<Load> inputLoad(Optional<Load> load, Symbols own) {
    return load.map(l -> l.behind(own.of("R")));
  }

  @Override
  public double outputResistance() {
    return resistance.number();
  }

  @Override
  public void build(Circuit circuit, String input, String output, Sensed sensed) {
    circuit.resistor("R", input, output, resistance.number());
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.terminal(8, CircuitSketch.MID, "in");
    sketch.across(30, CircuitSketch.MID, 118, sketch.label(this, "R"));
    sketch.wire(118, CircuitSketch.MID, 240, CircuitSketch.MID);
    sketch.joint(140, CircuitSketch.MID);
    sketch.capacitor(
        140,
        CircuitSketch.MID,
        CircuitSketch.GROUND,
        Numbers.compact(capacitance().number(), "F", 3));
    sketch.ground(140, CircuitSketch.GROUND);
    sketch.terminal(240, CircuitSketch.MID, "out");
  }
}
