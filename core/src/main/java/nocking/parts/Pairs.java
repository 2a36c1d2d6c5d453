package nocking.parts;

import java.util.Arrays;

/**
 * Every single part and every pair of an assortment in series and in parallel, sorted by
 * resistance.
 */
final class Pairs {
  private static final int NONE = -1;

  private final Assortment assortment;
  private final double[] ohms;
  private final int[] first;
  private final int[] second;
  private final boolean[] parallel;

  private Pairs(Assortment a, boolean singles) {
    assortment = a;
    int n = a.size();
    int most = n + n * (n + 1);
    double[] value = new double[most];
    long[] made = new long[most];
    int at = 0;
    for (int i = 0; i < n; i++) {
      if (singles) {
        value[at] = a.ohms(i);
        made[at++] = code(i, NONE, false);
      }
      for (int j = i; j < n; j++) {
        if (!a.enough(i, j)) continue;
        value[at] = a.ohms(i) + a.ohms(j);
        made[at++] = code(i, j, false);
        value[at] = a.ohms(i) * a.ohms(j) / (a.ohms(i) + a.ohms(j));
        made[at++] = code(i, j, true);
      }
    }
    int[] order = order(value, at);
    ohms = new double[at];
    first = new int[at];
    second = new int[at];
    parallel = new boolean[at];
    for (int k = 0; k < at; k++) {
      long c = made[order[k]];
      ohms[k] = value[order[k]];
      first[k] = (int) (c >> 32);
      second[k] = (int) ((c & 0xffffffffL) >> 1) - 1;
      parallel[k] = (c & 1) == 1;
    }
  }

  private static long code(int i, int j, boolean parallel) {
    return ((long) i << 32) | ((long) (j + 1) << 1) | (parallel ? 1 : 0);
  }

  /** Indices in the order of their values, sorted as numbers and not as objects. */
  private static int[] order(double[] value, int n) {
    long[] keys = new long[n];
    int bits = 64 - Long.numberOfLeadingZeros(Math.max(1, n - 1));
    long low = (1L << bits) - 1;
    // Positive doubles sort like their bits; the last bits make room for the index.
    for (int i = 0; i < n; i++) keys[i] = (Double.doubleToRawLongBits(value[i]) & ~low) | i;
    Arrays.sort(keys);
    int[] order = new int[n];
    for (int i = 0; i < n; i++) order[i] = (int) (keys[i] & low);
    return settled(order, value);
  }

  /** Neighbours that differ only in the bits that were left out are put right. */
  private static int[] settled(int[] order, double[] value) {
    for (int i = 1; i < order.length; i++) {
      int v = order[i];
      int j = i;
      while (j > 0 && value[order[j - 1]] > value[v]) {
        order[j] = order[j - 1];
        j--;
      }
      order[j] = v;
    }
    return order;
  }

  /** Pairs only. */
  static Pairs of(Assortment a) {
    return new Pairs(a, false);
  }

  /** Single parts and pairs. */
  static Pairs withSingles(Assortment a) {
    return new Pairs(a, true);
  }

  int size() {
    return ohms.length;
  }

  double ohms(int k) {
    return ohms[k];
  }

  /** Number of parts of an entry. */
  int count(int k) {
    return second[k] == NONE ? 1 : 2;
  }

  /** Index of the first entry that is at least {@code wanted}. */
  int atLeast(double wanted) {
    int i = Arrays.binarySearch(ohms, wanted);
    if (i < 0) return -i - 1;
    while (i > 0 && ohms[i - 1] == wanted) i--;
    return i;
  }

  /** True when there are enough parts for an entry beside others. */
  boolean enough(int k, int... beside) {
    if (!assortment.isStock()) return true;
    int[] all = Arrays.copyOf(beside, beside.length + (second[k] == NONE ? 1 : 2));
    all[beside.length] = first[k];
    if (second[k] != NONE) all[beside.length + 1] = second[k];
    return assortment.enough(all);
  }

  /** True when there are enough parts for two entries together. */
  boolean together(int k, int m) {
    if (!assortment.isStock()) return true;
    return second[m] == NONE ? enough(k, first[m]) : enough(k, first[m], second[m]);
  }

  Network network(int k) {
    Network a = Network.of(assortment.part(first[k]));
    if (second[k] == NONE) return a;
    Network b = Network.of(assortment.part(second[k]));
    return parallel[k] ? Network.parallel(a, b) : Network.series(a, b);
  }
}
