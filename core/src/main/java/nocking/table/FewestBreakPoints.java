package nocking.table;

import java.util.List;
import nocking.quantity.QuantityException;

/**
 * The smallest table for a tolerance: break-points on raw steps, whole outputs, and at every raw
 * step with data what the receiver reads, rounded as it rounds, within the tolerance.
 *
 * <p>Where an integer receiver rounds half up, its reading is within whole steps A … B exactly when
 * the line is within A − ½ … B + ½: rounding is no loss but part of the corridor. {@link
 * LeastLinks} gives the number of pieces below which no continuous function whatever can stay
 * within it, and from either side the steps between which each break-point has to stand; {@link
 * BreakPointSearch} looks for a table of so many pieces, first with some of the places there, then
 * with more, at last with all of them where they are not too many, and then for one of one piece
 * more. A table that comes to the bound, or to what a whole search leaves, is the smallest there
 * is.
 *
 * @param table what was found
 * @param bound break-points that any continuous function within the tolerance needs
 * @param proven true when no smaller table exists
 */
public record FewestBreakPoints(StepTable table, int bound, boolean proven) {
  /** Places that are tried first, and then. */
  private static final long[] EFFORTS = {1_500, 12_000, 60_000};

  /** Looks at a raw step up to which a whole search is made. */
  private static final double WHOLE = 3e8;

  /** How far beyond the bound one goes on looking. */
  private static final int MORE = 64;

  /**
   * @param tolerance above 0, in the quantity
   * @param outDecimals of the output
   * @param rounded true for an integer receiver, false for one that reads the line itself
   * @throws QuantityException where no table holds the tolerance
   */
  public static FewestBreakPoints of(
      Truth truth, double tolerance, int outDecimals, boolean rounded) {
    if (!(tolerance > 0)) {
      throw new QuantityException("a tolerance must be above 0; read " + tolerance);
    }
    double step = Math.pow(10, -outDecimals);
    Corridor c = Corridor.of(truth.axis(), truth.least(), truth.most(), tolerance, step, rounded);
    int[] forth = LeastLinks.reach(c);
    int[] back = LeastLinks.reach(c.reversed());
    int bound = forth.length - 1;
    boolean proven = true;
    for (int pieces = bound; pieces <= bound + MORE + bound / 4; pieces++) {
      Tried tried = tried(c, forth, back, pieces);
      if (!tried.path.isEmpty()) {
        StepTable table = table(tried.path, truth.axis(), outDecimals, rounded);
        return new FewestBreakPoints(table, bound + 1, proven);
      }
      proven &= tried.whole;
    }
    throw new QuantityException("no table of whole outputs was found for this tolerance");
  }

  /**
   * @param path empty where none was found
   * @param whole true when none exists then
   */
  private record Tried(List<long[]> path, boolean whole) {}

  /** A table of so many pieces: with some places first, then with more, at last with all. */
  private static Tried tried(Corridor c, int[] forth, int[] back, int pieces) {
    int n = c.size();
    int[] floors = new int[pieces + 1];
    long steps = 0;
    long all = 0;
    long most = 1;
    for (int k = 1; k <= pieces; k++) {
      int left = pieces - k;
      floors[k] = left < back.length ? n - 1 - back[left] : 0;
      if (k == pieces) continue;
      int furthest = k < forth.length ? forth[k] : n - 1;
      for (int i = floors[k]; i <= furthest; i++) {
        long outputs = c.outputs(i);
        all += outputs;
        most = Math.max(most, outputs);
      }
      steps += Math.max(0, furthest - floors[k] + 1);
    }
    for (long effort : EFFORTS) {
      if (all <= effort) break;
      long levels = Math.min(most, effort > EFFORTS[0] ? 9 : 4);
      int stride = (int) Math.max(1, steps * levels / effort);
      List<long[]> path = new BreakPointSearch(c, floors, stride, levels).path();
      if (!path.isEmpty()) return new Tried(path, false);
      if (stride == 1 && levels >= most) return new Tried(path, true);
    }
    if ((double) all * n / pieces > WHOLE) return new Tried(List.of(), false);
    return new Tried(new BreakPointSearch(c, floors, 1, Long.MAX_VALUE >> 8).path(), true);
  }

  private static StepTable table(
      List<long[]> path, RawAxis axis, int outDecimals, boolean rounded) {
    int[] raw = path.stream().mapToInt(p -> axis.first() + (int) p[0]).toArray();
    long[] out = path.stream().mapToLong(p -> p[1]).toArray();
    return new StepTable(axis.decimals(), outDecimals, raw, out, rounded);
  }
}
