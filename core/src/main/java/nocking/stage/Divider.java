package nocking.stage;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.Optional;
import java.util.Set;
import nocking.algebra.Expr;
import nocking.element.Parameter;
import nocking.element.Signal;
import nocking.element.Symbols;
import nocking.network.Circuit;
import nocking.quantity.Numbers;
import nocking.quantity.Value;

/**
 * Two resistors: V = V_in·R₂/(R₁ + R₂), with R₂ in parallel with what hangs on the output.
 *
 * @param upper R₁, ohms, above 0
 * @param lower R₂ to ground, ohms, above 0
 */
@JsonTypeName("divider")
public record Divider(
    @Parameter(symbol = "R1", label = "Upper resistor", unit = "ohm", above = 0) Value upper,
    @Parameter(symbol = "R2", label = "Lower resistor", unit = "ohm", above = 0) Value lower)
    implements Stage {

  static final Divider EXAMPLE = new Divider(Value.of(10e3), Value.of(10e3));

  @Override
  public String title() {
    return "Divider";
  }

  @Override
  public Set<Signal> accepts() {
    return Set.of(Signal.VOLTAGE, Signal.ALTERNATING);
  }

  @Override
  public Signal gives(Signal input) {
    return input;
  }

  @Override
  public String summary() {
    return Numbers.compact(upper.number(), "Ω", 3)
        + " over "
        + Numbers.compact(lower.number(), "Ω", 3);
  }

  @Override
  public String gain() {
    double ratio = lower.number() / (upper.number() + lower.number());
    return "ratio " + Numbers.trimmed(ratio, 6);
  }

  @Override
  public Expr relation(Expr input, Optional<Load> load, Symbols own) {
    return Load.beside(own.of("R2"), load).node(input, own.of("R1"));
  }

  @Override
  public Optional<Load> inputLoad(Optional<Load> load, Symbols own) {
    return Optional.of(Load.beside(own.of("R2"), load).behind(own.of("R1")));
  }

  @Override
  public double outputResistance() {
    return upper.number() * lower.number() / (upper.number() + lower.number());
  }

  @Override
  public void build(Circuit circuit, String input, String output, Sensed sensed) {
    circuit
        .resistor("R1", input, output, upper.number())
        .resistor("R2", output, Circuit.GROUND, lower.number());
  }

  @Override
  public PartChoice parts() {
    return PartChoice.DIVIDER;
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.terminal(8, CircuitSketch.MID, "in");
    sketch.across(30, CircuitSketch.MID, 118, sketch.label(this, "R1"));
    sketch.wire(118, CircuitSketch.MID, 240, CircuitSketch.MID);
    sketch.joint(140, CircuitSketch.MID);
    sketch.down(140, CircuitSketch.MID, CircuitSketch.GROUND, sketch.label(this, "R2"));
    sketch.ground(140, CircuitSketch.GROUND);
    sketch.terminal(240, CircuitSketch.MID, "out");
  }
}
