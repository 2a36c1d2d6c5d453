package nocking.app.control;

import java.util.Comparator;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/** Cells whose text could not be understood: what was typed is kept, and why it was refused. */
final class WrongCells {
  private record Place(int row, int column) {}

  /** A text that was refused. */
  record Wrong(int row, int column, String text, String reason) {}

  private final Map<Place, Wrong> cells =
      new TreeMap<>(Comparator.comparingInt(Place::row).thenComparingInt(Place::column));

  void put(int row, int column, String text, String reason) {
    cells.put(new Place(row, column), new Wrong(row, column, text, reason));
  }

  void remove(int row, int column) {
    cells.remove(new Place(row, column));
  }

  Optional<Wrong> at(int row, int column) {
    return Optional.ofNullable(cells.get(new Place(row, column)));
  }

  /** The first in reading order. */
  Optional<Wrong> first() {
    return cells.values().stream().findFirst();
  }

  /** Forgets what stood in rows that are no more. */
  void cutFrom(int rows) {
    cells.keySet().removeIf(p -> p.row >= rows);
  }

  void clear() {
    cells.clear();
  }
}
