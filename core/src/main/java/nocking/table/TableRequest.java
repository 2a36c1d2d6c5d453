package nocking.table;

import nocking.quantity.QuantityException;

/**
 * Which table is asked for.
 *
 * @param every which rows with {@link Placement#EVERY}, 1 or more; 0 with all others
 * @param raws raw values with {@link Placement#FIXED}; empty with all others
 * @param cells number of cells; 0 for as few as the tolerance allows
 * @param tolerance in the quantity, above 0; NaN for none
 * @param outDecimals of the output
 * @param rounded true for an integer receiver, false for one that reads the line itself
 */
public record TableRequest(
    Placement placement,
    int every,
    double[] raws,
    int cells,
    double tolerance,
    int outDecimals,
    boolean rounded) {

  /** What the placement is called beside others: {@code optimal}, {@code every:3}. */
  public String key() {
    return placement == Placement.EVERY ? placement.key() + ":" + every : placement.key();
  }

  /**
   * The table.
   *
   * @throws QuantityException where there is none: one sentence
   */
  public MadeTable of(Truth truth) {
    return of(truth, new TableSearch());
  }

  /** The same, by a search that others look at and may end. */
  public MadeTable of(Truth truth, TableSearch search) {
    return switch (placement) {
      case OPTIMAL -> best(truth, search);
      case EQUAL ->
          MadeTable.of(Placements.equalSteps(truth, wanted(), outDecimals, rounded), key());
      case POW2 ->
          MadeTable.of(Placements.powersOfTwo(truth, wanted(), outDecimals, rounded), key());
      case EVERY -> MadeTable.of(Placements.everyRow(truth, every, outDecimals, rounded), key());
      case AT_POINTS -> MadeTable.of(Placements.everyRow(truth, 1, outDecimals, rounded), key());
      case FIXED -> MadeTable.of(Placements.at(truth, raws, outDecimals, rounded), key());
    };
  }

  private MadeTable best(Truth truth, TableSearch search) {
    if (cells > 0) {
      return MadeTable.of(LeastWorstError.of(truth, cells, outDecimals, rounded, search), key());
    }
    if (Double.isNaN(tolerance))
      throw new QuantityException("a table needs a tolerance or a number of cells");
    return MadeTable.of(
        FewestBreakPoints.of(truth, tolerance, outDecimals, rounded, search), key());
  }

  private int wanted() {
    if (cells > 0) return cells;
    throw new QuantityException(
        "a table in %s needs a number of cells".formatted(placement.title()));
  }
}
