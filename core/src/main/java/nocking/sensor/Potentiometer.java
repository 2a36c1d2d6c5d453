package nocking.sensor;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.Optional;
import nocking.algebra.Expr;
import nocking.element.Measurand;
import nocking.element.Parameter;
import nocking.element.Symbols;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * Potentiometer across a supply: V = V_s·(R_e + k·R)/(R + 2·R_e) with the wiper's fraction k
 * straight in the travel; the source resistance (R_e + kR) ‖ (R_e + (1 − k)R) moves with it, so
 * that any load bends the curve.
 *
 * @param from mechanical stop, channel's unit
 * @param to other stop, channel's unit
 * @param start k at {@code from}, 0 to 1; greater than {@code end} for one that runs backwards
 * @param end k at {@code to}, 0 to 1
 * @param supply V_s, volts, above 0
 * @param track R, ohms, above 0
 * @param ends R_e, ohms left at each end of the track, at least 0
 */
@JsonTypeName("potentiometer")
public record Potentiometer(
    @Parameter(symbol = "xa", label = "Travel from", unit = "x") Value from,
    @Parameter(symbol = "xb", label = "Travel to", unit = "x") Value to,
    @Parameter(symbol = "ka", label = "Wiper at the start", least = 0, most = 1) Value start,
    @Parameter(symbol = "kb", label = "Wiper at the end", least = 0, most = 1) Value end,
    @Parameter(symbol = "Vsup", label = "Supply", unit = "V", above = 0) Value supply,
    @Parameter(symbol = "Rp", label = "Track", unit = "ohm", above = 0) Value track,
    @Parameter(symbol = "Re", label = "End resistance", unit = "ohm", least = 0) Value ends)
    implements Sensor {

  static final Potentiometer EXAMPLE =
      new Potentiometer(
          Value.of(0),
          Value.of(100),
          Value.of(0),
          Value.of(1),
          Value.of(5),
          Value.typed("5k", Unit.OHM),
          Value.of(0));

  @Override
  public String model() {
    return "potentiometer";
  }

  @Override
  public String title() {
    return "Potentiometer";
  }

  @Override
  public String inHand() {
    return "a potentiometer";
  }

  @Override
  public String summary() {
    return "%s on %s V, %s"
        .formatted(
            Numbers.compact(track.number(), "Ω", 4),
            Numbers.trimmed(supply.number(), 4),
            end.number() < start.number() ? "backwards" : "forwards");
  }

  /** Fraction of the track below the wiper. */
  private Expr wiper(Measurand x, Symbols own) {
    return TwoPointSensor.line(x.expr(), own, "xa", "ka", "xb", "kb", from.number() == 0);
  }

  private Expr below(Measurand x, Symbols own) {
    Expr part = wiper(x, own).times(own.of("Rp"));
    return ends.number() == 0 ? part : own.of("Re").plus(part);
  }

  private Expr whole(Symbols own) {
    return ends.number() == 0 ? own.of("Rp") : own.of("Rp").plus(Expr.num(2).times(own.of("Re")));
  }

  @Override
  public Expr output(Measurand x, Symbols own) {
    if (ends.number() == 0) return own.of("Vsup").times(wiper(x, own));
    return own.of("Vsup").times(below(x, own)).over(whole(own));
  }

  @Override
  public Optional<Expr> seriesResistance(Measurand x, Symbols own) {
    Expr below = below(x, own);
    return Optional.of(below.times(whole(own).minus(below)).over(whole(own)));
  }

  @Override
  public Span rated(Unit quantity) {
    return Span.between(from.number(), to.number());
  }

  @Override
  public Optional<Double> ratiometricSupply() {
    return Optional.of(supply.number());
  }
}
