package nocking.algebra;

import nocking.quantity.Span;

/**
 * A function of one variable that is known by its values rather than by one closed formula: a
 * datasheet table, a reference function in pieces, or an equation that can only be turned round
 * numerically.
 *
 * <p>A tolerance draw, half a code or a rounded cell goes a little further than the function is
 * known. Beyond its ends it goes on straight with its end slope: as far as {@link #reach()} for
 * everything that is read, without end for a draw of parts, which carries its width with it. At an
 * end of the branch that is no end of the domain the function turns back, and nothing goes on.
 */
public interface TabulatedFunction {
  /** Share of the domain by which the function goes on beyond each of its ends. */
  double BEYOND = 0.05;

  /** Share of the mean slope below which an end is flat and the last hundredth gives the slope. */
  double FLAT = 1e-3;

  /** Name in equations and generated source, a C identifier. */
  String name();

  /** Where the function is known. */
  Span domain();

  /** Part of the domain on which the function is strictly monotone and can be turned round. */
  default Span branch() {
    return domain();
  }

  /** Value inside the domain. */
  double known(double x);

  /** First derivative inside the domain. */
  double knownSlope(double x);

  /** The domain with what lies beyond it as far as the end slopes are trusted. */
  default Span reach() {
    double more = BEYOND * domain().width();
    return new Span(domain().low() - more, domain().high() + more);
  }

  /** Slope with which the function goes on beyond one of the domain's ends. */
  default double endSlope(boolean atLow) {
    Span d = domain();
    double end = atLow ? d.low() : d.high();
    double slope = knownSlope(end);
    double mean = (known(d.high()) - known(d.low())) / d.width();
    // A curve that starts flat would never be reached again from outside.
    if (Math.abs(slope) >= FLAT * Math.abs(mean)) return slope;
    double inside = d.at(atLow ? 0.01 : 0.99);
    return (known(inside) - known(end)) / (inside - end);
  }

  /** Value at {@code x}, the end slope going on without end. */
  default double continued(double x) {
    Span d = domain();
    if (d.contains(x)) return known(x);
    if (Double.isNaN(x)) return x;
    boolean low = x < d.low();
    double end = low ? d.low() : d.high();
    return known(end) + endSlope(low) * (x - end);
  }

  /** The {@code x} at which the continued function is {@code y}; NaN where none is. */
  default double continuedInverse(double y) {
    double x = Roots.monotone(this::known, this::knownSlope, branch(), y);
    if (!Double.isNaN(x)) return x;
    double atLow = known(branch().low());
    double atHigh = known(branch().high());
    boolean rising = atHigh > atLow;
    if (Double.isNaN(y) || y > Math.min(atLow, atHigh) && y < Math.max(atLow, atHigh)) {
      return Double.NaN;
    }
    boolean low = rising == y < atLow;
    double end = low ? branch().low() : branch().high();
    if (end != (low ? domain().low() : domain().high())) return Double.NaN;
    return end + (y - (low ? atLow : atHigh)) / endSlope(low);
  }

  /** Value at {@code x}; NaN beyond the reach. */
  default double value(double x) {
    return reach().contains(x) ? continued(x) : Double.NaN;
  }

  /** First derivative at {@code x}; NaN beyond the reach. */
  default double slope(double x) {
    if (domain().contains(x)) return knownSlope(x);
    return reach().contains(x) ? endSlope(x < domain().low()) : Double.NaN;
  }

  /**
   * The {@code x} of the monotone branch at which the function is {@code y}, to the last bits.
   *
   * @return NaN when the branch with its reach does not come to {@code y}
   */
  default double inverse(double y) {
    double x = continuedInverse(y);
    return reach().contains(x) ? x : Double.NaN;
  }
}
