package nocking.sensor;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.Optional;
import nocking.algebra.Expr;
import nocking.algebra.Expr.Function;
import nocking.element.Measurand;
import nocking.element.Parameter;
import nocking.element.Signal;
import nocking.element.Symbols;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * Thermistor by its β: R = R₀·exp(β·(1/T − 1/T₀)), T in kelvin (IEC 60539-1, definition of the B
 * value). Two points fix it exactly; between and beyond them a real part departs by a few tenths of
 * a kelvin.
 *
 * @param resistance R₀, ohms at T₀, above 0
 * @param at T₀, °C
 * @param beta β, kelvin, above 0
 * @param dissipation mW that warm it by 1 K; null when not known
 */
@JsonTypeName("ntc-beta")
public record NtcBeta(
    @Parameter(symbol = "R0", label = "Resistance", unit = "ohm", above = 0) Value resistance,
    @Parameter(symbol = "T0", label = "at", unit = "degC", above = -273.15) Value at,
    @Parameter(symbol = "beta", label = "Beta value", unit = "K", above = 0) Value beta,
    @Parameter(symbol = "Tlo", label = "Rated from", unit = "degC", above = -273.15) Value from,
    @Parameter(symbol = "Thi", label = "Rated to", unit = "degC", above = -273.15) Value to,
    @Parameter(
            symbol = "delta",
            label = "Dissipation constant",
            unit = "mW/K",
            above = 0,
            whenEmpty = "not known")
        Value dissipation)
    implements Sensor {

  /** 0 °C in kelvin, by definition. */
  static final Expr ICE_POINT = Expr.num(273.15);

  static final NtcBeta EXAMPLE = of(10e3, 25, 3950);

  public static NtcBeta of(double ohms, double celsius, double beta) {
    return new NtcBeta(
        Value.of(ohms), Value.of(celsius), Value.of(beta), Value.of(-40), Value.of(125), null);
  }

  /**
   * The β between two points of a datasheet.
   *
   * @param t1 °C
   * @param r1 ohms
   * @throws QuantityException when the points are equal or rise together
   */
  public static double betaBetween(double t1, double r1, double t2, double r2) {
    double beta = Math.log(r1 / r2) / (1 / (t1 + 273.15) - 1 / (t2 + 273.15));
    if (!(beta > 0) || !Double.isFinite(beta)) {
      throw new QuantityException(
          "two different points are needed, the warmer with the smaller resistance");
    }
    return beta;
  }

  @Override
  public String model() {
    return "ntc-beta";
  }

  @Override
  public String title() {
    return "Thermistor";
  }

  @Override
  public String inHand() {
    return "β and R25";
  }

  @Override
  public String alsoCalled() {
    return "NTC";
  }

  @Override
  public String summary() {
    return "%s at %s °C, β %s"
        .formatted(
            Numbers.compact(resistance.number(), "Ω", 4),
            Numbers.trimmed(at.number(), 4),
            Numbers.trimmed(beta.number(), 5));
  }

  @Override
  public Signal signal() {
    return Signal.RESISTANCE;
  }

  @Override
  public Expr output(Measurand x, Symbols own) {
    Expr warm = Expr.ONE.over(x.in(Unit.KELVIN));
    Expr reference = Expr.ONE.over(own.of("T0").plus(ICE_POINT));
    return own.of("R0").times(own.of("beta").times(warm.minus(reference)).apply(Function.EXP));
  }

  @Override
  public Span rated(Unit quantity) {
    return celsius(from, to, quantity);
  }

  /** A range in °C on a channel of temperature; elsewhere the numbers as they are. */
  static Span celsius(Value from, Value to, Unit quantity) {
    if (!quantity.dimension().equals(Unit.CELSIUS.dimension())) {
      return Span.between(from.number(), to.number());
    }
    return Span.between(
        Unit.CELSIUS.convert(from.number(), quantity), Unit.CELSIUS.convert(to.number(), quantity));
  }

  /** Nothing is colder than absolute zero; near it the law has no finite value. */
  @Override
  public Optional<Span> known(Unit quantity) {
    return Optional.of(celsius(Value.of(-270), Value.of(5000), quantity));
  }

  @Override
  public Optional<Double> dissipationConstant() {
    return Optional.ofNullable(dissipation).map(v -> v.number() / 1000);
  }
}
