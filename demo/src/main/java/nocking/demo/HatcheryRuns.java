package nocking.demo;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import nocking.analysis.Analysis;
import nocking.analysis.RunDraft;
import nocking.bench.run.Rig;
import nocking.bench.run.RunEngine;
import nocking.bench.simulated.BenchModel;
import nocking.bench.simulated.BesideModel;
import nocking.bench.simulated.Scene;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.run.Act;
import nocking.run.Conditions;
import nocking.run.Purpose;
import nocking.run.RunJournal;
import nocking.run.RunPlan;
import nocking.run.RunPoint;
import nocking.run.RunProgress;
import nocking.run.Sweep;

/**
 * The runs of the demo book, made on the simulated bench. One was broken off by a power cut and
 * waits to be gone on with.
 */
public final class HatcheryRuns {
  /** 2 April 2026, nine in the morning. */
  private static final long START = 1_775_120_400_000L;

  private static final long DAY = 86_400_000L;

  private HatcheryRuns() {}

  /** A run as it was written down. */
  public record Recorded(String id, long began, RunPlan plan, List<Line> lines) {
    /** Writes all of it into a journal. */
    public void into(RunJournal journal) {
      for (Line l : lines) {
        switch (l) {
          case Line.Read r -> journal.append(r.sweep, r.completes);
          case Line.Done d -> journal.append(d.act);
        }
      }
    }
  }

  /** A line of a journal. */
  private sealed interface Line {
    record Read(Sweep sweep, Optional<RunPoint> completes) implements Line {}

    record Done(Act act) implements Line {}
  }

  /** All runs of a book; the same seed gives the same readings. */
  public static List<Recorded> of(Book book, long seed) {
    var runs = new ArrayList<Recorded>();
    String[] whole = {"RW-T1", "SG-P1", "HD-L1", "GV-P1"};
    for (int i = 0; i < whole.length; i++) {
      runs.add(
          carryOut(
              book.byTag(whole[i]).orElseThrow(), seed + i, START + i * DAY, Integer.MAX_VALUE));
    }
    runs.add(carryOut(book.byTag("BL-P1").orElseThrow(), seed + 9, START + 9 * DAY, 150));
    return List.copyOf(runs);
  }

  /**
   * @param sweeps after which the power goes
   */
  private static Recorded carryOut(Channel c, long seed, long start, int sweeps) {
    Scene scene = Scene.of(c.tag()).orElseThrow();
    var model = new BenchModel(scene, seed);
    var bench = new BesideModel(model, start);
    int sensor = scene.place(c.tag()).orElseThrow();
    RunPlan plan =
        RunDraft.plan(List.of(Analysis.of(c)), bench.reference(), List.of(bench.meter(sensor)))
            .withPurpose(Purpose.AS_FOUND)
            .withConditions(new Conditions("KS", "18 °C", "", "", ""));
    var lines = new ArrayList<Line>();
    var progress = new RunProgress(plan);
    RunEngine[] engine = new RunEngine[1];
    var journal =
        new RunJournal() {
          private int count;

          @Override
          public void append(Sweep sweep, Optional<RunPoint> completes) {
            lines.add(new Line.Read(sweep, completes));
            if (++count == sweeps) engine[0].breakOff();
          }

          @Override
          public void append(Act act) {
            lines.add(new Line.Done(act));
          }
        };
    engine[0] = new RunEngine(progress, journal, new Rig(plan, bench), bench, s -> {});
    engine[0].run();
    return new Recorded("run-" + c.tag().toLowerCase(Locale.ROOT), start, plan, lines);
  }
}
