package nocking.book.exchange;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalInt;
import nocking.band.BandPosition;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * Positions of a selector as a table: name, volts, and where they are known centre, half and
 * direction. Several rows with one name are its settles; the first row of a name gives its place in
 * the order. Without a centre the mean of the settles is taken.
 */
public final class BandsCsv {
  private BandsCsv() {}

  private static final class Station {
    private Value centre;
    private Value half;
    private final List<Value> up = new ArrayList<>();
    private final List<Value> down = new ArrayList<>();
  }

  /**
   * @throws ColumnException naming the row and column that cannot be read
   */
  public static List<BandPosition> read(ColumnFile f) {
    int name = Cells.required(f, "name", "position", "station");
    OptionalInt volts = Cells.column(f, "volts", "voltage", "settle", "v");
    OptionalInt centre = Cells.column(f, "centre", "center");
    OptionalInt half = Cells.column(f, "half", "window");
    OptionalInt direction = Cells.column(f, "direction", "way");
    if (volts.isEmpty() && centre.isEmpty()) Cells.required(f, "volts");
    Map<String, Station> stations = new LinkedHashMap<>();
    for (ColumnFile.Row row : f.rows()) {
      String key = SafeText.in(f.text(row, name).strip());
      if (key.isEmpty()) {
        throw new ColumnException(
            "%s, row %d: the position has no name".formatted(f.source(), row.line()));
      }
      Station s = stations.computeIfAbsent(key, k -> new Station());
      if (!Cells.text(f, row, volts).isEmpty()) {
        Value v = Cells.value(f, row, volts.getAsInt(), Unit.VOLT);
        (down(f, row, direction) ? s.down : s.up).add(v);
      }
      if (!Cells.text(f, row, centre).isEmpty()) {
        s.centre = Cells.value(f, row, centre.getAsInt(), Unit.VOLT);
      }
      if (!Cells.text(f, row, half).isEmpty()) {
        s.half = Cells.value(f, row, half.getAsInt(), Unit.VOLT);
      }
    }
    var list = new ArrayList<BandPosition>();
    stations.forEach((key, s) -> list.add(position(f, key, s)));
    if (list.isEmpty()) throw new ColumnException(f.source() + " has no positions in it");
    return list;
  }

  private static BandPosition position(ColumnFile f, String name, Station s) {
    var all = new ArrayList<>(s.up);
    all.addAll(s.down);
    if (s.centre == null && all.isEmpty()) {
      throw new ColumnException(
          "%s: position %s has neither a centre nor a settle".formatted(f.source(), name));
    }
    Value centre =
        s.centre != null
            ? s.centre
            : Value.of(all.stream().mapToDouble(Value::number).average().orElseThrow());
    try {
      return new BandPosition(name, centre, s.half, s.up, s.down);
    } catch (QuantityException e) {
      throw new ColumnException(f.source() + ": " + e.getMessage());
    }
  }

  private static boolean down(ColumnFile f, ColumnFile.Row row, OptionalInt column) {
    String text = Cells.text(f, row, column).toLowerCase(Locale.ROOT);
    if (text.isEmpty() || text.equals("up")) return false;
    if (text.equals("down")) return true;
    throw new ColumnException(
        "%s, row %d, column %s: read '%s', expected up or down"
            .formatted(f.source(), row.line(), f.header().get(column.getAsInt()), text));
  }
}
