package nocking.book.exchange;

import java.util.Locale;
import java.util.OptionalInt;
import nocking.book.exchange.ColumnFile.Row;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/** Reading typed cells of a column file by any of a column's names, with the place in messages. */
final class Cells {
  private Cells() {}

  /** The first column that has one of these names. */
  static OptionalInt column(ColumnFile f, String... names) {
    for (String name : names) {
      for (int i = 0; i < f.header().size(); i++) {
        if (f.header().get(i).strip().toLowerCase(Locale.ROOT).equals(name)) {
          return OptionalInt.of(i);
        }
      }
    }
    return OptionalInt.empty();
  }

  /**
   * @throws ColumnException naming the columns that were looked for and those that there are
   */
  static int required(ColumnFile f, String... names) {
    return column(f, names)
        .orElseThrow(
            () ->
                new ColumnException(
                    "%s has no column '%s'; it has %s"
                        .formatted(f.source(), names[0], String.join(", ", f.header()))));
  }

  /** Text of a cell; empty where the column is missing. */
  static String text(ColumnFile f, Row row, OptionalInt column) {
    return column.isEmpty() ? "" : f.text(row, column.getAsInt()).strip();
  }

  /**
   * A number with or without a unit of its own; without one it is in the column's, else in {@code
   * unit}.
   *
   * @throws ColumnException naming row and column, what was read and what was expected
   */
  static Value value(ColumnFile f, Row row, int column, Unit unit) {
    String cell = f.pointed(f.text(row, column).strip());
    try {
      if (cell.isEmpty()) throw new QuantityException("read nothing, expected a number");
      boolean bare = cell.matches("[-+]?[0-9.]+([eE][-+]?[0-9]+)?");
      if (bare && f.unit(column).isPresent()) {
        Unit own = f.unit(column).get();
        if (!own.dimension().equals(unit.dimension())) {
          throw new QuantityException(
              "the column's unit is %s, expected one of %s".formatted(own, unit));
        }
        double v = own.convert(Double.parseDouble(cell), unit);
        return new Value(v, cell + " " + own.symbol());
      }
      return new Value(QuantityParser.value(cell, unit), cell);
    } catch (QuantityException e) {
      throw new ColumnException(
          "%s, row %d, column %s: %s"
              .formatted(f.source(), row.line(), f.header().get(column), e.getMessage()));
    }
  }
}
