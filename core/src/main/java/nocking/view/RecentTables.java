package nocking.view;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;
import java.util.function.Supplier;
import nocking.channel.Calibration;
import nocking.channel.Channel;
import nocking.channel.Design;
import nocking.table.BenchPairs;
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

  /** The one that was asked for longest ago comes first. */
  private static final Map<Grounds, TableOutcome> RECENT = new LinkedHashMap<>(KEPT, 0.75F, true);

  private RecentTables() {}

  /** The table of a channel where it is known already. */
  static Optional<TableOutcome> known(Channel c) {
    synchronized (RECENT) {
      return Optional.ofNullable(RECENT.get(Grounds.of(c)));
    }
  }

  /** The table of a channel that has asked for one; two that ask at once both make it. */
  static TableOutcome of(Channel c, Supplier<TableOutcome> make) {
    Optional<TableOutcome> known = known(c);
    if (known.isPresent()) return known.get();
    TableOutcome made = make.get();
    synchronized (RECENT) {
      RECENT.put(Grounds.of(c), made);
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
