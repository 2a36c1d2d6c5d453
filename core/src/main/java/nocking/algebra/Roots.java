package nocking.algebra;

import java.util.function.DoubleUnaryOperator;
import nocking.quantity.Span;

/** Roots of monotone functions on an interval. */
public final class Roots {
  private static final int MOST_STEPS = 200;

  /** Share of f's span by which y may miss an end: what earlier arithmetic rounds away. */
  private static final double ROUNDING = 1e-14;

  private Roots() {}

  /**
   * Newton's method inside a bracket that bisection keeps closing (Press et al., "Numerical
   * Recipes", 9.4): the bracket makes it safe, the slope makes it fast. A step that is not half of
   * the one before the last is a bisection, since across a bend Newton's may go to and fro.
   *
   * @param f strictly monotone on {@code branch}
   * @param slope its derivative; may be NaN, then the step is a bisection
   * @return x with f(x) = y; NaN when the branch does not reach y
   */
  public static double monotone(
      DoubleUnaryOperator f, DoubleUnaryOperator slope, Span branch, double y) {
    double low = branch.low();
    double high = branch.high();
    double atLow = f.applyAsDouble(low) - y;
    double atHigh = f.applyAsDouble(high) - y;
    double rounding = ROUNDING * Math.abs(atHigh - atLow);
    if (Math.abs(atLow) <= rounding) return low;
    if (Math.abs(atHigh) <= rounding) return high;
    if (!(atLow * atHigh < 0)) return Double.NaN;
    boolean rising = atLow < 0;
    double x = low + (high - low) * (atLow / (atLow - atHigh));
    double last = high - low;
    double beforeLast = last;
    for (int i = 0; i < MOST_STEPS; i++) {
      double error = f.applyAsDouble(x) - y;
      if (error == 0) return x;
      if ((error < 0) == rising) low = x;
      else high = x;
      double next = x - error / slope.applyAsDouble(x);
      if (Math.abs(next - x) <= Math.ulp(x)) return x;
      boolean closing = Math.abs(next - x) <= beforeLast / 2;
      if (!(closing && next > low && next < high)) next = low + (high - low) / 2;
      if (next == low || next == high) return next;
      beforeLast = last;
      last = Math.abs(next - x);
      x = next;
    }
    return x;
  }
}
