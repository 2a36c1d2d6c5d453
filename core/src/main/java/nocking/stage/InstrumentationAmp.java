package nocking.stage;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.Optional;
import nocking.algebra.Expr;
import nocking.element.Parameter;
import nocking.element.Symbols;
import nocking.network.Circuit;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * Instrumentation amplifier, V = G·(V_in − V_minus) + V_ref with G = a + b/R_g by the part's own
 * law. Neither input draws current.
 *
 * @param constant a, the gain without R_g
 * @param law b, ohms
 * @param gainResistor R_g, ohms, above 0
 * @param minus V_minus, volts at the inverting input
 * @param reference V_ref, volts
 */
@JsonTypeName("instrumentation-amp")
public record InstrumentationAmp(
    @Parameter(symbol = "a", label = "Gain without Rg", least = 0) Value constant,
    @Parameter(symbol = "b", label = "Law, b of b/Rg", unit = "ohm", least = 0) Value law,
    @Parameter(symbol = "Rg", label = "Gain resistor", unit = "ohm", above = 0) Value gainResistor,
    @Parameter(symbol = "Vneg", label = "Inverting input", unit = "V") Value minus,
    @Parameter(symbol = "Vref", label = "Reference", unit = "V") Value reference,
    @Parameter(symbol = "Vmin", label = "Rail, low", unit = "V") Value railLow,
    @Parameter(symbol = "Vmax", label = "Rail, high", unit = "V") Value railHigh)
    implements Stage {

  static final InstrumentationAmp EXAMPLE =
      new InstrumentationAmp(
          Value.of(1),
          Value.typed("50k", Unit.OHM),
          Value.of(500),
          Value.of(0),
          Value.of(0),
          Value.of(0),
          Value.of(3.3));

  @Override
  public String title() {
    return "Instrumentation amp";
  }

  public double factor() {
    return constant.number() + law.number() / gainResistor.number();
  }

  @Override
  public String summary() {
    return "×%s onto %s"
        .formatted(Numbers.trimmed(factor(), 4), Numbers.compact(reference.number(), "V", 3));
  }

  @Override
  public String gain() {
    return "gain " + Numbers.trimmed(factor(), 6);
  }

  @Override
  public Expr relation(Expr in, Optional<Load> load, Symbols own) {
    Expr gain = own.of("a").plus(own.of("b").over(own.of("Rg")));
    Expr difference = minus.number() == 0 ? in : in.minus(own.of("Vneg"));
    Expr amplified = gain.times(difference);
    return reference.number() == 0 ? amplified : amplified.plus(own.of("Vref"));
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
  public Optional<String> groundSymbol() {
    return reference.number() == 0 ? Optional.empty() : Optional.of("Vref");
  }

  @Override
  public void build(Circuit circuit, String in, String output, Sensed sensed) {
    circuit
        .source(output + ".minus", Circuit.GROUND, minus.number())
        .source(output + ".ref", Circuit.GROUND, reference.number())
        .controlled(in, output + ".minus", output, output + ".ref", factor());
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.amplifier(120, CircuitSketch.MID, "", "");
    sketch.terminal(8, CircuitSketch.MID + 12, "in");
    sketch.wire(14, CircuitSketch.MID + 12, 120, CircuitSketch.MID + 12);
    sketch.terminal(70, CircuitSketch.MID - 12, CircuitSketch.volts(minus().number()));
    sketch.wire(76, CircuitSketch.MID - 12, 120, CircuitSketch.MID - 12);
    sketch.text(126, CircuitSketch.MID + 44, sketch.label(this, "Rg"), false);
    sketch.wire(140, CircuitSketch.MID + 12, 140, CircuitSketch.MID + 34);
    sketch.text(
        150, CircuitSketch.MID - 24, "onto " + CircuitSketch.volts(reference().number()), false);
    sketch.out();
  }
}
