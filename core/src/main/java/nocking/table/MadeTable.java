package nocking.table;

/**
 * A table and what is known of how small it is.
 *
 * @param placement what it is called beside others
 * @param bound cells below which no table holds the tolerance; 0 where nothing is known
 * @param proven true when no table with fewer cells holds it
 * @param allowance what was taken from the tolerance for rounding, in the quantity
 * @param leastError error below which no table of so many cells stays; NaN where nothing is known
 */
public record MadeTable(
    StepTable table,
    String placement,
    int bound,
    boolean proven,
    double allowance,
    double leastError) {

  static MadeTable of(StepTable table, String placement) {
    return new MadeTable(table, placement, 0, false, 0, Double.NaN);
  }

  static MadeTable of(FewestBreakPoints f, String placement) {
    return new MadeTable(f.table(), placement, f.bound(), f.proven(), f.allowance(), Double.NaN);
  }

  static MadeTable of(LeastWorstError w, String placement) {
    return new MadeTable(w.table(), placement, 0, false, 0, w.bound());
  }
}
