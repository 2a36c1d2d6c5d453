package nocking.check;

import java.util.ArrayList;
import java.util.List;

/**
 * The check of a channel.
 *
 * @param measured what is entered: the display's reading, volts or counts at the converter
 */
public record CheckTable(Measured measured, List<CheckPoint> points) {
  /** What the technician reads off at a check input. */
  public enum Measured {
    READING,
    VOLTS,
    COUNTS
  }

  public static final CheckTable EMPTY = new CheckTable(Measured.VOLTS, List.of());

  public CheckTable {
    points = List.copyOf(points);
  }

  public CheckTable with(int index, CheckPoint point) {
    var next = new ArrayList<>(points);
    next.set(index, point);
    return new CheckTable(measured, next);
  }

  public CheckTable plus(CheckPoint point) {
    var next = new ArrayList<>(points);
    next.add(point);
    return new CheckTable(measured, next);
  }

  public CheckTable without(int index) {
    var next = new ArrayList<>(points);
    next.remove(index);
    return new CheckTable(measured, next);
  }
}
