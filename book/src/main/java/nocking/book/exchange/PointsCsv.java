package nocking.book.exchange;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nocking.channel.Channel;
import nocking.points.PointSet;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * Reference points as a column file: {@code applied, reading 1 … n, direction, left out}, with a
 * units row. Reading takes foreign files too, when told which columns hold what.
 */
public final class PointsCsv {
  private PointsCsv() {}

  /**
   * Which column holds what.
   *
   * @param applied index of the applied quantity
   * @param readings indices of the raw readings, at least one
   * @param direction index, or −1
   * @param leftOut index, or −1
   */
  public record Mapping(int applied, List<Integer> readings, int direction, int leftOut) {}

  public static String write(Channel channel) {
    PointSet set = channel.calibration().points();
    int most = set.points().stream().mapToInt(p -> p.readings().size()).max().orElse(1);
    int readings = Math.max(1, most);
    var text = new StringWriter();
    var header = new ArrayList<>(List.of("applied"));
    var units = new ArrayList<>(List.of(channel.unit().symbol()));
    for (int i = 1; i <= readings; i++) {
      header.add("reading " + i);
      units.add(set.raw().unit().symbol());
    }
    header.addAll(List.of("direction", "left out"));
    units.addAll(List.of("", ""));
    try (var csv = CsvWriter.builder().lineDelimiter(LineDelimiter.LF).build(text)) {
      csv.writeRecord(header);
      csv.writeRecord(units);
      for (ReferencePoint p : set.points()) csv.writeRecord(row(p, readings));
    } catch (IOException e) {
      throw new UncheckedIOException("a text in memory takes every line", e);
    }
    return text.toString();
  }

  private static List<String> row(ReferencePoint p, int readings) {
    var row = new ArrayList<String>();
    row.add(Numbers.plain(p.applied().number()));
    for (int i = 0; i < readings; i++) {
      row.add(i < p.readings().size() ? Numbers.plain(p.readings().get(i).number()) : "");
    }
    row.add(p.down() ? "down" : "up");
    row.add(p.leftOut() == null ? "" : SafeText.out(p.leftOut()));
    return row;
  }

  /**
   * A first guess that the user may change: by names, then a column whose unit is the quantity's
   * for the applied value, then by order.
   *
   * @throws ColumnException where there are fewer than two columns, or no rows
   */
  public static Mapping guess(ColumnFile file, Channel channel) {
    PointColumns columns = PointColumns.of(file, PointColumns.Order.APPLIED_FIRST);
    return new Mapping(
        columns.applied(), columns.readings(), columns.direction(), columns.leftOut());
  }

  /** Unit of the raw readings, as the file says it. */
  public static RawUnit rawUnit(ColumnFile file, Mapping mapping, RawUnit otherwise) {
    return mapping.readings().stream()
        .flatMap(i -> file.unit(i).stream())
        .findFirst()
        .map(RawUnit::of)
        .orElse(otherwise);
  }

  /**
   * @return the points in file order; what a cell says in another unit is converted and kept as
   *     typed
   * @throws ColumnException naming file, row and column, what was read and what was expected
   */
  public static List<ReferencePoint> read(
      ColumnFile file, Mapping mapping, Unit quantity, RawUnit raw) {
    var points = new ArrayList<ReferencePoint>();
    for (ColumnFile.Row row : file.rows()) {
      Value applied = value(file, row, mapping.applied(), quantity);
      var readings = new ArrayList<Value>();
      for (int column : mapping.readings()) {
        String cell = file.text(row, column);
        // In Nocking's own files a planned point has no reading; elsewhere a gap is a short row.
        boolean missing =
            cell.isEmpty() && (mapping.readings().size() > 1 || mapping.direction() >= 0);
        if (!missing) readings.add(value(file, row, column, raw.unit()));
      }
      boolean down =
          mapping.direction() >= 0
              && file.text(row, mapping.direction()).toLowerCase(Locale.ROOT).startsWith("d");
      String reason = mapping.leftOut() < 0 ? "" : SafeText.in(file.text(row, mapping.leftOut()));
      points.add(new ReferencePoint(applied, readings, down, reason.isBlank() ? null : reason));
    }
    if (points.isEmpty()) {
      throw new ColumnException(file.source() + " has no rows of numbers under its header");
    }
    return points;
  }

  /** A cell in a unit; what it says in another one is converted and kept as typed. */
  static Value value(ColumnFile file, ColumnFile.Row row, int column, Unit unit) {
    Unit stated = file.unit(column).orElse(unit);
    if (!stated.dimension().equals(unit.dimension())) {
      throw new ColumnException(
          "%s, column %s: its unit is %s, expected %s in %s"
              .formatted(
                  file.source(),
                  file.header().get(column),
                  stated.symbol(),
                  unit.dimension().says(),
                  unit.symbol()));
    }
    String cell = file.text(row, column);
    if (cell.isEmpty() || cell.chars().noneMatch(Character::isLetter)) {
      double number = file.number(row, column);
      String typed = file.pointed(cell);
      if (stated.symbol().equals(unit.symbol())) return new Value(number, typed);
      return new Value(stated.convert(number, unit), typed + " " + stated.symbol());
    }
    try {
      return Value.typed(file.pointed(cell), unit);
    } catch (QuantityException e) {
      throw new ColumnException(
          "%s, row %d, column %s: read '%s', expected a number in %s"
              .formatted(
                  file.source(), row.line(), file.header().get(column), cell, unit.symbol()));
    }
  }
}
