package nocking.fit;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleUnaryOperator;
import nocking.algebra.Calculus;
import nocking.algebra.Compiled;
import nocking.algebra.Expr;

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

  /** The curve as a function. */
  public DoubleUnaryOperator function() {
    return Compiled.of(equation, RAW, constants);
  }

  /** Quantity for one raw value; for many use {@link #function()}. */
  public double quantity(double raw) {
    return function().applyAsDouble(raw);
  }

  /** Raw value for a quantity, where the equation can be turned round symbol by symbol. */
  public double raw(double quantity) {
    Expr turned = Calculus.solve(Expr.sym("x="), equation, RAW);
    return Compiled.of(turned, "x=", constants).applyAsDouble(quantity);
  }

  static Curve of(String title, Expr equation, List<Coefficient> coefficients) {
    var constants = new LinkedHashMap<String, Double>();
    for (Coefficient c : coefficients) constants.put(c.name(), c.value());
    return new Curve(title, equation, constants);
  }
}
