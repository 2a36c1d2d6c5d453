package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.stream.IntStream;
import nocking.analysis.Analysis;
import nocking.analysis.RunDraft;
import nocking.bench.simulated.BenchModel;
import nocking.bench.simulated.BenchServer;
import nocking.bench.simulated.Scene;
import nocking.book.BookFile;
import nocking.channel.Channel;
import nocking.channel.RunJson;
import nocking.demo.Hatchery;
import nocking.quantity.Value;
import nocking.run.RunPlan;
import nocking.run.RunProgress.Phase;
import nocking.run.StoredRun;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * Twenty runs, each in a process of its own that is killed at a random instant, once or several
 * times, and gone on with.
 */
@Tag("campaign")
class KilledRunTest {
  private static final int RUNS = 20;
  private static final int AT_ONCE = 2;

  @TempDir Path folder;

  @Test
  void noAcknowledgedReadingIsLostAndNoneIsDoubled() throws Exception {
    try (var pool = Executors.newFixedThreadPool(AT_ONCE)) {
      List<Callable<Integer>> runs =
          IntStream.range(0, RUNS).<Callable<Integer>>mapToObj(i -> () -> carryOut(i)).toList();
      int kills = 0;
      for (var result : pool.invokeAll(runs)) kills += result.get();
      // Some end before the signal comes; most do not.
      assertThat(kills).isGreaterThan(RUNS / 2);
    }
  }

  /** How often it had to be killed. */
  private int carryOut(int seed) throws Exception {
    Path file = folder.resolve("run" + seed + ".nocking");
    Channel channel = Hatchery.book(Hatchery.SEED).byTag("BL-P1").orElseThrow();
    var r = new Random(seed);
    try (var server = new BenchServer(new BenchModel(Scene.named("pump").orElseThrow(), seed), 0)) {
      RunPlan plan = plan(channel, server);
      try (BookFile book = BookFile.open(file, Clock.systemUTC())) {
        book.save(channel, "start");
        book.begin("r", plan);
      }
      var said = new ArrayList<String>();
      int kills = 0;
      int goes = seed % 5 == 0 ? 4 : 2;
      for (int go = 0; go < goes; go++) {
        long started = 1_795_000_000_000L + 100_000_000L * go;
        Process p = start(file, server.control(), started);
        boolean last = go == goes - 1;
        if (!last) kills += killAfter(p, 350 + r.nextInt(650), said) ? 1 : 0;
        else read(p, said);
        if (said.getLast().equals("end")) break;
      }
      check(file, plan, said, "seed " + seed);
      return kills;
    }
  }

  private static RunPlan plan(Channel channel, BenchServer server) {
    RunPlan p =
        RunDraft.plan(List.of(Analysis.of(channel)), server.reference(), List.of(server.meter(0)));
    assertThat(p.setPoints()).hasSize(7).contains(Value.of(60));
    return p.withSetPoints(List.of(Value.of(0), Value.of(30)));
  }

  private static Process start(Path file, String control, long started) throws Exception {
    return new ProcessBuilder(
            Path.of(System.getProperty("java.home"), "bin", "java").toString(),
            "-XX:TieredStopAtLevel=1",
            "-XX:+UseSerialGC",
            "-Dorg.sqlite.tmpdir=" + file.getParent(),
            "-cp",
            System.getProperty("java.class.path"),
            RunningProcess.class.getName(),
            file.toString(),
            control,
            String.valueOf(started))
        .redirectError(ProcessBuilder.Redirect.DISCARD)
        .start();
  }

  /** True when it was killed before its end. */
  private static boolean killAfter(Process p, int milliseconds, List<String> said)
      throws Exception {
    var killer =
        Thread.ofVirtual()
            .start(
                () -> {
                  try {
                    // The instant is what the test is about; nothing is asserted of how long it is.
                    p.waitFor(milliseconds, TimeUnit.MILLISECONDS);
                  } catch (InterruptedException e) {
                    Thread.currentThread().interrupt();
                  }
                  p.toHandle().destroyForcibly();
                });
    read(p, said);
    killer.join();
    return !said.isEmpty() && !said.getLast().equals("end");
  }

  private static void read(Process p, List<String> said) throws Exception {
    try (BufferedReader lines = p.inputReader()) {
      for (String line = lines.readLine(); line != null; line = lines.readLine()) said.add(line);
    }
    p.waitFor();
    if (said.isEmpty()) said.add("nothing");
  }

  private static void check(Path file, RunPlan plan, List<String> said, String as)
      throws SQLException {
    try (BookFile book = BookFile.open(file, Clock.systemUTC())) {
      assertThat(book.problems()).as(as).isEmpty();
      StoredRun run = book.runs().getFirst();
      assertThat(run.progress().phase()).as(as).isEqualTo(Phase.DONE);
      List<String> points =
          run.progress().points().stream().map(RunJson::compact).map(j -> "point " + j).toList();
      assertThat(points).as(as).hasSize(plan.targets().size());
      // What was acknowledged is what stands there, to the last digit and once.
      List<String> acknowledged = said.stream().filter(l -> l.startsWith("point ")).toList();
      assertThat(points).as(as).containsSubsequence(acknowledged);
      assertThat(acknowledged).as(as).doesNotHaveDuplicates();
    }
    try (Connection c = DriverManager.getConnection("jdbc:sqlite:" + file)) {
      List<Long> at = numbers(c, "SELECT at FROM reading ORDER BY sweep");
      assertThat(at).as(as).doesNotHaveDuplicates().isSorted();
      List<Long> acknowledged =
          said.stream()
              .filter(l -> l.startsWith("sweep "))
              .map(l -> Long.parseLong(l.substring(6)))
              .distinct()
              .toList();
      assertThat(at).as(as).containsAll(acknowledged);
    }
  }

  private static List<Long> numbers(Connection c, String sql) throws SQLException {
    var list = new ArrayList<Long>();
    try (var s = c.createStatement();
        var rows = s.executeQuery(sql)) {
      while (rows.next()) list.add(rows.getLong(1));
    }
    return list;
  }
}
