package nocking.points;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * One applied input with its repeated readings.
 *
 * @param applied quantity from the reference, in the channel's unit
 * @param readings raw readings in the set's unit; empty while the point is only planned
 * @param down true on the way down
 * @param leftOut why the point is left out; null while it counts
 * @param taken the run that it came of; null for one that was typed or read from a file
 */
public record ReferencePoint(
    Value applied, List<Value> readings, boolean down, String leftOut, Taken taken) {

  /**
   * Where a point came from.
   *
   * @param run id of the run in its book
   * @param target its place in the course of the run, from 1
   * @param at when its last reading was taken, milliseconds since 1970
   * @param doubt what spoke against its readings when they were taken all the same; null for
   *     nothing
   */
  public record Taken(
      String run, int target, long at, @JsonInclude(JsonInclude.Include.NON_NULL) String doubt) {
    @JsonCreator
    public Taken {
      if (run == null || run.isBlank()) throw new QuantityException("a point came of a run");
    }

    /** Of readings that nothing spoke against. */
    public Taken(String run, int target, long at) {
      this(run, target, at, null);
    }

    /** True for the same readings of the same run. */
    public boolean same(Taken other) {
      return other != null && run.equals(other.run) && target == other.target && at == other.at;
    }
  }

  public ReferencePoint {
    readings = List.copyOf(readings);
    if (leftOut != null && leftOut.isBlank()) {
      throw new QuantityException("a point is left out with a reason; the reason is empty");
    }
  }

  /** A point that was typed or read from a file. */
  public ReferencePoint(Value applied, List<Value> readings, boolean down, String leftOut) {
    this(applied, readings, down, leftOut, null);
  }

  public static ReferencePoint of(Value applied, Value... readings) {
    return new ReferencePoint(applied, List.of(readings), false, null);
  }

  /** What spoke against its readings when they were taken all the same; empty for nothing. */
  public Optional<String> doubt() {
    return taken == null ? Optional.empty() : Optional.ofNullable(taken.doubt());
  }

  /** True when the point has readings and is not left out. */
  public boolean counts() {
    return leftOut == null && !readings.isEmpty();
  }

  /** What a point says, however it was typed and whether it counts or not. */
  record Said(double applied, boolean down, List<Double> readings) {}

  Said said() {
    return new Said(applied.number(), down, readings.stream().map(Value::number).toList());
  }

  /** Mean of the readings; NaN without any. */
  public double mean() {
    return readings.stream().mapToDouble(Value::number).average().orElse(Double.NaN);
  }

  /** Sample standard deviation of the readings (n − 1); NaN below two. */
  public double standardDeviation() {
    int n = readings.size();
    if (n < 2) return Double.NaN;
    double mean = mean();
    double sum = 0;
    for (Value v : readings) sum += (v.number() - mean) * (v.number() - mean);
    return Math.sqrt(sum / (n - 1));
  }

  /** The readings as they were typed, {@code 1.651; 1.652}. */
  public String typedReadings() {
    return readings.stream().map(Value::typed).collect(Collectors.joining("; "));
  }

  /**
   * Reads one cell with one or more readings, set apart by semicolons, or by spaces when they are
   * plain numbers.
   *
   * @throws QuantityException naming what was read
   */
  public static List<Value> parseReadings(String cell, Unit unit) {
    if (cell.isBlank()) return List.of();
    String[] parts = cell.strip().split(";");
    if (parts.length == 1 && cell.strip().matches("[-+0-9.eE]+(\\s+[-+0-9.eE]+)+")) {
      parts = cell.strip().split("\\s+");
    }
    var values = new ArrayList<Value>();
    for (String part : parts) {
      if (!part.isBlank()) values.add(Value.typed(part, unit));
    }
    return values;
  }

  public ReferencePoint withApplied(Value v) {
    return new ReferencePoint(v, readings, down, leftOut, taken);
  }

  public ReferencePoint withReadings(List<Value> v) {
    return new ReferencePoint(applied, v, down, leftOut, taken);
  }

  public ReferencePoint withDown(boolean v) {
    return new ReferencePoint(applied, readings, v, leftOut, taken);
  }

  public ReferencePoint withLeftOut(String reason) {
    return new ReferencePoint(applied, readings, down, reason, taken);
  }

  /** The same point as one of a run. */
  public ReferencePoint withTaken(Taken v) {
    return new ReferencePoint(applied, readings, down, leftOut, v);
  }
}
