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
 * Inverting summing amplifier, V = −(R_f/R_g)·V_in − (R_f/R_o)·V_ref: gain and offset both
 * negative. The input draws current through R_g to virtual ground.
 *
 * @param feedback R_f, ohms, above 0
 * @param input R_g, ohms, above 0
 * @param offset R_o from the reference, ohms, above 0
 * @param reference V_ref, volts
 */
@JsonTypeName("inverting-summer")
public record InvertingSummer(
    @Parameter(symbol = "Rf", label = "Feedback resistor", unit = "ohm", above = 0) Value feedback,
    @Parameter(symbol = "Rg", label = "Input resistor", unit = "ohm", above = 0) Value input,
    @Parameter(symbol = "Ro", label = "Offset resistor", unit = "ohm", above = 0) Value offset,
    @Parameter(symbol = "Vref", label = "Reference", unit = "V") Value reference,
    @Parameter(symbol = "Vmin", label = "Rail, low", unit = "V") Value railLow,
    @Parameter(symbol = "Vmax", label = "Rail, high", unit = "V") Value railHigh)
    implements Stage {

  static final InvertingSummer EXAMPLE =
      new InvertingSummer(
          Value.of(10e3),
          Value.of(10e3),
          Value.of(20e3),
          Value.of(-3.3),
          Value.of(-5),
          Value.of(5));

  @Override
  public String title() {
    return "Inverting summer";
  }

  @Override
  public String summary() {
    return "×−%s, %s"
        .formatted(
            Numbers.trimmed(feedback.number() / input.number(), 4),
            Numbers.compact(-feedback.number() / offset.number() * reference.number(), "V", 3));
  }

  @Override
  public String gain() {
    return "gain −" + Numbers.trimmed(feedback.number() / input.number(), 6);
  }

  @Override
  public Expr relation(Expr in, Optional<Load> load, Symbols own) {
    Expr shift = own.of("Rf").over(own.of("Ro")).times(own.of("Vref"));
    return own.of("Rf").over(own.of("Rg")).times(in).negated().minus(shift);
  }

  @Override
  public Optional<Load> inputLoad(Optional<Load> load, Symbols own) {
    return Optional.of(Load.toGround(own.of("Rg")));
  }

  @Override
  public Optional<Span> rails() {
    return Optional.of(Span.between(railLow.number(), railHigh.number()));
  }

  @Override
  public void build(Circuit circuit, String in, String output, Sensed sensed) {
    String minus = output + ".minus";
    circuit
        .source(output + ".ref", Circuit.GROUND, reference.number())
        .resistor("Ro", output + ".ref", minus, offset.number())
        .resistor("Rg", in, minus, input.number())
        .resistor("Rf", minus, output, feedback.number())
        .amplifier(Circuit.GROUND, minus, output);
  }

  @Override
  public PartChoice parts() {
    return PartChoice.GAIN_AND_SHIFT;
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.amplifier(120, CircuitSketch.MID, "", "");
    sketch.inverting(sketch.label(this, "Rf"), sketch.label(this, "Rg"));
    sketch.plus("0 V");
    sketch.wire(92, CircuitSketch.MID - 12, 92, CircuitSketch.GROUND - 6);
    sketch.across(20, CircuitSketch.GROUND - 6, 92, sketch.label(this, "Ro"));
    sketch.terminal(8, CircuitSketch.GROUND - 6, CircuitSketch.volts(reference().number()));
    sketch.out();
  }
}
