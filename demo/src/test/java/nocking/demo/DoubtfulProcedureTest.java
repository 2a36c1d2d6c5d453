package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.junit.jupiter.api.Assumptions.assumeFalse;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import nocking.analysis.Analysis;
import nocking.analysis.JobAdoption;
import nocking.analysis.Jobs;
import nocking.bench.run.RunEngine.Unattended;
import nocking.bench.simulated.Scene;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.check.Verdict;
import nocking.procedure.JobRecord;
import nocking.procedure.LearntEnds;
import nocking.procedure.MechanicalTrim;
import nocking.procedure.Procedure;
import nocking.procedure.ZeroAndSpan;
import nocking.run.RunPlan;
import nocking.run.RunPoint;
import nocking.run.RunProgress;
import nocking.run.RunProgress.Phase;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Each procedure of the hatchery with something wrong from a step on. */
class DoubtfulProcedureTest {
  /** Seconds after which what swings is given up. */
  private static final double GIVE_UP = 240;

  private static final Book BOOK = Hatchery.book(Hatchery.SEED);

  /** What becomes of the volts of a sound sensor. */
  private interface Trouble {
    double volts(double sound, double before, double seconds);
  }

  private record Case(String tag, Procedure job, String trouble, Trouble what) {
    @Override
    public String toString() {
      return "%s, %s: %s".formatted(tag, job.title(), trouble);
    }
  }

  /** What came of a case. */
  private record Outcome(RunProgress progress, JobRecord record, List<?> offers) {}

  private static Stream<Case> jobs(String trouble, Trouble what) {
    var list = new ArrayList<Case>();
    for (Channel c : BOOK.channels()) {
      for (Procedure p : Jobs.of(Analysis.of(c))) {
        if (Scene.of(c.tag(), p).isPresent()) list.add(new Case(c.tag(), p, trouble, what));
      }
    }
    return list.stream();
  }

  static Stream<Case> sound() {
    return jobs("nothing", (v, before, t) -> v);
  }

  static Stream<Case> swinging() {
    return jobs("swings", (v, before, t) -> v + 0.15 * Math.sin(2 * Math.PI * t / 47));
  }

  static Stream<Case> broken() {
    return Stream.of(
            jobs("wire pulled", (v, before, t) -> 0.002 + 0.0005 * Math.sin(t)),
            jobs("sticks", (v, before, t) -> before + 0.0002 * Math.sin(3 * t)),
            jobs("supply sags", (v, before, t) -> 0.7 * v))
        .flatMap(s -> s);
  }

  /** Carries a case out, with its trouble from a step on. */
  private static Outcome carryOut(Case k, int from, Unattended then) {
    Channel c = BOOK.byTag(k.tag).orElseThrow();
    var bench = new JobOnBench(c, k.job);
    RunPlan plan = k.trouble.equals("swings") ? bench.plan().withGiveUp(GIVE_UP) : bench.plan();
    double[] before = {Double.NaN};
    RunProgress progress =
        bench.carryOut(
            plan,
            then,
            (v, step, seconds) -> {
              if (step < from) return before[0] = v;
              return k.what.volts(v, Double.isNaN(before[0]) ? v : before[0], seconds);
            });
    Analysis a = Analysis.of(c);
    return new Outcome(
        progress,
        Jobs.record(progress.plan(), progress.taken(), a),
        progress.phase() == Phase.DONE
            ? JobAdoption.offers(k.job, progress.taken(), a, "r")
            : List.of());
  }

  @ParameterizedTest
  @MethodSource("sound")
  void whatIsSoundPasses(Case k) {
    Outcome o = carryOut(k, Integer.MAX_VALUE, Unattended.BREAK_OFF);
    assertThat(o.progress.phase()).as("%s: %s", k, o.record.says()).isEqualTo(Phase.DONE);
    assertThat(o.record.verdict()).as("%s: %s", k, o.record.says()).isEqualTo(Verdict.PASS);
  }

  /** What swings is given up and taken; nothing is established by it, and nothing offered. */
  @ParameterizedTest
  @MethodSource("swinging")
  void whatSwingsEstablishesNothing(Case k) {
    int last = lastReading(k);
    for (int from : new int[] {0, last}) {
      Outcome o = carryOut(k, from, Unattended.TAKE);
      assertThat(o.record.verdict())
          .as("%s from step %d: %s", k, from + 1, o.record.says())
          .isNotEqualTo(Verdict.PASS);
      assertThat(o.offers).as("%s: %s", k, o.record.says()).isEmpty();
    }
  }

  /** The last step on whose reading something hangs. */
  private static int lastReading(Case k) {
    Outcome o = carryOut(k, Integer.MAX_VALUE, Unattended.BREAK_OFF);
    List<RunPoint> points = o.progress.points();
    int i = points.size() - 1;
    while (points.get(i).readings().getFirst().isEmpty()) i--;
    return i;
  }

  /**
   * A wire off, a float that sticks, a supply that sags half way through: no pass, no offer. What
   * cannot be told is left out: a reading near nothing where the sound one is near nothing, too,
   * and a clamped sensor that goes on to say that it is where it should be.
   */
  @ParameterizedTest
  @MethodSource("broken")
  void whatBreaksHalfWayDoesNotPass(Case k) {
    boolean zero = k.job instanceof ZeroAndSpan;
    boolean sagsAtNothing = k.job instanceof LearntEnds && k.trouble.equals("supply sags");
    boolean clamped = k.job instanceof MechanicalTrim && k.trouble.equals("sticks");
    int last = zero ? 1 : sagsAtNothing ? 0 : lastReading(k);
    assumeFalse(clamped);
    for (Unattended then : Unattended.values()) {
      Outcome o = carryOut(k, last, then);
      boolean passes = o.progress.phase() == Phase.DONE && o.record.verdict() == Verdict.PASS;
      assertThat(passes).as("%s from step %d: %s", k, last + 1, o.record.says()).isFalse();
      assertThat(o.offers).as("%s: %s", k, o.record.says()).isEmpty();
    }
  }

  @Test
  void eachProcedureIsThere() {
    assertThat(sound().map(k -> k.job.getClass().getSimpleName()))
        .contains("MechanicalTrim", "TaughtEnds", "LearntEnds", "Stations", "ZeroAndSpan");
  }
}
