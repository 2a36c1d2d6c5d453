package nocking.stage;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.Optional;
import nocking.algebra.Expr;
import nocking.element.Parameter;
import nocking.element.Symbols;
import nocking.network.Circuit;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Value;

/**
 * Clamp behind a series resistor: inside its limits nothing happens, outside the output stands at
 * the limit and the resistor takes the rest.
 *
 * @param resistance ohms in series, above 0
 * @param low lowest output, volts
 * @param high highest output, volts
 */
@JsonTypeName("clamp")
public record Clamp(
    @Parameter(symbol = "Rc", label = "Series resistor", unit = "ohm", above = 0) Value resistance,
    @Parameter(symbol = "Vmin", label = "Limit, low", unit = "V") Value low,
    @Parameter(symbol = "Vmax", label = "Limit, high", unit = "V") Value high)
    implements Stage {

  static final Clamp EXAMPLE = new Clamp(Value.of(1e3), Value.of(-0.3), Value.of(3.6));

  @Override
  public String title() {
    return "Clamp";
  }

  @Override
  public String summary() {
    return "%s…%s V".formatted(Numbers.trimmed(low.number(), 4), Numbers.trimmed(high.number(), 4));
  }

  @Override
  public String gain() {
    return "lets through inside its limits";
  }

  @Override
  public Expr relation(Expr input, Optional<Load> load, Symbols own) {
    return Load.node(input, own.of("Rc"), load);
  }

  @Override
  public Optional<Load> inputLoad(Optional<Load> load, Symbols own) {
    return load.map(l -> l.behind(own.of("Rc")));
  }

  @Override
  public double outputResistance() {
    return resistance.number();
  }

  @Override
  public Optional<Span> rails() {
    return Optional.of(Span.between(low.number(), high.number()));
  }

  @Override
  public void build(Circuit circuit, String input, String output, Sensed sensed) {
    circuit.resistor("Rc", input, output, resistance.number());
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.terminal(8, CircuitSketch.MID, "in");
    sketch.across(30, CircuitSketch.MID, 118, sketch.label(this, "Rc"));
    sketch.wire(118, CircuitSketch.MID, 240, CircuitSketch.MID);
    sketch.joint(150, CircuitSketch.MID);
    sketch.diode(
        150, CircuitSketch.MID, CircuitSketch.TOP + 4, CircuitSketch.volts(high().number()));
    sketch.diode(
        150, CircuitSketch.GROUND - 2, CircuitSketch.MID, CircuitSketch.volts(low().number()));
    sketch.terminal(240, CircuitSketch.MID, "out");
  }
}
