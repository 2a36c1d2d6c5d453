package nocking.algebra;

import java.util.Map;
import java.util.function.DoubleUnaryOperator;
import nocking.quantity.Numbers;
import nocking.quantity.Span;

/**
 * An equation that cannot be solved symbol by symbol, because its unknown stands in it more than
 * once: turned round by a bracketed root on the interval where it is monotone.
 */
public final class NumericalInverse implements TabulatedFunction {
  private static final int LOOKS = 400;

  private final Expr equation;
  private final String variable;
  private final Map<String, Double> constants;
  private final Span domain;
  private final DoubleUnaryOperator value;
  private final DoubleUnaryOperator slope;

  /**
   * @param constants a number for every symbol but the variable
   * @param domain where it is to be turned round
   * @throws AlgebraException saying where it turns, when it is not strictly monotone there
   */
  public NumericalInverse(
      Expr equation, String variable, Map<String, Double> constants, Span domain) {
    this.equation = equation;
    this.variable = variable;
    this.constants = Map.copyOf(constants);
    this.domain = domain;
    value = Compiled.of(equation, variable, constants);
    slope = Compiled.of(Calculus.derivative(equation, variable), variable, constants);
    double turn = turningPoint(value, slope, domain);
    if (!Double.isNaN(turn)) {
      throw new AlgebraException(
          "the output turns back at %s = %s: two inputs would give the same output"
              .formatted(variable, Numbers.trimmed(turn, 5)));
    }
  }

  /**
   * Place at which a function stops rising or falling inside an interval; NaN when it is strictly
   * monotone. Looked at in 400 steps, then closed in by bisection on the sign of the slope.
   */
  public static double turningPoint(
      DoubleUnaryOperator value, DoubleUnaryOperator slope, Span domain) {
    double direction =
        Math.signum(
            value.applyAsDouble(domain.at(1.0 / LOOKS)) - value.applyAsDouble(domain.low()));
    double last = value.applyAsDouble(domain.low());
    for (int i = 1; i <= LOOKS; i++) {
      double x = domain.at((double) i / LOOKS);
      double now = value.applyAsDouble(x);
      if (!(Math.signum(now - last) == direction) || direction == 0) {
        return refined(slope, domain.at(Math.max(0, i - 2.0) / LOOKS), x);
      }
      last = now;
    }
    return Double.NaN;
  }

  private static double refined(DoubleUnaryOperator slope, double from, double to) {
    double low = from;
    double high = to;
    double sign = Math.signum(slope.applyAsDouble(low));
    for (int i = 0; i < 60; i++) {
      double middle = (low + high) / 2;
      if (Math.signum(slope.applyAsDouble(middle)) == sign) low = middle;
      else high = middle;
    }
    return (low + high) / 2;
  }

  public Expr equation() {
    return equation;
  }

  public String variable() {
    return variable;
  }

  public Map<String, Double> constants() {
    return constants;
  }

  @Override
  public String name() {
    return "f";
  }

  @Override
  public Span domain() {
    return domain;
  }

  @Override
  public double known(double x) {
    return value.applyAsDouble(x);
  }

  @Override
  public double knownSlope(double x) {
    return slope.applyAsDouble(x);
  }

  @Override
  public boolean equals(Object o) {
    return o instanceof NumericalInverse t
        && t.equation.equals(equation)
        && t.constants.equals(constants)
        && t.domain.equals(domain);
  }

  @Override
  public int hashCode() {
    return equation.hashCode();
  }
}
