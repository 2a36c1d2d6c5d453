package nocking.table;

import java.util.Arrays;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.IntStream;

/**
 * Readings of a bench through a table, and beside it through a straight line between its ends.
 *
 * @param truth at each reading, in the quantity
 * @param raw value there
 * @param straight what the line between the first and the last cell makes of it
 * @param table what the table makes of it; NaN for a fault
 */
public record Rehearsal(double[] truth, double[] raw, double[] straight, double[] table) {
  public static final Rehearsal NONE =
      new Rehearsal(new double[0], new double[0], new double[0], new double[0]);

  /**
   * @param quantity that an output means
   * @param reading of the receiver for a raw value, in the quantity
   */
  public static Rehearsal of(
      StepTable t,
      double[] truth,
      double[] raw,
      DoubleUnaryOperator quantity,
      DoubleUnaryOperator reading) {
    int last = t.count() - 1;
    double slope = (t.outOf(last) - t.outOf(0)) / (t.rawOf(last) - t.rawOf(0));
    double[] straight =
        Arrays.stream(raw)
            .map(r -> quantity.applyAsDouble(t.outOf(0) + slope * (r - t.rawOf(0))))
            .toArray();
    return new Rehearsal(truth, raw, straight, Arrays.stream(raw).map(reading).toArray());
  }

  /** Readings less what is true. */
  public double[] off(double[] readings) {
    double[] off = new double[truth.length];
    for (int i = 0; i < off.length; i++) off[i] = readings[i] - truth[i];
    return off;
  }

  /** The largest error of the table between its ends; NaN where nothing was read there. */
  public double worstWithin(StepTable t) {
    return worst(t, true);
  }

  /** The largest error of the table beyond its ends; NaN where nothing was read there. */
  public double worstBeyond(StepTable t) {
    return worst(t, false);
  }

  private double worst(StepTable t, boolean within) {
    return IntStream.range(0, raw.length)
        .filter(i -> (raw[i] >= t.rawOf(0) && raw[i] <= t.rawOf(t.count() - 1)) == within)
        .mapToDouble(i -> Math.abs(table[i] - truth[i]))
        .filter(v -> !Double.isNaN(v))
        .max()
        .orElse(Double.NaN);
  }

  /** The largest error of readings; NaN where there are none. */
  public double worst(double[] readings) {
    return Arrays.stream(off(readings))
        .map(Math::abs)
        .filter(v -> !Double.isNaN(v))
        .max()
        .orElse(Double.NaN);
  }
}
