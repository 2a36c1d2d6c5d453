package nocking.table;

import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.fit.Samples;

/**
 * What differs between the way up and the way down in pairs that were read one after the other.
 *
 * @param difference true value on the way down less that on the way up at one raw value, mean over
 *     where they differ most
 * @param low smallest true value of that part
 * @param high largest one
 */
public record Strokes(double difference, double low, double high) {
  /** Parts of the range that are looked at by themselves. */
  private static final int PARTS = 12;

  /** Pairs on either way that a part needs. */
  private static final int ENOUGH = 8;

  /** Neighbours by which the way of a pair is told. */
  private static final int BESIDE = 3;

  /** Standard errors that a difference has to be away from none: one part in a thousand tests. */
  private static final double SURE = 4.5;

  private static final class Way {
    private int n;
    private double sum;
    private double squares;

    void add(double v) {
      n++;
      sum += v;
      squares += v * v;
    }

    double mean() {
      return sum / n;
    }

    /** Square of the standard error of the mean. */
    double variance() {
      return Math.max(0, squares - sum * sum / n) / (n - 1) / n;
    }
  }

  /**
   * @param reading what a curve in the middle of the pairs gives for a raw value
   * @return empty where nothing stands out of the noise, or the pairs were not read both ways
   */
  public static Optional<Strokes> of(Samples pairs, DoubleUnaryOperator reading) {
    int n = pairs.size();
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (double y : pairs.quantity()) {
      low = Math.min(low, y);
      high = Math.max(high, y);
    }
    var up = new Way[PARTS];
    var down = new Way[PARTS];
    for (int k = 0; k < PARTS; k++) {
      up[k] = new Way();
      down[k] = new Way();
    }
    double least = (high - low) / n;
    for (int i = 0; i < n; i++) {
      double way =
          pairs.quantity()[Math.min(n - 1, i + BESIDE)] - pairs.quantity()[Math.max(0, i - BESIDE)];
      if (Math.abs(way) < least) continue;
      double y = pairs.quantity()[i];
      int part = (int) Math.min(PARTS - 1, (y - low) / (high - low) * PARTS);
      (way > 0 ? up : down)[part].add(y - reading.applyAsDouble(pairs.raw()[i]));
    }
    return widest(up, down, low, (high - low) / PARTS);
  }

  /** The longest run of parts that differ, all to one side. */
  private static Optional<Strokes> widest(Way[] up, Way[] down, double low, double width) {
    Optional<Strokes> best = Optional.empty();
    int length = 0;
    for (int from = 0; from < PARTS; from++) {
      double sum = 0;
      int to = from;
      while (to < PARTS) {
        double d = sure(up[to], down[to]);
        if (d == 0 || sum != 0 && Math.signum(d) != Math.signum(sum)) break;
        sum += d;
        to++;
      }
      if (to - from <= length) continue;
      length = to - from;
      best = Optional.of(new Strokes(sum / length, low + from * width, low + to * width));
    }
    return best;
  }

  /** The difference of a part; 0 where it does not stand out of the noise. */
  private static double sure(Way up, Way down) {
    if (up.n < ENOUGH || down.n < ENOUGH) return 0;
    double d = down.mean() - up.mean();
    return Math.abs(d) > SURE * Math.sqrt(up.variance() + down.variance()) ? d : 0;
  }
}
