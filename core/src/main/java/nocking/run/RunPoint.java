package nocking.run;

import java.util.List;

/**
 * A target that is done with.
 *
 * @param at milliseconds since 1970 of its last reading
 * @param target index among the targets of the plan
 * @param applied mean of what the reference said; the set point where there are no readings
 * @param readings for each channel those that count, in its raw unit
 * @param how how it came to its end
 * @param why where it was not simply settled
 */
public record RunPoint(
    long at, int target, double applied, List<List<Double>> readings, How how, String why)
    implements RunEntry {
  /** How a point came to its end. */
  public enum How {
    SETTLED,
    /** Its time was over; it is taken all the same. */
    NOT_SETTLED,
    SKIPPED
  }

  public RunPoint {
    readings = readings.stream().map(List::copyOf).toList();
    why = why == null ? "" : why;
  }
}
