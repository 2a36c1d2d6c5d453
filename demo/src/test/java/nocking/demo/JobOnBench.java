package nocking.demo;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.IntSupplier;
import nocking.analysis.Analysis;
import nocking.analysis.Jobs;
import nocking.analysis.RunDraft;
import nocking.analysis.RunExpectation;
import nocking.bench.instrument.InstrumentException;
import nocking.bench.instrument.Reference;
import nocking.bench.run.Rig;
import nocking.bench.run.RunEngine;
import nocking.bench.run.RunEngine.Unattended;
import nocking.bench.simulated.BenchModel;
import nocking.bench.simulated.BesideModel;
import nocking.bench.simulated.Scene;
import nocking.channel.Channel;
import nocking.procedure.Procedure;
import nocking.run.Act;
import nocking.run.Instrument;
import nocking.run.RunJournal;
import nocking.run.RunPlan;
import nocking.run.RunPoint;
import nocking.run.RunProgress;
import nocking.run.RunProgress.Phase;
import nocking.run.RunSnapshot;
import nocking.run.Sweep;

/** A procedure on the simulated bench of its channel, whose hands are done at once. */
final class JobOnBench {
  private static final long START = 1_795_000_000_000L;

  /** What the meter says instead of the volts that are there. */
  interface Altered {
    double volts(double sound, int step, double seconds);
  }

  private final Analysis analysis;
  private final BenchModel model;
  private final BesideModel bench;
  private final Instrument meter;
  private final RunPlan plan;
  private final List<Double> seconds = new ArrayList<>();

  JobOnBench(Channel c, Procedure job) {
    analysis = Analysis.of(c);
    Scene scene = Scene.of(c.tag(), job).orElseThrow();
    model = new BenchModel(scene, 83);
    bench = new BesideModel(model, START);
    meter = bench.meter(scene.place(c.tag()).orElseThrow());
    plan = Jobs.plan(RunDraft.plan(List.of(analysis), bench.reference(), List.of(meter)), job, c);
  }

  /** The plan as it is drafted. */
  RunPlan plan() {
    return plan;
  }

  /** Carries a plan out; a word of the bench's hands for each step. */
  RunProgress carryOut(RunPlan given, Unattended then, Altered what) {
    RunPlan p = RunExpectation.in(given, id -> Optional.of(analysis));
    var progress = new RunProgress(p);
    Rig.Reach reach =
        i ->
            i.address().equals(meter.address())
                ? altered(bench.open(i), what, progress::next)
                : bench.open(i);
    int[] done = {-1};
    double[] since = {0};
    RunEngine[] engine = new RunEngine[1];
    engine[0] =
        new RunEngine(
                progress,
                timed(since),
                new Rig(p, reach),
                bench,
                s -> hands(s, engine[0], done, since))
            .forbidding(q -> Jobs.forbids(q, analysis))
            .unattended(then);
    engine[0].run();
    return progress;
  }

  /** Bench seconds between the hands' word, or the reference's arrival, and what was taken. */
  List<Double> seconds() {
    return List.copyOf(seconds);
  }

  private void hands(RunSnapshot s, RunEngine engine, int[] done, double[] since) {
    if (s.phase() == Phase.APPROACHING) since[0] = model.seconds();
    if (!s.hands() || s.step().isEmpty() || s.next() == done[0]) return;
    done[0] = s.next();
    model.doIt(s.step().get().deed());
    engine.ask(Act.Kind.READY, "");
  }

  private Reference altered(Reference sound, Altered what, IntSupplier step) {
    return new Reference() {
      @Override
      public String identity() {
        return "";
      }

      @Override
      public double read() throws InstrumentException {
        return what.volts(sound.read(), step.getAsInt(), model.seconds());
      }

      @Override
      public void bringTo(double setPoint) {}

      @Override
      public void close() {}
    };
  }

  private RunJournal timed(double[] since) {
    return new RunJournal() {
      @Override
      public void append(Sweep sweep, Optional<RunPoint> completes) {
        if (completes.isPresent()) seconds.add(model.seconds() - since[0]);
      }

      @Override
      public void append(Act act) {}
    };
  }
}
