package nocking.book.exchange;

import de.siegmar.fastcsv.writer.CsvWriter;
import de.siegmar.fastcsv.writer.LineDelimiter;
import java.io.IOException;
import java.io.StringWriter;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.OptionalInt;
import nocking.parts.StockPart;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Unit;

/**
 * The drawer as a table: value, tolerance, power, voltage, quantity, name; only the value must be
 * there. Cells take units and resistor codes, {@code 4k7}, {@code 1 %}, {@code 250 mW}.
 */
public final class StockCsv {
  private static final String[] HEADER = {
    "value", "tolerance", "power", "voltage", "quantity", "name"
  };

  private StockCsv() {}

  /**
   * @throws ColumnException naming the row and column that cannot be read
   */
  public static List<StockPart> read(ColumnFile f) {
    int value = Cells.column(f, "value", "ohms", "ohm", "r", "resistance").orElse(0);
    OptionalInt tolerance = Cells.column(f, "tolerance", "tol");
    OptionalInt power = Cells.column(f, "power", "watts", "w");
    OptionalInt voltage = Cells.column(f, "voltage", "volts", "working voltage", "v");
    OptionalInt quantity = Cells.column(f, "quantity", "count", "pieces", "qty");
    OptionalInt name = Cells.column(f, "name", "drawer", "note");
    var parts = new ArrayList<StockPart>();
    for (ColumnFile.Row row : f.rows()) {
      double pieces = optional(f, row, quantity, Unit.ONE, 1);
      if (pieces != Math.rint(pieces) || pieces < 0 || pieces > 1e6) {
        throw new ColumnException(
            "%s row %d, column quantity: read '%s', expected a whole number"
                .formatted(f.source(), row.line(), f.text(row, quantity.orElseThrow())));
      }
      try {
        parts.add(
            new StockPart(
                name.isPresent() ? SafeText.in(f.text(row, name.getAsInt()).strip()) : "",
                number(f, row, value, Unit.OHM),
                optional(f, row, tolerance, Unit.PERCENT, 5),
                optional(f, row, power, Unit.of("W"), 0),
                optional(f, row, voltage, Unit.VOLT, 0),
                (int) pieces));
      } catch (QuantityException e) {
        throw new ColumnException(
            "%s row %d: %s".formatted(f.source(), row.line(), e.getMessage()));
      }
    }
    if (parts.isEmpty()) throw new ColumnException(f.source() + " has no parts in it");
    return parts;
  }

  /**
   * Parts of a pasted block, which may lack the header: its columns are then in the usual order.
   *
   * @throws ColumnException naming the row and column that cannot be read
   */
  public static List<StockPart> block(String text) {
    ColumnFile f = ColumnFile.parse(text, "the pasted block");
    if (f.named()) return read(f);
    int width = Math.min(HEADER.length, f.rows().getFirst().cells().size());
    String header = String.join(String.valueOf(f.delimiter()), Arrays.copyOf(HEADER, width));
    return read(ColumnFile.parse(header + "\n" + text, "the pasted block"));
  }

  private static double optional(
      ColumnFile f, ColumnFile.Row row, OptionalInt column, Unit unit, double missing) {
    if (column.isEmpty() || f.text(row, column.getAsInt()).isBlank()) return missing;
    return number(f, row, column.getAsInt(), unit);
  }

  private static double number(ColumnFile f, ColumnFile.Row row, int column, Unit unit) {
    try {
      return QuantityParser.value(f.pointed(f.text(row, column).strip()), unit);
    } catch (QuantityException e) {
      throw new ColumnException(
          "%s row %d, column %s: %s"
              .formatted(f.source(), row.line(), f.header().get(column), e.getMessage()));
    }
  }

  /** The drawer as CSV, ready to be read again. */
  public static String write(List<StockPart> parts) {
    var text = new StringWriter();
    try (var csv = CsvWriter.builder().lineDelimiter(LineDelimiter.LF).build(text)) {
      csv.writeRecord(HEADER);
      for (StockPart p : parts) {
        csv.writeRecord(
            Numbers.plain(p.ohms()),
            Numbers.plain(p.tolerance()),
            Numbers.plain(p.watts()),
            Numbers.plain(p.volts()),
            String.valueOf(p.quantity()),
            SafeText.out(p.name()));
      }
    } catch (IOException e) {
      throw new UncheckedIOException("a text in memory takes every line", e);
    }
    return text.toString();
  }
}
