package nocking.report.plot;

import nocking.quantity.Span;

/**
 * One axis.
 *
 * @param title quantity and unit
 * @param span shown range, of some width
 */
public record Axis(String title, Span span) {

  /** A span with a little air on both sides, never of no width. */
  public static Span padded(double low, double high, double share) {
    double width = high - low;
    if (!(width > 0)) width = Math.max(1e-9, Math.abs(low) * 0.2);
    return new Span(low - share * width, high + share * width);
  }

  public Axis withSpan(Span v) {
    return new Axis(title, v);
  }
}
