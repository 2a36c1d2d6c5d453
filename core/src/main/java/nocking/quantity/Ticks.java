package nocking.quantity;

import java.util.stream.DoubleStream;
import java.util.stream.LongStream;

/** Round places on a ruler: multiples of 1, 2 or 5 times a power of ten. */
public final class Ticks {
  private Ticks() {}

  /**
   * Multiples of the smallest round step that leaves at most so many of them.
   *
   * @param most at least 2
   * @return places inside the range, rising; none where the range is not finite or has no width
   */
  public static double[] of(Span range, int most) {
    double width = range.width();
    if (!(width > 0) || !Double.isFinite(width)) return new double[0];
    double raw = width / (most - 1);
    double decade = Math.pow(10, Math.floor(Math.log10(raw)));
    double step =
        DoubleStream.of(1, 2, 5, 10)
            .map(d -> d * decade)
            .filter(s -> s >= raw * (1 - 1e-9))
            .findFirst()
            .orElse(10 * decade);
    long first = (long) Math.ceil(range.low() / step - 1e-9);
    long last = (long) Math.floor(range.high() / step + 1e-9);
    // A range so far from zero that its step is lost in rounding has no round places.
    if (last - first > most) return new double[0];
    return LongStream.rangeClosed(first, last).mapToDouble(i -> i * step).toArray();
  }
}
