package nocking.placement;

import java.util.function.DoubleUnaryOperator;
import java.util.stream.IntStream;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;

/**
 * What is known of a channel before it is measured.
 *
 * @param range of the quantity that is to be covered
 * @param raw reading for a quantity, rising or falling all along the range
 * @param scatter standard deviation of a point's mean reading, in the raw unit, at least 0
 */
public record Nominal(Span range, DoubleUnaryOperator raw, double scatter) {
  /** Places at which what is left is looked at. */
  private static final int LOOKS = 200;

  public Nominal {
    if (!(range.width() > 0))
      throw new QuantityException("a range without a width needs no points");
  }

  /** Quantities all along the range. */
  double[] looks() {
    return IntStream.rangeClosed(0, LOOKS).mapToDouble(i -> range.at((double) i / LOOKS)).toArray();
  }

  /** Quantity that a reading which is off by one standard deviation is off by. */
  double scatterAt(double x) {
    double h = range.width() * 1e-4;
    double low = range.clamp(x - h);
    double high = range.clamp(x + h);
    double slope = (raw.applyAsDouble(high) - raw.applyAsDouble(low)) / (high - low);
    return scatter / Math.abs(slope);
  }
}
