package nocking.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import nocking.channel.RunJson;
import nocking.points.RawUnit;
import nocking.procedure.LearntEnds;
import nocking.procedure.MechanicalTrim;
import nocking.procedure.Procedure;
import nocking.procedure.Stations;
import nocking.procedure.TaughtEnds;
import nocking.procedure.ZeroAndSpan;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.RunPoint.How;
import nocking.run.RunProgress.Phase;
import org.junit.jupiter.api.Test;

/** Procedures as runs: hands, holds, and what is left of them after a power cut. */
class ProcedureRunTest {
  private static Value v(double x) {
    return Value.of(x);
  }

  private static final List<Procedure> ALL =
      List.of(
          new MechanicalTrim(v(2.5), v(0.01), "closed", v(30)),
          new TaughtEnds(
              v(0), v(200), v(10), v(190), v(0.2), v(0.2), v(3), v(600), v(0.5), v(0.5), v(4.5),
              v(10)),
          new LearntEnds(v(0), v(100)),
          new Stations(List.of("a", "b", "c"), v(0.05)),
          new ZeroAndSpan(v(0), v(60), "bleed it"));

  private static RunPlan plan(Procedure p, Instrument reference) {
    return new RunPlan(
        p.title(),
        RunPlan.Kind.PROCEDURE,
        reference.unit(),
        List.of(
            new RunChannel(
                "a",
                "A",
                RawUnit.VOLTS,
                Instrument.of("meter", Instrument.Language.SCPI, "127.0.0.1:1", "READ?", Unit.VOLT),
                new SettleRule.Dwell(4),
                "")),
        reference,
        List.of(),
        Course.UP,
        1,
        1,
        3,
        1,
        600,
        0.5,
        Unsettled.TAKE,
        Purpose.DEVELOPMENT,
        Conditions.NONE,
        p,
        null,
        null,
        null);
  }

  private static final Instrument EYE = Instrument.byHand("eye", Unit.ONE);

  /**
   * Whatever is done, held, skipped and repeated: after a power cut at any instant a procedure
   * stands where it stood, at the same step with the same steps before and behind it.
   */
  @Test
  void aProcedureStandsWhereItsJournalSays() {
    for (long seed = 0; seed < 300; seed++) {
      var r = new Random(seed);
      RunPlan plan = plan(ALL.get((int) (seed % ALL.size())), EYE);
      var progress = new RunProgress(plan);
      var journal = new ArrayList<RunEntry>();
      long at = 0;
      for (int i = 0; i < 250 && !progress.over(); i++) {
        at += 1000;
        Act.Kind kind = pick(r, progress);
        if (kind != null) {
          var act = new Act(at, kind, "");
          journal.add(act);
          progress.take(act);
        } else {
          double x = progress.target().map(Target::setPoint).orElse(0.0);
          var sweep = new Sweep(at, progress.next(), x, List.of(2.5 + 0.3 * r.nextGaussian()));
          progress.take(sweep).ifPresent(journal::add);
        }
        if (r.nextInt(20) > 0) continue;
        RunProgress again = RunProgress.after(plan, journal);
        String as = "seed %d, %d entries".formatted(seed, journal.size());
        assertThat(again.points()).as(as).isEqualTo(progress.points());
        assertThat(again.next()).as(as).isEqualTo(progress.next());
        assertThat(again.steps()).as(as).isEqualTo(progress.steps());
        assertThat(again.taken()).as(as).isEqualTo(progress.taken());
        assertThat(again.over()).as(as).isEqualTo(progress.over());
        // What was under way settles anew, and hands say once more that they are done.
        again.take(new Act(at, Act.Kind.BEGIN, ""));
        if (!again.over()) assertThat(again.phase()).isEqualTo(Phase.APPROACHING);
      }
      assertThat(progress.taken()).hasSizeLessThanOrEqualTo(progress.steps().size());
    }
  }

  private static Act.Kind pick(Random r, RunProgress p) {
    if (p.phase() == Phase.HELD) return Act.Kind.GO;
    return switch (r.nextInt(30)) {
      case 0 -> Act.Kind.HOLD;
      case 1 -> Act.Kind.SKIP;
      case 2 -> Act.Kind.REPEAT;
      case 3 -> Act.Kind.NOTE;
      default -> p.waitsForHands() && r.nextInt(3) == 0 ? Act.Kind.READY : null;
    };
  }

  /** Nothing settles, is taken or given up before the hands have said that they are done. */
  @Test
  void handsAreWaitedFor() {
    var progress = new RunProgress(plan(ALL.getFirst(), EYE));
    for (int i = 1; i < 5000; i++) {
      assertThat(progress.take(new Sweep(1000L * i, 0, 0, List.of(2.0)))).isEmpty();
    }
    assertThat(progress.waitsForHands()).isTrue();
    assertThat(progress.phase()).isEqualTo(Phase.APPROACHING);
    progress.take(new Act(5_000_000, Act.Kind.READY, ""));
    int needed = 0;
    while (progress.points().isEmpty()) {
      needed++;
      progress.take(new Sweep(5_000_000 + 1000L * needed, 0, 0, List.of(2.0)));
    }
    assertThat(needed).isBetween(7, 9);
  }

  /** A place that nobody read is kept as not known, in the journal and out of it. */
  @Test
  void aPlaceThatNobodyReadIsNotKnown() {
    var progress = new RunProgress(plan(ALL.getFirst(), EYE));
    long at = 0;
    progress.take(new Act(at, Act.Kind.READY, ""));
    while (progress.next() == 0) progress.take(new Sweep(at += 1000, 0, 0, List.of(2.0)));
    // The hands are not done: nothing can be recorded yet.
    progress.take(new Act(at, Act.Kind.TAKE, ""));
    assertThat(progress.phase()).isEqualTo(Phase.APPROACHING);
    progress.take(new Act(at, Act.Kind.READY, ""));
    while (progress.next() == 1) {
      progress.take(new Sweep(at += 1000, 1, Double.NaN, List.of(2.5)));
    }
    RunPoint p = progress.points().getLast();
    assertThat(p.applied()).isZero();
    assertThat(progress.taken().getLast().applied()).isNaN();
    RunEntry again = RunJson.readEntry(RunJson.POINT, RunJson.compact(p), "j");
    assertThat(again).isEqualTo(p);
    assertThat(RunJson.compact(progress.points().getFirst())).doesNotContain("placeUnknown");
  }

  /** What is held is held for its time and no longer, however many readings a point takes. */
  @Test
  void aHoldIsNoLongerThanItTakes() {
    var teach =
        new TaughtEnds(
            v(0), v(200), v(10), null, v(0.2), v(0), v(3), null, null, v(0.5), v(4.5), null);
    var progress = new RunProgress(plan(teach, EYE));
    progress.take(new Act(0, Act.Kind.READY, ""));
    long at = 0;
    while (progress.next() == 0) progress.take(new Sweep(at += 1000, 0, 10, List.of(0.5)));
    progress.take(new Act(at, Act.Kind.READY, ""));
    long held = at;
    progress.take(new Sweep(at += 1000, 1, 10, List.of(0.5)));
    // The time that is left is that of the hold, and of one reading.
    assertThat(progress.left()).isBetween(3.0, 4.5);
    while (progress.next() == 1) progress.take(new Sweep(at += 1000, 1, 10, List.of(0.5)));
    assertThat(at - held).isBetween(3000L, 5000L);
    // Off ground: said, and nothing is read.
    progress.take(new Act(at, Act.Kind.READY, ""));
    assertThat(progress.points().getLast().how()).isEqualTo(How.CONFIRMED);
    assertThat(progress.step().orElseThrow().title()).startsWith("Verify at 10");
  }

  /** A plan with a procedure comes back from its file; one that makes no sense is refused. */
  @Test
  void plansKeepTheirProcedure() {
    for (Procedure p : ALL) {
      RunPlan plan = plan(p, EYE);
      assertThat(RunJson.readPlanFile(RunJson.planFile(plan), "p")).isEqualTo(plan);
      assertThat(plan.likeWork(plan)).isTrue();
      assertThat(plan.likeWork(plan(new LearntEnds(v(1), v(2)), EYE))).isFalse();
      assertThat(plan.withSetPoints(List.of(v(1))).withProcedure(null).kind())
          .isEqualTo(RunPlan.Kind.POINTS);
    }
    RunPlan counts = plan(ALL.get(2), EYE);
    assertThatThrownBy(
            () ->
                counts.withChannels(
                    counts.channels().stream()
                        .map(
                            c ->
                                new RunChannel(
                                    c.channel(),
                                    c.tag(),
                                    RawUnit.COUNTS,
                                    c.meter(),
                                    c.settle(),
                                    ""))
                        .toList()))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("read in volts");
  }
}
