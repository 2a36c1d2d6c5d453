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
 * Non-inverting amplifier, V = V_in·(1 + R_f/R_g) − V_ref·R_f/R_g. The input draws no current, the
 * output is stiff. V_ref is a stiff source; 0 means that R_g goes to ground.
 *
 * @param feedback R_f, ohms, above 0
 * @param ground R_g, ohms, above 0
 * @param reference V_ref, volts
 * @param railLow lowest output, volts
 * @param railHigh highest output, volts
 */
@JsonTypeName("non-inverting-amp")
public record NonInvertingAmp(
    @Parameter(symbol = "Rf", label = "Feedback resistor", unit = "ohm", above = 0) Value feedback,
    @Parameter(symbol = "Rg", label = "Gain resistor", unit = "ohm", above = 0) Value ground,
    @Parameter(symbol = "Vref", label = "Reference at Rg", unit = "V") Value reference,
    @Parameter(symbol = "Vmin", label = "Rail, low", unit = "V") Value railLow,
    @Parameter(symbol = "Vmax", label = "Rail, high", unit = "V") Value railHigh)
    implements Stage {

  static final NonInvertingAmp EXAMPLE =
      new NonInvertingAmp(Value.of(10e3), Value.of(10e3), Value.of(0), Value.of(0), Value.of(3.3));

  @Override
  public String title() {
    return "Non-inverting amp";
  }

  private double factor() {
    return 1 + feedback.number() / ground.number();
  }

  @Override
  public String summary() {
    String about =
        reference.number() == 0 ? "" : " from " + Numbers.compact(reference.number(), "V", 3);
    return "×" + Numbers.trimmed(factor(), 4) + about;
  }

  @Override
  public String gain() {
    return "gain " + Numbers.trimmed(factor(), 6);
  }

  @Override
  public Expr relation(Expr input, Optional<Load> load, Symbols own) {
    Expr ratio = own.of("Rf").over(own.of("Rg"));
    Expr amplified = input.times(Expr.ONE.plus(ratio));
    return reference.number() == 0 ? amplified : amplified.minus(own.of("Vref").times(ratio));
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
    String inverting = output + ".minus";
    String reference = output + ".ref";
    circuit
        .amplifier(input, inverting, output)
        .resistor("Rf", output, inverting, feedback.number())
        .resistor("Rg", inverting, reference, ground.number())
        .source(reference, Circuit.GROUND, this.reference.number());
  }

  @Override
  public PartChoice parts() {
    return PartChoice.GAIN_AND_SHIFT;
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.amplifier(120, CircuitSketch.MID, "", "");
    sketch.terminal(8, CircuitSketch.MID + 12, "in");
    sketch.wire(14, CircuitSketch.MID + 12, 120, CircuitSketch.MID + 12);
    sketch.feedback(sketch.label(this, "Rf"));
    sketch.lower(sketch.label(this, "Rg"), reference().number());
    sketch.out();
  }
}
