package nocking.run;

import java.util.List;

/**
 * A run as it stands in the book.
 *
 * @param began milliseconds since 1970
 * @param plan that it was begun with; what it goes by now is that of its {@link #progress}
 * @param entries what was done and the points that came of it, in their order
 * @param sweeps how many are on the disk
 * @param after sweeps behind the last point: readings of one that was not completed
 */
public record StoredRun(
    String id, long began, RunPlan plan, List<RunEntry> entries, long sweeps, long after) {
  public StoredRun {
    entries = List.copyOf(entries);
  }

  /** Where it stands. */
  public RunProgress progress() {
    return RunProgress.after(plan, entries);
  }

  /** True when it neither reached its end nor was stopped: it can go on. */
  public boolean unfinished() {
    return !progress().over();
  }

  /** What was written down beside its end; empty for nothing, and while it has not ended. */
  public String closing() {
    return entries.stream()
        .filter(e -> e instanceof Act a && a.kind() == Act.Kind.END)
        .map(e -> ((Act) e).why())
        .reduce("", (before, now) -> now);
  }

  /** What it lacks and what of it does not count, in a sentence. */
  public String missing() {
    RunProgress p = progress();
    int all = p.targets().size();
    String points =
        "%d of %d %s are complete"
            .formatted(Math.min(p.next(), all), all, plan.procedure() == null ? "points" : "steps");
    if (after == 0) return points + ".";
    return "%s; %d sweep%s of the point under way %s kept and do%s not count."
        .formatted(
            points,
            after,
            after == 1 ? "" : "s",
            after == 1 ? "is" : "are",
            after == 1 ? "es" : "");
  }
}
