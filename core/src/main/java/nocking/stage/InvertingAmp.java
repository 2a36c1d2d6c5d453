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
 * Inverting amplifier about a reference, V = V_ref·(1 + R_f/R_g) − V_in·R_f/R_g. The input draws
 * current through R_g towards V_ref; V_ref is a stiff source.
 *
 * @param feedback R_f, ohms, above 0
 * @param input R_g, ohms, above 0
 * @param reference V_ref at the non-inverting input, volts
 */
@JsonTypeName("inverting-amp")
public record InvertingAmp(
    @Parameter(symbol = "Rf", label = "Feedback resistor", unit = "ohm", above = 0) Value feedback,
    @Parameter(symbol = "Rg", label = "Input resistor", unit = "ohm", above = 0) Value input,
    @Parameter(symbol = "Vref", label = "Reference", unit = "V") Value reference,
    @Parameter(symbol = "Vmin", label = "Rail, low", unit = "V") Value railLow,
    @Parameter(symbol = "Vmax", label = "Rail, high", unit = "V") Value railHigh)
    implements Stage {

  static final InvertingAmp EXAMPLE =
      new InvertingAmp(Value.of(10e3), Value.of(10e3), Value.of(1.65), Value.of(0), Value.of(3.3));

  @Override
  public String title() {
    return "Inverting amp";
  }

  private double factor() {
    return feedback.number() / input.number();
  }

  @Override
  public String summary() {
    return "×−%s about %s"
        .formatted(Numbers.trimmed(factor(), 4), Numbers.compact(reference.number(), "V", 3));
  }

  @Override
  public String gain() {
    return "gain −" + Numbers.trimmed(factor(), 6);
  }

  @Override
  public Expr relation(Expr in, Optional<Load> load, Symbols own) {
    Expr ratio = own.of("Rf").over(own.of("Rg"));
    if (reference.number() == 0) return ratio.times(in).negated();
    return own.of("Vref").times(Expr.ONE.plus(ratio)).minus(ratio.times(in));
  }

  @Override
  public Optional<Load> inputLoad(Optional<Load> load, Symbols own) {
    Expr towards = reference.number() == 0 ? Expr.ZERO : own.of("Vref");
    return Optional.of(new Load(own.of("Rg"), towards));
  }

  @Override
  public Optional<Span> rails() {
    return Optional.of(Span.between(railLow.number(), railHigh.number()));
  }

  @Override
  public Optional<String> groundSymbol() {
    return Optional.of("Vref");
  }

  @Override
  public void build(Circuit circuit, String in, String output, Sensed sensed) {
    circuit
        .source(output + ".plus", Circuit.GROUND, reference.number())
        .resistor("Rg", in, output + ".minus", input.number())
        .resistor("Rf", output + ".minus", output, feedback.number())
        .amplifier(output + ".plus", output + ".minus", output);
  }

  @Override
  public PartChoice parts() {
    return PartChoice.GAIN_AND_SHIFT;
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.amplifier(120, CircuitSketch.MID, "", "");
    sketch.inverting(sketch.label(this, "Rf"), sketch.label(this, "Rg"));
    sketch.plus(CircuitSketch.volts(reference().number()));
    sketch.out();
  }
}
