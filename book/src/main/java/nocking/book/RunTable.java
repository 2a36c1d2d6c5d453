package nocking.book;

import java.sql.PreparedStatement;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Types;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import nocking.book.internal.Hash;
import nocking.book.internal.RunningHash;
import nocking.book.internal.SqliteDialect;
import nocking.channel.RunJson;
import nocking.run.RunEntry;
import nocking.run.RunPlan;
import nocking.run.StoredRun;
import nocking.run.Sweep;
import org.jdbi.v3.core.Handle;
import org.jdbi.v3.core.transaction.TransactionException;

/** Runs and their readings in the tables of a book. */
final class RunTable {
  /** First version of the schema that has runs. */
  private static final int WITH_RUNS = 5;

  private static final String CHAIN_START = "run";

  /** The end of a run's chain: what the next entry follows from. */
  record Tail(int number, String hash, long sweeps) {}

  private final Handle handle;
  private final String fileName;

  RunTable(Handle handle, String fileName) {
    this.handle = handle;
    this.fileName = fileName;
  }

  private boolean lacking() {
    return SqliteDialect.version(handle) < WITH_RUNS;
  }

  /** All runs, the newest first; one that cannot be read is set aside. */
  List<StoredRun> list(SetAside aside) {
    if (lacking()) return List.of();
    return handle
        .createQuery("SELECT id, began_at, title, plan FROM run ORDER BY began_at DESC, id")
        .map(
            (r, c) ->
                aside.read(
                    "run " + r.getString(3),
                    () -> stored(r.getString(1), r.getString(2), r.getString(4))))
        .list()
        .stream()
        .flatMap(Optional::stream)
        .toList();
  }

  private StoredRun stored(String id, String began, String plan) {
    long sweeps = sweeps(id);
    long last = sweepsOfPoints(id);
    List<RunEntry> entries = entries(id);
    return new StoredRun(
        id,
        entries.isEmpty() ? BookLog.time(began).toEpochMilli() : entries.getFirst().at(),
        RunJson.readPlan(plan, fileName),
        entries,
        sweeps,
        sweeps - last);
  }

  private List<RunEntry> entries(String id) {
    return handle
        .createQuery("SELECT kind, document FROM run_entry WHERE run_id = ? ORDER BY number")
        .bind(0, id)
        .map((r, c) -> RunJson.readEntry(r.getString(1), r.getString(2), fileName))
        .list();
  }

  long sweeps(String id) {
    return handle
        .createQuery("SELECT COALESCE(MAX(sweep), 0) FROM reading WHERE run_id = ?")
        .bind(0, id)
        .mapTo(Long.class)
        .one();
  }

  /** The newest sweep that belongs to a point which is done with. */
  private long sweepsOfPoints(String id) {
    return handle
        .createQuery("SELECT COALESCE(MAX(sweeps), 0) FROM run_entry WHERE run_id = ? AND kind = ?")
        .bind(0, id)
        .bind(1, RunJson.POINT)
        .mapTo(Long.class)
        .one();
  }

  Optional<Tail> tail(String id) {
    return handle
        .createQuery(
            """
            SELECT number, hash, sweeps FROM run_entry
            WHERE run_id = ? ORDER BY number DESC LIMIT 1
            """)
        .bind(0, id)
        .map((r, c) -> new Tail(r.getInt(1), r.getString(2), r.getLong(3)))
        .findOne();
  }

  /** Adds a run; returns the hash of its plan for the log. */
  String add(String id, String began, RunPlan plan) {
    String document = RunJson.compact(plan);
    handle.execute(
        "INSERT INTO run (id, began_at, title, plan) VALUES (?, ?, ?, ?)",
        id,
        began,
        plan.title(),
        document);
    return Hash.of(document);
  }

  /** A statement that is asked for thousands of times is made once. */
  PreparedStatement toInsertReadings() {
    try {
      return handle
          .getConnection()
          .prepareStatement(
              """
              INSERT INTO reading (run_id, sweep, channel, at, target, applied, raw)
              VALUES (?, ?, ?, ?, ?, ?, ?)
              """);
    } catch (SQLException e) {
      throw new TransactionException(e);
    }
  }

  /** Adds the readings of a sweep. */
  static void insert(PreparedStatement s, String id, long number, Sweep sweep) {
    try {
      for (int i = 0; i < sweep.raw().size(); i++) {
        s.setString(1, id);
        s.setLong(2, number);
        s.setInt(3, i);
        s.setLong(4, sweep.at());
        s.setInt(5, sweep.target());
        number(s, 6, sweep.applied());
        number(s, 7, sweep.raw().get(i));
        s.executeUpdate();
      }
    } catch (SQLException e) {
      throw new TransactionException(e);
    }
  }

  private static void number(PreparedStatement s, int column, double v) throws SQLException {
    if (Double.isFinite(v)) s.setDouble(column, v);
    else s.setNull(column, Types.DOUBLE);
  }

  /** Adds an entry behind the tail; returns the new one. */
  Tail insert(String id, Tail tail, RunEntry entry, long sweeps, String readings) {
    String document = RunJson.compact(entry);
    String kind = RunJson.kind(entry);
    int number = tail.number + 1;
    String hash = hash(tail.hash, number, kind, sweeps, document, readings);
    handle.execute(
        """
        INSERT INTO run_entry (run_id, number, at, kind, sweeps, document, hash)
        VALUES (?, ?, ?, ?, ?, ?, ?)
        """,
        id,
        number,
        entry.at(),
        kind,
        sweeps,
        document,
        hash);
    return new Tail(number, hash, sweeps);
  }

  private static String hash(
      String before, int number, String kind, long sweeps, String document, String readings) {
    return Hash.of(
        before, String.valueOf(number), kind, String.valueOf(sweeps), document, readings);
  }

  static Tail start() {
    return new Tail(0, CHAIN_START, 0);
  }

  /** Takes a reading into a hash as it is stored. */
  static void digest(
      RunningHash hash, long sweep, int channel, long at, int target, double applied, double raw) {
    hash.take(
        sweep + " " + channel + " " + at + " " + target + " " + text(applied) + " " + text(raw));
  }

  private static String text(double v) {
    // The database knows no negative zero.
    return Double.isFinite(v) ? Double.toString(v + 0.0) : "";
  }

  /** Readings of a run behind a sweep, one after the other. */
  void readings(String id, long behind, Consumer<Reading> each) {
    try (var rows =
        handle
            .createQuery(
                """
                SELECT sweep, channel, at, target, applied, raw FROM reading
                WHERE run_id = ? AND sweep > ? ORDER BY sweep, channel
                """)
            .bind(0, id)
            .bind(1, behind)
            .map((r, c) -> reading(r))
            .iterator()) {
      while (rows.hasNext()) each.accept(rows.next());
    }
  }

  /** A row of the readings. */
  record Reading(long sweep, int channel, long at, int target, double applied, double raw) {}

  private static Reading reading(ResultSet r) throws SQLException {
    double applied = r.getDouble(5);
    if (r.wasNull()) applied = Double.NaN;
    double raw = r.getDouble(6);
    if (r.wasNull()) raw = Double.NaN;
    return new Reading(r.getLong(1), r.getInt(2), r.getLong(3), r.getInt(4), applied, raw);
  }

  /**
   * Adds what is wrong with the runs.
   *
   * @param logged hashes that the log has of plans and of ends
   */
  void check(List<String> problems, List<String> logged) {
    if (lacking()) return;
    var known = new HashSet<>(logged);
    var plans = new HashSet<String>();
    handle
        .createQuery("SELECT id, title, plan FROM run ORDER BY id")
        .map(
            (r, c) -> {
              String plan = Hash.of(r.getString(3));
              plans.add(plan);
              if (!known.contains(plan)) {
                problems.add("the plan of run %s was changed".formatted(r.getString(2)));
              }
              check(problems, r.getString(1), r.getString(2), known);
              return plan;
            })
        .list();
    if (!plans.containsAll(plansAmong(known))) {
      problems.add("a run that the log knows is missing");
    }
  }

  private Set<String> plansAmong(Set<String> known) {
    var left = new HashSet<>(known);
    handle.createQuery("SELECT hash FROM run_entry").mapTo(String.class).forEach(left::remove);
    return left;
  }

  private void check(List<String> problems, String id, String title, Set<String> known) {
    record Line(int number, String kind, long sweeps, String document, String hash) {}
    List<Line> lines =
        handle
            .createQuery(
                """
                SELECT number, kind, sweeps, document, hash FROM run_entry
                WHERE run_id = ? ORDER BY number
                """)
            .bind(0, id)
            .map(
                (r, c) ->
                    new Line(
                        r.getInt(1), r.getString(2), r.getLong(3), r.getString(4), r.getString(5)))
            .list();
    var hashes = new ArrayList<String>();
    var open = new RunningHash();
    int[] line = {0};
    readings(
        id,
        0,
        reading -> {
          while (line[0] < lines.size() && lines.get(line[0]).sweeps < reading.sweep) {
            hashes.add(open.end());
            line[0]++;
          }
          digest(
              open,
              reading.sweep,
              reading.channel,
              reading.at,
              reading.target,
              reading.applied,
              reading.raw);
        });
    while (hashes.size() < lines.size()) hashes.add(open.end());
    String before = CHAIN_START;
    for (int i = 0; i < lines.size(); i++) {
      Line l = lines.get(i);
      String hash = hash(before, i + 1, l.kind, l.sweeps, l.document, hashes.get(i));
      if (!hash.equals(l.hash)) {
        problems.add("run %s: entry %d or a reading before it was changed".formatted(title, i + 1));
        return;
      }
      before = l.hash;
    }
    boolean ended = !lines.isEmpty() && Set.of("end", "stop").contains(lines.getLast().kind);
    if (ended && !known.contains(before)) {
      problems.add("run %s does not end as the log says".formatted(title));
    }
  }
}
