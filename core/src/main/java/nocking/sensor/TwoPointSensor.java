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
 * The straight line through two datasheet points (x_a, V_a) and (x_b, V_b), in either order; the
 * slope may be negative.
 *
 * @param lowAt x_a, channel's unit
 * @param lowOutput V_a, volts
 * @param highAt x_b, channel's unit, other than x_a
 * @param highOutput V_b, volts, other than V_a
 */
@JsonTypeName("two-point")
public record TwoPointSensor(
    @Parameter(symbol = "xa", label = "First point", unit = "x") Value lowAt,
    @Parameter(symbol = "Va", label = "Output there", unit = "V") Value lowOutput,
    @Parameter(symbol = "xb", label = "Second point", unit = "x") Value highAt,
    @Parameter(symbol = "Vb", label = "Output there", unit = "V") Value highOutput,
    @Parameter(symbol = "Rs", label = "Source resistance", unit = "ohm", least = 0)
        Value sourceResistance)
    implements Sensor {

  static final TwoPointSensor EXAMPLE =
      new TwoPointSensor(Value.of(0), Value.of(0.5), Value.of(100), Value.of(4.5), Value.of(0));

  @Override
  public String model() {
    return "two-point";
  }

  @Override
  public String title() {
    return "Two points";
  }

  @Override
  public String inHand() {
    return "two points";
  }

  @Override
  public String summary() {
    return "%s…%s V for %s…%s"
        .formatted(
            Numbers.trimmed(lowOutput.number(), 4),
            Numbers.trimmed(highOutput.number(), 4),
            Numbers.trimmed(lowAt.number(), 4),
            Numbers.trimmed(highAt.number(), 4));
  }

  @Override
  public Expr output(Measurand measured, Symbols own) {
    Expr x = measured.expr();
    return line(x, own, "xa", "Va", "xb", "Vb", lowAt.number() == 0);
  }

  /** y_a + (y_b − y_a)/(x_b − x_a)·(x − x_a), without the terms that are 0. */
  static Expr line(
      Expr x, Symbols own, String xa, String ya, String xb, String yb, boolean fromZero) {
    Expr start = fromZero ? Expr.ZERO : own.of(xa);
    Expr slope = own.of(yb).minus(own.of(ya)).over(own.of(xb).minus(start));
    return own.of(ya).plus(slope.times(x.minus(start)));
  }

  @Override
  public Optional<Expr> seriesResistance(Measurand x, Symbols own) {
    return Sensor.source(sourceResistance, own);
  }

  @Override
  public Span rated(Unit quantity) {
    return Span.between(lowAt.number(), highAt.number());
  }
}
