package nocking.table;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
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

  /** Slips of a set, in the order of the pairs. */
  public static List<RowSlip> of(Samples pairs) {
    int n = pairs.size();
    var list = new ArrayList<RowSlip>();
    if (n < 4) return list;
    Integer[] order = new Integer[n];
    Arrays.setAll(order, i -> i);
    Arrays.sort(order, (a, b) -> Double.compare(pairs.raw()[a], pairs.raw()[b]));
    for (int k = 0; k < n; k++) {
      // At the ends the two next ones inward say what is to be expected.
      int a = order[k == 0 ? 1 : k == n - 1 ? n - 3 : k - 1];
      int b = order[k == 0 ? 2 : k == n - 1 ? n - 2 : k + 1];
      RowSlip s = at(pairs, order[k], a, b);
      if (s != null) list.add(s);
    }
    list.sort((a, b) -> Integer.compare(a.index, b.index));
    return list;
  }

  private static RowSlip at(Samples pairs, int i, int a, int b) {
    double xa = pairs.raw()[a];
    double xb = pairs.raw()[b];
    double ya = pairs.quantity()[a];
    double yb = pairs.quantity()[b];
    if (xa == xb) return null;
    double expected = ya + (yb - ya) * (pairs.raw()[i] - xa) / (xb - xa);
    double read = pairs.quantity()[i];
    double off = Math.abs(read - expected);
    double apart = Math.abs(yb - ya);
    // Between its neighbours a value is no slip, however the curve bends.
    double beyond = Math.max(Math.min(ya, yb) - read, read - Math.max(ya, yb));
    boolean inside = pairs.raw()[i] > Math.min(xa, xb) && pairs.raw()[i] < Math.max(xa, xb);
    if (inside ? beyond < apart / 2 : off < 3 * apart) return null;
    for (double f : FACTORS) {
      if (Math.abs(read / f - expected) < NEAR * off) {
        return new RowSlip(i, read, expected, f);
      }
    }
    return null;
  }
}
