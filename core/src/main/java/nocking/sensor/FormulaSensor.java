package nocking.sensor;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import nocking.algebra.Calculus;
import nocking.algebra.Compiled;
import nocking.algebra.Expr;
import nocking.algebra.Formula;
import nocking.algebra.NumericalInverse;
import nocking.element.Choice;
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
 * The technician's own formula for the output, in V, Ω or A, with the quantity as {@code x} or by
 * its own symbol. It must be strictly monotone on its range.
 *
 * @param formula for example {@code 0.35 + 0.02*x}
 * @param from start of the range, channel's unit
 * @param to end of the range, channel's unit
 */
@JsonTypeName("formula")
public record FormulaSensor(
    String formula,
    @Choice(label = "Output is") Signal signal,
    @Parameter(symbol = "xlo", label = "Range from", unit = "x") Value from,
    @Parameter(symbol = "xhi", label = "Range to", unit = "x") Value to,
    @Parameter(symbol = "Rs", label = "Source resistance", unit = "ohm", least = 0)
        Value sourceResistance)
    implements Sensor {

  public FormulaSensor {
    if (formula == null) throw new QuantityException("the formula is missing");
  }

  /** The only name that can stand in a formula beside functions and pi is the quantity. */
  private static final Pattern QUANTITY = Pattern.compile("\\b(?!pi\\b)[A-Za-z]\\w*\\b(?!\\s*\\()");

  static final FormulaSensor EXAMPLE =
      new FormulaSensor("0.35 + 0.02*x", Signal.VOLTAGE, Value.of(0), Value.of(100), Value.of(0));

  @Override
  public String model() {
    return "formula";
  }

  @Override
  public String title() {
    return "Own formula";
  }

  @Override
  public String inHand() {
    return "a formula";
  }

  @Override
  public String summary() {
    return formula.length() <= 22 ? formula : formula.substring(0, 21) + "…";
  }

  private static Set<String> names(Measurand x) {
    return x.symbol().equals("x") ? Set.of("x") : Set.of("x", x.symbol());
  }

  @Override
  public Expr output(Measurand x, Symbols own) {
    Expr e = Formula.parse(formula, names(x)).substitute("x", Expr.sym(x.symbol()));
    if (!e.contains(x.symbol())) {
      throw new QuantityException("the formula does not contain the quantity x");
    }
    var value = Compiled.of(e, x.symbol(), Map.of());
    var slope = Compiled.of(Calculus.derivative(e, x.symbol()), x.symbol(), Map.of());
    Span range = rated(x.unit());
    if (!Double.isFinite(value.applyAsDouble(range.low()))
        || !Double.isFinite(value.applyAsDouble(range.high()))) {
      throw new QuantityException("the formula has no value at an end of its range");
    }
    double turn = NumericalInverse.turningPoint(value, slope, range);
    if (!Double.isNaN(turn)) {
      double place = Math.abs(turn) < 1e-9 * range.width() ? 0 : turn;
      String at = (Numbers.trimmed(place, 5) + " " + x.unit().symbol()).strip();
      throw new QuantityException(
          "the formula turns back at %s: two inputs would give the same output".formatted(at));
    }
    return e;
  }

  @Override
  public Optional<Expr> seriesResistance(Measurand x, Symbols own) {
    return signal == Signal.VOLTAGE ? Sensor.source(sourceResistance, own) : Optional.empty();
  }

  @Override
  public Span rated(Unit quantity) {
    return Span.between(from.number(), to.number());
  }

  @Override
  public Optional<Span> known(Unit quantity) {
    return Optional.of(rated(quantity));
  }

  /** The formula keeps its meaning: x of the new unit is put in as its value in the former. */
  @Override
  public Sensor convert(Unit from, Unit to, UnaryOperator<Value> value) {
    double factor = to.factor() / from.factor();
    double shift = (to.offset() - from.offset()) / from.factor();
    String former = "(%s*x + %s)".formatted(Numbers.plain(factor), Numbers.plain(shift));
    return new FormulaSensor(
        QUANTITY.matcher(formula).replaceAll(former), signal, this.from, this.to, sourceResistance);
  }
}
