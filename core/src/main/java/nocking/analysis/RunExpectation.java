package nocking.analysis;

import java.util.Optional;
import nocking.path.SignalPath;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.run.RunPlan;
import nocking.run.RunPoint;
import nocking.run.Slip;

/** What the design of a channel expects in a run, beside what is read there. */
public final class RunExpectation {
  private RunExpectation() {}

  /** Volts for what is applied, in the unit of the plan; NaN where the design says nothing. */
  private static double volts(Analysis a, RunPlan plan, int channel, double applied) {
    Optional<SignalPath> path = a.design().path();
    boolean volts = plan.channels().get(channel).raw() == RawUnit.VOLTS;
    if (path.isEmpty() || !volts || !Double.isFinite(applied)) return Double.NaN;
    return path.get().output(Unit.of(plan.unit()).convert(applied, a.channel().unit()));
  }

  /**
   * What is expected at what is applied, and how far a reading is from it; empty where nothing is.
   *
   * @param channel number of the channel in the plan
   * @param read in volts
   */
  public static String beside(Analysis a, RunPlan plan, int channel, double applied, double read) {
    double expects = volts(a, plan, channel, applied);
    if (!Double.isFinite(expects) || !Double.isFinite(read)) return "";
    return "The design expects %s V here, %s mV off.%s"
        .formatted(
            Numbers.fixed(expects, 4),
            Numbers.signed((read - expects) * 1000, 1),
            Slip.of(read, expects).map(w -> " " + w).orElse(""));
  }

  /** A slip in the point that was taken last, while it can be taken once more; empty for none. */
  public static String slip(Analysis a, RunPlan plan, int channel, RunPoint last) {
    double mean =
        last.readings().get(channel).stream().mapToDouble(d -> d).average().orElse(Double.NaN);
    double expects = volts(a, plan, channel, last.applied());
    return Slip.of(mean, expects)
        .map(
            w ->
                ("The point before this one reads %s V, the design expects %s V. %s Repeat takes it"
                        + " once more.")
                    .formatted(Numbers.fixed(mean, 4), Numbers.fixed(expects, 4), w))
        .orElse("");
  }
}
