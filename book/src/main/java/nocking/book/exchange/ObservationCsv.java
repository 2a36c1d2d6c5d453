package nocking.book.exchange;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.function.Consumer;
import java.util.stream.Collectors;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.wiring.Observation;
import nocking.wiring.PairReading;
import nocking.wiring.Place;

/**
 * What was seen on a channel as a table: place, at, value. The input may be missing or {@code ?}
 * where it is not known; a value takes its own unit, {@code 4.36 V}, {@code 18.1k}, {@code open},
 * and one that jumps both its ends, {@code 1.2 … 3.4 V, jumping}.
 */
public final class ObservationCsv {
  private ObservationCsv() {}

  /**
   * @param places where the channel can be measured
   * @param quantity the channel's unit
   * @param check refuses what cannot have been seen, with one sentence
   * @throws ColumnException naming the row and column that cannot be read
   */
  public static List<Observation> read(
      ColumnFile f, List<Place> places, Unit quantity, Consumer<Observation> check) {
    int place = Cells.required(f, "place", "where", "node");
    int value = Cells.required(f, "value", "seen", "reading");
    OptionalInt at = Cells.column(f, "at", "input", "quantity");
    var list = new ArrayList<Observation>();
    for (ColumnFile.Row row : f.rows()) {
      Place p = place(f, row, place, places);
      String input = Cells.text(f, row, at);
      Value x =
          input.isEmpty() || input.equals("?")
              ? null
              : Cells.value(f, row, at.getAsInt(), quantity);
      Observation s = seen(f, row, value, p, x, p.unit(quantity));
      try {
        check.accept(s);
      } catch (QuantityException e) {
        throw new ColumnException(
            "%s, row %d: %s".formatted(f.source(), row.line(), e.getMessage()));
      }
      list.add(s);
    }
    if (list.isEmpty()) throw new ColumnException(f.source() + " has nothing that was seen in it");
    return list;
  }

  private static Observation seen(
      ColumnFile f, ColumnFile.Row row, int column, Place place, Value at, Unit unit) {
    String cell = f.text(row, column).strip();
    boolean open = cell.equalsIgnoreCase("open") || cell.equalsIgnoreCase("OL");
    if (open && unit.equals(Unit.OHM)) return new Observation(place, at, PairReading.read(cell));
    if (!Observation.jumps(cell))
      return new Observation(place, at, Cells.value(f, row, column, unit));
    try {
      return Observation.typed(place, at, f.pointed(cell), unit);
    } catch (QuantityException e) {
      throw new ColumnException(
          "%s, row %d, column %s: %s"
              .formatted(f.source(), row.line(), f.header().get(column), e.getMessage()));
    }
  }

  private static Place place(ColumnFile f, ColumnFile.Row row, int column, List<Place> places) {
    String key = f.text(row, column).strip();
    return places.stream()
        .filter(p -> p.key().equalsIgnoreCase(key))
        .findFirst()
        .orElseThrow(
            () ->
                new ColumnException(
                    "%s, row %d: this channel has no place '%s'; it has %s"
                        .formatted(
                            f.source(),
                            row.line(),
                            key,
                            places.stream().map(Place::key).collect(Collectors.joining(", ")))));
  }
}
