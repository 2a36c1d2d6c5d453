package nocking.demo;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.UnaryOperator;
import nocking.analysis.Analysis;
import nocking.analysis.Jobs;
import nocking.analysis.RunDraft;
import nocking.bench.run.Rig;
import nocking.bench.run.RunEngine;
import nocking.bench.simulated.BenchModel;
import nocking.bench.simulated.BesideModel;
import nocking.bench.simulated.Scene;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.procedure.Procedure;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Act;
import nocking.run.Conditions;
import nocking.run.Instrument;
import nocking.run.Purpose;
import nocking.run.RunJournal;
import nocking.run.RunPlan;
import nocking.run.RunPoint;
import nocking.run.RunProgress;
import nocking.run.RunSnapshot;
import nocking.run.SetPoints;
import nocking.run.Sweep;

/**
 * The runs of the demo book, made on the simulated bench. One was broken off by a power cut and
 * waits to be gone on with.
 */
public final class HatcheryRuns {
  /** 2 April 2026, nine in the morning. */
  private static final long START = 1_775_120_400_000L;

  private static final long DAY = 86_400_000L;

  /** Sweeps after which the power goes. */
  private static final int POWER_CUT = 150;

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
      Channel c = book.byTag(whole[i]).orElseThrow();
      var bench = new BenchModel(Scene.of(c.tag()).orElseThrow(), seed + i);
      runs.add(carryOut(List.of(c), bench, START + i * DAY, p -> p, Integer.MAX_VALUE));
    }
    runs.add(pours(book, seed + 5, START + 5 * DAY));
    runs.add(job(book.byTag("FD-S1").orElseThrow(), "positions", seed + 6, START + 6 * DAY));
    runs.add(job(book.byTag("SG-P1").orElseThrow(), "mechanical", seed + 7, START + 7 * DAY));
    Channel blower = book.byTag("BL-P1").orElseThrow();
    var pump = new BenchModel(Scene.of(blower.tag()).orElseThrow(), seed + 9);
    runs.add(carryOut(List.of(blower), pump, START + 9 * DAY, p -> p, POWER_CUT));
    return List.copyOf(runs);
  }

  /** Both probes of the sump at once, 50 L a pour. */
  private static Recorded pours(Book book, long seed, long start) {
    List<Channel> both =
        List.of(book.byTag("SP-V1").orElseThrow(), book.byTag("SP-V2").orElseThrow());
    var model = new BenchModel(Scene.of("SP-V1").orElseThrow(), seed);
    List<Value> totals = SetPoints.parse("50…600 / 50", Unit.of("L"));
    return carryOut(
        both,
        model,
        start,
        p -> RunDraft.pours(p.withSetPoints(totals), Analysis.of(both.getFirst())),
        Integer.MAX_VALUE);
  }

  /** A procedure whose title begins so. */
  private static Recorded job(Channel c, String title, long seed, long start) {
    Procedure job =
        Jobs.of(Analysis.of(c)).stream()
            .filter(p -> p.title().startsWith(title))
            .findFirst()
            .orElseThrow();
    var model = new BenchModel(Scene.of(c.tag(), job).orElseThrow(), seed);
    return carryOut(List.of(c), model, start, p -> Jobs.plan(p, job, c), Integer.MAX_VALUE);
  }

  /**
   * @param how makes the plan of the usual one
   * @param sweeps after which the power goes
   */
  private static Recorded carryOut(
      List<Channel> channels,
      BenchModel model,
      long start,
      UnaryOperator<RunPlan> how,
      int sweeps) {
    var bench = new BesideModel(model, start);
    List<Instrument> meters =
        channels.stream()
            .map(c -> bench.meter(model.scene().place(c.tag()).orElseThrow()))
            .toList();
    RunPlan plan =
        how.apply(
                RunDraft.plan(
                    channels.stream().map(Analysis::of).toList(), bench.reference(), meters))
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
    var hands = new Hands(model);
    engine[0] =
        new RunEngine(
            progress, journal, new Rig(plan, bench), bench, s -> hands.help(s, engine[0]));
    Analysis subject = Analysis.of(channels.getFirst());
    engine[0].closing(p -> Jobs.closing(p, subject)).run();
    String job = plan.procedure() == null ? "" : "-" + plan.procedure().title().split(" ")[0];
    String id = "run-" + channels.getFirst().tag().toLowerCase(Locale.ROOT) + job;
    return new Recorded(id, start, plan, lines);
  }

  /** Does what a step asks hands for, once each. */
  private static final class Hands {
    private final BenchModel model;
    private int done = -1;

    Hands(BenchModel model) {
      this.model = model;
    }

    void help(RunSnapshot now, RunEngine engine) {
      if (!now.hands() || now.step().isEmpty() || now.next() == done) return;
      done = now.next();
      model.doIt(now.step().get().deed());
      engine.ask(Act.Kind.READY, "");
    }
  }
}
