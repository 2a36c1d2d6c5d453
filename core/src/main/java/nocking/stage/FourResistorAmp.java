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
 * Difference amplifier with its four resistors as they are: V = (1 + R₄/R₃)·V₊ − (R₄/R₃)·V_off with
 * V₊ = (V_in·R₂ + V_gnd·R₁)/(R₁ + R₂). Only with R₂/R₁ = R₄/R₃ does it take the difference; else
 * what both inputs have in common shows at the output.
 *
 * @param plusInput R₁ from the signal, ohms
 * @param plusGround R₂ to the virtual ground, ohms
 * @param minusInput R₃ from the offset, ohms
 * @param feedback R₄, ohms
 * @param offset V_off, volts, stiff
 * @param virtualGround V_gnd, volts, stiff
 */
@JsonTypeName("four-resistor-amp")
public record FourResistorAmp(
    @Parameter(symbol = "R1", label = "Signal resistor", unit = "ohm", above = 0) Value plusInput,
    @Parameter(symbol = "R2", label = "Ground resistor", unit = "ohm", above = 0) Value plusGround,
    @Parameter(symbol = "R3", label = "Offset resistor", unit = "ohm", above = 0) Value minusInput,
    @Parameter(symbol = "R4", label = "Feedback resistor", unit = "ohm", above = 0) Value feedback,
    @Parameter(symbol = "Vc", label = "Offset", unit = "V") Value offset,
    @Parameter(symbol = "Vr", label = "Virtual ground", unit = "V") Value virtualGround,
    @Parameter(symbol = "Vmin", label = "Rail, low", unit = "V") Value railLow,
    @Parameter(symbol = "Vmax", label = "Rail, high", unit = "V") Value railHigh)
    implements Stage {

  static final FourResistorAmp EXAMPLE =
      new FourResistorAmp(
          Value.of(10e3),
          Value.of(100e3),
          Value.of(10e3),
          Value.of(100e3),
          Value.of(0.5),
          Value.of(1.65),
          Value.of(0),
          Value.of(3.3));

  @Override
  public String title() {
    return "Difference amp, 4 R";
  }

  /** Output for one volt of the signal alone. */
  public double signalGain() {
    double share = plusGround.number() / (plusInput.number() + plusGround.number());
    return share * (1 + feedback.number() / minusInput.number());
  }

  /** Output for one volt of the offset input alone, without its sign. */
  public double offsetGain() {
    return feedback.number() / minusInput.number();
  }

  /** Output for one volt that both inputs have in common; 0 when the ratios match. */
  public double commonModeGain() {
    return signalGain() - offsetGain();
  }

  @Override
  public String summary() {
    return "×%s about %s"
        .formatted(Numbers.trimmed(signalGain(), 4), Numbers.compact(offset.number(), "V", 3));
  }

  @Override
  public String gain() {
    double common = commonModeGain();
    String gain = "gain " + Numbers.trimmed(signalGain(), 6);
    if (Math.abs(common) < 1e-12 * signalGain()) return gain + ", common mode cancelled";
    double rejection = 20 * Math.log10(Math.abs(signalGain() / common));
    return gain + ", common mode " + Numbers.trimmed(rejection, 3) + " dB down";
  }

  @Override
  public Expr relation(Expr in, Optional<Load> load, Symbols own) {
    Expr plus =
        in.times(own.of("R2"))
            .plus(own.of("Vr").times(own.of("R1")))
            .over(own.of("R1").plus(own.of("R2")));
    Expr ratio = own.of("R4").over(own.of("R3"));
    return Expr.ONE.plus(ratio).times(plus).minus(ratio.times(own.of("Vc")));
  }

  @Override
  public Optional<Load> inputLoad(Optional<Load> load, Symbols own) {
    return Optional.of(new Load(own.of("R1").plus(own.of("R2")), own.of("Vr")));
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
        .resistor("R1", in, plus, plusInput.number())
        .resistor("R2", plus, output + ".gnd", plusGround.number())
        .source(output + ".gnd", Circuit.GROUND, virtualGround.number())
        .source(output + ".off", Circuit.GROUND, offset.number())
        .resistor("R3", output + ".off", minus, minusInput.number())
        .resistor("R4", minus, output, feedback.number())
        .amplifier(plus, minus, output);
  }

  @Override
  public PartChoice parts() {
    return PartChoice.GAIN_AND_SHIFT;
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.difference(
        sketch.label(this, "R1"),
        sketch.label(this, "R2"),
        sketch.label(this, "R3"),
        sketch.label(this, "R4"),
        CircuitSketch.volts(offset().number()),
        CircuitSketch.volts(virtualGround().number()));
  }
}
