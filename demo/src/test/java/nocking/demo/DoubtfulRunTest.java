package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.Stream;
import nocking.analysis.Analysis;
import nocking.analysis.RunAdoption;
import nocking.analysis.RunDraft;
import nocking.analysis.RunExpectation;
import nocking.analysis.RunSuspicion;
import nocking.bench.instrument.InstrumentException;
import nocking.bench.instrument.Reference;
import nocking.bench.run.Rig;
import nocking.bench.run.RunEngine;
import nocking.bench.run.RunEngine.Unattended;
import nocking.bench.simulated.BenchModel;
import nocking.bench.simulated.BesideModel;
import nocking.bench.simulated.Scene;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.finding.Finding;
import nocking.points.ReferencePoint;
import nocking.quantity.Value;
import nocking.run.Act;
import nocking.run.Expectation;
import nocking.run.Instrument;
import nocking.run.RunEntry;
import nocking.run.RunJournal;
import nocking.run.RunPlan;
import nocking.run.RunPoint;
import nocking.run.RunProgress;
import nocking.run.RunProgress.Phase;
import nocking.run.Sweep;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Runs in which something is wrong that no instrument complains of. */
class DoubtfulRunTest {
  private static final long START = 1_795_000_000_000L;
  private static final Book BOOK = Hatchery.book(Hatchery.SEED);

  /** Sweeps before something goes wrong: in the second or third point. */
  private static final int LATER = 120;

  /** What becomes of the volts of a sound sensor. */
  private interface Trouble {
    double volts(double sound, int sweep);
  }

  /** A run on one channel, with a meter that shows something else than its sensor gives. */
  private static final class Bench {
    final Channel channel;
    final RunPlan plan;
    final RunProgress progress;
    final List<RunEntry> entries = new ArrayList<>();
    final List<Integer> doneAt = new ArrayList<>();
    final BesideModel model;
    final RunEngine engine;
    int reads;

    Bench(String tag, Trouble trouble, Unattended then) {
      channel = BOOK.byTag(tag).orElseThrow();
      Scene scene = Scene.of(tag).orElseThrow();
      model = new BesideModel(new BenchModel(scene, 71), START);
      Analysis a = Analysis.of(channel);
      Instrument meter = model.meter(scene.place(tag).orElseThrow());
      plan =
          RunExpectation.in(
              RunDraft.plan(List.of(a), model.reference(), List.of(meter)), id -> Optional.of(a));
      progress = new RunProgress(plan);
      Rig.Reach reach =
          i -> i.address().equals(meter.address()) ? altered(i, trouble) : model.open(i);
      var journal =
          new RunJournal() {
            @Override
            public void append(Sweep sweep, Optional<RunPoint> completes) {
              completes.ifPresent(entries::add);
              completes.ifPresent(p -> doneAt.add(reads));
            }

            @Override
            public void append(Act act) {
              entries.add(act);
            }
          };
      engine =
          new RunEngine(progress, journal, new Rig(plan, reach), model, s -> {})
              .explaining(RunSuspicion.of(plan, id -> Optional.of(a), BOOK.priorWeights()))
              .unattended(then);
    }

    private Reference altered(Instrument i, Trouble trouble) throws InstrumentException {
      Reference sound = model.open(i);
      return new Reference() {
        @Override
        public String identity() {
          return "";
        }

        @Override
        public double read() throws InstrumentException {
          return trouble.volts(sound.read(), reads++);
        }

        @Override
        public void bringTo(double setPoint) {}

        @Override
        public void close() {}
      };
    }

    Bench run() {
      engine.run();
      return this;
    }

    /** Points that were taken of readings after the trouble began. */
    List<RunPoint> pointsFrom(int sweep) {
      List<RunPoint> points = progress.points();
      return points.stream().filter(p -> doneAt.get(points.indexOf(p)) > sweep).toList();
    }
  }

  static Stream<String> tags() {
    return BOOK.channels().stream()
        .map(Channel::tag)
        .filter(t -> Scene.of(t).isPresent())
        .filter(t -> BOOK.byTag(t).orElseThrow().design().stations().isEmpty());
  }

  /** A sensor that is off its design as real ones are is never doubted. */
  @ParameterizedTest
  @MethodSource("tags")
  void aSoundChannelIsNotDoubted(String tag) {
    var b = new Bench(tag, (v, n) -> v, Unattended.BREAK_OFF).run();
    assertThat(b.engine.doubted()).isEmpty();
    assertThat(b.progress.phase()).isEqualTo(Phase.DONE);
    assertThat(b.progress.points()).noneMatch(RunPoint::doubted);
  }

  /**
   * The input floats near nothing, as a meter shows it: a few millivolts that wander. Where a sound
   * channel reads about nothing, too, nobody can tell.
   */
  @ParameterizedTest
  @MethodSource("tags")
  void aWireThatIsPulledMakesNoPoint(String tag) {
    Trouble pulled = (v, n) -> n < LATER ? v : 0.003 + 0.001 * Math.sin(n);
    var b = new Bench(tag, pulled, Unattended.BREAK_OFF).run();
    Expectation e = b.plan.channels().getFirst().expected();
    assertThat(b.pointsFrom(LATER + 10))
        .as("%s %s", b.engine.doubted(), e)
        .allMatch(p -> e.at(p.applied()) <= e.allowance());
    assertThat(b.engine.doubted()).contains(tag + " reads");
    assertThat(b.progress.over()).as("it waits").isFalse();
  }

  /** Every output sags to three quarters: sixty is read as forty-six. */
  @ParameterizedTest
  @MethodSource("tags")
  void aSupplyThatSagsMakesNoPointThatIsFarOff(String tag) {
    var b = new Bench(tag, (v, n) -> n < LATER ? v : 0.75 * v, Unattended.BREAK_OFF).run();
    Expectation e = b.plan.channels().getFirst().expected();
    for (RunPoint p : b.pointsFrom(LATER + 10)) {
      double lost = Math.abs(e.at(p.applied()) / 4);
      assertThat(lost).as("%s at %s", tag, p.applied()).isLessThan(1.6 * e.allowance());
    }
    assertThat(b.engine.doubted()).contains("expected");
  }

  /** A float that sticks, with a meter that goes on to scatter. */
  @ParameterizedTest
  @MethodSource("tags")
  void whatDoesNotFollowIsDoubted(String tag) {
    double[] held = {Double.NaN};
    Trouble sticks =
        (v, n) -> {
          if (n < LATER) return held[0] = v;
          return held[0] + 0.0002 * Math.sin(7 * n);
        };
    var b = new Bench(tag, sticks, Unattended.BREAK_OFF).run();
    assertThat(b.engine.doubted()).contains(tag);
    // The point that was under way when it stuck may be the last that is taken.
    assertThat(b.pointsFrom(LATER).size()).isLessThanOrEqualTo(1);
  }

  /** Plus and minus exchanged, or the lever linked to the wrong side. */
  @ParameterizedTest
  @MethodSource("tags")
  void whatGoesTheWrongWayIsDoubted(String tag) {
    Channel c = BOOK.byTag(tag).orElseThrow();
    DoubleUnaryOperator volts = x -> Analysis.of(c).wiring().voltsAt(x).orElseThrow();
    double middle = volts.applyAsDouble(c.definition().working().middle());
    var b = new Bench(tag, (v, n) -> 2 * middle - v, Unattended.BREAK_OFF).run();
    assertThat(b.engine.doubted()).contains(tag);
    assertThat(b.progress.points().size()).isLessThan(b.progress.targets().size() / 2);
  }

  @Test
  void theDoubtSaysWhatItLooksLike() {
    Trouble pulled = (v, n) -> n < LATER ? v : 0.002;
    var b = new Bench("HD-L1", pulled, Unattended.BREAK_OFF).run();
    assertThat(b.engine.doubted())
        .matches(
            "HD-L1 reads 0\\.0020 V at .* m, below 0\\.5400 V, where only a fault lies; .*: .*")
        .contains("open");
    assertThat(b.entries)
        .last()
        .isInstanceOfSatisfying(Act.class, a -> assertThat(a.why()).isEqualTo(b.engine.doubted()));
  }

  /**
   * A sensor that sits beside its place is so at every point: whoever has said so once is not asked
   * again, and each point that was asked for says it.
   */
  @Test
  void aYesHoldsForWhatItWasGivenTo() {
    Channel gate = BOOK.byTag("SG-P1").orElseThrow();
    Expectation e =
        new Bench("SG-P1", (v, n) -> v, Unattended.TAKE).plan.channels().getFirst().expected();
    double aside = 1.5 * e.allowance();
    var b = saidYes("SG-P1", (v, n) -> v + aside);
    assertThat(b.progress.phase()).isEqualTo(Phase.DONE);
    List<String> doubts =
        b.progress.points().stream().filter(RunPoint::doubted).map(RunPoint::doubt).toList();
    assertThat(doubts).filteredOn(d -> d.contains("expected is")).hasSize(1);
    // What lies beyond a limit is asked for at each point.
    assertThat(doubts)
        .filteredOn(d -> !d.contains("expected is"))
        .allMatch(d -> d.contains("only a fault lies"));
    RunPoint first =
        b.progress.points().stream().filter(RunPoint::doubted).findFirst().orElseThrow();
    assertThat(first.why()).isEqualTo("taken by hand: it sits so");
    // It stands in the journal, so that a run that is gone on with knows it too.
    RunProgress again = RunProgress.after(b.plan, b.entries);
    assertThat(again.points()).isEqualTo(b.progress.points());
    Channel with = RunAdoption.into(gate, "r", b.progress);
    // What somebody said yes to counts, and says so for as long as it is there.
    assertThat(with.calibration().points().points())
        .hasSizeGreaterThanOrEqualTo(b.progress.points().size())
        .filteredOn(p -> p.doubt().isPresent())
        .hasSize(doubts.size())
        .allMatch(ReferencePoint::counts);
    assertThat(Analysis.of(with).findings()).extracting(Finding::rule).contains("doubtful-points");
    assertThat(ChannelJson.readChannel(ChannelJson.write(with), "it")).isEqualTo(with);
  }

  /** Where nobody was asked, each point is doubted, and none of them counts. */
  @Test
  void whatNobodySaidYesToIsKeptOut() {
    Channel gate = BOOK.byTag("SG-P1").orElseThrow();
    double aside =
        1.5
            * new Bench("SG-P1", (v, n) -> v, null)
                .plan
                .channels()
                .getFirst()
                .expected()
                .allowance();
    var b = new Bench("SG-P1", (v, n) -> v + aside, Unattended.TAKE).run();
    assertThat(b.progress.points()).isNotEmpty().allMatch(RunPoint::doubted);
    List<ReferencePoint> points =
        RunAdoption.into(gate, "r", b.progress).calibration().points().points();
    assertThat(points)
        .filteredOn(p -> p.taken() != null && p.taken().run().equals("r"))
        .hasSameSizeAs(b.progress.points())
        .allSatisfy(
            p -> assertThat(p.leftOut()).startsWith("taken although SG-P1").contains("nobody"));
  }

  /** A run whose every doubt somebody says yes to. */
  private static Bench saidYes(String tag, Trouble trouble) {
    var b = new Bench(tag, trouble, null);
    b.engine.explaining(
        d -> {
          b.engine.ask(Act.Kind.TAKE, "it sits so");
          return "";
        });
    return b.run();
  }

  /** Whoever puts it right looks again, and what is read then needs no yes. */
  @Test
  void whatWasPutRightIsTakenWithoutAMark() {
    boolean[] pulled = {true};
    var b = new Bench("BL-P1", (v, n) -> pulled[0] && n >= LATER ? 0.002 : v, null);
    var noticed = new ArrayList<String>();
    b.engine.explaining(
        d -> {
          noticed.add(d.says());
          pulled[0] = false;
          b.engine.ask(Act.Kind.GO, "wire back in");
          return "";
        });
    b.run();
    assertThat(noticed).hasSize(1);
    assertThat(b.progress.phase()).isEqualTo(Phase.DONE);
    assertThat(b.progress.points()).noneMatch(RunPoint::doubted);
  }

  /** Set points beyond what the book knows of are not held against a guess. */
  @Test
  void whereNothingIsKnownNothingIsDoubted() {
    var far = new Expectation(List.of(0.0, 1.0), List.of(0.0, 1.0), 0.1, null, null);
    assertThat(far.at(Double.NaN)).isNaN();
    assertThat(far.at(1.0001)).isNaN();
    assertThat(far.at(0.25)).isEqualTo(0.25);
    assertThat(Value.of(far.at(1)).number()).isEqualTo(1);
  }
}
