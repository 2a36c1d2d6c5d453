package nocking.procedure;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import nocking.check.Verdict;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/** A job at the bench, step by step. Voltages are those that the run's meter reads. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "kind")
@JsonSubTypes({
  @JsonSubTypes.Type(value = MechanicalTrim.class, name = "mechanical-trim"),
  @JsonSubTypes.Type(value = TaughtEnds.class, name = "taught-ends"),
  @JsonSubTypes.Type(value = LearntEnds.class, name = "learnt-ends"),
  @JsonSubTypes.Type(value = Stations.class, name = "stations"),
  @JsonSubTypes.Type(value = ZeroAndSpan.class, name = "zero-and-span")
})
public sealed interface Procedure
    permits MechanicalTrim, TaughtEnds, LearntEnds, Stations, ZeroAndSpan {

  /** What it is called. */
  String title();

  /**
   * Its steps: those that were taken, the one that follows, and those that are foreseen.
   *
   * @param done what the steps so far came to, in their order
   * @return as many as {@code done} when it is at its end
   */
  List<Step> steps(List<Taken> done);

  /** What is to be heeded while it is done, beside the cautions of the bench; may be empty. */
  String caution();

  /**
   * What came of it by its readings, all taken for settled.
   *
   * @param done as for {@link #steps}
   */
  JobRecord read(List<Taken> done, Known known);

  /**
   * True where the result hangs on what a step read; what was read on the way may be anything.
   *
   * @param step index among {@code done}
   */
  default boolean carries(int step, List<Taken> done) {
    return true;
  }

  /**
   * What forbids to go on after what was read; empty for nothing.
   *
   * @param done as for {@link #steps}
   */
  default String forbids(List<Taken> done, Known known) {
    return "";
  }

  /**
   * What came of it. Readings that had not settled carry no result: then nothing is established,
   * for good or bad.
   *
   * @param done as for {@link #steps}
   */
  default JobRecord record(List<Taken> done, Known known) {
    JobRecord read = read(done, known);
    List<Integer> open = unsettled(done);
    if (open.isEmpty()) return read;
    List<Step> steps = steps(done);
    var lines = new ArrayList<>(read.lines());
    for (int i : open) {
      lines.add(
          new JobRecord.Line(
              "step %d, not settled".formatted(i + 1),
              Known.volts(done.get(i).volts()),
              done.get(i).unsettled()));
    }
    String named =
        open.stream()
            .map(i -> "step %d (%s)".formatted(i + 1, steps.get(i).title()))
            .collect(Collectors.joining(", "));
    return new JobRecord(
        Verdict.OPEN, "Not established: %s had not settled.".formatted(named), lines);
  }

  /** Steps on which the result hangs and whose readings are none, counted from 0. */
  default List<Integer> unsettled(List<Taken> done) {
    return IntStream.range(0, done.size())
        .filter(i -> !done.get(i).unsettled().isEmpty() && carries(i, done))
        .boxed()
        .toList();
  }

  /**
   * @throws QuantityException naming what is missing
   */
  static double needed(Value v, String what) {
    if (v == null || !Double.isFinite(v.number())) {
      throw new QuantityException(what + " is missing");
    }
    return v.number();
  }
}
