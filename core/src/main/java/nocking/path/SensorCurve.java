package nocking.path;

import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.algebra.AlgebraException;
import nocking.algebra.Calculus;
import nocking.algebra.Compiled;
import nocking.algebra.Expr;
import nocking.algebra.NumericalInverse;
import nocking.element.Measurand;
import nocking.element.Symbols;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.sensor.Sensor;

/** A sensor by itself: its unloaded output for the quantity, and the quantity for an output. */
public final class SensorCurve {
  private final Sensor sensor;
  private final Unit unit;
  private final Expr forward;
  private final DoubleUnaryOperator output;
  private final DoubleUnaryOperator input;
  private final DoubleUnaryOperator slope;
  private final DoubleUnaryOperator source;

  private SensorCurve(Measurand x, Sensor sensor) {
    this.sensor = sensor;
    unit = x.unit();
    var table = new SymbolTable(List.of(x.symbol(), SignalPath.OUT));
    Symbols own = table.add(sensor, 0);
    forward = sensor.output(x, own);
    output = Compiled.of(forward, x.symbol(), table.values());
    slope = Compiled.of(Calculus.derivative(forward, x.symbol()), x.symbol(), table.values());
    source =
        sensor
            .seriesResistance(x, own)
            .map(r -> Compiled.of(r, x.symbol(), table.values()))
            .orElse(any -> 0);
    double middle = slope.applyAsDouble(sensor.rated(unit).middle());
    if (middle == 0 || !Double.isFinite(middle)) {
      throw new QuantityException(
          "the sensor does not respond to the quantity: its slope is "
              + (middle == 0 ? "0" : "not finite"));
    }
    input = Compiled.of(turned(x, own, table), SignalPath.OUT, table.values());
  }

  private Expr turned(Measurand x, Symbols own, SymbolTable table) {
    Expr out = Expr.sym(SignalPath.OUT);
    Optional<Expr> closed = sensor.input(out, x, own);
    if (closed.isPresent()) return closed.get();
    try {
      return Calculus.solve(out, forward, x.symbol());
    } catch (AlgebraException e) {
      Span range = sensor.known(unit).orElse(sensor.rated(unit));
      var graph = new NumericalInverse(forward, x.symbol(), table.values(), range);
      return out.through(graph, Expr.Mode.INVERSE);
    }
  }

  /**
   * @throws QuantityException when the sensor's numbers make no sense
   * @throws AlgebraException when the output turns back inside the sensor's range
   */
  public static SensorCurve of(Measurand x, Sensor sensor) {
    return new SensorCurve(x, sensor);
  }

  /** The output as an expression in the quantity. */
  public Expr forward() {
    return forward;
  }

  /** Unit of the output: V, Ω or A. */
  public Unit outputUnit() {
    return sensor.signal().unit();
  }

  /** Inputs that a plot of the sensor covers. */
  public Span rated() {
    return sensor.rated(unit);
  }

  /** Output for the quantity; NaN outside what the sensor is known for. */
  public double at(double x) {
    return output.applyAsDouble(x);
  }

  /** The quantity for an output; NaN where none gives it. */
  public double input(double y) {
    return input.applyAsDouble(y);
  }

  /** Ohms between the ideal source and the terminal at an input; 0 for a stiff output. */
  public double sourceAt(double x) {
    return source.applyAsDouble(x);
  }

  /** Change of the output for one of the quantity's unit. */
  public double slopeAt(double x) {
    return slope.applyAsDouble(x);
  }

  /**
   * Output for the quantity.
   *
   * @throws QuantityException when the sensor has no value there
   */
  public double output(double x) {
    double y = at(x);
    Optional<Span> known = sensor.known(unit);
    if (!Double.isFinite(y) || known.map(k -> !k.contains(x)).orElse(false)) {
      throw new QuantityException(
          "%s %s lies outside what the sensor is known for%s"
              .formatted(Numbers.trimmed(x, 7), unit.symbol(), known.map(this::range).orElse("")));
    }
    requirePossible(x, y);
    return y;
  }

  /**
   * Quantity for an output.
   *
   * @throws QuantityException when no input gives that output
   */
  public double quantity(double y) {
    double x = input.applyAsDouble(y);
    Optional<Span> known = sensor.known(unit);
    // A root at the very end of a table may come out one rounding step beside it.
    double slack = known.map(k -> 1e-9 * k.width()).orElse(0.0);
    boolean outside = known.map(k -> x < k.low() - slack || x > k.high() + slack).orElse(false);
    if (!Double.isFinite(x) || outside) {
      throw new QuantityException(
          "no input gives %s %s%s"
              .formatted(
                  Numbers.trimmed(y, 7),
                  outputUnit().symbol(),
                  known.map(k -> "; the sensor is known for" + range(k).substring(1)).orElse("")));
    }
    requirePossible(x, y);
    return x;
  }

  private String range(Span k) {
    return ", %s … %s %s"
        .formatted(Numbers.trimmed(k.low(), 6), Numbers.trimmed(k.high(), 6), unit.symbol());
  }

  private void requirePossible(double x, double y) {
    Optional<Span> possible = sensor.possibleOutput();
    if (possible.isEmpty() || possible.get().contains(y)) return;
    String whose = sensor.ratiometricSupply().isPresent() ? "the supply's" : "what it can give,";
    Span span = possible.get();
    String out = outputUnit().symbol();
    throw new QuantityException(
        "%s would need %s, outside %s %s … %s"
            .formatted(
                (Numbers.trimmed(x, 6) + " " + unit.symbol()).strip(),
                Numbers.engineering(y, out, 4),
                whose,
                span.low() == 0 ? "0" : Numbers.compact(span.low(), out, 4),
                Numbers.compact(span.high(), out, 4)));
  }
}
