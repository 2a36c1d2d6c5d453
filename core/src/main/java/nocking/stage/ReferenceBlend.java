package nocking.stage;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.Optional;
import nocking.algebra.Expr;
import nocking.element.Parameter;
import nocking.element.Symbols;
import nocking.network.Circuit;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * Attenuates a signal about a reference with two potentiometers. The first makes V_ref from the
 * supply, with the source resistance R_ref = k_A(1 − k_A)·R_A; the second lies between signal and
 * reference. With i = (V_in − V_ref)/(R_B + R_ref) the output is V_ref + i·(R_ref + k_B·R_B); the
 * resistance of the signal's source counts through what the stage draws from it.
 *
 * @param supply volts across the first potentiometer, above 0
 * @param referenceTrack R_A, ohms
 * @param referenceWiper k_A, 0 at ground to 1
 * @param blendTrack R_B, ohms
 * @param blendWiper k_B, 0 at the reference to 1, the signal itself
 */
@JsonTypeName("reference-blend")
public record ReferenceBlend(
    @Parameter(symbol = "Vs", label = "Supply", unit = "V", above = 0) Value supply,
    @Parameter(symbol = "RA", label = "Reference track", unit = "ohm", above = 0)
        Value referenceTrack,
    @Parameter(symbol = "kA", label = "Reference wiper", least = 0, most = 1) Value referenceWiper,
    @Parameter(symbol = "RB", label = "Blend track", unit = "ohm", above = 0) Value blendTrack,
    @Parameter(symbol = "kB", label = "Blend wiper", least = 0, most = 1) Value blendWiper)
    implements Stage {

  static final ReferenceBlend EXAMPLE =
      new ReferenceBlend(
          Value.of(5),
          Value.of(1e3),
          Value.typed("50%", Unit.ONE),
          Value.of(10e3),
          Value.typed("80%", Unit.ONE));

  @Override
  public String title() {
    return "Reference blend";
  }

  @Override
  public String summary() {
    return "%s %% about %s"
        .formatted(Numbers.trimmed(100 * residualGain(0), 4), Numbers.compact(reference(), "V", 3));
  }

  /** V_ref without load, volts. */
  public double reference() {
    return supply.number() * referenceWiper.number();
  }

  /** Source resistance of the reference, ohms. */
  public double referenceResistance() {
    double k = referenceWiper.number();
    return k * (1 - k) * referenceTrack.number();
  }

  /**
   * What is left of a change of the signal, as a function of both wipers: (R_ref + k_B·R_B)/(R_src
   * + R_B + R_ref).
   *
   * @param source resistance of the signal's source, ohms
   */
  public double residualGain(double source) {
    double track = blendTrack.number();
    double left = referenceResistance() + blendWiper.number() * track;
    return left / (source + track + referenceResistance());
  }

  @Override
  public String gain() {
    return "residual gain %s, reference %s"
        .formatted(Numbers.trimmed(residualGain(0), 4), Numbers.engineering(reference(), "V", 4));
  }

  /** What lies below the blending wiper: resistance towards the reference. */
  private Load below(Symbols own) {
    Expr k = own.of("kA");
    Expr source = k.times(Expr.ONE.minus(k)).times(own.of("RA"));
    Expr lower = own.of("kB").times(own.of("RB"));
    return new Load(source.plus(lower), own.of("Vs").times(k));
  }

  private static Expr above(Symbols own) {
    return Expr.ONE.minus(own.of("kB")).times(own.of("RB"));
  }

  @Override
  public Expr relation(Expr input, Optional<Load> load, Symbols own) {
    return below(own).with(load).node(input, above(own));
  }

  @Override
  public Optional<Load> inputLoad(Optional<Load> load, Symbols own) {
    return Optional.of(below(own).with(load).behind(above(own)));
  }

  @Override
  public double outputResistance() {
    double upper = (1 - blendWiper.number()) * blendTrack.number();
    double lower = referenceResistance() + blendWiper.number() * blendTrack.number();
    return upper * lower / (upper + lower);
  }

  /** Both tracks as resistors; one that the wiper has run to its end is left out. */
  @Override
  public void build(Circuit circuit, String input, String output, Sensed sensed) {
    double a = referenceWiper.number();
    double b = blendWiper.number();
    String reference = output + ".ref";
    circuit.source(output + ".supply", Circuit.GROUND, supply.number());
    link(circuit, "RA above", output + ".supply", reference, (1 - a) * referenceTrack.number());
    link(circuit, "RA below", reference, Circuit.GROUND, a * referenceTrack.number());
    link(circuit, "RB before", input, output, (1 - b) * blendTrack.number());
    link(circuit, "RB behind", output, reference, b * blendTrack.number());
  }

  private static void link(Circuit circuit, String name, String a, String b, double ohms) {
    if (ohms > 0) circuit.resistor(name, a, b, ohms);
    else circuit.source(a, b, 0);
  }

  @Override
  public PartChoice parts() {
    return PartChoice.BLEND;
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.terminal(8, CircuitSketch.TOP + 6, "in");
    sketch.wire(14, CircuitSketch.TOP + 6, 170, CircuitSketch.TOP + 6);
    sketch.down(170, CircuitSketch.TOP + 6, 96, sketch.label(this, "RB"));
    sketch.wiper(170, 42, CircuitSketch.percent(blendWiper().number()));
    sketch.wire(84, 96, 170, 96);
    sketch.supply(30, 44, CircuitSketch.volts(supply().number()));
    sketch.down(30, 44, CircuitSketch.GROUND, sketch.label(this, "RA"));
    sketch.wiper(30, 92, CircuitSketch.percent(referenceWiper().number()));
    sketch.wire(46, 92, 84, 92);
    sketch.wire(84, 92, 84, 96);
    sketch.ground(30, CircuitSketch.GROUND);
  }
}
