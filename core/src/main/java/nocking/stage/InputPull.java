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
 * A resistor that holds a signal's node when the wire is off: to ground a pull-down, to the supply
 * a pull-up. The voltage passes as it is; what the resistor draws bends it by the source's
 * resistance.
 *
 * @param resistance R_h, ohms, above 0
 * @param towards V_h, volts; 0 for ground
 */
@JsonTypeName("input-pull")
public record InputPull(
    @Parameter(symbol = "Rh", label = "Resistor", unit = "ohm", above = 0) Value resistance,
    @Parameter(symbol = "Vh", label = "Towards", unit = "V") Value towards)
    implements Stage {

  static final InputPull EXAMPLE = toGround(Value.of(100e3));

  /** A pull-down. */
  public static InputPull toGround(Value resistance) {
    return new InputPull(resistance, Value.of(0));
  }

  @Override
  public String title() {
    return "Input pull";
  }

  @Override
  public String summary() {
    return "%s to %s"
        .formatted(
            Numbers.compact(resistance.number(), "Ω", 4),
            towards.number() == 0 ? "ground" : Numbers.trimmed(towards.number(), 4) + " V");
  }

  @Override
  public String gain() {
    return "holds the node when the wire is off";
  }

  @Override
  public Expr relation(Expr input, Optional<Load> load, Symbols own) {
    return input;
  }

  @Override
  public Optional<Load> inputLoad(Optional<Load> load, Symbols own) {
    Expr to = towards.number() == 0 ? Expr.ZERO : own.of("Vh");
    return Optional.of(new Load(own.of("Rh"), to).with(load));
  }

  @Override
  public void build(Circuit circuit, String input, String output, Sensed sensed) {
    circuit
        .source(output, input, 0)
        .source(output + ".hold", Circuit.GROUND, towards.number())
        .resistor("Rh", output, output + ".hold", resistance.number());
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.terminal(8, CircuitSketch.MID, "in");
    sketch.wire(14, CircuitSketch.MID, 240, CircuitSketch.MID);
    sketch.joint(130, CircuitSketch.MID);
    if (towards().number() == 0) {
      sketch.down(130, CircuitSketch.MID, CircuitSketch.GROUND, sketch.label(this, "Rh"));
      sketch.ground(130, CircuitSketch.GROUND);
    } else {
      sketch.supply(130, CircuitSketch.TOP, CircuitSketch.volts(towards().number()));
      sketch.down(130, CircuitSketch.TOP, CircuitSketch.MID, sketch.label(this, "Rh"));
    }
    sketch.terminal(240, CircuitSketch.MID, "out");
  }
}
