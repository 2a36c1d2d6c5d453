package nocking.report.plot;

import nocking.quantity.Span;

/** One thing that a plot shows; layers are drawn in their order. */
public sealed interface Layer {

  /**
   * A line through points.
   *
   * @param dash 0 for solid, 1 dashed, 2 dotted
   */
  record Line(Role role, double[] x, double[] y, int dash) implements Layer {}

  /** Squares at points. */
  record Points(Role role, double[] x, double[] y) implements Layer {}

  /** A band over the whole width between two values of y. */
  record Across(Role role, Span y) implements Layer {}

  /** A band over the whole height between two values of x. */
  record Upright(Role role, Span x) implements Layer {}

  /** A ring with a label, for a place that has a name. */
  record Mark(double x, double y, String text) implements Layer {}

  /**
   * A word in the plot.
   *
   * @param anchorRight true when the text ends at x, false when it begins there
   */
  record Label(Role role, double x, double y, String text, boolean anchorRight) implements Layer {}
}
