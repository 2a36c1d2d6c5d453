package nocking.procedure;

import com.fasterxml.jackson.annotation.JsonTypeName;
import java.util.List;
import java.util.Optional;
import nocking.check.Verdict;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;
import nocking.wiring.Thresholds;

/**
 * The two ends of a travel are taken as they are, and everything between goes by the line through
 * them.
 *
 * @param closed quantity at the one end
 * @param open quantity at the other, another than {@code closed}
 */
@JsonTypeName("learnt-ends")
public record LearntEnds(Value closed, Value open) implements Procedure {
  /** Share of the converter's range below which a travel is used badly. */
  private static final double LITTLE = 0.25;

  /** Share by which a travel may be another than the design's before it is asked why. */
  private static final double OTHER_TRAVEL = 0.2;

  public LearntEnds {
    double a = Procedure.needed(closed, "where it is closed");
    double b = Procedure.needed(open, "where it is open");
    if (a == b) throw new QuantityException("the two ends are the same: " + closed.typed());
  }

  @Override
  public String title() {
    return "two ends learnt";
  }

  @Override
  public List<Step> steps(List<Taken> done) {
    Step second =
        Step.at(
            "Open it all the way",
            "To its stop, as the machine does it; then let go.",
            open.number());
    return List.of(
        Step.at(
            "Close it all the way",
            "To its stop, as the machine does it; then let go.",
            closed.number()),
        open.number() < closed.number() ? second.fromAbove() : second);
  }

  @Override
  public String caution() {
    return "What closes crushes: hands out before it is driven to its stop.";
  }

  @Override
  public JobRecord read(List<Taken> done, Known known) {
    var lines = new JobRecord.Lines();
    if (done.size() < 2 || !done.get(0).read() || !done.get(1).read()) {
      for (Taken t : done) lines.add("closed", Known.volts(t.volts()));
      return lines.closed(Verdict.OPEN, "Both ends are needed.");
    }
    double a = done.get(0).volts();
    double b = done.get(1).volts();
    double used = Math.abs(b - a) / known.converter().width();
    lines.add("closed, " + known.says(closed.number()), Known.volts(a));
    lines.add("open, " + known.says(open.number()), Known.volts(b));
    lines.add(
        "travel used",
        Known.volts(Math.abs(b - a)),
        "%s %% of the converter's range".formatted(Numbers.fixed(100 * used, 0)));
    lines.add(
        "direction", b > a ? "opening raises it" : "opening lowers it", direction(known, a, b));
    Optional<Thresholds> faults = known.faults();
    double low = room(faults.map(Thresholds::low), Math.min(a, b), 1);
    double high = room(faults.map(Thresholds::high), Math.max(a, b), -1);
    if (Double.isFinite(low)) lines.add("room to the low fault limit", Known.millivolts(low));
    if (Double.isFinite(high)) lines.add("room to the high fault limit", Known.millivolts(high));
    if (low <= 0 || high <= 0) {
      return lines.closed(
          Verdict.FAIL, "An end lies where the receiver takes it for a fault: turn the mounting.");
    }
    double scatter = Math.max(noise(done.get(0)), noise(done.get(1)));
    if (!(Math.abs(b - a) > 10 * scatter) || a == b) {
      return lines.closed(
          Verdict.FAIL, "Both ends read the same within the scatter: nothing moved, or it slips.");
    }
    double designed =
        Math.abs(
            known.design().applyAsDouble(open.number())
                - known.design().applyAsDouble(closed.number()));
    double ratio = Math.abs(b - a) / designed;
    if (Double.isFinite(ratio) && Math.abs(ratio - 1) > OTHER_TRAVEL) {
      return lines.closed(
          Verdict.OPEN,
          ("Not established: the travel gives %s, the design has %s for it. Drive both ends to their"
                  + " stops and look at the supply; where it is so, the design is to be put right first.")
              .formatted(Known.volts(Math.abs(b - a)), Known.volts(designed)));
    }
    String little =
        used < LITTLE
            ? " Only %s %% of the converter's range is used; a longer lever would use more."
                .formatted(Numbers.fixed(100 * used, 0))
            : "";
    String clear =
        faults.isEmpty()
            ? "Both ends are read; no fault limits are set that they could be near."
            : "Both ends are clear of the fault limits.";
    return lines.closed(Verdict.PASS, clear + little);
  }

  private static double noise(Taken t) {
    return Double.isFinite(t.deviation()) ? t.deviation() : 0;
  }

  private static double room(Optional<Value> limit, double end, int sign) {
    return limit.map(l -> sign * (end - l.number())).orElse(Double.POSITIVE_INFINITY);
  }

  private static String direction(Known known, double a, double b) {
    double from = known.design().applyAsDouble(known.working().low());
    double to = known.design().applyAsDouble(known.working().high());
    return (b - a) * (to - from) < 0
        ? "the design has it the other way round: mirror it, or swap the outer wires"
        : "as designed";
  }

  /** True where the ends were read the other way round than the design has them. */
  public boolean mirrored(List<Taken> done, Known known) {
    boolean both = done.size() >= 2 && done.get(0).read() && done.get(1).read();
    return both
        && !direction(known, done.get(0).volts(), done.get(1).volts()).equals("as designed");
  }
}
