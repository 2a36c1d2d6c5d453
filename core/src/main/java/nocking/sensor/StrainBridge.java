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
 * Strain-gauge bridge: V = V_exc·(S·x/x_FS + Z), sensitivity S and zero balance Z in mV/V.
 *
 * @param fullScale x_FS, channel's unit, not 0
 * @param sensitivity S, mV/V at full scale, not 0
 * @param zero Z, mV/V without load
 * @param excitation V_exc at the bridge itself, volts; what the leads take is not in it
 * @param sourceResistance output resistance, ohms
 */
@JsonTypeName("bridge")
public record StrainBridge(
    @Parameter(symbol = "xFS", label = "Full scale", unit = "x") Value fullScale,
    @Parameter(symbol = "S", label = "Sensitivity", unit = "mV/V") Value sensitivity,
    @Parameter(symbol = "Z", label = "Zero balance", unit = "mV/V") Value zero,
    @Parameter(symbol = "Vexc", label = "Excitation", unit = "V", above = 0) Value excitation,
    @Parameter(symbol = "Rs", label = "Output resistance", unit = "ohm", least = 0)
        Value sourceResistance)
    implements Sensor {

  static final StrainBridge EXAMPLE =
      new StrainBridge(Value.of(100), Value.of(2), Value.of(0), Value.of(5), Value.of(350));

  @Override
  public String model() {
    return "bridge";
  }

  @Override
  public String title() {
    return "Strain bridge";
  }

  @Override
  public String inHand() {
    return "mV/V bridge";
  }

  @Override
  public String alsoCalled() {
    return "load cell strain gauge weight force";
  }

  @Override
  public String summary() {
    return "%s mV/V on %s V for %s"
        .formatted(
            Numbers.trimmed(sensitivity.number(), 4),
            Numbers.trimmed(excitation.number(), 4),
            Numbers.trimmed(fullScale.number(), 4));
  }

  @Override
  public Expr output(Measurand x, Symbols own) {
    Expr share = own.of("S").times(x.expr()).over(own.of("xFS"));
    Expr all = zero.number() == 0 ? share : share.plus(own.of("Z"));
    return own.of("Vexc").times(all).over(Expr.num(1000));
  }

  @Override
  public Optional<Expr> seriesResistance(Measurand x, Symbols own) {
    return Sensor.source(sourceResistance, own);
  }

  @Override
  public Span rated(Unit quantity) {
    return Span.between(0, fullScale.number());
  }

  @Override
  public Optional<Span> possibleOutput() {
    return Optional.of(new Span(-excitation.number(), excitation.number()));
  }

  @Override
  public Optional<Double> ratiometricSupply() {
    return Optional.of(excitation.number());
  }
}
