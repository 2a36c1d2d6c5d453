package nocking.benchmarks;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.PreparedStatement;
import java.sql.SQLException;
import java.time.Clock;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import nocking.book.BookFile;
import nocking.points.RawUnit;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Conditions;
import nocking.run.Course;
import nocking.run.Instrument;
import nocking.run.Purpose;
import nocking.run.RunChannel;
import nocking.run.RunJournal;
import nocking.run.RunPlan;
import nocking.run.RunProgress;
import nocking.run.SettleRule;
import nocking.run.Sweep;
import nocking.run.Unsettled;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.TearDown;
import org.openjdk.jmh.annotations.Warmup;

/**
 * Sweeps of one and of eight channels into the journal of a run, each on the disk, beside plain
 * commits of one row with the same durability; and the judgement of a sweep by itself.
 */
@State(Scope.Thread)
@BenchmarkMode(Mode.Throughput)
@OutputTimeUnit(TimeUnit.SECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(1)
public class JournalBenchmark {
  private Path folder;
  private BookFile book;
  private RunJournal one;
  private RunJournal eight;
  private RunProgress judged;
  private Connection plain;
  private PreparedStatement insert;
  private long at = 1_795_000_000_000L;

  private static RunPlan plan(int channels) {
    Instrument meter =
        Instrument.of("M", Instrument.Language.SCPI, "127.0.0.1:1", "READ?", Unit.VOLT);
    return new RunPlan(
        "bench" + channels,
        RunPlan.Kind.POINTS,
        "°C",
        IntStream.range(0, channels)
            .mapToObj(
                i ->
                    new RunChannel(
                        "c" + i,
                        "C-" + i,
                        RawUnit.VOLTS,
                        meter,
                        new SettleRule.Stable(1e-9, 1e-9, 30),
                        ""))
            .toList(),
        Instrument.byHand("Bath", Unit.CELSIUS),
        List.of(Value.of(0)),
        Course.UP,
        1,
        1,
        10,
        1,
        1e12,
        0.5,
        Unsettled.TAKE,
        Purpose.DEVELOPMENT,
        Conditions.NONE,
        null,
        null,
        null,
        null);
  }

  @Setup
  public void open() throws IOException, SQLException {
    folder = Files.createTempDirectory("nocking-journal");
    book = BookFile.open(folder.resolve("b.nocking"), Clock.systemUTC());
    one = book.begin("one", plan(1));
    eight = book.begin("eight", plan(8));
    judged = new RunProgress(plan(8));
    plain = DriverManager.getConnection("jdbc:sqlite:" + folder.resolve("plain.db"));
    try (var s = plain.createStatement()) {
      s.execute("PRAGMA journal_mode = WAL");
      s.execute("PRAGMA synchronous = FULL");
      s.execute("CREATE TABLE t (id INTEGER PRIMARY KEY, at INTEGER, applied REAL, raw REAL)");
    }
    insert = plain.prepareStatement("INSERT INTO t (at, applied, raw) VALUES (?, ?, ?)");
  }

  @TearDown
  public void close() throws IOException, SQLException {
    plain.close();
    book.close();
    try (var files = Files.list(folder)) {
      for (Path f : files.toList()) Files.delete(f);
    }
    Files.delete(folder);
  }

  private Sweep sweep(int channels) {
    at += 1000;
    return new Sweep(at, 0, 0.1, Collections.nCopies(channels, 1 + (at % 7000) * 1e-6));
  }

  /** What the database does at most: a row a commit. */
  @Benchmark
  public int plainCommit() throws SQLException {
    Sweep s = sweep(1);
    insert.setLong(1, s.at());
    insert.setDouble(2, s.applied());
    insert.setDouble(3, s.raw().getFirst());
    return insert.executeUpdate();
  }

  @Benchmark
  public void sweepOfOne() {
    one.append(sweep(1), Optional.empty());
  }

  @Benchmark
  public void sweepOfEight() {
    eight.append(sweep(8), Optional.empty());
  }

  /** Whether eight channels have settled, after one more sweep. */
  @Benchmark
  public Object judgement() {
    return judged.take(sweep(8));
  }
}
