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

  /**
   * @param cells 2 or more
   * @param outDecimals of the output
   * @param rounded true for an integer receiver
   * @throws QuantityException for fewer than two cells
   */
  public static LeastWorstError of(Truth truth, int cells, int outDecimals, boolean rounded) {
    if (cells < 2) throw new QuantityException("a table needs at least two cells; read " + cells);
    double step = Math.pow(10, -outDecimals);
    double low = truth.spread() / 2;
    StepTable best = Placements.between(truth, outDecimals, rounded);
    double high = best.against(truth).worst();
    double bound = low;
    for (int i = 0; i < HALVINGS && high - low > Math.max(CLOSE * high, 1e-9 * step); i++) {
      double middle = (low + high) / 2;
      StepTable found = within(truth, middle, cells, outDecimals, rounded);
      if (found == null) {
        low = middle;
        if (!possible(truth, middle, cells, step, rounded)) bound = middle;
      } else {
        best = found;
        high = Math.min(middle, found.against(truth).worst());
      }
    }
    return new LeastWorstError(best, Math.min(bound, high));
  }

  /** True when a continuous function of so many cells might hold a tolerance. */
  private static boolean possible(
      Truth truth, double tolerance, int cells, double step, boolean rounded) {
    try {
      Corridor c = Corridor.of(truth.axis(), truth.least(), truth.most(), tolerance, step, rounded);
      return LeastLinks.reach(c).length <= cells;
    } catch (QuantityException e) {
      return false;
    }
  }

  /** A table of at most so many cells for a tolerance; null where none was found. */
  private static StepTable within(
      Truth truth, double tolerance, int cells, int outDecimals, boolean rounded) {
    if (!possible(truth, tolerance, cells, Math.pow(10, -outDecimals), rounded)) return null;
    StepTable t = FewestBreakPoints.of(truth, tolerance, outDecimals, rounded).table();
    return t.count() <= cells ? t : null;
  }
}
