package nocking.check;

import java.util.ArrayList;
import java.util.List;

/**
 * The check of a channel.
 *
 * @param measured what is entered: the display's reading, volts or counts at the converter
 */
public record CheckSheet(Measured measured, List<CheckPoint> points) {
  /** What the technician reads off at a check input. */
  public enum Measured {
    READING,
    VOLTS,
    COUNTS
  }

  public static final CheckSheet EMPTY = new CheckSheet(Measured.VOLTS, List.of());

  public CheckSheet {
    points = List.copyOf(points);
  }

  public CheckSheet with(int index, CheckPoint point) {
    var next = new ArrayList<>(points);
    next.set(index, point);
    return new CheckSheet(measured, next);
  }

  public CheckSheet plus(CheckPoint point) {
    var next = new ArrayList<>(points);
    next.add(point);
    return new CheckSheet(measured, next);
  }

  public CheckSheet without(int index) {
    var next = new ArrayList<>(points);
    next.remove(index);
    return new CheckSheet(measured, next);
  }
}
