package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import nocking.analysis.Analysis;
import nocking.analysis.RunDraft;
import nocking.analysis.RunExpectation;
import nocking.bench.run.Rig;
import nocking.bench.run.RunEngine;
import nocking.bench.simulated.BenchModel;
import nocking.bench.simulated.BenchServer;
import nocking.bench.simulated.Scene;
import nocking.bench.simulated.SteppedClock;
import nocking.book.BookFile;
import nocking.channel.Channel;
import nocking.channel.RunJson;
import nocking.demo.Hatchery;
import nocking.points.ReferencePoint;
import nocking.quantity.Value;
import nocking.run.Act;
import nocking.run.RunJournal;
import nocking.run.RunPlan;
import nocking.run.RunPoint;
import nocking.run.RunProgress;
import nocking.run.StoredRun;
import nocking.run.Sweep;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/**
 * A run that ended between any two lines of its journal is gone on with, and each point of the
 * journal is in the channel once: the end, behind which the points are put in, among them.
 */
class ResumeAnywhereTest {
  private static final long START = 1_795_000_000_000L;

  @TempDir Path folder;

  /** A line of a journal. */
  private interface Line {
    void into(RunJournal journal);
  }

  private final Channel channel = Hatchery.book(Hatchery.SEED).byTag("BL-P1").orElseThrow();

  private RunPlan plan(BenchServer bench) {
    Analysis a = Analysis.of(channel);
    RunPlan p = RunDraft.plan(List.of(a), bench.reference(), List.of(bench.meter(0)));
    return RunExpectation.in(
        p.withSetPoints(List.of(Value.of(20), Value.of(40))), id -> Optional.of(a));
  }

  private static BenchServer pump() throws IOException {
    return new BenchServer(new BenchModel(Scene.named("pump").orElseThrow(), 9), 0);
  }

  /** All lines of a whole run. */
  private List<Line> whole(BenchServer bench) throws IOException {
    var lines = new ArrayList<Line>();
    var journal =
        new RunJournal() {
          @Override
          public void append(Sweep sweep, Optional<RunPoint> completes) {
            lines.add(j -> j.append(sweep, completes));
          }

          @Override
          public void append(Act act) {
            lines.add(j -> j.append(act));
          }
        };
    RunPlan plan = plan(bench);
    try (var clock = new SteppedClock(bench.control(), START)) {
      new RunEngine(new RunProgress(plan), journal, new Rig(plan), clock, s -> {}).run();
    }
    return lines;
  }

  @Test
  void eachPointIsInTheChannelOnceWhereverItEnded() throws IOException {
    List<Line> lines;
    try (var bench = pump()) {
      lines = whole(bench);
    }
    int had = channel.calibration().points().points().size();
    for (int cut = 0; cut <= lines.size(); cut++) {
      // The first lines, the last ones, and some between.
      boolean asked = cut < 3 || cut > lines.size() - 12 || cut % 7 == 0;
      if (!asked) continue;
      Path book = folder.resolve("b%d.nocking".formatted(cut));
      try (var bench = pump()) {
        RunPlan plan = plan(bench);
        try (BookFile file = BookFile.open(book, Clock.systemUTC())) {
          file.save(channel, "start");
          RunJournal journal = file.begin("r", plan);
          for (Line l : lines.subList(0, cut)) l.into(journal);
        }
        Path written = folder.resolve("plan.json");
        Files.writeString(written, RunJson.planFile(plan));
        Console on =
            Console.run(
                "run",
                written.toString(),
                "--book",
                book.toString(),
                "--resume",
                "--bench",
                bench.control());
        assertThat(on.code()).as("cut at %d: %s", cut, on.err()).isZero();
        Console again =
            Console.run("run", written.toString(), "--book", book.toString(), "--resume");
        assertThat(again.err()).as("cut at %d", cut).contains("no run of this plan waits");
      }
      try (BookFile file = BookFile.openToRead(book, Clock.systemUTC())) {
        assertThat(file.problems()).isEmpty();
        List<StoredRun> runs = file.runs();
        assertThat(runs).as("cut at %d", cut).hasSize(1);
        List<RunPoint> journal = runs.getFirst().progress().points();
        List<ReferencePoint> points =
            file.read().channels().getFirst().calibration().points().points();
        assertThat(points.subList(had, points.size()))
            .as("cut at %d", cut)
            .extracting(p -> p.taken().target() - 1)
            .containsExactlyElementsOf(journal.stream().map(RunPoint::target).toList());
        assertThat(journal).extracting(RunPoint::target).containsExactly(0, 1, 2);
      }
    }
  }
}
