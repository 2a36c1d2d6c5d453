package nocking.app.step.collect;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.IntStream;
import nocking.book.exchange.ColumnException;
import nocking.book.exchange.ColumnFile;
import nocking.book.exchange.PointColumns;
import nocking.book.exchange.PointsCsv;
import nocking.channel.Channel;
import nocking.points.PointSet;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * A block from a spreadsheet that is pasted into the points of a channel.
 *
 * @param table as it was read
 * @param readingsOnly true for readings of points that are there
 * @param raw in what the readings are
 * @param points with what the block says of them
 */
record PointBlock(
    ColumnFile table, boolean readingsOnly, RawUnit raw, List<ReferencePoint> points) {

  /**
   * Reads a block.
   *
   * @throws ColumnException where it is no table
   * @throws QuantityException naming row and column, or what the points here are in
   */
  static PointBlock of(String text, boolean readingsOnly, Channel c) {
    ColumnFile table = ColumnFile.parse(text, "the pasted block");
    RawUnit raw = rawUnit(table, readingsOnly, c.calibration().points());
    List<ReferencePoint> points =
        readingsOnly
            ? readings(table, raw)
            : table.header().size() < 2 ? planned(table, c.unit()) : points(table, c.unit(), raw);
    if (points.isEmpty()) throw new QuantityException("the pasted block has no numbers");
    return new PointBlock(table, readingsOnly, raw, points);
  }

  /** As the block says it itself, else as the points that are here. */
  private static RawUnit rawUnit(ColumnFile table, boolean readingsOnly, PointSet set) {
    int columns = table.header().size();
    if (!readingsOnly && columns < 2) return set.raw();
    List<Integer> readings =
        readingsOnly
            ? IntStream.range(0, columns).boxed().toList()
            : PointColumns.of(table, PointColumns.Order.APPLIED_FIRST).readings();
    RawUnit said = PointsCsv.rawUnit(table, new PointsCsv.Mapping(0, readings, -1, -1), set.raw());
    boolean read = set.points().stream().anyMatch(p -> !p.readings().isEmpty());
    if (said != set.raw() && read) {
      throw new QuantityException(
          "The pasted block holds %s, and the points here are in %s. Nothing was pasted."
              .formatted(said.title(), set.raw().title()));
    }
    return said;
  }

  private static List<ReferencePoint> points(ColumnFile table, Unit own, RawUnit raw) {
    PointColumns columns = PointColumns.of(table, PointColumns.Order.APPLIED_FIRST);
    var points = new ArrayList<ReferencePoint>();
    for (ColumnFile.Row r : table.rows()) {
      Value applied = cell(table, r, columns.applied(), own);
      var readings = new ArrayList<Value>();
      for (int i : columns.readings()) readings.addAll(cells(table, r, i, raw));
      String reason = columns.reason(r);
      points.add(
          new ReferencePoint(applied, readings, columns.down(r), reason.isBlank() ? null : reason));
    }
    return points;
  }

  /** Readings for points that are there; an empty line is a point that keeps its own. */
  private static List<ReferencePoint> readings(ColumnFile table, RawUnit raw) {
    var points = new ArrayList<ReferencePoint>();
    for (ColumnFile.Row r : table.rows()) {
      while (points.size() < r.line() - table.firstLine()) {
        points.add(ReferencePoint.of(Value.of(0)));
      }
      var readings = new ArrayList<Value>();
      for (int i = 0; i < r.cells().size(); i++) readings.addAll(cells(table, r, i, raw));
      points.add(new ReferencePoint(Value.of(0), readings, false, null));
    }
    return points;
  }

  /** Points that are to be read: what will be applied, and nothing else. */
  private static List<ReferencePoint> planned(ColumnFile table, Unit own) {
    return table.rows().stream().map(r -> ReferencePoint.of(cell(table, r, 0, own))).toList();
  }

  private static List<Value> cells(ColumnFile table, ColumnFile.Row r, int column, RawUnit raw) {
    return table.text(r, column).isBlank()
        ? List.of()
        : List.of(cell(table, r, column, raw.unit()));
  }

  private static Value cell(ColumnFile table, ColumnFile.Row row, int column, Unit unit) {
    Unit stated = table.unit(column).orElse(unit);
    String text = table.pointed(row.cells().get(column));
    try {
      if (stated.symbol().equals(unit.symbol())) return Value.typed(text, unit);
      return Value.typed(text + " " + stated.symbol(), unit);
    } catch (QuantityException e) {
      throw new QuantityException(
          "The pasted block, row %d, column %d: %s. Nothing was pasted."
              .formatted(row.line(), column + 1, e.getMessage()));
    }
  }

  /**
   * The points with the block in them.
   *
   * @param row on which it is put
   * @param pasted the points of the block, as totals where it says steps
   */
  PointSet into(PointSet set, int row, List<ReferencePoint> pasted) {
    var next = new ArrayList<>(set.points());
    for (int i = 0; i < pasted.size(); i++) {
      ReferencePoint p = pasted.get(i);
      int at = row + i;
      if (at >= next.size()) {
        if (readingsOnly) break;
        next.add(p);
      } else if (readingsOnly) {
        if (p.readings().isEmpty()) continue;
        next.set(at, next.get(at).withReadings(p.readings()));
      } else {
        ReferencePoint old = next.get(at).withApplied(p.applied());
        next.set(at, p.readings().isEmpty() ? old : old.withReadings(p.readings()));
      }
    }
    return new PointSet(raw, next);
  }

  /**
   * What it did.
   *
   * @param before points that were there
   * @param row on which it was put
   * @param known how many of its points were there already
   */
  String says(int before, int row, int known) {
    String alike =
        known == 0
            ? ""
            : " %d of them like points that were here already; Ctrl+Z takes them back."
                .formatted(known);
    return put(before, row) + ": " + table.says() + "." + alike;
  }

  private String put(int before, int row) {
    int rows = points.size();
    int last = Math.min(row + rows, before);
    String where =
        last - row == 1 ? "row %d".formatted(row + 1) : "rows %d to %d".formatted(row + 1, last);
    if (readingsOnly) {
      String left =
          row + rows > before
              ? "; %d more had no point to belong to".formatted(row + rows - before)
              : "";
      return "Pasted readings into %s%s".formatted(where, left);
    }
    int added = row + rows - Math.max(row, before);
    String fresh = "%d new point%s".formatted(added, added == 1 ? "" : "s");
    if (row >= before) return "Pasted " + fresh;
    return added > 0
        ? "Pasted over %s, and %s".formatted(where, fresh)
        : "Pasted over %s".formatted(where);
  }
}
