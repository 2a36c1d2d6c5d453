package nocking.table;

import java.util.ArrayList;
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
 * @param allowance what was taken from the tolerance for rounding, in the quantity; 0 where
 *     rounding is part of the corridor
 */
public record FewestBreakPoints(StepTable table, int bound, boolean proven, double allowance) {
  /** Looks at a raw step that a search may take, at first, and then. */
  private static final double[] EFFORTS = {1e6, 1e7, 6e7, 3e8};

  /** Looks at a raw step after which a search ends with what it has, over all that it tries. */
  static final long LIMIT = 600_000_000L;

  /** Looks at a raw step up to which a whole search is made. */
  private static final double WHOLE = 2e8;

  /** Output steps that are left for moving break-points to whole steps, by turns. */
  private static final double[] ROOM = {0, 0.1, 0.25, 0.5, 1, 1.5};

  /** Efforts of a search that has to be short. */
  static final int SHORT = 2;

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
    return of(truth, tolerance, outDecimals, rounded, new TableSearch());
  }

  /**
   * The same, by a search that others look at and may end. One that is ended comes back with a
   * table that holds the tolerance all the same, and says that it is not known whether fewer cells
   * do.
   */
  public static FewestBreakPoints of(
      Truth truth, double tolerance, int outDecimals, boolean rounded, TableSearch search) {
    if (!(tolerance > 0)) {
      throw new QuantityException("a tolerance must be above 0; read " + tolerance);
    }
    truth.requireSteps(outDecimals);
    double step = Math.pow(10, -outDecimals);
    Corridor c = Corridor.of(truth, tolerance, step, rounded);
    double allowance = Corridor.allowance(truth, step, rounded);
    int[] forth = LeastLinks.reach(c);
    int bound = forth.length - 1;
    StepTable near = near(truth, tolerance, outDecimals, rounded, ROOM);
    int enough = near == null ? bound + MORE + bound / 4 : near.count() - 2;
    boolean proven = true;
    int[] back = LeastLinks.reach(c.reversed());
    var effort = new SearchEffort(LIMIT, search);
    for (int pieces = bound; pieces <= enough && !effort.cut(); pieces++) {
      // Who is far from the bound already does not look for the last cell.
      int efforts = pieces <= bound + 1 ? EFFORTS.length : SHORT;
      Tried tried = tried(c, forth, back, pieces, efforts, effort);
      if (!tried.path.isEmpty()) {
        StepTable table = table(tried.path, truth.axis(), outDecimals, rounded);
        return new FewestBreakPoints(table, bound + 1, proven, allowance);
      }
      proven &= tried.whole;
    }
    proven &= !effort.cut();
    if (near == null) {
      StepTable table = table(anyhow(c, forth, back, search), truth.axis(), outDecimals, rounded);
      // With nothing left for rounding no table has fewer than the bound.
      boolean least = allowance == 0 && table.count() <= bound + 1;
      return new FewestBreakPoints(table, bound + 1, least, allowance);
    }
    // Where something was left for rounding a table may do with less than the bound of the rest.
    int least = Math.min(bound + 1, near.count());
    return new FewestBreakPoints(near, least, proven, allowance);
  }

  /** A table where short searches found none: with ever more pieces, at last with all steps. */
  private static List<long[]> anyhow(Corridor c, int[] forth, int[] back, TableSearch search) {
    int bound = forth.length - 1;
    for (int more = 2; bound + more < c.size() && more <= MORE; more *= 2) {
      var effort = new SearchEffort(LIMIT / 4, search);
      Tried tried = tried(c, forth, back, bound + more, EFFORTS.length, effort);
      if (!tried.path.isEmpty()) return tried.path;
    }
    var path = new ArrayList<long[]>();
    for (int i = 0; i < c.size(); i++) {
      if (!c.asks(i)) continue;
      if (c.outputs(i) == 0) {
        throw new QuantityException("no table of whole outputs was found for this tolerance");
      }
      path.add(new long[] {i, (long) Math.ceil(c.low()[i])});
    }
    return path;
  }

  /**
   * The function of fewest pieces with its break-points moved to whole steps, for a tolerance that
   * leaves room for that: where the steps are fine it is all that is needed.
   *
   * @param rooms output steps that are left for it, by turns
   * @return null where none of those that were tried holds the tolerance
   */
  static StepTable near(
      Truth truth, double tolerance, int outDecimals, boolean rounded, double[] rooms) {
    double step = Math.pow(10, -outDecimals);
    for (double room : rooms) {
      if (tolerance - room * step <= 0) return null;
      LeastLinks.Pieces pieces;
      try {
        pieces = LeastLinks.of(Corridor.of(truth, tolerance - room * step, step, rounded));
      } catch (QuantityException e) {
        return null;
      }
      var path = new ArrayList<long[]>();
      for (double[] knot : pieces.knots()) {
        long index = Math.round(knot[0]);
        if (path.isEmpty() || index > path.getLast()[0]) {
          path.add(new long[] {index, Math.round(knot[1])});
        }
      }
      StepTable table = table(path, truth.axis(), outDecimals, rounded);
      if (table.against(truth).worst() <= tolerance + 1e-9 * step) return table;
    }
    return null;
  }

  /**
   * @param path empty where none was found
   * @param whole true when none exists then
   */
  record Tried(List<long[]> path, boolean whole) {}

  /**
   * A table of so many pieces: with some places first, then with more, at last with all.
   *
   * @param forth reach of the pieces from the first step, and {@code back} from the last
   * @param efforts how far to go; all places only with the last of them
   * @param effort that is left for it
   */
  static Tried tried(
      Corridor c, int[] forth, int[] back, int pieces, int efforts, SearchEffort effort) {
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
        // Knots where there are no data are as many as beside them.
        long outputs = c.asks(i) ? c.outputs(i) : most;
        all += outputs;
        most = Math.max(most, outputs);
      }
      steps += Math.max(0, furthest - floors[k] + 1);
    }
    // A line is looked at for about twice as far as its piece is long.
    double each = Math.max(2, 2.0 * looked(c) / pieces);
    for (int k = 0; k < efforts; k++) {
      long levels = Math.min(most, k > 0 ? 9 : 4);
      // Each place passes those between it and the next, too.
      double some = Math.min(EFFORTS[k] / each, Math.sqrt(EFFORTS[k] * levels * pieces / 2.0));
      if (all <= some) break;
      int stride = (int) Math.clamp(steps * levels / Math.max(1, some), 1, n);
      var search = new BreakPointSearch(c, floors, stride, levels, effort);
      List<long[]> path = search.path();
      if (effort.cut()) return new Tried(path, false);
      if (!path.isEmpty()) return new Tried(path, false);
      // Beside data all outputs were tried, where there are none they were not.
      if (stride == 1 && levels >= most && asksEverywhere(c) && search.through())
        return new Tried(path, true);
    }
    if (all * Math.max(each, 2.0 * steps / pieces)
        > (efforts < EFFORTS.length ? EFFORTS[efforts - 1] : WHOLE))
      return new Tried(List.of(), false);
    var search = new BreakPointSearch(c, floors, 1, BreakPointSearch.ALL, effort);
    return new Tried(search.path(), wholeOutputs(c) && search.through());
  }

  /** True where every step with data allows a whole output: then a whole search leaves out none. */
  private static boolean wholeOutputs(Corridor c) {
    for (int i = 0; i < c.size(); i++) if (c.asks(i) && c.outputs(i) == 0) return asksEverywhere(c);
    return true;
  }

  private static boolean asksEverywhere(Corridor c) {
    for (int i = 0; i < c.size(); i++) if (!c.asks(i)) return false;
    return true;
  }

  /** Raw steps at which a line has to look. */
  static long looked(Corridor c) {
    long n = 0;
    for (boolean hard : c.hard()) if (hard) n++;
    return n;
  }

  static StepTable table(List<long[]> path, RawAxis axis, int outDecimals, boolean rounded) {
    int[] raw = path.stream().mapToInt(p -> axis.first() + (int) p[0]).toArray();
    long[] out = path.stream().mapToLong(p -> p[1]).toArray();
    return new StepTable(axis.decimals(), outDecimals, raw, out, rounded);
  }
}
