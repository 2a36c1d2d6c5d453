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
 * Pull-down for a resistive sensor at the supply: V = V_s·R_p/(R_s + R_p).
 *
 * @param supply V_s, volts, above 0
 * @param resistance R_p to ground, ohms, above 0
 */
@JsonTypeName("pull-down")
public record PullDown(
    @Parameter(symbol = "Vs", label = "Supply", unit = "V", above = 0) Value supply,
    @Parameter(symbol = "Rp", label = "Pull-down", unit = "ohm", above = 0) Value resistance)
    implements Stage {

  static final PullDown EXAMPLE = new PullDown(Value.of(3.3), Value.of(10e3));

  @Override
  public String title() {
    return "Pull-down";
  }

  @Override
  public String summary() {
    return Numbers.compact(resistance.number(), "Ω", 4)
        + " from "
        + Numbers.trimmed(supply.number(), 4)
        + " V";
  }

  @Override
  public Set<Signal> accepts() {
    return Set.of(Signal.RESISTANCE);
  }

  @Override
  public Expr relation(Expr input, Optional<Load> load, Symbols own) {
    return Load.beside(own.of("Rp"), load).node(own.of("Vs"), input);
  }

  @Override
  public Optional<Load> inputLoad(Optional<Load> load, Symbols own) {
    return Optional.empty();
  }

  @Override
  public double outputResistance() {
    return resistance.number();
  }

  @Override
  public Optional<Double> ratiometricSupply() {
    return Optional.of(supply.number());
  }

  @Override
  public String gain() {
    return "%s at most through the sensor"
        .formatted(Numbers.engineering(supply.number() / resistance.number(), "A", 3));
  }

  @Override
  public void build(Circuit circuit, String input, String output, Sensed sensed) {
    circuit
        .source(output + ".supply", Circuit.GROUND, supply.number())
        .resistor("Rp", output, Circuit.GROUND, resistance.number());
    sensed.between(circuit, output + ".supply", output);
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.supply(120, CircuitSketch.TOP, CircuitSketch.volts(supply().number()));
    sketch.down(120, CircuitSketch.TOP, CircuitSketch.MID, "sensor");
    sketch.joint(120, CircuitSketch.MID);
    sketch.down(120, CircuitSketch.MID, CircuitSketch.GROUND, sketch.label(this, "Rp"));
    sketch.ground(120, CircuitSketch.GROUND);
    sketch.wire(120, CircuitSketch.MID, 240, CircuitSketch.MID);
    sketch.terminal(240, CircuitSketch.MID, "out");
  }
}
