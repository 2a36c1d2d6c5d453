package nocking.algebra;

import nocking.quantity.Span;

/**
 * A function of one variable that is known by its values rather than by one closed formula: a
 * datasheet table, a reference function in pieces, or an equation that can only be turned round
 * numerically.
 */
public interface Graph {

  /** Name in equations and generated source, a C identifier. */
  String name();

  /** Where the function is known; outside it every value is NaN. */
  Span domain();

  /** Part of the domain on which the function is strictly monotone and can be turned round. */
  default Span branch() {
    return domain();
  }

  /** Value at {@code x}; NaN outside the domain. */
  double value(double x);

  /** First derivative at {@code x}; NaN outside the domain. */
  double slope(double x);

  /**
   * The {@code x} of the monotone branch at which the function is {@code y}, to the last bits.
   *
   * @return NaN when the branch does not reach {@code y}
   */
  default double inverse(double y) {
    return Roots.monotone(this::value, this::slope, branch(), y);
  }
}
