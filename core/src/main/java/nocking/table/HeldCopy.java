package nocking.table;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import nocking.quantity.Numbers;

/** A list of cells that a receiver holds, against what it takes and what is wanted now. */
public final class HeldCopy {
  private static final double HAIR = 1e-9;

  private HeldCopy() {}

  /**
   * Why a receiver would refuse the list, as it is read back in its order; empty where it takes it.
   *
   * @param equal true where two cells with one raw value are refused
   */
  public static Optional<String> refused(List<Cell> held, boolean descending, boolean equal) {
    for (int i = 1; i < held.size(); i++) {
      double before = held.get(i - 1).raw();
      double here = held.get(i).raw();
      boolean same = here == before;
      if (same && !equal || !same && here < before == descending) continue;
      return Optional.of(
          same
              ? "Cells %d and %d both have raw %s".formatted(i, i + 1, Numbers.plain(here))
              : "It wants raw values that %s, and cell %d has %s after %s"
                  .formatted(
                      descending ? "fall" : "rise",
                      i + 1,
                      Numbers.plain(here),
                      Numbers.plain(before)));
    }
    return Optional.empty();
  }

  /** True where the raw values go one way, so that a receiver can look a reading up. */
  public static boolean ordered(List<Cell> held) {
    return refused(held, false, false).isEmpty() || refused(held, true, false).isEmpty();
  }

  /** Cells of the longer list that the other one has not at the same place. */
  public static int differing(List<Cell> held, List<Cell> wanted) {
    int n = Math.max(held.size(), wanted.size());
    int differ = 0;
    for (int i = 0; i < n; i++) {
      boolean both = i < held.size() && i < wanted.size();
      if (!both || !alike(held.get(i), wanted.get(i))) differ++;
    }
    return differ;
  }

  private static boolean alike(Cell a, Cell b) {
    return near(a.raw(), b.raw()) && near(a.out(), b.out());
  }

  private static boolean near(double a, double b) {
    return Math.abs(a - b) <= HAIR * Math.max(1, Math.abs(b));
  }

  /**
   * What a rising list gives between its ends; NaN beyond them.
   *
   * @param step of an output to which the receiver rounds; 0 where it does not
   */
  public static double at(List<Cell> rising, double raw, double step) {
    int low = 0;
    int high = rising.size() - 1;
    if (high < 1 || !(raw >= rising.getFirst().raw() && raw <= rising.getLast().raw())) {
      return Double.NaN;
    }
    while (high - low > 1) {
      int middle = (low + high) >>> 1;
      if (rising.get(middle).raw() <= raw) low = middle;
      else high = middle;
    }
    Cell a = rising.get(low);
    Cell b = rising.get(high);
    if (!(b.raw() > a.raw())) return Double.NaN;
    return rounded(line(a, b, raw), step);
  }

  private static double line(Cell a, Cell b, double raw) {
    return a.out() + (b.out() - a.out()) * (raw - a.raw()) / (b.raw() - a.raw());
  }

  /** The nearest step, half up, as integers give it. */
  private static double rounded(double out, double step) {
    return step == 0 ? out : Math.floor(out / step + 0.5 + HAIR) * step;
  }

  /**
   * How far the readings of a list are from what is true, at most.
   *
   * @param outside what the receiver gives beyond the ends of the list
   * @param step of an output to which the receiver rounds; 0 where it does not
   * @return infinite where it has no reading for some of it
   */
  public static double worst(List<Cell> held, Truth truth, Outside outside, double step) {
    List<Cell> rising = held.stream().sorted(Comparator.comparingDouble(Cell::raw)).toList();
    double worst = 0;
    for (int i = 0; i < truth.axis().size(); i++) {
      if (!truth.known(i)) continue;
      double read = read(rising, truth.axis().at(truth.axis().first() + i), outside, step);
      if (Double.isNaN(read)) return Double.POSITIVE_INFINITY;
      worst = Math.max(worst, Math.abs(read - truth.least()[i]));
      worst = Math.max(worst, Math.abs(read - truth.most()[i]));
    }
    return worst;
  }

  /** What a rising list gives for any raw value; NaN where it gives none. */
  private static double read(List<Cell> rising, double raw, Outside outside, double step) {
    int n = rising.size();
    boolean below = raw < rising.getFirst().raw();
    boolean above = raw > rising.getLast().raw();
    if (!below && !above) return at(rising, raw, step);
    Cell end = below ? rising.getFirst() : rising.getLast();
    Cell next = below ? rising.get(1) : rising.get(n - 2);
    return switch (outside) {
      case EXTEND -> rounded(line(end, next, raw), step);
      case HOLD -> end.out();
      case FAULT -> Double.NaN;
    };
  }
}
