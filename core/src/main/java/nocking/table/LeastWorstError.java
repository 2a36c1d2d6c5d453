package nocking.table;

import nocking.quantity.QuantityException;

/**
 * The table of so many cells whose worst error is least: the dual of {@link FewestBreakPoints}, by
 * halving the tolerance between what no table of so many cells can hold and what one was found for.
 *
 * @param table what was found
 * @param bound error below which no table of so many cells can stay, in the quantity
 */
public record LeastWorstError(StepTable table, double bound) {
  /** Share of the error to which it is closed in. */
  private static final double CLOSE = 2e-3;

  private static final int HALVINGS = 60;

  /** Output steps in a tolerance below which the steps themselves decide. */
  private static final double COARSE = 8;

  /** Raw steps with data up to which a search costs next to nothing. */
  private static final long FEW = 5_000;

  private static final double[] ROOM = {0.1, 0.5};

  /**
   * @param cells 2 or more
   * @param outDecimals of the output
   * @param rounded true for an integer receiver
   * @throws QuantityException for fewer than two cells
   */
  public static LeastWorstError of(Truth truth, int cells, int outDecimals, boolean rounded) {
    return of(truth, cells, outDecimals, rounded, new TableSearch());
  }

  /** The same, by a search that others look at and may end: then with the best that it has. */
  public static LeastWorstError of(
      Truth truth, int cells, int outDecimals, boolean rounded, TableSearch search) {
    if (cells < 2) throw new QuantityException("a table needs at least two cells; read " + cells);
    double step = Math.pow(10, -outDecimals);
    StepTable best = Placements.between(truth, outDecimals, rounded);
    double high = best.against(truth).worst();
    double bound = bound(truth, cells, step, rounded, high);
    // From there up, in steps that grow: the first table is near, and then closed in upon.
    double low = bound;
    double above = Math.max(CLOSE * bound, step / 50);
    var effort = new SearchEffort(FewestBreakPoints.LIMIT, search);
    for (double t = bound + above; t < high && high - low > above && !search.ended(); ) {
      StepTable found = within(truth, t, cells, outDecimals, rounded, effort);
      if (found == null) {
        low = t;
        t = Math.min((low + high) / 2, low + 2 * (low - bound));
      } else {
        best = found;
        high = Math.min(t, found.against(truth).worst());
        t = (low + high) / 2;
      }
    }
    // What was left for rounding is no part of what no table can hold.
    double least = bound - Corridor.allowance(truth, step, rounded);
    return new LeastWorstError(best, Math.clamp(least, 0, high));
  }

  /** Tolerance below which no continuous function of so many cells stays. */
  private static double bound(Truth truth, int cells, double step, boolean rounded, double high) {
    double low = truth.spread() / 2;
    double top = high;
    for (int i = 0; i < HALVINGS && top - low > CLOSE / 8 * top; i++) {
      double middle = (low + top) / 2;
      Corridor c = corridor(truth, middle, step, rounded);
      if (c == null || LeastLinks.reach(c).length > cells) low = middle;
      else top = middle;
    }
    return low;
  }

  /** A table of at most so many cells for a tolerance; null where none was found. */
  private static StepTable within(
      Truth truth,
      double tolerance,
      int cells,
      int outDecimals,
      boolean rounded,
      SearchEffort effort) {
    double step = Math.pow(10, -outDecimals);
    Corridor c = corridor(truth, tolerance, step, rounded);
    if (c == null) return null;
    StepTable near = FewestBreakPoints.near(truth, tolerance, outDecimals, rounded, ROOM);
    if (near != null && near.count() <= cells) return near;
    // Where steps are coarse, places on them can do what moved break-points cannot.
    if (tolerance >= COARSE * step && FewestBreakPoints.looked(c) >= FEW) return null;
    int[] forth = LeastLinks.reach(c);
    if (forth.length > cells) return null;
    int[] back = LeastLinks.reach(c.reversed());
    var tried = FewestBreakPoints.tried(c, forth, back, cells - 1, FewestBreakPoints.SHORT, effort);
    return tried.path().isEmpty()
        ? null
        : FewestBreakPoints.table(tried.path(), truth.axis(), outDecimals, rounded);
  }

  /** Null where one raw step alone cannot be held. */
  private static Corridor corridor(Truth t, double tolerance, double step, boolean rounded) {
    try {
      return Corridor.of(t, tolerance, step, rounded);
    } catch (QuantityException e) {
      return null;
    }
  }
}
