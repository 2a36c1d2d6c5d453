package nocking.stage;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.Optional;
import java.util.Set;
import nocking.algebra.Expr;
import nocking.element.Choice;
import nocking.element.Parameter;
import nocking.element.Signal;
import nocking.element.Symbols;
import nocking.element.Titled;
import nocking.network.Circuit;
import nocking.quantity.Numbers;
import nocking.quantity.Value;

/**
 * Wheatstone bridge with a resistive sensor, exact and not the small-signal form. The output is the
 * voltage between the two mid-points, sensor side positive.
 *
 * <ul>
 *   <li>quarter: V = V_exc·(R_s/(R_s + R₁) − R₃/(R₂ + R₃))
 *   <li>half: a second sensor that moves the other way, 2R₁ − R_s, stands in the place of R₁
 *   <li>full: two of each, V = V_exc·(R_s/R₁ − 1)
 * </ul>
 *
 * @param excitation V_exc, volts, above 0
 * @param beside R₁, ohms; in a half or full bridge the sensor's resistance at balance
 * @param upper R₂, ohms
 * @param lower R₃, ohms
 */
@JsonTypeName("wheatstone-bridge")
public record WheatstoneBridge(
    @Choice(label = "Active arms") Arms arms,
    @Parameter(symbol = "Vexc", label = "Excitation", unit = "V", above = 0) Value excitation,
    @Parameter(symbol = "R1", label = "Beside the sensor", unit = "ohm", above = 0) Value beside,
    @Parameter(symbol = "R2", label = "Other arm, upper", unit = "ohm", above = 0) Value upper,
    @Parameter(symbol = "R3", label = "Other arm, lower", unit = "ohm", above = 0) Value lower)
    implements Stage {

  /** How many arms are sensors. */
  public enum Arms implements Titled {
    QUARTER("one, quarter bridge"),
    HALF("two, half bridge"),
    FULL("four, full bridge");

    private final String title;

    Arms(String title) {
      this.title = title;
    }

    @Override
    public String title() {
      return title;
    }
  }

  static final WheatstoneBridge EXAMPLE =
      new WheatstoneBridge(
          Arms.QUARTER, Value.of(3.3), Value.of(100), Value.of(100), Value.of(100));

  @Override
  public String title() {
    return "Bridge";
  }

  @Override
  public String summary() {
    return Numbers.trimmed(excitation.number(), 4)
        + " V, "
        + Numbers.compact(beside.number(), "Ω", 4);
  }

  @Override
  public Set<Signal> accepts() {
    return Set.of(Signal.RESISTANCE);
  }

  @Override
  public Expr relation(Expr input, Optional<Load> load, Symbols own) {
    Expr r1 = own.of("R1");
    Expr two = Expr.num(2);
    Expr fixed = own.of("R3").over(own.of("R2").plus(own.of("R3")));
    Expr fixedSource = own.of("R2").parallel(own.of("R3"));
    Expr share =
        switch (arms) {
          case QUARTER -> input.over(input.plus(r1)).minus(fixed);
          case HALF -> input.over(two.times(r1)).minus(fixed);
          case FULL -> input.over(r1).minus(Expr.ONE);
        };
    Expr open = own.of("Vexc").times(share);
    if (load.isEmpty()) return open;
    Expr mirror = two.times(r1).minus(input);
    Expr source =
        switch (arms) {
          case QUARTER -> input.parallel(r1).plus(fixedSource);
          case HALF -> input.times(mirror).over(two.times(r1)).plus(fixedSource);
          case FULL -> input.times(mirror).over(r1);
        };
    return load.get().node(open, source);
  }

  @Override
  public Optional<Load> inputLoad(Optional<Load> load, Symbols own) {
    return Optional.empty();
  }

  @Override
  public double outputResistance() {
    double r1 = beside.number();
    double other = upper.number() * lower.number() / (upper.number() + lower.number());
    return arms == Arms.FULL ? r1 : r1 / 2 + other;
  }

  @Override
  public Optional<Double> ratiometricSupply() {
    return Optional.of(excitation.number());
  }

  @Override
  public String gain() {
    double balance = beside.number() * lower.number() / upper.number();
    return "balanced at "
        + Numbers.compact(arms == Arms.QUARTER ? balance : beside.number(), "Ω", 5);
  }

  /** The excitation floats and the negative mid-point is the circuit's ground. */
  @Override
  public void build(Circuit circuit, String input, String output, Sensed sensed) {
    double mirror = 2 * beside.number() - sensed.value();
    String top = output + ".top";
    String bottom = output + ".bottom";
    circuit
        .source(top, bottom, excitation.number())
        .resistor("R1", top, output, arms == Arms.QUARTER ? beside.number() : mirror)
        .resistor("R2", top, Circuit.GROUND, arms == Arms.FULL ? sensed.value() : upper.number())
        .resistor("R3", Circuit.GROUND, bottom, arms == Arms.FULL ? mirror : lower.number());
    sensed.between(circuit, output, bottom);
  }

  @Override
  public void sketch(CircuitSketch sketch) {
    sketch.supply(120, CircuitSketch.TOP, CircuitSketch.volts(excitation().number()));
    sketch.wire(60, CircuitSketch.TOP, 190, CircuitSketch.TOP);
    sketch.down(60, CircuitSketch.TOP, CircuitSketch.MID, sketch.label(this, "R1"));
    sketch.down(60, CircuitSketch.MID, CircuitSketch.GROUND, "sensor");
    sketch.down(190, CircuitSketch.TOP, CircuitSketch.MID, sketch.label(this, "R2"));
    sketch.down(190, CircuitSketch.MID, CircuitSketch.GROUND, sketch.label(this, "R3"));
    sketch.joint(60, CircuitSketch.MID);
    sketch.joint(190, CircuitSketch.MID);
    sketch.wire(60, CircuitSketch.MID, 90, CircuitSketch.MID);
    sketch.wire(160, CircuitSketch.MID, 190, CircuitSketch.MID);
    sketch.terminal(96, CircuitSketch.MID, "+");
    sketch.terminal(154, CircuitSketch.MID, "−");
    sketch.wire(60, CircuitSketch.GROUND, 190, CircuitSketch.GROUND);
    sketch.ground(120, CircuitSketch.GROUND);
  }
}
