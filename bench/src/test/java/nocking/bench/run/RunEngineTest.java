package nocking.bench.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.DoubleSupplier;
import nocking.bench.instrument.InstrumentException;
import nocking.bench.instrument.InstrumentException.Kind;
import nocking.bench.instrument.Reference;
import nocking.bench.simulated.BenchModel;
import nocking.bench.simulated.BenchServer;
import nocking.bench.simulated.BesideModel;
import nocking.bench.simulated.Fault;
import nocking.bench.simulated.Scene;
import nocking.bench.simulated.SteppedClock;
import nocking.procedure.MechanicalTrim;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Act;
import nocking.run.Corrections;
import nocking.run.Instrument;
import nocking.run.Instrument.Language;
import nocking.run.RunJournal;
import nocking.run.RunPlan;
import nocking.run.RunPoint;
import nocking.run.RunProgress;
import nocking.run.RunProgress.Phase;
import nocking.run.Sweep;
import nocking.run.Unsettled;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Runs against the simulated bench, over its sockets; its time goes on by command. */
class RunEngineTest {
  private static final long START = 1_795_000_000_000L;

  private final MemoryJournal journal = new MemoryJournal();

  private RunProgress carryOut(BenchServer server, RunPlan plan) throws IOException {
    var progress = new RunProgress(plan);
    try (var clock = new SteppedClock(server.control(), START)) {
      new RunEngine(progress, journal, new Rig(plan), clock, s -> {}).run();
    }
    return progress;
  }

  /** Mean of a point against what the sensor gives at what was really applied. */
  private static void isTrue(BenchModel model, RunPlan plan, RunPoint p) {
    Scene scene = model.scene();
    for (int i = 0; i < scene.sensors().size(); i++) {
      var s = scene.sensors().get(i);
      double mean = p.readings().get(i).stream().mapToDouble(v -> v).average().orElseThrow();
      double step = 1e-4 * (1 + Math.abs(p.applied()));
      double slope =
          (model.truth(i, p.applied() + step) - model.truth(i, p.applied() - step)) / (2 * step);
      double stated =
          Math.abs(slope)
                  * (scene.stimulus().scatter()
                      + scene.stimulus().resolution()
                      + scene.stimulus().backlash() / 2
                      + s.hysteresis())
              + 4 * s.scatter() / Math.sqrt(plan.average())
              + s.drift();
      // What the rule leaves of the approach: one hundredth of a step.
      double left = Math.abs(slope) * plan.band() / 5;
      assertThat(mean)
          .as("%s of %s at %s", s.tag(), scene.name(), p.applied())
          .isCloseTo(model.truth(i, p.applied()), within(stated + left));
    }
  }

  @ParameterizedTest
  @ValueSource(strings = {"bath", "pump", "slide", "frame", "oxygen", "mains", "stroke", "well"})
  void fivePointsUpAndDownAreTheTruthWithinTheNoise(String name) throws IOException {
    Scene scene = Scene.named(name).orElseThrow();
    double low = name.equals("bath") ? 4 : Math.max(scene.stimulus().low(), 0);
    double high = Math.min(scene.stimulus().high(), name.equals("bath") ? 14 : 180);
    double d = (high - low) / 5;
    var model = new BenchModel(scene, 7);
    try (var server = new BenchServer(model, 0)) {
      RunPlan plan =
          Plans.of(
              scene,
              server,
              low + d / 2,
              low + 3 * d / 2,
              low + 5 * d / 2,
              low + 7 * d / 2,
              high - d / 2);
      RunProgress progress = carryOut(server, plan);
      assertThat(progress.phase()).isEqualTo(Phase.DONE);
      assertThat(journal.points()).hasSize(9).allMatch(p -> p.how() == RunPoint.How.SETTLED);
      assertThat(journal.troubles()).isEmpty();
      for (RunPoint p : journal.points()) isTrue(model, plan, p);
      assertThat(progress.targets().get(5).down()).isTrue();
    }
  }

  /** The same seed and the same plan: the same readings, bit for bit. */
  @Test
  void theSameSeedGivesTheSameReadings() throws IOException {
    Scene scene = Scene.named("pump").orElseThrow();
    try (var server = new BenchServer(new BenchModel(scene, 3), 0)) {
      carryOut(server, Plans.of(scene, server, 10, 40));
    }
    var second = new RunEngineTest();
    try (var server = new BenchServer(new BenchModel(scene, 3), 0)) {
      second.carryOut(server, Plans.of(scene, server, 10, 40));
    }
    assertThat(second.journal.sweeps).isEqualTo(journal.sweeps);
    var other = new RunEngineTest();
    try (var server = new BenchServer(new BenchModel(scene, 4), 0)) {
      other.carryOut(server, Plans.of(scene, server, 10, 40));
    }
    assertThat(other.journal.sweeps).isNotEqualTo(journal.sweeps);
  }

  /** Lines over TCP, as a serial device server gives them, with a pattern for the field. */
  @Test
  void linesAreReadAsStandardCommandsAre() throws IOException {
    Scene scene = Scene.named("pump").orElseThrow();
    var model = new BenchModel(scene, 5);
    try (var server = new BenchServer(model, 0)) {
      Instrument line =
          server.meter(0).withLanguage(Language.LINES).withAsk("READ?").withPattern("([-+0-9.E]+)");
      RunPlan plan = Plans.of(scene, server.reference(), List.of(line), 10, 30, 50);
      assertThat(carryOut(server, plan).phase()).isEqualTo(Phase.DONE);
      assertThat(journal.points()).hasSize(5);
      for (RunPoint p : journal.points()) isTrue(model, plan, p);
    }
  }

  /**
   * Everything that a bench can do to a run, one after the other at random: it comes to its end,
   * every trouble is in the journal, and what counts is the truth.
   */
  @ParameterizedTest
  @ValueSource(longs = {11, 12, 13})
  void everyFaultIsSurvived(long seed) throws IOException {
    Scene scene = Scene.named("pump").orElseThrow();
    var model = new BenchModel(scene, seed);
    var r = new Random(seed);
    Fault[] kinds = {Fault.DROPPED, Fault.GARBAGE, Fault.SPIKE, Fault.FROZEN, Fault.OVERRANGE};
    try (var server = new BenchServer(model, 0);
        var clock = new SteppedClock(server.control(), START);
        var bench = new BenchHand(server.control())) {
      RunPlan plan = Plans.of(scene, server, 0, 12, 24, 36, 48, 60);
      var progress = new RunProgress(plan);
      var rig = new Rig(plan);
      var turns = new AtomicInteger();
      var made = new HashSet<Fault>();
      var engine =
          new RunEngine(
              progress,
              journal,
              rig,
              clock,
              s -> {
                int turn = turns.incrementAndGet();
                if (turn % 40 == 20) {
                  Fault f = kinds[(turn / 40) % kinds.length];
                  made.add(f);
                  bench.say("SIM:FAULT 1 " + f);
                } else if (turn % 40 == 20 + 3 + r.nextInt(4)) {
                  bench.say("SIM:FAULT 1 NONE");
                } else if (turn % 40 == 30) {
                  bench.say("SIM:FAULT 1 NONE");
                } else if (turn == 155) {
                  rig.movedMeter(0, "127.0.0.1:" + bench.say("SIM:MOVE 1"));
                }
              });
      engine.run();
      assertThat(progress.phase()).isEqualTo(Phase.DONE);
      assertThat(made).contains(kinds);
      assertThat(journal.troubles())
          .anyMatch(t -> t.contains("dropped the connection"))
          .anyMatch(t -> t.contains("expected a number"));
      for (RunPoint p : journal.points()) {
        if (p.how() == RunPoint.How.SETTLED) isTrue(model, plan, p);
      }
      assertThat(journal.points().stream().filter(p -> p.how() == RunPoint.How.SETTLED).count())
          .isGreaterThan(8);
    }
  }

  /**
   * What does not come back is waited for as long as a point may take, and then left as planned.
   */
  @ParameterizedTest
  @EnumSource(Unsettled.class)
  void whatIsLostForGoodLeadsToWhatThePlanSays(Unsettled then) {
    Scene scene = Scene.named("pump").orElseThrow();
    for (Kind kind : List.of(Kind.NO_ANSWER, Kind.ODD_ANSWER, Kind.OVERRANGE, Kind.REFUSED)) {
      var bench = new BesideModel(new BenchModel(scene, 4), START);
      var own = new MemoryJournal();
      RunPlan plan =
          Plans.of(scene, bench.reference(), List.of(bench.meter(0)), 10, 20, 30)
              .withThen(then)
              .withGiveUp(180);
      int[] reads = {0};
      Rig.Reach reach =
          i -> {
            Reference r = bench.open(i);
            boolean meter = !i.address().equals(bench.reference().address());
            return meter ? lost(r, kind, reads) : r;
          };
      var progress = new RunProgress(plan);
      new RunEngine(progress, own, new Rig(plan, reach), bench, s -> {}).run();
      String of = "%s, %s".formatted(kind, then);
      assertThat(progress.phase())
          .as(of)
          .isEqualTo(then == Unsettled.STOP ? Phase.STOPPED : Phase.DONE);
      assertThat(progress.points().getFirst().how()).as(of).isEqualTo(RunPoint.How.SETTLED);
      long taken = progress.points().stream().filter(p -> p.how() == RunPoint.How.SETTLED).count();
      assertThat(taken).as(of).isBetween(1L, 3L);
      assertThat(progress.points().stream().skip(taken))
          .as(of)
          .allMatch(
              p ->
                  p.readings().getFirst().isEmpty() && p.why().contains(" than a point may")
                      || p.why().startsWith("not settled after 180 s"));
      long least = 180_000L * (then == Unsettled.STOP ? 1 : 5 - taken);
      assertThat(bench.now() - START).as(of).isBetween(least, 2 * least + 120_000);
      assertThat(RunProgress.after(plan, own.entries).points()).isEqualTo(progress.points());
    }
  }

  /** Hands take the time they take: a meter that is off meanwhile leaves none of their steps. */
  @Test
  void whileHandsAreWaitedForNothingIsGivenUp() {
    Scene scene = Scene.named("clamp").orElseThrow();
    var bench = new BesideModel(new BenchModel(scene, 4), START);
    var trim = new MechanicalTrim(Value.of(2.5), Value.of(0.01), "", null);
    RunPlan plan =
        Plans.of(scene, bench.reference(), List.of(bench.meter(0)), 0, 10)
            .withProcedure(trim)
            .withGiveUp(60);
    Rig.Reach reach =
        i ->
            i.address().equals(bench.reference().address())
                ? bench.open(i)
                : lost(bench.open(i), Kind.NO_ANSWER, new int[] {1000});
    var progress = new RunProgress(plan);
    RunEngine[] engine = new RunEngine[1];
    engine[0] =
        new RunEngine(
            progress,
            journal,
            new Rig(plan, reach),
            bench,
            s -> {
              if (bench.now() - START > 3_600_000) engine[0].breakOff();
            });
    engine[0].run();
    assertThat(progress.waitsForHands()).isTrue();
    assertThat(progress.points()).isEmpty();
  }

  /** A meter that is lost once the first point is taken. */
  private static Reference lost(Reference r, Kind kind, int[] reads) {
    return new Reference() {
      @Override
      public String identity() {
        return "";
      }

      @Override
      public double read() throws InstrumentException {
        if (++reads[0] > 60) throw new InstrumentException(kind, "Meter is lost");
        return r.read();
      }

      @Override
      public void bringTo(double setPoint) {}

      @Override
      public void close() {}
    };
  }

  /** What can be asked for while it runs, and what of it stands in the journal. */
  @Test
  void holdSkipRepeatAndStopAreDoneAndKeptWithTheirReasons() throws IOException {
    Scene scene = Scene.named("pump").orElseThrow();
    try (var server = new BenchServer(new BenchModel(scene, 2), 0);
        var clock = new SteppedClock(server.control(), START)) {
      RunPlan plan = Plans.of(scene, server, 0, 20, 40, 60);
      var progress = new RunProgress(plan);
      RunEngine[] engine = new RunEngine[1];
      var asked = new HashSet<String>();
      var turns = new AtomicInteger();
      engine[0] =
          new RunEngine(
              progress,
              journal,
              new Rig(plan),
              clock,
              s -> {
                int turn = turns.incrementAndGet();
                if (turn == 5) engine[0].ask(Act.Kind.HOLD, "tea");
                if (turn == 9) engine[0].ask(Act.Kind.GO, "");
                if (s.points().size() == 1 && asked.add("repeat")) {
                  engine[0].ask(Act.Kind.REPEAT, "bumped the bench");
                }
                if (s.points().size() == 2 && asked.add("skip")) {
                  engine[0].ask(Act.Kind.SKIP, "leaks");
                }
                if (s.points().size() == 4) engine[0].ask(Act.Kind.STOP, "enough");
              });
      engine[0].run();
      assertThat(progress.phase()).isEqualTo(Phase.STOPPED);
      assertThat(progress.superseded(0)).isEqualTo("taken once more: bumped the bench");
      assertThat(journal.points().get(1).target()).isZero();
      assertThat(progress.points().get(2).how()).isEqualTo(RunPoint.How.SKIPPED);
      assertThat(progress.points().get(2).why()).isEqualTo("leaks");
      assertThat(journal.entries.getLast())
          .isInstanceOfSatisfying(
              Act.class,
              a -> {
                assertThat(a.kind()).isEqualTo(Act.Kind.STOP);
                assertThat(a.why()).isEqualTo("enough");
              });
      // What follows from the journal alone is where the run stood.
      RunProgress again = RunProgress.after(plan, journal.entries);
      assertThat(again.points()).isEqualTo(progress.points());
      assertThat(again.next()).isEqualTo(progress.next());
      assertThat(again.phase()).isEqualTo(progress.phase());
    }
  }

  /**
   * A supply that moves in the middle is said while it can be mended, and stands in the journal.
   */
  @Test
  void aSupplyThatMovesIsNoticed() {
    Scene scene = Scene.named("slide").orElseThrow();
    var model = new BenchModel(scene, 4);
    var beside = new BesideModel(model, START);
    Instrument meter =
        Instrument.of("Supply", Instrument.Language.SCPI, "supply", "READ?", Unit.VOLT);
    RunPlan plan =
        Plans.of(scene, beside.reference(), List.of(beside.meter(0)), 10, 40, 70).withSupply(meter);
    var progress = new RunProgress(plan);
    double[] volts = {5.001};
    Rig.Reach reach = i -> i.name().equals("Supply") ? reading(() -> volts[0]) : beside.open(i);
    var warnings = new ArrayList<String>();
    var engine =
        new RunEngine(
            progress,
            journal,
            new Rig(plan, reach),
            beside,
            s -> {
              int points = s.points().size();
              volts[0] = points == 1 || points == 2 ? 4.9 : points == 0 ? 5.001 : 5.003;
              if (!s.warning().isEmpty()) warnings.add(s.warning());
            });
    engine.run();
    assertThat(progress.phase()).isEqualTo(Phase.DONE);
    List<String> notes =
        journal.entries.stream()
            .filter(e -> e instanceof Act a && a.kind() == Act.Kind.NOTE)
            .map(e -> ((Act) e).why())
            .toList();
    assertThat(notes).hasSize(2);
    assertThat(notes.get(0))
        .isEqualTo("the supply has moved: 4.900 V, −2.0 % from 5.001 V at the beginning");
    assertThat(notes.get(1)).startsWith("the supply is back: 5.003 V");
    assertThat(warnings).isNotEmpty().allMatch(w -> w.contains("−2.0 %"));
  }

  private static Reference reading(DoubleSupplier volts) {
    return new Reference() {
      @Override
      public String identity() {
        return "";
      }

      @Override
      public double read() {
        return volts.getAsDouble();
      }

      @Override
      public void bringTo(double setPoint) {}

      @Override
      public void close() {}
    };
  }

  /** A disk that is full for a while: it is said, nothing is lost, nothing is written twice. */
  @Test
  void aDiskThatRefusesForAWhileLosesNothing() throws IOException {
    Scene scene = Scene.named("pump").orElseThrow();
    var said = new HashSet<String>();
    var refusing =
        new RunJournal() {
          private int tries;

          private void full() {
            tries++;
            if (tries % 37 == 5 || tries % 37 == 6)
              throw new IllegalStateException("the disk is full");
          }

          @Override
          public void append(Sweep sweep, Optional<RunPoint> completes) {
            full();
            journal.append(sweep, completes);
          }

          @Override
          public void append(Act act) {
            full();
            journal.append(act);
          }
        };
    try (var server = new BenchServer(new BenchModel(scene, 8), 0);
        var clock = new SteppedClock(server.control(), START)) {
      RunPlan plan = Plans.of(scene, server, 10, 30);
      var progress = new RunProgress(plan);
      new RunEngine(progress, refusing, new Rig(plan), clock, s -> said.add(s.trouble())).run();
      assertThat(progress.phase()).isEqualTo(Phase.DONE);
      assertThat(said).contains("Nothing can be written down: the disk is full").contains("");
      assertThat(journal.sweeps).extracting(Sweep::at).doesNotHaveDuplicates().isSorted();
      assertThat(RunProgress.after(plan, journal.entries).points()).isEqualTo(progress.points());
      assertThat(journal.points()).hasSize(3);
    }
  }

  private static Instrument certified(Instrument i, String corrections, double accuracy) {
    return i.withCorrections(Corrections.parse(corrections, Unit.of(i.unit())))
        .withAccuracy(Value.of(accuracy));
  }

  /**
   * Two references that agree within what both may be off are noted beside each other; two that do
   * not hold the run, whatever the channel reads.
   */
  @Test
  void twoReferencesHaveToAgree() throws IOException {
    Scene scene = Scene.named("pump").orElseThrow();
    var model = new BenchModel(scene, 7);
    try (var server = new BenchServer(model, 0)) {
      Instrument second = server.reference().withName("second");
      RunPlan plan =
          Plans.of(scene, server, 10, 40)
              .withReference(server.reference().withAccuracy(Value.of(0.1)));
      RunProgress agreeing = carryOut(server, plan.withBeside(certified(second, "0.15=0", 0.1)));
      assertThat(agreeing.phase()).isEqualTo(Phase.DONE);
      for (RunPoint p : journal.points()) {
        assertThat(p.apart()).isCloseTo(-0.15, within(0.05));
        assertThat(p.doubted()).isFalse();
      }
      RunPlan apart = plan.withBeside(certified(second, "0.6=0", 0.1));
      var progress = new RunProgress(apart);
      var unasked = new MemoryJournal();
      try (var clock = new SteppedClock(server.control(), START)) {
        new RunEngine(progress, unasked, new Rig(apart), clock, s -> {})
            .unattended(RunEngine.Unattended.TAKE)
            .run();
      }
      assertThat(progress.points()).isNotEmpty();
      for (RunPoint p : progress.points()) {
        assertThat(p.doubt())
            .matches("the references are 0\\.\\d+ kPa apart: .*")
            .contains("second reads")
            .endsWith("0.2 is the most that both may be off");
        assertThat(p.unasked()).isTrue();
      }
    }
  }

  /** A second reference that falls silent is said once, and nothing else hangs on it. */
  @Test
  void aSilentSecondReferenceStopsNothing() throws IOException {
    Scene scene = Scene.named("pump").orElseThrow();
    try (var server = new BenchServer(new BenchModel(scene, 7), 0);
        var clock = new SteppedClock(server.control(), START)) {
      Instrument nobody =
          Instrument.of("second", Language.SCPI, "127.0.0.1:1", "READ?", Unit.of("kPa"));
      RunPlan plan = Plans.of(scene, server, 10, 40).withBeside(nobody);
      var progress = new RunProgress(plan);
      new RunEngine(progress, journal, new Rig(plan), clock, s -> {}).run();
      assertThat(progress.phase()).isEqualTo(Phase.DONE);
      assertThat(journal.points()).hasSize(3).allMatch(p -> p.apart() == null);
      assertThat(journal.entries.toString()).containsOnlyOnce("the second reference is not read");
    }
  }
}
