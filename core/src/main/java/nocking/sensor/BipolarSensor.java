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
 * Signed quantity about a rest voltage: V = V_rest + α·x.
 *
 * @param rest V_rest, volts at 0
 * @param slope α, volts per one of the channel's unit, not 0
 * @param reach largest amount either way, channel's unit, above 0
 */
@JsonTypeName("bipolar")
public record BipolarSensor(
    @Parameter(symbol = "Vrest", label = "Output at rest", unit = "V") Value rest,
    @Parameter(symbol = "S", label = "Slope", unit = "V/x") Value slope,
    @Parameter(symbol = "xmax", label = "Rated to ±", unit = "x", above = 0) Value reach,
    @Parameter(symbol = "Rs", label = "Source resistance", unit = "ohm", least = 0)
        Value sourceResistance)
    implements Sensor {

  static final BipolarSensor EXAMPLE =
      new BipolarSensor(Value.of(2.5), Value.of(0.02), Value.of(100), Value.of(0));

  @Override
  public String model() {
    return "bipolar";
  }

  @Override
  public String title() {
    return "Bipolar";
  }

  @Override
  public String inHand() {
    return "± about a rest voltage";
  }

  @Override
  public String alsoCalled() {
    return "centre rest signed";
  }

  @Override
  public String summary() {
    return "%s ± %s·x"
        .formatted(Numbers.compact(rest.number(), "V", 4), Numbers.compact(slope.number(), "V", 4));
  }

  @Override
  public Expr output(Measurand x, Symbols own) {
    return own.of("Vrest").plus(own.of("S").times(x.expr()));
  }

  @Override
  public Optional<Expr> seriesResistance(Measurand x, Symbols own) {
    return Sensor.source(sourceResistance, own);
  }

  @Override
  public Span rated(Unit quantity) {
    return new Span(-reach.number(), reach.number());
  }
}
