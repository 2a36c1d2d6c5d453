package nocking.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import nocking.channel.RunJson;
import nocking.points.RawUnit;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.RunPoint.How;
import nocking.run.RunProgress.Phase;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

class RunProgressTest {
  private static final Instrument METER =
      Instrument.of("M", Instrument.Language.SCPI, "127.0.0.1:1", "READ?", Unit.VOLT);

  private static RunPlan plan(Course course, Unsettled then, int channels, double... setPoints) {
    return new RunPlan(
        "R",
        RunPlan.Kind.POINTS,
        "°C",
        IntStream.range(0, channels)
            .mapToObj(
                i ->
                    new RunChannel(
                        "c" + i,
                        "C-" + i,
                        RawUnit.VOLTS,
                        METER,
                        new SettleRule.Stable(0.01, 0.002, 5),
                        ""))
            .toList(),
        Instrument.byHand("Bath", Unit.CELSIUS),
        DoubleStream.of(setPoints).mapToObj(Value::of).toList(),
        course,
        1,
        7,
        4,
        1,
        60,
        0.5,
        then,
        Purpose.AS_FOUND,
        Conditions.NONE,
        null,
        null,
        null,
        null);
  }

  private static final class Feed {
    final RunProgress progress;
    final List<RunEntry> entries = new ArrayList<>();
    long at = 1_000_000;

    Feed(RunPlan plan) {
      progress = new RunProgress(plan);
    }

    Optional<RunPoint> give(double applied, Double... raw) {
      at += 1000;
      var p = progress.take(new Sweep(at, progress.next(), applied, List.of(raw)));
      p.ifPresent(entries::add);
      return p;
    }

    void act(Act.Kind kind, String why) {
      var a = new Act(at, kind, why);
      entries.add(a);
      progress.take(a);
    }

    Optional<RunPoint> until(double applied, double raw, int most) {
      for (int i = 0; i < most; i++) {
        var p = give(applied, raw);
        if (p.isPresent()) return p;
      }
      return Optional.empty();
    }
  }

  @Test
  void setPointsAreVisitedInTheOrderOfTheCourse() {
    assertThat(plan(Course.UP_DOWN, Unsettled.TAKE, 1, 10, 0, 5).targets())
        .containsExactly(
            new Target(0, false),
            new Target(5, false),
            new Target(10, false),
            new Target(5, true),
            new Target(0, true));
    assertThat(plan(Course.DOWN, Unsettled.TAKE, 1, 10, 0).targets())
        .containsExactly(new Target(10, true), new Target(0, true));
    assertThat(plan(Course.AS_GIVEN, Unsettled.TAKE, 1, 10, 10, 0, 5).targets())
        .as("as they were said, and twice what was said twice")
        .containsExactly(
            new Target(10, false),
            new Target(10, false),
            new Target(0, true),
            new Target(5, false));
    List<Target> random = plan(Course.RANDOM, Unsettled.TAKE, 1, 0, 1, 2, 3, 4, 5).targets();
    assertThat(random)
        .extracting(Target::setPoint)
        .containsExactlyInAnyOrder(0., 1., 2., 3., 4., 5.);
    assertThat(random)
        .isEqualTo(plan(Course.RANDOM, Unsettled.TAKE, 1, 0, 1, 2, 3, 4, 5).targets());
  }

  /** What was steady at the set point before has not settled at this one. */
  @Test
  void nothingSettlesBeforeTheReferenceIsThere() {
    var f = new Feed(plan(Course.UP, Unsettled.TAKE, 1, 10, 20));
    for (int i = 0; i < 30; i++) assertThat(f.give(12, 1.0)).isEmpty();
    assertThat(f.progress.phase()).isEqualTo(Phase.APPROACHING);
    assertThat(f.progress.whyNot()).isEqualTo("the reference is not at the set point");
    RunPoint p = f.until(10.1, 1.5, 20).orElseThrow();
    assertThat(p.readings().getFirst()).containsExactly(1.5, 1.5, 1.5, 1.5);
    assertThat(p.applied()).isEqualTo(10.1);
  }

  /** What leaves its limits while it is averaged is averaged anew. */
  @Test
  void whatMovesAfterItHasSettledDoesNotCount() {
    var f = new Feed(plan(Course.UP, Unsettled.TAKE, 1, 10));
    while (f.progress.averaged() < 3) f.give(10, 1.0);
    f.give(10, 1.4);
    assertThat(f.progress.phase()).isEqualTo(Phase.SETTLING);
    assertThat(f.progress.moved()).isOne();
    RunPoint p = f.until(10, 1.4, 40).orElseThrow();
    assertThat(p.readings().getFirst()).containsExactly(1.4, 1.4, 1.4, 1.4);
  }

  @ParameterizedTest
  @EnumSource(Unsettled.class)
  void whatNeverSettlesEndsAsThePlanSays(Unsettled then) {
    var f = new Feed(plan(Course.UP, then, 1, 10, 20));
    Optional<RunPoint> p = Optional.empty();
    for (int i = 0; i < 90 && p.isEmpty() && !f.progress.over(); i++) p = f.give(10, (double) i);
    switch (then) {
      case TAKE -> {
        assertThat(p.orElseThrow().how()).isEqualTo(How.NOT_SETTLED);
        assertThat(p.get().why()).isEqualTo("not settled after 60 s: it still moves");
        assertThat(p.get().readings().getFirst()).hasSize(4);
      }
      case SKIP -> {
        assertThat(p.orElseThrow().how()).isEqualTo(How.SKIPPED);
        assertThat(f.progress.next()).isOne();
      }
      case STOP -> assertThat(f.progress.phase()).isEqualTo(Phase.STOPPED);
    }
  }

  /** A meter that hangs says at every set point what it said at the one before. */
  @Test
  void theSameToTheLastDigitAtAnotherSetPointIsNoReading() {
    var f = new Feed(plan(Course.UP, Unsettled.TAKE, 1, 10, 20));
    f.until(10, 1.234, 30).orElseThrow();
    for (int i = 0; i < 30; i++) assertThat(f.give(20, 1.234)).isEmpty();
    assertThat(f.progress.whyNot())
        .isEqualTo("C-0 reads exactly what it read at the last set point");
    assertThat(f.until(20, 1.534, 30)).isPresent();
  }

  /** One of two channels that is not there yet keeps both waiting; one that is dead is missed. */
  @Test
  void allChannelsAreWaitedFor() {
    var f = new Feed(plan(Course.UP, Unsettled.TAKE, 2, 10));
    for (int i = 0; i < 20; i++) assertThat(f.give(10, 1.0, 2.0 + 0.1 * i)).isEmpty();
    assertThat(f.progress.averaged()).isZero();
    Optional<RunPoint> p = Optional.empty();
    while (p.isEmpty()) p = f.give(10, 1.0, Double.NaN);
    assertThat(p.get().how()).isEqualTo(How.NOT_SETTLED);
    assertThat(p.get().readings().get(0)).hasSize(4);
    assertThat(p.get().readings().get(1)).isEmpty();
  }

  @Test
  void holdingStopsTheClockAndGoingOnSettlesAnew() {
    var f = new Feed(plan(Course.UP, Unsettled.SKIP, 1, 10));
    for (int i = 0; i < 50; i++) f.give(10, (double) i);
    f.act(Act.Kind.HOLD, "tea");
    for (int i = 0; i < 50; i++) assertThat(f.give(10, 3.0)).isEmpty();
    f.act(Act.Kind.GO, "");
    assertThat(f.progress.averaged()).isZero();
    assertThat(f.until(10, 3.0, 30).orElseThrow().how()).isEqualTo(How.SETTLED);
    assertThat(f.progress.phase()).isEqualTo(Phase.DONE);
  }

  /**
   * 200 random courses with acts between the readings: what follows from the journal alone is where
   * the run stood, and each of its lines comes back from its JSON as it was.
   */
  @Test
  void theJournalAloneTellsWhereItStood() {
    for (long seed = 0; seed < 200; seed++) {
      var r = new Random(seed);
      RunPlan plan = plan(Course.UP_DOWN, Unsettled.values()[r.nextInt(3)], 1, 0, 10, 20);
      assertThat(RunJson.readPlan(RunJson.compact(plan), "the plan")).isEqualTo(plan);
      var f = new Feed(plan);
      for (int i = 0; i < 300 && !f.progress.over(); i++) {
        double target = f.progress.target().orElseThrow().setPoint();
        double off = r.nextInt(20) == 0 ? 3 : 0;
        f.give(target + off, target / 10 + (r.nextInt(8) == 0 ? r.nextDouble() : 0));
        if (r.nextInt(40) == 0) {
          Act.Kind[] kinds = {Act.Kind.HOLD, Act.Kind.SKIP, Act.Kind.REPEAT, Act.Kind.TAKE};
          f.act(kinds[r.nextInt(kinds.length)], "x" + i);
        }
        if (r.nextInt(10) == 0) f.act(Act.Kind.GO, "");
      }
      List<RunEntry> read =
          f.entries.stream()
              .map(e -> RunJson.readEntry(RunJson.kind(e), RunJson.compact(e), "a line"))
              .toList();
      assertThat(read).as("seed %d", seed).isEqualTo(f.entries);
      RunProgress again = RunProgress.after(plan, read);
      assertThat(again.points()).as("seed %d", seed).isEqualTo(f.progress.points());
      assertThat(again.next()).isEqualTo(f.progress.next());
      for (int i = 0; i < again.points().size(); i++) {
        assertThat(again.superseded(i)).isEqualTo(f.progress.superseded(i));
      }
    }
  }

  @Test
  void aPlanThatCannotBeGoneBySaysWhy() {
    assertThatThrownBy(() -> plan(Course.UP, Unsettled.TAKE, 0, 1))
        .isInstanceOf(QuantityException.class)
        .hasMessage("a run reads one to 8 channels, not 0");
    assertThatThrownBy(() -> plan(Course.UP, Unsettled.TAKE, 9, 1)).hasMessageContaining("not 9");
    assertThatThrownBy(() -> plan(Course.UP, Unsettled.TAKE, 1)).hasMessageContaining("set points");
    RunPlan sound = plan(Course.UP, Unsettled.TAKE, 1, 1);
    RunChannel narrow =
        new RunChannel("c", "C-1", RawUnit.VOLTS, METER, new SettleRule.Stable(1, 1, 3.9), "");
    assertThatThrownBy(() -> sound.withChannels(List.of(narrow)))
        .hasMessage("C-1 settles over 3.9 s: with a reading every 1.0 s it takes 4.0 s or more");
    assertThatThrownBy(() -> new SettleRule.Stable(0, 1, 1)).hasMessageContaining("above 0");
    assertThatThrownBy(() -> new SettleRule.Stable(1, Double.NaN, 1)).hasMessageContaining("NaN");
    assertThatThrownBy(() -> new SettleRule.Rest(1, 1e308, 0, 0))
        .hasMessageContaining("a day at most");
    assertThatThrownBy(() -> new SettleRule.Rest(1, 1, 0.6, 0)).hasMessageContaining("0 … 0.5");
  }

  /**
   * Each number that is typed is a reading; nobody waits for it to settle, and nobody is hurried.
   */
  @Test
  void typedReadingsAreTakenAsTheyCome() {
    RunPlan usual = plan(Course.UP, Unsettled.TAKE, 1, 0, 10);
    RunPlan typed =
        usual
            .withAverage(2)
            .withChannels(
                List.of(
                    new RunChannel(
                        "a",
                        "A",
                        RawUnit.VOLTS,
                        Instrument.byHand("typed by hand", Unit.VOLT),
                        new SettleRule.Stable(1e-6, 1e-6, 30),
                        "")));
    double at = typed.targets().getFirst().setPoint();
    var p = new RunProgress(typed);
    long t = 0;
    // The reference is not there yet: what is typed now is of nothing.
    assertThat(p.take(new Sweep(t += 1000, 0, at + 50, List.of(1.0)))).isEmpty();
    for (int i = 0; i < 5000; i++) {
      assertThat(p.take(new Sweep(t += 1000, 0, at, List.of(Double.NaN)))).isEmpty();
    }
    assertThat(p.phase()).isEqualTo(Phase.SETTLING);
    assertThat(p.take(new Sweep(t += 1000, 0, at, List.of(2.0)))).isEmpty();
    assertThat(p.take(new Sweep(t += 1000, 0, at, List.of(Double.NaN)))).isEmpty();
    RunPoint point = p.take(new Sweep(t += 1000, 0, at, List.of(2.5))).orElseThrow();
    assertThat(point.readings()).containsExactly(List.of(2.0, 2.5));
    assertThat(point.how()).isEqualTo(RunPoint.How.SETTLED);
  }
}
