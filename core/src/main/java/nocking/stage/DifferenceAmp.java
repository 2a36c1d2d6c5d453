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
 * Matched difference amplifier about a virtual ground, V = (R_f/R_g)·(V_in − V_off) + V_gnd. The
 * signal goes to the non-inverting side, which draws current through R_g + R_f towards V_gnd; V_off
 * and V_gnd are stiff sources.
 *
 * @param feedback R_f, ohms, above 0 (both sides)
 * @param input R_g, ohms, above 0 (both sides)
 * @param offset V_off on the inverting side, volts
 * @param virtualGround V_gnd, volts
 * @param railLow lowest output, volts
 * @param railHigh highest output, volts
 */
@JsonTypeName("difference-amp")
public record DifferenceAmp(
    @Parameter(symbol = "Rf", label = "Feedback resistor", unit = "ohm", above = 0) Value feedback,
    @Parameter(symbol = "Rg", label = "Input resistor", unit = "ohm", above = 0) Value input,
    @Parameter(symbol = "Vc", label = "Offset", unit = "V") Value offset,
    @Parameter(symbol = "Vr", label = "Virtual ground", unit = "V") Value virtualGround,
    @Parameter(symbol = "Vmin", label = "Rail, low", unit = "V") Value railLow,
    @Parameter(symbol = "Vmax", label = "Rail, high", unit = "V") Value railHigh)
    implements Stage {

  static final DifferenceAmp EXAMPLE =
      new DifferenceAmp(
          Value.of(100e3),
          Value.of(10e3),
          Value.of(0.5),
          Value.of(1.65),
          Value.of(0),
          Value.of(3.3));

  @Override
  public String title() {
    return "Difference amp";
  }

  private double factor() {
    return feedback.number() / input.number();
  }

  @Override
  public String summary() {
    return "×%s about %s"
        .formatted(Numbers.trimmed(factor(), 4), Numbers.compact(offset.number(), "V", 3));
  }

  @Override
  public String gain() {
    return "gain " + Numbers.trimmed(factor(), 6);
  }

  @Override
  public Expr relation(Expr in, Optional<Load> load, Symbols own) {
    return own.of("Rf").over(own.of("Rg")).times(in.minus(own.of("Vc"))).plus(own.of("Vr"));
  }

  @Override
  public Optional<Load> inputLoad(Optional<Load> load, Symbols own) {
    return Optional.of(new Load(own.of("Rg").plus(own.of("Rf")), own.of("Vr")));
  }

  @Override
  public Optional<Span> rails() {
    return Optional.of(Span.between(railLow.number(), railHigh.number()));
  }

  @Override
  public Optional<String> groundSymbol() {
    return Optional.of("Vr");
  }

  @Override
  public void build(Circuit circuit, String in, String output, Sensed sensed) {
    String plus = output + ".plus";
    String minus = output + ".minus";
    circuit
        .resistor("Rg at +", in, plus, input.number())
        .resistor("Rf at +", plus, output + ".gnd", feedback.number())
        .source(output + ".gnd", Circuit.GROUND, virtualGround.number())
        .resistor("Rg at −", output + ".off", minus, input.number())
        .source(output + ".off", Circuit.GROUND, offset.number())
        .resistor("Rf at −", minus, output, feedback.number())
        .amplifier(plus, minus, output);
  }

  @Override
  public PartChoice parts() {
    return PartChoice.DIFFERENCE;
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.difference(
        sketch.label(this, "Rg"),
        sketch.label(this, "Rf"),
        sketch.label(this, "Rg"),
        sketch.label(this, "Rf"),
        CircuitSketch.volts(offset().number()),
        CircuitSketch.volts(virtualGround().number()));
  }
}
