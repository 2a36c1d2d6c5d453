package nocking.table;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.IntStream;
import nocking.fit.Samples;

/**
 * A row whose true value is ten, a hundred or a thousand times what its neighbours say, or as small
 * a part of it: a decimal point or a prefix that slipped, before it becomes a cell.
 *
 * @param index of the pair
 * @param read its true value
 * @param expected what a straight line between its neighbours gives
 * @param factor 10, 0.1 …
 */
public record RowSlip(int index, double read, double expected, double factor) {
  private static final double[] FACTORS = {10, 100, 1000, 0.1, 0.01, 0.001};

  /** How near the mended value has to come, as a share of how far off it was. */
  private static final double NEAR = 0.1;

  /**
   * How much further off it has to be than a quarter of all rows are: noise is no slip. In a short
   * table one slip throws its neighbours out of line, too, and no more than a quarter stays.
   */
  private static final double CLEAR = 16;

  /** Share of what the sound rows span below which a slip would not matter. */
  private static final double MATTERS = 0.01;

  /** Slips of a set, in the order of the pairs. */
  public static List<RowSlip> of(Samples pairs) {
    int n = pairs.size();
    var list = new ArrayList<RowSlip>();
    if (n < 4) return list;
    int[] order = order(pairs);
    double[] expected = new double[n];
    double[] off = new double[n];
    for (int k = 0; k < n; k++) {
      expected[k] = expected(pairs, order, k);
      off[k] = Math.abs(pairs.quantity()[order[k]] - expected[k]);
    }
    double usual = quantile(off, 0.25);
    double span = quantile(pairs.quantity(), 0.9) - quantile(pairs.quantity(), 0.1);
    for (int k = 0; k < n; k++) {
      if (!(off[k] > CLEAR * usual) || off[k] < MATTERS * span || between(pairs, order, k))
        continue;
      double read = pairs.quantity()[order[k]];
      for (double f : FACTORS) {
        if (Math.abs(read / f - expected[k]) >= NEAR * off[k]) continue;
        list.add(new RowSlip(order[k], read, expected[k], f));
        break;
      }
    }
    list.sort((a, b) -> Integer.compare(a.index, b.index));
    return list;
  }

  private static int[] order(Samples pairs) {
    return IntStream.range(0, pairs.size())
        .boxed()
        .sorted((a, b) -> Double.compare(pairs.raw()[a], pairs.raw()[b]))
        .mapToInt(i -> i)
        .toArray();
  }

  private static double quantile(double[] values, double share) {
    double[] v = values.clone();
    Arrays.sort(v);
    return v[(int) (share * (v.length - 1))];
  }

  /** The rows that say what is to be expected of one: its neighbours, at an end the two inward. */
  private static int[] neighbours(int[] order, int k) {
    int n = order.length;
    int a = k == 0 ? 1 : k == n - 1 ? n - 3 : k - 1;
    int b = k == 0 ? 2 : k == n - 1 ? n - 2 : k + 1;
    return new int[] {order[a], order[b]};
  }

  /** What a straight line through the neighbours gives; NaN where they have one raw value. */
  private static double expected(Samples pairs, int[] order, int k) {
    int[] of = neighbours(order, k);
    double xa = pairs.raw()[of[0]];
    double xb = pairs.raw()[of[1]];
    double ya = pairs.quantity()[of[0]];
    double yb = pairs.quantity()[of[1]];
    return ya + (yb - ya) * (pairs.raw()[order[k]] - xa) / (xb - xa);
  }

  /**
   * True for a value that stands between its neighbours or hardly beyond them, and at an end for
   * one that goes on as they do: no slip, however the curve bends.
   */
  private static boolean between(Samples pairs, int[] order, int k) {
    int[] of = neighbours(order, k);
    double ya = pairs.quantity()[of[0]];
    double yb = pairs.quantity()[of[1]];
    double read = pairs.quantity()[order[k]];
    double apart = Math.abs(yb - ya);
    double beyond = Math.max(Math.min(ya, yb) - read, read - Math.max(ya, yb));
    boolean end = k == 0 || k == order.length - 1;
    return beyond < (end ? 3 : 0.5) * apart;
  }
}
