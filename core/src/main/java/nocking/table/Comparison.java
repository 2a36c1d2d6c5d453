package nocking.table;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import java.util.function.Supplier;
import nocking.quantity.QuantityException;

/**
 * Tables by all the habits side by side: what each leaves and what it costs.
 *
 * @param placement what it is called
 * @param table itself
 * @param error what it leaves
 */
public record Comparison(String placement, StepTable table, TableError error) {

  /** Bytes of the table in a receiver: raw and output, each as wide as it has to be. */
  public int bytes() {
    int raw = 2;
    int out = 2;
    for (int r : table.raw()) if (r < Short.MIN_VALUE || r > 0xFFFF) raw = 4;
    for (long o : table.out()) {
      if (o < Short.MIN_VALUE || o > Short.MAX_VALUE) out = Math.max(out, 4);
      if (o < Integer.MIN_VALUE || o > Integer.MAX_VALUE) out = 8;
    }
    // Equal steps of a power of two need no raw column.
    return table.count() * (placement.equals(Placement.POW2.key()) ? out : raw + out);
  }

  /**
   * Equal steps, steps of a power of two, each row and the ends alone beside a table, with as many
   * cells as it has. A habit that is not possible here is left out.
   *
   * @param rows that the data have
   * @param judge what a table leaves
   */
  public static List<Comparison> beside(
      String placement,
      StepTable table,
      Truth truth,
      int rows,
      Function<StepTable, TableError> judge) {
    var list = new ArrayList<Comparison>();
    list.add(new Comparison(placement, table, judge.apply(table)));
    int n = table.count();
    int d = table.outDecimals();
    boolean r = table.rounded();
    if (!placement.equals(Placement.OPTIMAL.key())) {
      add(list, Placement.OPTIMAL.key(), () -> LeastWorstError.of(truth, n, d, r).table(), judge);
    }
    if (!placement.equals(Placement.EQUAL.key())) {
      add(list, Placement.EQUAL.key(), () -> Placements.equalSteps(truth, n, d, r), judge);
    }
    if (!placement.equals(Placement.POW2.key())) {
      add(list, Placement.POW2.key(), () -> Placements.powersOfTwo(truth, n, d, r), judge);
    }
    boolean byRows =
        placement.startsWith(Placement.EVERY.key()) || placement.equals(Placement.AT_POINTS.key());
    if (rows > 1 && rows <= 1024 && !byRows) {
      int every = Math.max(1, Math.ceilDiv(rows - 1, Math.max(1, n - 1)));
      add(list, "every:" + every, () -> Placements.everyRow(truth, every, d, r), judge);
    }
    if (n > 2) add(list, "ends", () -> Placements.between(truth, d, r), judge);
    return List.copyOf(list);
  }

  private static void add(
      List<Comparison> list,
      String placement,
      Supplier<StepTable> made,
      Function<StepTable, TableError> judge) {
    try {
      StepTable t = made.get();
      list.add(new Comparison(placement, t, judge.apply(t)));
    } catch (QuantityException e) {
      // There are too few raw steps for it, for one.
      return;
    }
  }
}
