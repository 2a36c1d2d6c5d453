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
 * Voltage proportional to the quantity, independent of the supply: V = V₀ + α·(x − x₀), the "offset
 * at a reference point" form that datasheets print.
 *
 * @param offset V₀, output in volts at the reference point
 * @param at x₀, reference point in the channel's unit
 * @param slope α, volts per one of the channel's unit, not 0
 * @param from low end of the rated range, channel's unit
 * @param to high end of the rated range, channel's unit
 */
@JsonTypeName("linear")
public record LinearSensor(
    @Parameter(symbol = "V0", label = "Output at the reference point", unit = "V") Value offset,
    @Parameter(symbol = "x0", label = "Reference point", unit = "x") Value at,
    @Parameter(symbol = "S", label = "Slope", unit = "V/x") Value slope,
    @Parameter(symbol = "xlo", label = "Rated from", unit = "x") Value from,
    @Parameter(symbol = "xhi", label = "Rated to", unit = "x") Value to,
    @Parameter(symbol = "Rs", label = "Source resistance", unit = "ohm", least = 0)
        Value sourceResistance)
    implements Sensor {

  static final LinearSensor EXAMPLE =
      new LinearSensor(
          Value.of(0), Value.of(0), Value.of(0.01), Value.of(0), Value.of(100), Value.of(0));

  @Override
  public String model() {
    return "linear";
  }

  @Override
  public String title() {
    return "Linear sensor";
  }

  @Override
  public String inHand() {
    return "slope and offset";
  }

  @Override
  public String summary() {
    double from = at.number();
    String x =
        from == 0
            ? "x"
            : "(x %s %s)".formatted(from < 0 ? "+" : "−", Numbers.trimmed(Math.abs(from), 4));
    return "%s + %s·%s".formatted(volts(offset), volts(slope), x);
  }

  private static String volts(Value v) {
    return v.number() == 0 ? "0" : Numbers.compact(v.number(), "V", 4);
  }

  @Override
  public Expr output(Measurand measured, Symbols own) {
    Expr x = measured.expr();
    Expr from = at.number() == 0 ? Expr.ZERO : own.of("x0");
    return own.of("V0").plus(own.of("S").times(x.minus(from)));
  }

  @Override
  public Optional<Expr> seriesResistance(Measurand x, Symbols own) {
    return Sensor.source(sourceResistance, own);
  }

  @Override
  public Span rated(Unit quantity) {
    return Span.between(from.number(), to.number());
  }
}
