package nocking.table;

import java.util.Arrays;
import java.util.TreeSet;
import java.util.stream.IntStream;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;

/**
 * Break-points where a receiver or a habit puts them, with outputs on the curve there: what the
 * smallest table is compared with.
 */
public final class Placements {
  private Placements() {}

  /** Outputs on the curve at given raw steps, rounded to the receiver's. */
  private static StepTable on(Truth truth, int[] raw, int outDecimals, boolean rounded) {
    truth.requireSteps(outDecimals);
    double scale = Math.pow(10, outDecimals);
    long[] out = Arrays.stream(raw).mapToLong(r -> Math.round(truth.at(r) * scale)).toArray();
    return new StepTable(truth.axis().decimals(), outDecimals, raw, out, rounded);
  }

  /** A straight line between the ends. */
  public static StepTable between(Truth truth, int outDecimals, boolean rounded) {
    return equalSteps(truth, 2, outDecimals, rounded);
  }

  /**
   * So many cells in equal steps of raw.
   *
   * @throws QuantityException when there are more cells than raw steps
   */
  public static StepTable equalSteps(Truth truth, int cells, int outDecimals, boolean rounded) {
    RawAxis axis = truth.axis();
    if (cells < 2) throw new QuantityException("a table needs at least two cells; read " + cells);
    if (cells > axis.size()) {
      throw new QuantityException(
          "there are %d raw steps from end to end, too few for %d cells"
              .formatted(axis.size(), cells));
    }
    double apart = (axis.size() - 1.0) / (cells - 1);
    int[] raw =
        IntStream.range(0, cells).map(i -> axis.first() + (int) Math.round(i * apart)).toArray();
    return on(truth, raw, outDecimals, rounded);
  }

  /**
   * Steps of a power of two from a multiple of it on, so that a shift finds the cell without a
   * search; as small as at most so many cells allow. Beyond the data the end slope goes on.
   */
  public static StepTable powersOfTwo(Truth truth, int cells, int outDecimals, boolean rounded) {
    RawAxis axis = truth.axis();
    if (cells < 2) throw new QuantityException("a table needs at least two cells; read " + cells);
    truth.requireSteps(outDecimals);
    int shift = 0;
    while (cells(axis, shift) > cells) shift++;
    int step = 1 << shift;
    int from = Math.floorDiv(axis.first(), step) * step;
    int n = cells(axis, shift);
    double scale = Math.pow(10, outDecimals);
    int[] raw = new int[n];
    long[] out = new long[n];
    for (int i = 0; i < n; i++) {
      raw[i] = from + i * step;
      out[i] = Math.round(extended(truth, raw[i], step) * scale);
    }
    return new StepTable(axis.decimals(), outDecimals, raw, out, rounded);
  }

  /** The curve, beyond its ends by the slope of one step inward. */
  private static double extended(Truth truth, int at, int step) {
    RawAxis axis = truth.axis();
    boolean below = at < axis.first();
    if (!below && at <= axis.last()) return truth.at(at);
    int end = below ? axis.first() : axis.last();
    int inside = axis.step(axis.at(below ? end + step : end - step));
    double slope = (truth.at(inside) - truth.at(end)) / ((double) inside - end);
    return truth.at(end) + slope * ((double) at - end);
  }

  private static int cells(RawAxis axis, int shift) {
    long from = Math.floorDiv(axis.first(), 1L << shift);
    long to = Math.ceilDiv(axis.last(), 1L << shift);
    return (int) Math.min(Integer.MAX_VALUE, to - from + 1);
  }

  /**
   * Every so-manieth raw step that has data, the first and the last among them: 1 for the rows of a
   * datasheet as they are.
   */
  public static StepTable everyRow(Truth truth, int every, int outDecimals, boolean rounded) {
    if (every < 1) throw new QuantityException("every row is 1 or more; read " + every);
    int[] rows =
        IntStream.range(0, truth.axis().size())
            .filter(i -> truth.given()[i])
            .map(i -> truth.axis().first() + i)
            .toArray();
    var kept = new TreeSet<Integer>();
    for (int i = 0; i < rows.length; i += every) kept.add(rows[i]);
    kept.add(rows[rows.length - 1]);
    return on(truth, kept.stream().mapToInt(i -> i).toArray(), outDecimals, rounded);
  }

  /**
   * At given raw values, as a receiver with a fixed axis wants them. Where they go beyond the data,
   * the line from the end of the data to the next of them goes on.
   *
   * @throws QuantityException where none of them lies inside the data
   */
  public static StepTable at(Truth truth, double[] raws, int outDecimals, boolean rounded) {
    RawAxis axis = truth.axis();
    truth.requireSteps(outDecimals);
    double scale = Math.pow(10, axis.decimals());
    int[] raw = Arrays.stream(raws).mapToInt(r -> (int) Math.rint(r * scale)).sorted().toArray();
    int[] inside = Arrays.stream(raw).filter(axis::has).toArray();
    if (inside.length == 0) {
      throw new QuantityException(
          "the fixed axis goes from raw %s to %s, the data from %s to %s"
              .formatted(
                  Numbers.plain(raw[0] / scale),
                  Numbers.plain(raw[raw.length - 1] / scale),
                  Numbers.plain(axis.at(axis.first())),
                  Numbers.plain(axis.at(axis.last()))));
    }
    int next = inside[0] > axis.first() || inside.length == 1 ? inside[0] : inside[1];
    int last = inside[inside.length - 1];
    int former = last < axis.last() || inside.length == 1 ? last : inside[inside.length - 2];
    double steps = Math.pow(10, outDecimals);
    long[] out = new long[raw.length];
    for (int i = 0; i < raw.length; i++) {
      double y =
          raw[i] < axis.first()
              ? beyond(truth, axis.first(), next, raw[i])
              : raw[i] > axis.last()
                  ? beyond(truth, axis.last(), former, raw[i])
                  : truth.at(raw[i]);
      out[i] = Math.round(y * steps);
    }
    return new StepTable(axis.decimals(), outDecimals, raw, out, rounded);
  }

  /** The line through the truth at an end and at another step. */
  private static double beyond(Truth truth, int end, int inside, int at) {
    int other = inside == end ? truth.axis().first() + truth.axis().last() - end : inside;
    double slope = (truth.at(other) - truth.at(end)) / ((double) other - end);
    return truth.at(end) + slope * ((double) at - end);
  }
}
