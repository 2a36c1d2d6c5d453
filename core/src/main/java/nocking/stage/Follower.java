package nocking.stage;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.Optional;
import nocking.algebra.Expr;
import nocking.element.Parameter;
import nocking.element.Symbols;
import nocking.network.Circuit;
import nocking.quantity.Span;
import nocking.quantity.Value;

/** Voltage follower: the same voltage from a stiff output, and nothing drawn from the input. */
@JsonTypeName("follower")
public record Follower(
    @Parameter(symbol = "Vmin", label = "Rail, low", unit = "V") Value railLow,
    @Parameter(symbol = "Vmax", label = "Rail, high", unit = "V") Value railHigh)
    implements Stage {

  static final Follower EXAMPLE = new Follower(Value.of(0), Value.of(3.3));

  @Override
  public String title() {
    return "Follower";
  }

  @Override
  public String summary() {
    return "×1, stiff";
  }

  @Override
  public String gain() {
    return "gain 1";
  }

  @Override
  public Expr relation(Expr input, Optional<Load> load, Symbols own) {
    return input;
  }

  @Override
  public Optional<Load> inputLoad(Optional<Load> load, Symbols own) {
    return Optional.empty();
  }

  @Override
  public Optional<Span> rails() {
    return Optional.of(Span.between(railLow.number(), railHigh.number()));
  }

  @Override
  public void build(Circuit circuit, String input, String output, Sensed sensed) {
    circuit.amplifier(input, output, output);
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.amplifier(
        120,
        CircuitSketch.MID,
        CircuitSketch.volts(railHigh().number()),
        CircuitSketch.volts(railLow().number()));
    sketch.terminal(8, CircuitSketch.MID + 12, "in");
    sketch.wire(14, CircuitSketch.MID + 12, 120, CircuitSketch.MID + 12);
    sketch.wire(100, CircuitSketch.MID - 12, 120, CircuitSketch.MID - 12);
    sketch.wire(100, CircuitSketch.MID - 12, 100, CircuitSketch.TOP);
    sketch.wire(100, CircuitSketch.TOP, 200, CircuitSketch.TOP);
    sketch.wire(200, CircuitSketch.TOP, 200, CircuitSketch.MID);
    sketch.out();
  }
}
