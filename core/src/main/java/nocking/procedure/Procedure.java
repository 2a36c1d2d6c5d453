package nocking.procedure;

import com.fasterxml.jackson.annotation.JsonSubTypes;
import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.List;
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
   * What came of it.
   *
   * @param done as for {@link #steps}
   */
  JobRecord record(List<Taken> done, Known known);

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
