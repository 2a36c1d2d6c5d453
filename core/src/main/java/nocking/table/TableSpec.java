package nocking.table;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import nocking.points.RawUnit;
import nocking.quantity.QuantityException;

/**
 * What the receiver wants, and by which rule its table is made.
 *
 * @param cells number of break-points, 2 to 1024
 * @param axis unit of the raw column
 * @param descending true when the receiver wants the raw column falling
 * @param rawDecimals decimals of the raw column, 0 to 9; always 0 for counts
 * @param outDecimals decimals of the quantity, 0 to 9
 * @param byHand cells whose output was set by hand, rising in raw; they hold wherever the table has
 *     a cell at their raw value
 */
public record TableSpec(
    int cells,
    RawUnit axis,
    boolean descending,
    int rawDecimals,
    int outDecimals,
    TableGoal goal,
    Arithmetic arithmetic,
    Demands demands,
    List<Cell> byHand) {
  public static final TableSpec DEFAULT = new TableSpec(9, RawUnit.VOLTS, false, 4, 2);

  public TableSpec {
    require("cells", cells, 2, 1024);
    require("raw decimals", rawDecimals, 0, 9);
    require("output decimals", outDecimals, 0, 9);
    if (axis == RawUnit.COUNTS) rawDecimals = 0;
    goal = goal == null ? TableGoal.USUAL : goal;
    arithmetic = arithmetic == null ? Arithmetic.LINES : arithmetic;
    demands = demands == null ? Demands.NONE : demands;
    byHand = byHand == null ? List.of() : List.copyOf(byHand);
  }

  /** Equal steps of the channel's curve, looked up along straight lines. */
  public TableSpec(int cells, RawUnit axis, boolean descending, int rawDecimals, int outDecimals) {
    this(cells, axis, descending, rawDecimals, outDecimals, null, null, null, null);
  }

  private static void require(String what, int value, int least, int most) {
    if (value < least || value > most) {
      throw new QuantityException(
          "%s must be %d to %d; read %d".formatted(what, least, most, value));
    }
  }

  public TableSpec withCells(int v) {
    return new TableSpec(
        v, axis, descending, rawDecimals, outDecimals, goal, arithmetic, demands, byHand);
  }

  /** Another raw column, with its usual decimals; what was set by hand belongs to the former. */
  public TableSpec withAxis(RawUnit v) {
    int decimals =
        switch (v) {
          case VOLTS -> 4;
          case COUNTS -> 0;
          case OHMS -> 1;
          case MILLIAMPERES -> 3;
        };
    Demands free = demands.withRawAxis(List.of()).withEnds(null, null);
    return new TableSpec(
        cells, v, descending, decimals, outDecimals, goal, arithmetic, free, List.of());
  }

  public TableSpec withDescending(boolean v) {
    return new TableSpec(
        cells, axis, v, rawDecimals, outDecimals, goal, arithmetic, demands, byHand);
  }

  public TableSpec withRawDecimals(int v) {
    return new TableSpec(
        cells, axis, descending, v, outDecimals, goal, arithmetic, demands, byHand);
  }

  public TableSpec withOutDecimals(int v) {
    return new TableSpec(
        cells, axis, descending, rawDecimals, v, goal, arithmetic, demands, byHand);
  }

  public TableSpec with(TableGoal v) {
    return new TableSpec(
        cells, axis, descending, rawDecimals, outDecimals, v, arithmetic, demands, byHand);
  }

  /** Another arithmetic; what was set by hand counts in steps of the output. */
  public TableSpec with(Arithmetic v) {
    List<Cell> kept = v.fullScale() == arithmetic.fullScale() ? byHand : List.of();
    return new TableSpec(cells, axis, descending, rawDecimals, outDecimals, goal, v, demands, kept);
  }

  public TableSpec with(Demands v) {
    return new TableSpec(
        cells, axis, descending, rawDecimals, outDecimals, goal, arithmetic, v, byHand);
  }

  public TableSpec withByHand(List<Cell> v) {
    return new TableSpec(
        cells, axis, descending, rawDecimals, outDecimals, goal, arithmetic, demands, v);
  }

  /** With the output of one cell set by hand. */
  public TableSpec withHand(Cell cell) {
    var next = new ArrayList<>(withoutHand(cell.raw()).byHand);
    next.add(cell);
    next.sort(Comparator.comparingDouble(Cell::raw));
    return withByHand(next);
  }

  /** With the output of the cell at a raw value as it is worked out. */
  public TableSpec withoutHand(double raw) {
    return withByHand(byHand.stream().filter(c -> !alike(c.raw(), raw)).toList());
  }

  /** True for raw values that are one for the receiver. */
  public boolean alike(double a, double b) {
    return Math.abs(a - b) < 0.5 * Math.pow(10, -rawDecimals);
  }

  /** The step of the output, in its own unit. */
  public double step() {
    return arithmetic.fullScale() > 0 ? 1 : Math.pow(10, -outDecimals);
  }
}
