package nocking.run;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import nocking.procedure.Step;
import nocking.procedure.Taken;
import nocking.run.RunProgress.Phase;

/**
 * Where a run stood at one moment, for other threads than its own.
 *
 * @param next index of the target that is worked at
 * @param last the newest sweep; empty before the first
 * @param channels what is known of each channel's readings
 * @param averaged sweeps that count for the point under way
 * @param left seconds that are likely still needed for it; NaN while that cannot be told
 * @param why what it waits for; empty when for nothing
 * @param step of a procedure; empty for set points
 * @param hands true while the hands have not said that they are done
 * @param taken what the steps of a procedure came to
 * @param doubted true where it is held before a point that is not taken without somebody's yes
 * @param trouble what does not work; empty when all does
 * @param warning what is odd although all works; empty for nothing
 */
public record RunSnapshot(
    RunPlan plan,
    List<Target> targets,
    Phase phase,
    int next,
    Optional<Sweep> last,
    List<Channel> channels,
    int averaged,
    double left,
    String why,
    String trouble,
    String warning,
    List<RunPoint> points,
    List<String> superseded,
    Optional<Step> step,
    boolean hands,
    List<Taken> taken,
    boolean doubted) {

  /** Mean, scatter and slope of the window of a channel, and where it goes, in its raw unit. */
  public record Channel(
      double mean, double deviation, double slope, double lag, boolean settled, Outlook outlook) {}

  /** Where it stands now. */
  public static RunSnapshot of(RunProgress p, String trouble) {
    return of(p, trouble, "");
  }

  /** Where it stands now, and what is odd about it. */
  public static RunSnapshot of(RunProgress p, String trouble, String warning) {
    var channels = new ArrayList<Channel>();
    for (int i = 0; i < p.plan().channels().size(); i++) {
      Settling s = p.channel(i);
      channels.add(
          new Channel(s.mean(), s.deviation(), s.slope(), s.lag(), s.settled(), p.outlook(i)));
    }
    var superseded = new ArrayList<String>();
    for (int i = 0; i < p.points().size(); i++) superseded.add(p.superseded(i));
    return new RunSnapshot(
        p.plan(),
        p.targets(),
        p.phase(),
        p.next(),
        p.last(),
        List.copyOf(channels),
        p.averaged(),
        p.left(),
        p.over() ? "" : p.whyNot(),
        trouble,
        warning,
        p.points(),
        List.copyOf(superseded),
        p.step(),
        p.waitsForHands(),
        p.taken(),
        p.doubt().isPresent());
  }

  /** What is worked at; empty after the last. */
  public Optional<Target> target() {
    return next < targets.size() ? Optional.of(targets.get(next)) : Optional.empty();
  }

  /** What is applied in all after the last point; 0 before the first. For measured pours. */
  public double total() {
    return points.isEmpty() ? 0 : points.getLast().applied();
  }

  /** What brings the total to the set point that is worked at; NaN after the last. */
  public double toCome() {
    return target().map(t -> t.setPoint() - total()).orElse(Double.NaN);
  }

  /** True where what is poured next is less than was planned, since the vessel bends there. */
  public boolean halved() {
    return Pours.halved(plan)
        && target()
            .map(t -> plan.setPoints().stream().noneMatch(v -> v.number() == t.setPoint()))
            .orElse(false);
  }

  /** Share of the run that is done, 0 … 1. */
  public double done() {
    double of = phase == Phase.AVERAGING ? Math.min(1, (double) averaged / plan.average()) : 0;
    return Math.min(1, (next + of) / targets.size());
  }
}
