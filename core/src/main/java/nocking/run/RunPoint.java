package nocking.run;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonInclude;
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
 * @param placeUnknown true where nobody read the reference, and {@code applied} is only where it
 *     was before; null where it was read
 */
public record RunPoint(
    long at,
    int target,
    double applied,
    List<List<Double>> readings,
    How how,
    String why,
    @JsonInclude(JsonInclude.Include.NON_NULL) Boolean placeUnknown)
    implements RunEntry {
  /** How a point came to its end. */
  public enum How {
    SETTLED,
    /** Its time was over; it is taken all the same. */
    NOT_SETTLED,
    /** Something was done by hand, and nothing read. */
    CONFIRMED,
    SKIPPED
  }

  @JsonCreator
  public RunPoint {
    readings = readings.stream().map(List::copyOf).toList();
    why = why == null ? "" : why;
  }

  /** A point at which the reference was read. */
  public RunPoint(
      long at, int target, double applied, List<List<Double>> readings, How how, String why) {
    this(at, target, applied, readings, how, why, null);
  }

  /** What the reference said; NaN where nobody read it. */
  double place() {
    return Boolean.TRUE.equals(placeUnknown) ? Double.NaN : applied;
  }

  /** Mean of a channel's readings; NaN without any. */
  public double mean(int channel) {
    return readings.get(channel).stream().mapToDouble(v -> v).average().orElse(Double.NaN);
  }

  /** Sample standard deviation of a channel's readings (n − 1); NaN below two. */
  public double standardDeviation(int channel) {
    List<Double> r = readings.get(channel);
    double mean = mean(channel);
    double sum = r.stream().mapToDouble(v -> (v - mean) * (v - mean)).sum();
    return r.size() < 2 ? Double.NaN : Math.sqrt(sum / (r.size() - 1));
  }
}
