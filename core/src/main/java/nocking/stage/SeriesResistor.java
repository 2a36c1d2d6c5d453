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
 * A resistor in series, such as one that extends the range of a divider that is already there.
 *
 * @param resistance ohms, above 0
 */
@JsonTypeName("series-resistor")
public record SeriesResistor(
    @Parameter(symbol = "Rx", label = "Series resistor", unit = "ohm", above = 0) Value resistance)
    implements Stage {

  static final SeriesResistor EXAMPLE = new SeriesResistor(Value.of(10e3));

  @Override
  public String title() {
    return "Series resistor";
  }

  @Override
  public String summary() {
    return Numbers.compact(resistance.number(), "Ω", 4);
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
  public Expr relation(Expr input, Optional<Load> load, Symbols own) {
    return Load.node(input, own.of("Rx"), load);
  }

  @Override
  public Optional<Load> inputLoad(Optional<Load> load, Symbols own) {
    return load.map(l -> l.behind(own.of("Rx")));
  }

  @Override
  public double outputResistance() {
    return resistance.number();
  }

  @Override
  public String gain() {
    return "no drop without a load";
  }

  @Override
  public void build(Circuit circuit, String input, String output, Sensed sensed) {
    circuit.resistor("Rx", input, output, resistance.number());
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.series(sketch.label(this, "Rx"));
  }
}
