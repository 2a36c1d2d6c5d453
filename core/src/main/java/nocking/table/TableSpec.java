package nocking.table;

import nocking.points.RawUnit;
import nocking.quantity.QuantityException;

/**
 * What the receiver wants.
 *
 * @param cells number of break-points, 2 to 1024
 * @param axis unit of the raw column
 * @param descending true when the receiver wants the raw column falling
 * @param rawDecimals decimals of the raw column, 0 to 9; always 0 for counts
 * @param outDecimals decimals of the quantity, 0 to 9
 */
public record TableSpec(
    int cells, RawUnit axis, boolean descending, int rawDecimals, int outDecimals) {
  public static final TableSpec DEFAULT = new TableSpec(9, RawUnit.VOLTS, false, 4, 2);

  public TableSpec {
    require("cells", cells, 2, 1024);
    require("raw decimals", rawDecimals, 0, 9);
    require("output decimals", outDecimals, 0, 9);
    if (axis == RawUnit.COUNTS) rawDecimals = 0;
  }

  private static void require(String what, int value, int least, int most) {
    if (value < least || value > most) {
      throw new QuantityException(
          "%s must be %d to %d; read %d".formatted(what, least, most, value));
    }
  }

  public TableSpec withCells(int v) {
    return new TableSpec(v, axis, descending, rawDecimals, outDecimals);
  }

  public TableSpec withAxis(RawUnit v) {
    int decimals =
        switch (v) {
          case VOLTS -> 4;
          case COUNTS -> 0;
          case OHMS -> 1;
        };
    return new TableSpec(cells, v, descending, decimals, outDecimals);
  }

  public TableSpec withDescending(boolean v) {
    return new TableSpec(cells, axis, v, rawDecimals, outDecimals);
  }

  public TableSpec withRawDecimals(int v) {
    return new TableSpec(cells, axis, descending, v, outDecimals);
  }

  public TableSpec withOutDecimals(int v) {
    return new TableSpec(cells, axis, descending, rawDecimals, v);
  }
}
