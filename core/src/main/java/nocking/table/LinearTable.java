package nocking.table;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;

/**
 * A table of rounded break-points with straight lines between them. Outside its ends it goes on
 * with the slope of the end interval.
 *
 * @param cells rising in raw, no two with the same raw value
 */
public record LinearTable(List<Cell> cells) {
  private static final int SAMPLES_PER_CELL = 64;

  public LinearTable {
    cells = List.copyOf(cells);
    for (int i = 1; i < cells.size(); i++) {
      double before = cells.get(i - 1).raw();
      double here = cells.get(i).raw();
      if (!(here > before)) {
        throw new QuantityException(
            ("cells %d and %d both have the raw value %s; ask for fewer cells or more raw decimals")
                .formatted(i, i + 1, Numbers.plain(here)));
      }
    }
  }

  /**
   * Equal steps of raw over a span, rounded as the receiver holds them.
   *
   * <p>The end cells are rounded inward: beyond the span the curve may have no value.
   *
   * @param curve quantity for raw
   * @throws QuantityException when rounding makes two cells equal, or when the curve has no value
   *     at a cell
   */
  public static LinearTable equalSteps(
      DoubleUnaryOperator curve, Span raw, int cells, int rawDecimals, int outDecimals) {
    var list = new ArrayList<Cell>(cells);
    for (int i = 0; i < cells; i++) {
      RoundingMode mode =
          i == 0
              ? RoundingMode.CEILING
              : i == cells - 1 ? RoundingMode.FLOOR : RoundingMode.HALF_UP;
      double at = round(raw.at((double) i / (cells - 1)), rawDecimals, mode);
      // The output belongs to the raw value that the receiver will hold, not to the unrounded one.
      double out = curve.applyAsDouble(at);
      if (!Double.isFinite(out)) {
        throw new QuantityException(
            "the curve has no value at cell %d, raw %s".formatted(i + 1, Numbers.plain(at)));
      }
      list.add(new Cell(at, round(out, outDecimals, RoundingMode.HALF_UP)));
    }
    return new LinearTable(list);
  }

  private static double round(double v, int decimals, RoundingMode mode) {
    double nearest = BigDecimal.valueOf(v).setScale(decimals, RoundingMode.HALF_UP).doubleValue();
    // What earlier arithmetic rounded away is no reason to go a whole step inward.
    if (Math.abs(nearest - v) <= 1e-9 * Math.abs(v)) return nearest;
    return BigDecimal.valueOf(v).setScale(decimals, mode).doubleValue();
  }

  /** Quantity for a raw value by straight lines. */
  public double look(double raw) {
    int low = 0;
    int high = cells.size() - 1;
    while (high - low > 1) {
      int middle = (low + high) >>> 1;
      if (cells.get(middle).raw() <= raw) low = middle;
      else high = middle;
    }
    Cell a = cells.get(low);
    Cell b = cells.get(low + 1);
    return a.out() + (b.out() - a.out()) * (raw - a.raw()) / (b.raw() - a.raw());
  }

  public Span rawSpan() {
    return new Span(cells.getFirst().raw(), cells.getLast().raw());
  }

  /** The cells in the receiver's order. */
  public List<Cell> ordered(boolean descending) {
    return descending ? cells.reversed() : cells;
  }

  /**
   * Error table − curve between and at the cells.
   *
   * @param everyCount true to look at every whole raw value, false to sample each interval 64 times
   */
  public TableError against(DoubleUnaryOperator curve, boolean everyCount) {
    var errors = new TableError.Collector();
    for (int i = 1; i < cells.size(); i++) {
      double from = cells.get(i - 1).raw();
      double to = cells.get(i).raw();
      int n = everyCount ? (int) (to - from) : SAMPLES_PER_CELL;
      for (int k = 0; k < n; k++) {
        double raw = from + (to - from) * k / n;
        errors.add(raw, look(raw) - curve.applyAsDouble(raw));
      }
    }
    double end = cells.getLast().raw();
    errors.add(end, look(end) - curve.applyAsDouble(end));
    return errors.result();
  }
}
