package nocking.cli;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
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
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Act;
import nocking.run.Instrument;
import nocking.run.RunChannel;
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

    /** True for a sweep that completes a point. */
    default boolean completes() {
      return false;
    }
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
  private static List<Line> whole(BenchServer bench, RunPlan plan) throws IOException {
    var lines = new ArrayList<Line>();
    var journal =
        new RunJournal() {
          @Override
          public void append(Sweep sweep, Optional<RunPoint> completes) {
            lines.add(
                new Line() {
                  @Override
                  public void into(RunJournal journal) {
                    journal.append(sweep, completes);
                  }

                  @Override
                  public boolean completes() {
                    return completes.isPresent();
                  }
                });
          }

          @Override
          public void append(Act act) {
            lines.add(j -> j.append(act));
          }
        };
    try (var clock = new SteppedClock(bench.control(), START)) {
      new RunEngine(new RunProgress(plan), journal, new Rig(plan), clock, s -> {}).run();
    }
    return lines;
  }

  @Test
  void eachPointIsInTheChannelOnceWhereverItEnded() throws IOException {
    List<Line> lines;
    try (var bench = pump()) {
      lines = whole(bench, plan(bench));
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

  /**
   * Begun with the meter's volts taken for millivolts, put right half way: the points that were
   * there count in volts, as near to those of a right run as its own are; the readings stay in the
   * book as they came, and nothing was mixed without a yes.
   */
  @Test
  void aCorrectedUnitCountsForWhatWasRead() throws IOException {
    List<Line> lines;
    int first;
    RunPlan wrong;
    try (var bench = pump()) {
      RunPlan right = plan(bench);
      RunChannel c = right.channels().getFirst();
      var meter =
          Instrument.of(
              c.meter().name(),
              c.meter().language(),
              c.meter().address(),
              c.meter().ask(),
              Unit.of("mV"));
      wrong =
          right.withChannels(
              List.of(new RunChannel(c.channel(), c.tag(), c.raw(), meter, c.settle(), c.place())));
      var points = new ArrayList<Integer>();
      lines = whole(bench, wrong);
      for (int i = 0; i < lines.size(); i++) if (lines.get(i).completes()) points.add(i);
      first = points.getFirst() + 1;
    }
    Path book = folder.resolve("b.nocking");
    try (var bench = pump()) {
      RunPlan right = plan(bench);
      try (BookFile file = BookFile.open(book, Clock.systemUTC())) {
        file.save(channel, "start");
        RunJournal journal = file.begin("r", wrong);
        for (Line l : lines.subList(0, first)) l.into(journal);
      }
      Path written = folder.resolve("plan.json");
      Files.writeString(written, RunJson.planFile(right));
      List<Object> words =
          List.of("run", written, "--book", book, "--resume", "--bench", bench.control());
      Console refused = Console.run(words.toArray());
      assertThat(refused.code()).isEqualTo(NockingCli.BAD_INPUT);
      assertThat(refused.err()).contains("answers in 'V', it was begun with 'mV'", "--corrected");
      Console on = Console.run(Stream.concat(words.stream(), Stream.of("--corrected")).toArray());
      assertThat(on.code()).as(on.err()).isZero();
      assertThat(on.err()).contains("what was read so far counts by it");
    }
    try (BookFile file = BookFile.openToRead(book, Clock.systemUTC())) {
      assertThat(file.problems()).isEmpty();
      StoredRun run = file.runs().getFirst();
      assertThat(run.plan()).as("what it was begun with stays").isEqualTo(wrong);
      List<RunPoint> points = run.progress().points();
      assertThat(points).hasSize(3);
      RunPoint asRead =
          (RunPoint) run.entries().stream().filter(RunPoint.class::isInstance).findFirst().get();
      assertThat(points.getFirst().mean(0)).isCloseTo(1000 * asRead.mean(0), within(1e-9));
      Channel c = file.read().channels().getFirst();
      List<ReferencePoint> all = c.calibration().points().points();
      Analysis a = Analysis.of(channel);
      for (ReferencePoint p : all.subList(all.size() - 3, all.size())) {
        double expected = a.design().path().orElseThrow().at(p.applied().number()).output();
        assertThat(p.readings().getFirst().number()).isCloseTo(expected, within(0.1));
      }
    }
  }
}
