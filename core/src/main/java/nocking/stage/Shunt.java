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
 * Burden of a current loop, V = I·R_b, with what the loop needs of its supply: V_supply ≥
 * V_transmitter + I·(R_b + R_wire).
 *
 * @param burden R_b, ohms, above 0
 * @param loopSupply volts that feed the loop; null when not known
 * @param transmitter volts that the transmitter needs at least; null when not known
 * @param wire both leads together, ohms; null for none
 */
@JsonTypeName("shunt")
public record Shunt(
    @Parameter(symbol = "Rb", label = "Burden", unit = "ohm", above = 0) Value burden,
    @Parameter(
            symbol = "Vloop",
            label = "Loop supply",
            unit = "V",
            above = 0,
            whenEmpty = "not known")
        Value loopSupply,
    @Parameter(
            symbol = "Vtx",
            label = "Transmitter needs",
            unit = "V",
            least = 0,
            whenEmpty = "0 V")
        Value transmitter,
    @Parameter(symbol = "Rwire", label = "Leads, both", unit = "ohm", least = 0, whenEmpty = "none")
        Value wire)
    implements Stage {

  static final Shunt EXAMPLE = new Shunt(Value.of(150), null, null, null);

  @Override
  public String title() {
    return "Burden";
  }

  @Override
  public String summary() {
    return Numbers.compact(burden.number(), "Ω", 4);
  }

  @Override
  public Set<Signal> accepts() {
    return Set.of(Signal.CURRENT);
  }

  @Override
  public Expr relation(Expr input, Optional<Load> load, Symbols own) {
    if (load.isEmpty()) return input.times(own.of("Rb"));
    Load all = Load.beside(own.of("Rb"), load);
    return input.times(all.resistance()).plus(all.towards());
  }

  @Override
  public Optional<Load> inputLoad(Optional<Load> load, Symbols own) {
    return Optional.empty();
  }

  @Override
  public double outputResistance() {
    return burden.number();
  }

  @Override
  public String gain() {
    return "%s at 4 mA, %s at 20 mA"
        .formatted(
            Numbers.engineering(0.004 * burden.number(), "V", 3),
            Numbers.engineering(0.020 * burden.number(), "V", 3));
  }

  /** Volts left for the transmitter at a current, where the supply is known. */
  public Optional<Double> leftForTransmitter(double amperes) {
    if (loopSupply == null) return Optional.empty();
    double leads = wire == null ? 0 : wire.number();
    return Optional.of(loopSupply.number() - amperes * (burden.number() + leads));
  }

  @Override
  public void build(Circuit circuit, String input, String output, Sensed sensed) {
    String supply = loopSupply == null ? Circuit.GROUND : output + ".supply";
    if (loopSupply != null) circuit.source(supply, Circuit.GROUND, loopSupply.number());
    circuit.resistor("Rb", output, Circuit.GROUND, burden.number());
    sensed.between(circuit, supply, output);
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.terminal(8, CircuitSketch.MID, "loop");
    sketch.wire(14, CircuitSketch.MID, 240, CircuitSketch.MID);
    sketch.joint(120, CircuitSketch.MID);
    sketch.down(120, CircuitSketch.MID, CircuitSketch.GROUND, sketch.label(this, "Rb"));
    sketch.ground(120, CircuitSketch.GROUND);
    sketch.terminal(240, CircuitSketch.MID, "out");
  }
}
