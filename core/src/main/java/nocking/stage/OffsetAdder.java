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
 * Shifts a live signal by a resistive sum with a supply, or with ground: V = (V_in·R₂ + V_x·R₁)/(R₁
 * + R₂).
 *
 * @param signal R₁ in the signal, ohms, above 0
 * @param shift R₂ from V_x, ohms, above 0
 * @param from V_x, volts; 0 subtracts, a supply adds
 */
@JsonTypeName("offset-adder")
public record OffsetAdder(
    @Parameter(symbol = "R1", label = "Signal resistor", unit = "ohm", above = 0) Value signal,
    @Parameter(symbol = "R2", label = "Shift resistor", unit = "ohm", above = 0) Value shift,
    @Parameter(symbol = "Vx", label = "Shift from", unit = "V") Value from)
    implements Stage {

  static final OffsetAdder EXAMPLE = new OffsetAdder(Value.of(1e3), Value.of(100e3), Value.of(5));

  @Override
  public String title() {
    return "Offset adder";
  }

  private double share() {
    return signal.number() / (signal.number() + shift.number());
  }

  @Override
  public String summary() {
    return "%s %s"
        .formatted(
            Numbers.compact(share() * from.number(), "V", 3),
            "× " + Numbers.trimmed(1 - share(), 4));
  }

  @Override
  public String gain() {
    return "gain %s, shift %s"
        .formatted(
            Numbers.trimmed(1 - share(), 6), Numbers.engineering(share() * from.number(), "V", 4));
  }

  private Load below(Symbols own) {
    return new Load(own.of("R2"), from.number() == 0 ? Expr.ZERO : own.of("Vx"));
  }

  @Override
  public Expr relation(Expr input, Optional<Load> load, Symbols own) {
    return below(own).with(load).node(input, own.of("R1"));
  }

  @Override
  public Optional<Load> inputLoad(Optional<Load> load, Symbols own) {
    return Optional.of(below(own).with(load).behind(own.of("R1")));
  }

  @Override
  public double outputResistance() {
    return signal.number() * shift.number() / (signal.number() + shift.number());
  }

  @Override
  public void build(Circuit circuit, String input, String output, Sensed sensed) {
    circuit
        .resistor("R1", input, output, signal.number())
        .resistor("R2", output, output + ".shift", shift.number())
        .source(output + ".shift", Circuit.GROUND, from.number());
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.terminal(8, CircuitSketch.MID, "in");
    sketch.across(30, CircuitSketch.MID, 118, sketch.label(this, "R1"));
    sketch.wire(118, CircuitSketch.MID, 240, CircuitSketch.MID);
    sketch.joint(140, CircuitSketch.MID);
    if (from().number() == 0) {
      sketch.down(140, CircuitSketch.MID, CircuitSketch.GROUND, sketch.label(this, "R2"));
      sketch.ground(140, CircuitSketch.GROUND);
    } else {
      sketch.supply(140, CircuitSketch.TOP, CircuitSketch.volts(from().number()));
      sketch.down(140, CircuitSketch.TOP, CircuitSketch.MID, sketch.label(this, "R2"));
    }
    sketch.terminal(240, CircuitSketch.MID, "out");
  }
}
