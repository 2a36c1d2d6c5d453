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
import nocking.quantity.Span;
import nocking.quantity.Value;

/**
 * Bridge rectifier with a smoothing capacitor, full wave: the peak less two diode drops, and on the
 * average half the ripple I/(2fC) below that, I = V/R being the current of everything behind it.
 * What it draws from a source that gives way comes in pulses about the peak and lowers it by more
 * than the same direct current would. Good while the ripple stays a small part of the output and
 * the drops a small part of the peak.
 *
 * @param drop volts across one diode
 * @param capacitance farads, above 0
 * @param frequency hertz of the mains, above 0
 * @param bleeder resistor across the capacitor, ohms; null for none
 */
@JsonTypeName("bridge-rectifier")
public record BridgeRectifier(
    @Parameter(symbol = "Vd", label = "Drop of one diode", unit = "V", least = 0) Value drop,
    @Parameter(symbol = "C", label = "Smoothing capacitor", unit = "F", above = 0)
        Value capacitance,
    @Parameter(symbol = "fac", label = "Mains frequency", unit = "Hz", above = 0) Value frequency,
    @Parameter(symbol = "Rbl", label = "Bleeder", unit = "ohm", above = 0, whenEmpty = "none")
        Value bleeder)
    implements Stage {

  static final BridgeRectifier EXAMPLE =
      new BridgeRectifier(Value.of(0.7), new Value(10e-6, "10u"), Value.of(50), null);

  @Override
  public String title() {
    return "Rectifier";
  }

  @Override
  public String summary() {
    return "peak − 2 × %s V".formatted(Numbers.trimmed(drop.number(), 3));
  }

  @Override
  public String gain() {
    return "ripple %s for 1 mA"
        .formatted(
            Numbers.engineering(1e-3 / (2 * frequency.number() * capacitance.number()), "V", 3));
  }

  @Override
  public Set<Signal> accepts() {
    return Set.of(Signal.ALTERNATING);
  }

  private Optional<Load> all(Optional<Load> load, Symbols own) {
    if (bleeder == null) return load;
    return Optional.of(Load.beside(own.of("Rbl"), load));
  }

  @Override
  public Expr relation(Expr input, Optional<Load> load, Symbols own) {
    Expr top = input.minus(Expr.num(2).times(own.of("Vd")));
    Optional<Load> all = all(load, own);
    if (all.isEmpty()) return top;
    return all.get().node(top, equivalent(own));
  }

  /** Half the ripple is the drop that 1/(4fC) would make. */
  private static Expr equivalent(Symbols own) {
    return Expr.ONE.over(Expr.num(4).times(own.of("fac")).times(own.of("C")));
  }

  /** How its current lowers the peak depends on what feeds it; see {@link #drawing}. */
  @Override
  public Optional<Load> inputLoad(Optional<Load> load, Symbols own) {
    return Optional.empty();
  }

  /**
   * What the peak before it sees: all that it feeds, drawn in pulses about the peak.
   *
   * @param share of {@link Circuit#rectifierShare}
   */
  public Optional<Load> drawing(Optional<Load> load, Symbols own, double share) {
    return all(load, own)
        .map(
            l ->
                new Load(
                    l.resistance().plus(equivalent(own)).over(Expr.num(share)),
                    Expr.num(2).times(own.of("Vd"))));
  }

  @Override
  public double outputResistance() {
    return 1 / (4 * frequency.number() * capacitance.number());
  }

  /** Peak-to-peak ripple in volts for a direct current. */
  public double ripple(double amperes) {
    return amperes / (2 * frequency.number() * capacitance.number());
  }

  /**
   * Seconds until the capacitor has fallen to a safe voltage through a resistance.
   *
   * @param from volts at the moment of switching off
   * @param to volts that are safe to touch
   * @param ohms everything across the capacitor
   */
  public double dischargeTime(double from, double to, double ohms) {
    return from <= to ? 0 : ohms * capacitance.number() * Math.log(from / to);
  }

  /** Below its drops it gives nothing, never a negative voltage. */
  @Override
  public Optional<Span> rails() {
    return Optional.of(new Span(0, 1e6));
  }

  @Override
  public void build(Circuit circuit, String input, String output, Sensed sensed) {
    circuit.rectifier(input, output, 2 * drop.number(), outputResistance());
    if (bleeder != null) circuit.resistor("Rbl", output, Circuit.GROUND, bleeder.number());
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.terminal(8, CircuitSketch.MID, "~");
    sketch.wire(14, CircuitSketch.MID, 34, CircuitSketch.MID);
    sketch.rectifier(34, CircuitSketch.MID - 16, 44, 32);
    sketch.wire(78, CircuitSketch.MID, 240, CircuitSketch.MID);
    sketch.joint(120, CircuitSketch.MID);
    sketch.capacitor(
        120,
        CircuitSketch.MID,
        CircuitSketch.GROUND,
        Numbers.compact(capacitance().number(), "F", 3));
    sketch.ground(120, CircuitSketch.GROUND);
    if (bleeder() != null) {
      sketch.joint(180, CircuitSketch.MID);
      sketch.down(180, CircuitSketch.MID, CircuitSketch.GROUND, sketch.label(this, "Rbl"));
      sketch.ground(180, CircuitSketch.GROUND);
    }
    sketch.terminal(240, CircuitSketch.MID, "out");
  }
}
