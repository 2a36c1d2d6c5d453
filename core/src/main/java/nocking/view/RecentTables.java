package nocking.view;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.FutureTask;
import java.util.function.Function;
import nocking.channel.Calibration;
import nocking.channel.Channel;
import nocking.channel.Design;
import nocking.table.BenchPairs;
import nocking.table.TableSearch;
import nocking.table.TableSpec;

/**
 * The tables that were made last. The smallest one is searched for, and most edits of a channel
 * leave everything as it was that the search looks at.
 */
final class RecentTables {
  private static final int KEPT = 24;

  /** Raw steps of all tables together: each takes some dozens of bytes a step. */
  private static final long STEPS = 1_500_000;

  /**
   * All that a table follows from. A change of a channel keeps the parts that it does not touch, so
   * that they need not be looked into: there may be a hundred thousand points in them.
   */
  private record Grounds(Design design, Calibration calibration, TableSpec spec, BenchPairs bench) {
    static Grounds of(Channel c) {
      BenchPairs bench = c.receiver().table().goal().bench() ? c.receiver().bench() : null;
      return new Grounds(c.design(), c.calibration(), c.receiver().table(), bench);
    }

    @Override
    public boolean equals(Object o) {
      return o instanceof Grounds g
          && g.design == design
          && g.calibration == calibration
          && g.spec == spec
          && g.bench == bench;
    }

    @Override
    public int hashCode() {
      return 31 * System.identityHashCode(design)
          + 17 * System.identityHashCode(calibration)
          + 7 * System.identityHashCode(spec)
          + System.identityHashCode(bench);
    }
  }

  /** A table that is being made: whoever asks for it meanwhile waits for the same. */
  private record Making(FutureTask<TableOutcome> task, TableSearch search) {}

  /** The one that was asked for longest ago comes first. */
  private static final Map<Grounds, TableOutcome> RECENT = new LinkedHashMap<>(KEPT, 0.75F, true);

  private static final Map<Grounds, Making> UNDER_WAY = new ConcurrentHashMap<>();

  private RecentTables() {}

  /** The table of a channel where it is known already. */
  static Optional<TableOutcome> known(Channel c) {
    synchronized (RECENT) {
      return Optional.ofNullable(RECENT.get(Grounds.of(c)));
    }
  }

  /** The search for the table of a channel, while it is under way. */
  static Optional<TableSearch> search(Channel c) {
    return Optional.ofNullable(UNDER_WAY.get(Grounds.of(c))).map(Making::search);
  }

  /** The table of a channel that has asked for one; of those that ask at once one makes it. */
  static TableOutcome of(Channel c, Function<TableSearch, TableOutcome> make) {
    Grounds grounds = Grounds.of(c);
    Optional<TableOutcome> known = known(c);
    if (known.isPresent()) return known.get();
    var search = new TableSearch();
    var mine = new Making(new FutureTask<>(() -> kept(grounds, make.apply(search))), search);
    Making making = UNDER_WAY.putIfAbsent(grounds, mine);
    if (making == null) {
      making = mine;
      try {
        mine.task.run();
      } finally {
        UNDER_WAY.remove(grounds);
      }
    }
    try {
      return making.task.get();
    } catch (ExecutionException e) {
      throw e.getCause() instanceof RuntimeException r ? r : new IllegalStateException(e);
    } catch (InterruptedException e) {
      Thread.currentThread().interrupt();
      throw new IllegalStateException(e);
    }
  }

  private static TableOutcome kept(Grounds grounds, TableOutcome made) {
    synchronized (RECENT) {
      RECENT.put(grounds, made);
      long steps = RECENT.values().stream().mapToLong(RecentTables::steps).sum();
      var eldest = RECENT.values().iterator();
      for (int n = RECENT.size(); n > KEPT || steps > STEPS && n > 0; n--) {
        steps -= steps(eldest.next());
        eldest.remove();
      }
    }
    return made;
  }

  private static long steps(TableOutcome o) {
    return o.result().map(t -> (long) t.truth().axis().size()).orElse(0L);
  }
}
