package nocking.run;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;

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
 * @param arrivals for each channel how near it was to its end; null where that is not known, and
 *     null in place of a channel of which it is not
 * @param supply mean volts of the supply meanwhile; null where nothing read it
 * @param doubt what spoke against it when somebody took it all the same; null for nothing
 * @param apart how much more another reference said than the first; null where there was none
 */
public record RunPoint(
    long at,
    int target,
    double applied,
    List<List<Double>> readings,
    How how,
    String why,
    @JsonInclude(JsonInclude.Include.NON_NULL) Boolean placeUnknown,
    @JsonInclude(JsonInclude.Include.NON_NULL) List<Arrival> arrivals,
    @JsonInclude(JsonInclude.Include.NON_NULL) Double supply,
    @JsonInclude(JsonInclude.Include.NON_NULL) String doubt,
    @JsonInclude(JsonInclude.Include.NON_NULL) Double apart)
    implements RunEntry {
  /**
   * How near the readings of a channel were to where they were going.
   *
   * @param toCome what was still to come behind their mean, in the raw unit
   * @param uncertainty of that, standard, in the raw unit; what the mean scatters is in it
   * @param lag time constant that was seen, in seconds; null where none was
   */
  public record Arrival(
      double toCome, double uncertainty, @JsonInclude(JsonInclude.Include.NON_NULL) Double lag) {}

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
    arrivals = arrivals == null ? null : Collections.unmodifiableList(new ArrayList<>(arrivals));
  }

  /** A point at which the reference was read. */
  public RunPoint(
      long at, int target, double applied, List<List<Double>> readings, How how, String why) {
    this(at, target, applied, readings, how, why, null, null, null, null, null);
  }

  /** True where something spoke against it, and somebody took it all the same. */
  public boolean doubted() {
    return doubt != null;
  }

  /**
   * What spoke against the readings of one channel when they were taken all the same.
   *
   * @param tag of the channel in the plan
   */
  public Optional<String> doubt(String tag) {
    // Each sentence begins with what it speaks of.
    return Optional.ofNullable(doubt)
        .filter(
            d ->
                d.startsWith(Doubt.REFERENCES)
                    || d.startsWith(tag + " reads ")
                    || d.contains("; " + tag + " reads "));
  }

  /** True where nobody was there to be asked whether it is to be taken. */
  public boolean unasked() {
    return why.contains(Act.NOBODY_ASKED);
  }

  /** What the reference said; NaN where nobody read it. */
  double place() {
    return Boolean.TRUE.equals(placeUnknown) ? Double.NaN : applied;
  }

  /** How near the readings of a channel were to where they were going; empty where not known. */
  public Optional<Arrival> arrival(int channel) {
    boolean known = arrivals != null && channel < arrivals.size();
    return known ? Optional.ofNullable(arrivals.get(channel)) : Optional.empty();
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
