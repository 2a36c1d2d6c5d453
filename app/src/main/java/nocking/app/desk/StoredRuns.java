package nocking.app.desk;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.run.StoredRun;

/** The runs of the book as they were last read, the newest first. */
final class StoredRuns {
  static final StoredRuns NONE = new StoredRuns(List.of());

  /** Whether a run can go on takes its whole journal: it is worked out once. */
  private record Stored(StoredRun run, boolean unfinished) {
    boolean reads(String channel) {
      return BenchRuns.place(run.plan(), channel) >= 0;
    }
  }

  private final List<Stored> runs;

  /** Those that can go on: few, however many runs there are. */
  private final List<Stored> unfinished;

  /** Works out what can go on; not for the interface thread. */
  StoredRuns(List<StoredRun> found) {
    runs = found.stream().map(r -> new Stored(r, r.unfinished())).toList();
    unfinished = runs.stream().filter(Stored::unfinished).toList();
  }

  private Stream<Stored> of(String channel) {
    return runs.stream().filter(r -> r.reads(channel));
  }

  /**
   * The newest run of a channel that can go on.
   *
   * @param except id of the run that is under way
   */
  Optional<StoredRun> waiting(String channel, String except) {
    return unfinished.stream()
        .filter(r -> r.reads(channel) && !r.run.id().equals(except))
        .map(Stored::run)
        .findFirst();
  }

  /** All runs that can go on, the newest first. */
  List<StoredRun> unfinished() {
    return unfinished.stream().map(Stored::run).toList();
  }

  /** Runs of a channel that are over. */
  List<StoredRun> over(String channel) {
    return of(channel).filter(r -> !r.unfinished).map(Stored::run).toList();
  }

  /** All runs of a channel. */
  List<StoredRun> all(String channel) {
    return of(channel).map(Stored::run).toList();
  }
}
