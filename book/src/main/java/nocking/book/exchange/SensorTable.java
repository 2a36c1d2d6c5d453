package nocking.book.exchange;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import nocking.element.Signal;
import nocking.quantity.Dimension;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Unit;
import nocking.quantity.UnitCatalogue;
import nocking.quantity.Value;
import nocking.sensor.TablePoint;

/**
 * A datasheet table as it is pasted or kept in a file: the quantity in one column, the output in
 * another, either first. Units come from a units row, from the heading ({@code R/ohm}, {@code T
 * [degC]}), or from the cells themselves.
 *
 * @param unit of the quantity as the table states it; empty when it does not
 * @param signal what the outputs are
 * @param points quantity in {@code unit}, outputs in V, Ω or A
 * @param says what was recognised, one sentence
 */
public record SensorTable(
    Optional<Unit> unit, Signal signal, List<TablePoint> points, String says) {

  /** Reads a table whose outputs are volts where it states no unit. */
  public static SensorTable of(ColumnFile file, Unit wanted) {
    return of(file, wanted, Signal.VOLTAGE);
  }

  /**
   * Reads a table.
   *
   * @param wanted unit of the channel; a table in another unit of the same dimension is converted
   * @param usual what the outputs are where the table states no unit
   * @throws ColumnException naming the row and column that cannot be read
   */
  public static SensorTable of(ColumnFile file, Unit wanted, Signal usual) {
    if (file.header().size() < 2) {
      throw new ColumnException(
          file.source() + " has one column, expected the quantity and the sensor's output");
    }
    if (file.rows().size() < 2) {
      throw new ColumnException(
          "%s has %d rows of numbers, expected at least two"
              .formatted(file.source(), file.rows().size()));
    }
    int electrical = isElectrical(file, 0) && !isElectrical(file, 1) ? 0 : 1;
    int quantity = 1 - electrical;
    Optional<Unit> ofQuantity = unit(file, quantity);
    Optional<Unit> ofOutput = unit(file, electrical);
    Signal signal = ofOutput.map(SensorTable::signal).orElse(usual);
    Unit x = ofQuantity.orElse(wanted);
    Unit y = ofOutput.orElse(signal.unit());
    var points = new ArrayList<TablePoint>();
    for (ColumnFile.Row row : file.rows()) {
      points.add(
          new TablePoint(
              cell(file, row, quantity, x, wanted), cell(file, row, electrical, y, signal.unit())));
    }
    String says =
        "%d rows, %s in %s, output in %s%s"
            .formatted(
                points.size(),
                file.header().get(quantity),
                x.symbol().isEmpty() ? "no unit" : x.symbol(),
                y.symbol(),
                ofOutput.isPresent() ? "" : " (no unit was given)");
    return new SensorTable(ofQuantity, signal, points, says);
  }

  private static boolean isElectrical(ColumnFile file, int column) {
    return unit(file, column).map(u -> isElectrical(u.dimension())).orElse(false);
  }

  private static boolean isElectrical(Dimension d) {
    return d.equals(Dimension.VOLTAGE)
        || d.equals(Dimension.RESISTANCE)
        || d.equals(Dimension.CURRENT);
  }

  private static Signal signal(Unit u) {
    if (u.dimension().equals(Dimension.RESISTANCE)) return Signal.RESISTANCE;
    return u.dimension().equals(Dimension.CURRENT) ? Signal.CURRENT : Signal.VOLTAGE;
  }

  /** From the units row, the heading's end, or the first cell. */
  private static Optional<Unit> unit(ColumnFile file, int column) {
    Optional<Unit> row = file.unit(column);
    if (row.isPresent()) return row;
    String[] words = file.header().get(column).split("[\\s/,()\\[\\]]+");
    if (words.length > 1) {
      Optional<Unit> last = known(words[words.length - 1]);
      if (last.isPresent()) return last;
    }
    String cell = file.text(file.rows().getFirst(), column).strip();
    String letters = cell.replaceFirst("^[-+−0-9.,eE\\s]+", "");
    return letters.isEmpty() ? Optional.empty() : known(letters);
  }

  private static Optional<Unit> known(String symbol) {
    return UnitCatalogue.find(symbol);
  }

  private static Value cell(
      ColumnFile file, ColumnFile.Row row, int column, Unit stated, Unit wanted) {
    String text = file.pointed(file.text(row, column).strip());
    try {
      double number = QuantityParser.value(text, stated);
      if (!stated.dimension().equals(wanted.dimension()) || stated.equals(wanted)) {
        return new Value(number, plain(text) ? text : Value.of(number).typed());
      }
      return Value.of(stated.convert(number, wanted));
    } catch (QuantityException e) {
      throw new ColumnException(
          "%s row %d, column %s: %s"
              .formatted(file.source(), row.line(), file.header().get(column), e.getMessage()));
    }
  }

  private static boolean plain(String text) {
    return text.matches("-?[0-9.]+");
  }
}
