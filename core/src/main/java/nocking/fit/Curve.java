package nocking.fit;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.algebra.AlgebraException;
import nocking.algebra.Calculus;
import nocking.algebra.Compiled;
import nocking.algebra.Expr;
import nocking.algebra.NumericalInverse;
import nocking.quantity.Span;

/**
 * Quantity from raw, as an equation with its constants.
 *
 * @param title what it is called on the strip
 * @param equation the quantity as an expression in {@link #RAW} and the constants
 * @param constants a number for every other symbol
 */
public record Curve(String title, Expr equation, Map<String, Double> constants) {
  /** Symbol of the raw value, volts at the converter. */
  public static final String RAW = "Vout";

  private static final String QUANTITY = "x=";

  /** Share of the points' span by which a channel works beyond them, as it usually does. */
  private static final double BEYOND = 0.1;

  /** The curve as a function. */
  public DoubleUnaryOperator function() {
    return Compiled.of(equation, RAW, constants);
  }

  /** Quantity for one raw value; for many use {@link #function()}. */
  public double quantity(double raw) {
    return function().applyAsDouble(raw);
  }

  /** Raw value for a quantity; for many use {@link #inverse()}. */
  public double raw(double quantity) {
    return inverse().applyAsDouble(quantity);
  }

  /**
   * Raw value for a quantity: symbol by symbol where the raw value stands in the equation once,
   * else by a bracketed root over the points.
   *
   * @throws AlgebraException where the curve turns back over the points
   */
  public DoubleUnaryOperator inverse() {
    Optional<Span> points = points();
    if (points.isPresent()) return numerical(points.get())::inverse;
    Expr turned = Calculus.solve(Expr.sym(QUANTITY), equation, RAW);
    return Compiled.of(turned, QUANTITY, constants);
  }

  /** A little beyond the points too, where the equation goes on without turning. */
  private NumericalInverse numerical(Span points) {
    double more = BEYOND * points.width();
    try {
      var wider = new Span(points.low() - more, points.high() + more);
      return new NumericalInverse(equation, RAW, constants, wider);
    } catch (AlgebraException e) {
      return new NumericalInverse(equation, RAW, constants, points);
    }
  }

  /** Raw values over which it was fitted, where the equation is scaled by them. */
  public Optional<Span> points() {
    Double centre = constants.get(Scaling.CENTRE);
    Double half = constants.get(Scaling.HALF);
    if (centre == null || half == null) return Optional.empty();
    return Optional.of(new Span(centre - half, centre + half));
  }

  static Curve of(String title, Expr equation, List<Coefficient> coefficients) {
    var constants = new LinkedHashMap<String, Double>();
    for (Coefficient c : coefficients) constants.put(c.name(), c.value());
    return new Curve(title, equation, constants);
  }
}
