package nocking.table;

import java.util.List;
import nocking.fit.Samples;
import nocking.points.RawUnit;
import nocking.quantity.QuantityException;

/**
 * Raw and true values read at a bench, as many as one likes for one raw value, in the order in
 * which they were read.
 *
 * @param source where they come from, for example a file's name
 * @param axis unit of the raw values
 * @param raw as read
 * @param truth in the channel's unit, as many
 */
public record BenchPairs(String source, RawUnit axis, List<Double> raw, List<Double> truth) {
  /** As many as a document can hold and still be read with every change. */
  public static final int MOST = 100_000;

  /** Up to so many rows, with a value each, are a datasheet's. */
  private static final int ROWS = 256;

  public BenchPairs {
    source = source == null ? "" : source;
    raw = List.copyOf(raw);
    truth = List.copyOf(truth);
    if (raw.size() != truth.size()) {
      throw new QuantityException(
          "bench pairs: %d raw values and %d true ones".formatted(raw.size(), truth.size()));
    }
    if (raw.isEmpty()) throw new QuantityException("bench pairs: there are none");
    if (raw.size() > MOST) {
      throw new QuantityException(
          "%d pairs are more than a channel keeps, %d; the command line takes any number"
              .formatted(raw.size(), MOST));
    }
    for (int i = 0; i < raw.size(); i++) {
      if (!Double.isFinite(raw.get(i)) || !Double.isFinite(truth.get(i))) {
        throw new QuantityException("bench pair %d is no number".formatted(i + 1));
      }
    }
  }

  public int size() {
    return raw.size();
  }

  public BenchPairs withTruth(List<Double> v) {
    return new BenchPairs(source, axis, raw, v);
  }

  /** The pairs with raw values as a receiver holds them, rounded to its decimals. */
  public Samples held(int rawDecimals) {
    double scale = Math.pow(10, rawDecimals);
    return new Samples(
        raw.stream().mapToDouble(r -> Math.rint(r * scale) / scale).toArray(),
        truth.stream().mapToDouble(t -> t).toArray());
  }

  /**
   * What is true at each raw step: few rows with a value each are a datasheet's, and straight lines
   * are taken to be true between them.
   */
  public static Truth truth(Samples held, int rawDecimals) {
    Truth t = Truth.of(held, rawDecimals);
    return rows(held, t) ? t.joined() : t;
  }

  /** True for few rows with a value each. */
  public static boolean rows(Samples held, Truth truth) {
    return held.size() <= ROWS && truth.single();
  }
}
