package nocking.book.exchange;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import nocking.channel.Channel;
import nocking.check.CheckPoint;
import nocking.check.CheckTable;
import nocking.check.CheckTable.Measured;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/** Check inputs and what was measured there, in columns: read as points are, by names and units. */
public final class CheckColumns {
  private CheckColumns() {}

  /**
   * A sheet for a channel.
   *
   * @param columns whose rows all count
   * @throws ColumnException naming file, row and column, what was read and what was expected
   */
  public static CheckTable read(PointColumns columns, Channel channel) {
    return read(columns, channel, false);
  }

  /**
   * @param gaps true where an input may not be measured yet
   */
  private static CheckTable read(PointColumns columns, Channel channel, boolean gaps) {
    ColumnFile f = columns.file();
    int first = columns.readings().getFirst();
    Unit own = channel.unit();
    Measured as = measured(f, first, channel);
    Unit asUnit = as.unit(own);
    Unit from = f.unit(columns.applied()).orElse(own);
    Unit read = f.unit(first).orElse(asUnit);
    requireSame(f, columns.applied(), from, own);
    requireSame(f, first, read, asUnit);
    boolean one = columns.readings().size() == 1;
    double[] means = one ? new double[0] : columns.means();
    var points = new ArrayList<CheckPoint>();
    for (int i = 0; i < f.rows().size(); i++) {
      ColumnFile.Row row = f.rows().get(i);
      Value applied = PointsCsv.value(f, row, columns.applied(), own);
      boolean gap = gaps && one && f.text(row, first).isBlank();
      Value measured =
          gap
              ? null
              : one
                  ? PointsCsv.value(f, row, first, asUnit)
                  : Value.of(read.convert(means[i], asUnit));
      points.add(new CheckPoint(applied, measured));
    }
    return new CheckTable(as, points);
  }

  /**
   * The sheet of a channel with a pasted block in it: inputs and what was measured, inputs alone,
   * or what was measured at inputs that are there.
   *
   * @param row on which it is put
   * @param measuredOnly true where it is put on what was measured
   * @throws ColumnException naming row and column, what was read and what was expected
   * @throws QuantityException where what was measured is of another kind than what is there
   */
  public static CheckTable with(Channel channel, int row, boolean measuredOnly, String block) {
    ColumnFile f = ColumnFile.parse(block, "the pasted block");
    if (f.rows().isEmpty()) throw new ColumnException(f.source() + " has no numbers");
    CheckTable sheet = channel.acceptance().check();
    boolean planned = !measuredOnly && f.header().size() < 2;
    CheckTable pasted =
        measuredOnly
            ? measured(f, channel)
            : planned
                ? inputs(f, channel)
                : read(
                    PointColumns.of(f, PointColumns.Order.APPLIED_FIRST).counting(), channel, true);
    boolean entered = sheet.points().stream().anyMatch(p -> p.measured() != null);
    if (entered && pasted.measured() != sheet.measured()) {
      throw new QuantityException(
          "the pasted block holds %s, and the measured values here are in %s"
              .formatted(pasted.measured().title(), sheet.measured().title()));
    }
    var next = new ArrayList<>(sheet.points());
    for (int i = 0; i < pasted.points().size(); i++) {
      int at = row + i;
      CheckPoint p = pasted.points().get(i);
      if (at >= next.size()) {
        if (measuredOnly) break;
        next.add(p);
      } else if (measuredOnly) {
        // A gap in the column says nothing of that input.
        if (p.measured() == null) continue;
        next.set(at, new CheckPoint(next.get(at).applied(), p.measured()));
      } else {
        next.set(at, planned ? new CheckPoint(p.applied(), next.get(at).measured()) : p);
      }
    }
    return new CheckTable(pasted.measured(), next);
  }

  private static CheckTable inputs(ColumnFile f, Channel channel) {
    List<CheckPoint> points =
        f.rows().stream()
            .map(r -> new CheckPoint(PointsCsv.value(f, r, 0, channel.unit()), null))
            .toList();
    return new CheckTable(channel.acceptance().check().measured(), points);
  }

  private static CheckTable measured(ColumnFile f, Channel channel) {
    Measured as = measured(f, 0, channel);
    Unit unit = as.unit(channel.unit());
    var points = new ArrayList<CheckPoint>();
    for (ColumnFile.Row r : f.rows()) {
      while (points.size() < r.line() - f.firstLine())
        points.add(new CheckPoint(Value.of(0), null));
      points.add(new CheckPoint(Value.of(0), PointsCsv.value(f, r, 0, unit)));
    }
    return new CheckTable(as, points);
  }

  /**
   * What a column was measured in, by its unit; as the sheet says where it has none. Volts are
   * those at the converter, unless they are called what the display shows.
   */
  private static Measured measured(ColumnFile f, int column, Channel channel) {
    String name = f.header().get(column).toLowerCase(Locale.ROOT);
    Optional<Unit> stated = f.unit(column);
    if (name.equals("display") || name.equals("shown")) return Measured.READING;
    if (stated.isEmpty()) return channel.acceptance().check().measured();
    Measured as = Measured.in(stated.get());
    // A channel that shows a current or a resistance itself is read on its display in it.
    boolean own = as.ofSensor() && stated.get().dimension().equals(channel.unit().dimension());
    return own ? Measured.READING : as;
  }

  private static void requireSame(ColumnFile f, int column, Unit stated, Unit wanted) {
    if (stated.dimension().equals(wanted.dimension())) return;
    throw new ColumnException(
        "%s, column %s: its unit is %s, expected one of %s"
            .formatted(f.source(), f.header().get(column), stated.symbol(), wanted.symbol()));
  }
}
