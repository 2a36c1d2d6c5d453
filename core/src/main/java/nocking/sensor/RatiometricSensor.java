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
 * Output as a fraction of the supply: V = V_s·(r_a + (r_b − r_a)/(x_b − x_a)·(x − x_a)). A
 * converter with the same reference cancels V_s; with another reference, 1 % of supply is 1 % of
 * reading.
 *
 * @param lowAt x_a, channel's unit
 * @param lowFraction r_a, percent of supply
 * @param highAt x_b, channel's unit, other than x_a
 * @param highFraction r_b, percent of supply, other than r_a
 * @param supply V_s, volts, above 0
 */
@JsonTypeName("ratiometric")
public record RatiometricSensor(
    @Parameter(symbol = "xa", label = "First point", unit = "x") Value lowAt,
    @Parameter(symbol = "ra", label = "Output there, of supply", unit = "%", least = 0, most = 100)
        Value lowFraction,
    @Parameter(symbol = "xb", label = "Second point", unit = "x") Value highAt,
    @Parameter(symbol = "rb", label = "Output there, of supply", unit = "%", least = 0, most = 100)
        Value highFraction,
    @Parameter(symbol = "Vsup", label = "Supply", unit = "V", above = 0) Value supply,
    @Parameter(symbol = "Rs", label = "Source resistance", unit = "ohm", least = 0)
        Value sourceResistance)
    implements Sensor {

  static final RatiometricSensor EXAMPLE =
      new RatiometricSensor(
          Value.of(0), Value.of(10), Value.of(100), Value.of(90), Value.of(5), Value.of(0));

  @Override
  public String model() {
    return "ratiometric";
  }

  @Override
  public String title() {
    return "Ratiometric";
  }

  @Override
  public String inHand() {
    return "share of supply";
  }

  @Override
  public String alsoCalled() {
    return "ratiometric";
  }

  @Override
  public String summary() {
    return "%s…%s V of %s V"
        .formatted(volts(lowFraction), volts(highFraction), Numbers.trimmed(supply.number(), 4));
  }

  private String volts(Value fraction) {
    return Numbers.trimmed(fraction.number() / 100 * supply.number(), 3);
  }

  @Override
  public Expr output(Measurand measured, Symbols own) {
    Expr x = measured.expr();
    Expr percent = TwoPointSensor.line(x, own, "xa", "ra", "xb", "rb", lowAt.number() == 0);
    return own.of("Vsup").times(percent).over(Expr.num(100));
  }

  @Override
  public Optional<Expr> seriesResistance(Measurand x, Symbols own) {
    return Sensor.source(sourceResistance, own);
  }

  @Override
  public Span rated(Unit quantity) {
    return Span.between(lowAt.number(), highAt.number());
  }

  @Override
  public Optional<Double> ratiometricSupply() {
    return Optional.of(supply.number());
  }
}
