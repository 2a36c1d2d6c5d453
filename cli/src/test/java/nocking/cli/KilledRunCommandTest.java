package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.Callable;
import java.util.concurrent.Executors;
import java.util.stream.IntStream;
import nocking.analysis.Analysis;
import nocking.analysis.Jobs;
import nocking.analysis.RunDraft;
import nocking.analysis.RunExpectation;
import nocking.bench.simulated.BenchModel;
import nocking.bench.simulated.BenchServer;
import nocking.bench.simulated.Scene;
import nocking.book.BookFile;
import nocking.channel.Channel;
import nocking.channel.RunJson;
import nocking.demo.Hatchery;
import nocking.points.ReferencePoint;
import nocking.procedure.ZeroAndSpan;
import nocking.quantity.Value;
import nocking.run.RunPlan;
import nocking.run.RunPoint;
import nocking.run.RunProgress.Phase;
import nocking.run.StoredRun;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * The command itself is killed, aimed at each kind of step from its first line to behind its last
 * one, and gone on with: each point of its journal is in the channel once, and what a procedure
 * found is taken over once. {@code -Dnocking.run.kills=300} kills as often as was once asked for.
 */
@Tag("campaign")
class KilledRunCommandTest {
  private static final int KILLS = Integer.getInteger("nocking.run.kills", 18);
  private static final int AT_ONCE = 2;

  @TempDir Path folder;

  /** Where a kill is aimed at: the line of the command behind which it comes. */
  private enum Aim {
    BEGIN("to "),
    POINT("point 1"),
    LATER("point 2"),
    /** Its last point: the end, and the points into the channel, come behind it. */
    END("point 3"),
    STEP("step 2"),
    LAST_STEP("step 3");

    final String line;

    Aim(String line) {
      this.line = line;
    }
  }

  private final Channel channel = Hatchery.book(Hatchery.SEED).byTag("BL-P1").orElseThrow();

  @Test
  void eachPointIsInItsChannelOnceWhereverItWasKilled() throws Exception {
    Map<Aim, Integer> cut = new EnumMap<>(Aim.class);
    try (var pool = Executors.newFixedThreadPool(AT_ONCE)) {
      List<Callable<Boolean>> cases =
          IntStream.range(0, KILLS).<Callable<Boolean>>mapToObj(i -> () -> killed(i)).toList();
      var results = pool.invokeAll(cases);
      for (int i = 0; i < KILLS; i++) {
        if (results.get(i).get()) cut.merge(aim(i), 1, Integer::sum);
      }
    }
    // Some have ended before the signal comes; of each kind most have not.
    assertThat(cut).containsKeys(Aim.values());
    assertThat(cut.values().stream().mapToInt(n -> n).sum()).isGreaterThan(KILLS / 2);
  }

  private static Aim aim(int i) {
    return Aim.values()[i % Aim.values().length];
  }

  private RunPlan plan(BenchServer bench, boolean procedure) {
    Analysis a = Analysis.of(channel);
    RunPlan p = RunDraft.plan(List.of(a), bench.reference(), List.of(bench.meter(0)));
    if (!procedure) return p.withSetPoints(List.of(Value.of(20), Value.of(40)));
    var zero = Jobs.of(a).stream().filter(ZeroAndSpan.class::isInstance).findFirst().orElseThrow();
    return Jobs.plan(p, zero, channel);
  }

  /** True when it was killed before its end. */
  private boolean killed(int i) throws Exception {
    boolean procedure = aim(i) == Aim.STEP || aim(i) == Aim.LAST_STEP;
    Path home = Files.createDirectory(folder.resolve("k" + i));
    Path book = home.resolve("b.nocking");
    try (var bench = new BenchServer(new BenchModel(Scene.named("pump").orElseThrow(), i), 0)) {
      RunPlan plan =
          RunExpectation.in(plan(bench, procedure), id -> Optional.of(Analysis.of(channel)));
      Path written = Files.writeString(home.resolve("plan.json"), RunJson.planFile(plan));
      try (BookFile file = BookFile.open(book, Clock.systemUTC())) {
        file.save(channel, "start");
      }
      var words = new ArrayList<>(List.of("run", written.toString(), "--book", book.toString()));
      words.addAll(List.of("--bench", bench.control()));
      if (procedure) words.addAll(List.of("--yes", "--adopt"));
      boolean cut = killAt(home, words, aim(i), new Random(i));
      words.add("--resume");
      Console on = Console.run(words.toArray());
      boolean none = on.err().contains("no run of this plan waits");
      assertThat(on.code() == 0 || none).as("%d: %s", i, on.err()).isTrue();
      Console again = Console.run(words.toArray());
      assertThat(again.code() == 0 || again.err().contains("no run of this plan waits"))
          .as("%d: %s", i, again.err())
          .isTrue();
      check(book, procedure, "kill %d, %s: %s".formatted(i, aim(i), on.err()));
      return cut;
    }
  }

  /** Kills the command some instant behind a line that it says; the instant is any. */
  private static boolean killAt(Path home, List<String> words, Aim aim, Random random)
      throws Exception {
    Process p =
        CommandProcess.of(home, words.toArray(new String[0])).redirectErrorStream(true).start();
    boolean aimed = false;
    try (BufferedReader out = p.inputReader()) {
      for (String l = out.readLine(); l != null && !aimed; l = out.readLine()) {
        aimed = l.startsWith(aim.line);
        if (aimed) break;
      }
      long until = System.nanoTime() + random.nextInt(60_000_000);
      while (System.nanoTime() < until && p.isAlive()) Thread.onSpinWait();
      p.toHandle().destroyForcibly();
      out.lines().forEach(l -> {});
    }
    assertThat(aimed).as("%s was said", aim.line).isTrue();
    return p.waitFor() != 0;
  }

  private void check(Path book, boolean procedure, String as) {
    try (BookFile file = BookFile.openToRead(book, Clock.systemUTC())) {
      assertThat(file.problems()).as(as).isEmpty();
      List<StoredRun> runs = file.runs();
      assertThat(runs).as(as).hasSize(1);
      assertThat(runs.getFirst().progress().phase()).as(as).isEqualTo(Phase.DONE);
      List<RunPoint> journal = runs.getFirst().progress().points();
      Channel now = file.read().channels().getFirst();
      List<ReferencePoint> points = now.calibration().points().points();
      int had = channel.calibration().points().points().size();
      if (procedure) {
        assertThat(now.calibration().trim()).as(as).isNotNull();
        assertThat(points).as(as).hasSize(had);
        return;
      }
      assertThat(journal).as(as).extracting(RunPoint::target).containsExactly(0, 1, 2);
      assertThat(points.subList(had, points.size()))
          .as(as)
          .extracting(q -> q.taken().target() - 1)
          .containsExactly(0, 1, 2);
    }
  }
}
