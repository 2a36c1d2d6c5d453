package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.stream.DoubleStream;
import java.util.stream.Stream;
import nocking.analysis.Analysis;
import nocking.analysis.Jobs;
import nocking.bench.run.RunEngine.Unattended;
import nocking.channel.Channel;
import nocking.check.Verdict;
import nocking.procedure.LearntEnds;
import nocking.procedure.MechanicalTrim;
import nocking.procedure.Procedure;
import nocking.procedure.Stations;
import nocking.procedure.TaughtEnds;
import nocking.quantity.Value;
import nocking.run.RunPlan;
import nocking.run.RunPoint.How;
import nocking.run.RunProgress;
import nocking.run.RunProgress.Phase;
import nocking.run.SettleRule;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What hands do is not kept waiting by what is read: counted in seconds of the bench. */
class HandPaceTest {
  /** Seconds in which what has caught or is clamped is read. */
  private static final double CAUGHT = 6.5;

  /** Seconds for which what may swing is looked at. */
  private static final double LOOKED_AT = 15;

  /** Readings of a point and seconds of lag as they were drafted once, whatever the hands did. */
  private static final int ONCE_READ = 10;

  private static final double ONCE_LAG = 15;

  private static Channel channel(String tag) {
    return Hatchery.book(Hatchery.SEED).byTag(tag).orElseThrow();
  }

  private static Procedure job(String tag, Class<? extends Procedure> kind) {
    return Jobs.of(Analysis.of(channel(tag))).stream()
        .filter(kind::isInstance)
        .findFirst()
        .orElseThrow();
  }

  static Stream<Arguments> byHand() {
    return Stream.of(
        Arguments.of("FD-S1", job("FD-S1", Stations.class), CAUGHT),
        Arguments.of("SG-P1", job("SG-P1", MechanicalTrim.class), CAUGHT),
        Arguments.of("SG-P1", job("SG-P1", LearntEnds.class), LOOKED_AT),
        Arguments.of("GV-P1", job("GV-P1", LearntEnds.class), LOOKED_AT));
  }

  private static RunPlan asOnce(RunPlan p) {
    return p.withAverage(ONCE_READ)
        .withChannels(
            p.channels().stream()
                .map(c -> c.withSettle(((SettleRule.Rest) c.settle()).withLag(ONCE_LAG)))
                .toList());
  }

  private static double total(List<Double> seconds) {
    return DoubleStream.of(seconds.stream().mapToDouble(s -> s).toArray()).sum();
  }

  @ParameterizedTest
  @MethodSource("byHand")
  void aStepTakesNoLongerThanItIsLookedAt(String tag, Procedure job, double most) {
    var now = new JobOnBench(channel(tag), job);
    RunProgress p = now.carryOut(now.plan(), Unattended.BREAK_OFF, (v, step, t) -> v);
    assertThat(p.phase()).isEqualTo(Phase.DONE);
    assertThat(now.seconds()).hasSizeGreaterThan(1).allSatisfy(s -> assertThat(s).isLessThan(most));
    var once = new JobOnBench(channel(tag), job);
    once.carryOut(asOnce(once.plan()), Unattended.BREAK_OFF, (v, step, t) -> v);
    assertThat(total(now.seconds())).isLessThan(total(once.seconds()));
  }

  /** What is taught within a time is in time, however little of it there is. */
  @ParameterizedTest
  @ValueSource(ints = {18, 20, 30, 45, 120})
  void aDeadlineSetsTheSettling(int within) {
    var drafted = (TaughtEnds) job("GV-P1", TaughtEnds.class);
    var job = drafted.withTimes(drafted.hold(), Value.of(within), drafted.reset());
    var bench = new JobOnBench(channel("GV-P1"), job);
    // The output swings before it is taught: it never settles.
    RunProgress p =
        bench.carryOut(
            bench.plan(),
            Unattended.BREAK_OFF,
            (v, step, t) -> step == 5 ? v + 0.2 * Math.sin(t) : v);
    assertThat(p.phase()).isEqualTo(Phase.DONE);
    var record = Jobs.record(p.plan(), p.taken(), Analysis.of(channel("GV-P1")));
    assertThat(record.verdict()).as(record.says()).isEqualTo(Verdict.PASS);
    assertThat(p.points())
        .filteredOn(q -> q.how() == How.NOT_SETTLED)
        .singleElement()
        .satisfies(q -> assertThat(q.why()).contains("left for what has to be done in time"));
  }

  @Test
  void aDeadlineThatHandsMissIsSaid() {
    var drafted = (TaughtEnds) job("GV-P1", TaughtEnds.class);
    var job = drafted.withTimes(drafted.hold(), Value.of(2), drafted.reset());
    var bench = new JobOnBench(channel("GV-P1"), job);
    RunProgress p = bench.carryOut(bench.plan(), Unattended.BREAK_OFF, (v, step, t) -> v);
    var record = Jobs.record(p.plan(), p.taken(), Analysis.of(channel("GV-P1")));
    assertThat(record.verdict()).isEqualTo(Verdict.FAIL);
    assertThat(record.says()).contains("fallen back");
  }
}
