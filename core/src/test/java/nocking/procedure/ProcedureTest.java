package nocking.procedure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import nocking.check.Verdict;
import nocking.fit.Trim;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.wiring.Thresholds;
import org.junit.jupiter.api.Test;

/** Procedures against benches of which everything is known. */
class ProcedureTest {
  /** A line of 40 mV for one of the quantity from 0.5 V, over 0 … 100. */
  private static final Known LINE = line(0.4, Optional.empty());

  private static Known line(double tolerance, Optional<Thresholds> faults) {
    return new Known(
        "kPa",
        1,
        new Span(0, 100),
        tolerance,
        new Span(0, 5),
        x -> 0.5 + 0.04 * x,
        Optional.of(v -> (v - 0.5) / 0.04),
        faults);
  }

  /** A lever of 1 V a station. */
  private static final Known LEVER =
      new Known(
          "",
          0,
          new Span(1, 3),
          0.4,
          new Span(0, 5),
          x -> x,
          Optional.of(v -> v),
          Optional.empty());

  private static Value v(double x) {
    return Value.of(x);
  }

  private static Taken taken(double applied, double volts) {
    return new Taken(0, applied, volts, 1e-4);
  }

  /** A mounting: volts by degrees, and a clamp that shifts by something about the same. */
  private static final class Mounting {
    final Random r;
    final double slope;
    final double shift;
    final double scatter;
    double at;
    double found;

    Mounting(long seed) {
      r = new Random(seed);
      slope = (r.nextBoolean() ? 1 : -1) * (0.005 + 0.05 * r.nextDouble());
      shift = (r.nextDouble() - 0.5) * 0.05;
      scatter = 0.0015 * r.nextDouble();
      found = 2.5 + 0.3 * (r.nextDouble() - 0.5);
    }

    double loose() {
      return found + slope * at;
    }

    double tight() {
      return loose() + shift + scatter * r.nextGaussian();
    }
  }

  /**
   * Whoever does what the steps say is near enough after a few clampings, and the record tells what
   * the mounting really is: slope, shift, and no pass without a tight reading in the window.
   */
  @Test
  void aTrimLearnsWhatTheClampDoes() {
    for (long seed = 1; seed <= 300; seed++) {
      var mount = new Mounting(seed);
      var trim = new MechanicalTrim(v(2.5), v(0.005), "", null);
      var done = new ArrayList<Taken>();
      int clampings = 0;
      double lastTight = Double.NaN;
      for (List<Step> steps = trim.steps(done);
          done.size() < steps.size();
          steps = trim.steps(done)) {
        Step s = steps.get(done.size());
        assertThat(done.size()).as("seed %d ends", seed).isLessThan(40);
        if (s.deed() == Deed.LOOSEN) mount.at = s.at();
        boolean tight = s.deed() == Deed.TIGHTEN || done.isEmpty();
        double volts = tight ? mount.tight() : s.reads() ? mount.loose() : Double.NaN;
        if (s.deed() == Deed.TIGHTEN) clampings++;
        if (tight) lastTight = volts;
        done.add(taken(mount.at, volts));
      }
      JobRecord record = trim.record(done, LINE);
      assertThat(record.verdict()).as("seed %d: %s", seed, record).isEqualTo(Verdict.PASS);
      assertThat(lastTight).isCloseTo(2.5, within(0.005 * (1 + 1e-9)));
      assertThat(clampings).as("seed %d", seed).isLessThanOrEqualTo(4);
      if (clampings > 1) {
        String told =
            record.lines().stream()
                .filter(l -> l.what().equals("a degree is worth"))
                .findFirst()
                .orElseThrow()
                .value();
        double slope =
            Double.parseDouble(told.replace("−", "-").replace("+", "").replace(" mV", "")) / 1000;
        assertThat(slope).as("seed %d", seed).isCloseTo(mount.slope, within(1e-4));
      }
    }
  }

  /** How far a hand has turned is not known before someone reads it: then nothing is said of it. */
  @Test
  void whatWasNotReadIsNotLearnt() {
    var trim = new MechanicalTrim(v(2.5), v(0.005), "", v(10));
    List<Taken> done =
        List.of(
            taken(0, 2.4),
            taken(Double.NaN, 2.5),
            taken(Double.NaN, 2.488),
            taken(Double.NaN, 2.51));
    JobRecord record = trim.record(done, LINE);
    assertThat(record.lines())
        .extracting(JobRecord.Line::what)
        .contains("clamping 1", "tightening shifts it by")
        .doesNotContain("a degree is worth");
    Step next = trim.steps(done).get(done.size());
    assertThat(next.deed()).isEqualTo(Deed.TIGHTEN);
    // One place that was read, between others that were not, is no slope either.
    List<Taken> one =
        List.of(taken(0, 2.4), taken(Double.NaN, 2.45), taken(3, 2.47), taken(Double.NaN, 2.49));
    assertThat(trim.record(one, LINE).lines())
        .filteredOn(l -> l.what().equals("a degree is worth"))
        .extracting(JobRecord.Line::value)
        .containsExactly("+23.3 mV");
  }

  /** A mounting that cannot be turned so far is told with the angle, and is no pass. */
  @Test
  void aTrimOutOfReachIsSaidSo() {
    var trim = new MechanicalTrim(v(3), v(0.005), "", v(10));
    List<Taken> done = List.of(taken(0, 2.5), taken(2, 2.54), taken(4, 2.58));
    assertThat(trim.steps(done)).hasSize(done.size());
    JobRecord record = trim.record(done, LINE);
    assertThat(record.verdict()).isEqualTo(Verdict.FAIL);
    assertThat(record.says()).contains("25.0°").contains("10°");
  }

  /** A clamp that scatters by more than the window is given up, and never called near enough. */
  @Test
  void aClampThatScattersIsGivenUp() {
    var trim = new MechanicalTrim(v(2.5), v(0.001), "", null);
    var done = new ArrayList<Taken>(List.of(taken(0, 2.4)));
    int sign = 1;
    for (List<Step> s = trim.steps(done); done.size() < s.size(); s = trim.steps(done)) {
      Step step = s.get(done.size());
      sign = step.deed() == Deed.TIGHTEN ? -sign : sign;
      double aim = (step.low() + step.high()) / 2;
      double volts = step.deed() == Deed.TIGHTEN ? done.getLast().volts() + 0.02 * sign : aim;
      done.add(taken(step.placed() ? step.at() : 0, volts));
    }
    JobRecord record = trim.record(done, LINE);
    assertThat(record.verdict()).isEqualTo(Verdict.FAIL);
    assertThat(record.says()).contains("Not near enough after 6 clampings");
  }

  /** What is near enough as found is not touched; the lead has to come out all the same. */
  @Test
  void whatIsNearEnoughIsLeft() {
    var trim = new MechanicalTrim(v(2.5), v(0.005), "", null);
    List<Taken> found = List.of(taken(0, 2.505));
    assertThat(trim.steps(found)).hasSize(2).last().matches(s -> !s.reads());
    assertThat(trim.record(found, LINE).verdict()).isEqualTo(Verdict.OPEN);
    List<Taken> sealed = List.of(taken(0, 2.505), taken(0, Double.NaN));
    assertThat(trim.record(sealed, LINE).verdict()).isEqualTo(Verdict.PASS);
    // A seal that was left out is not checked.
    JobRecord unsealed =
        trim.record(
            List.of(taken(0, 2.505), new Taken(0, 0, Double.NaN, Double.NaN, true, "")), LINE);
    assertThat(unsealed.verdict()).isEqualTo(Verdict.OPEN);
    assertThat(unsealed.lines()).extracting(JobRecord.Line::note).doesNotContain("seal checked");
    // A step that was left out is no reading: nothing is passed by it.
    List<Taken> skipped = List.of(taken(0, Double.NaN));
    assertThat(trim.record(skipped, LINE).verdict()).isEqualTo(Verdict.OPEN);
    assertThat(trim.steps(skipped).get(1).deed()).isEqualTo(Deed.LOOSEN);
  }

  private static TaughtEnds teach(Double low, Double high, double lowMost, double highMost) {
    return new TaughtEnds(
        v(0),
        v(200),
        low == null ? null : v(low),
        high == null ? null : v(high),
        v(lowMost),
        v(highMost),
        v(3),
        v(60),
        v(0.5),
        v(0.5),
        v(4.5),
        null);
  }

  /** An end is refused exactly where it lies outside its part of the travel, with the numbers. */
  @Test
  void endsAreTaughtOnlyWhereTheyMayBe() {
    var r = new Random(4);
    for (int i = 0; i < 500; i++) {
      double low = r.nextDouble() * 120 - 10;
      double high = 90 + r.nextDouble() * 120;
      double lowMost = r.nextInt(5) / 10.0;
      double highMost = r.nextInt(5) / 10.0;
      boolean allowed =
          low >= 0
              && low <= 200 * lowMost
              && high <= 200
              && high >= 200 * (1 - highMost)
              && low < high;
      if (allowed) {
        assertThat(teach(low, high, lowMost, highMost).taught()).isEqualTo(new Span(low, high));
      } else {
        assertThatThrownBy(() -> teach(low, high, lowMost, highMost))
            .isInstanceOf(QuantityException.class)
            .hasMessageMatching(".*(may be taught from|may not be taught|must rise).*\\d.*");
      }
    }
  }

  /** The new transfer is verified in between, too; late, or not following it, is no pass. */
  @Test
  void whatIsTaughtIsVerified() {
    TaughtEnds t = teach(20.0, 180.0, 0.25, 0.25);
    assertThat(t.volts(100)).isCloseTo(2.5, within(1e-12));
    List<Taken> good = taught(t, 0, 30_000);
    assertThat(t.steps(List.of())).hasSize(9);
    assertThat(t.record(good, line(0.5, Optional.empty())).verdict()).isEqualTo(Verdict.PASS);
    List<Taken> off = taught(t, 0.02, 30_000);
    JobRecord wrong = t.record(off, line(0.5, Optional.empty()));
    assertThat(wrong.verdict()).isEqualTo(Verdict.FAIL);
    // 20 mV of 4 V over 160 is 0.8.
    assertThat(wrong.says()).contains("+0.80");
    JobRecord late = t.record(taught(t, 0, 61_000), LINE);
    assertThat(late.verdict()).isEqualTo(Verdict.FAIL);
    assertThat(late.says()).contains("61 s");
    // A place that was left out is not verified, and without a tolerance nothing passes.
    var left = new ArrayList<>(good);
    left.set(7, taken(100, Double.NaN));
    JobRecord open = t.record(left, line(0.5, Optional.empty()));
    assertThat(open.verdict()).isEqualTo(Verdict.OPEN);
    assertThat(open.says()).contains("not verified at all three");
    assertThat(t.record(good, line(Double.NaN, Optional.empty())).says())
        .contains("no tolerance is stated");
    // While the second end waits, the step says until when.
    assertThat(t.steps(good.subList(0, 3)).get(4).until()).isEqualTo(61_000);
  }

  private static List<Taken> taught(TaughtEnds t, double off, long between) {
    var list = new ArrayList<Taken>();
    list.add(new Taken(0, 20, 0.9, 0));
    list.add(new Taken(1000, 20, 0.5, 0));
    list.add(new Taken(2000, 20, Double.NaN, Double.NaN));
    list.add(new Taken(3000, 180, 0.5, 0));
    list.add(new Taken(1000 + between, 180, 0.5, 0));
    list.add(new Taken(2000 + between, 180, Double.NaN, Double.NaN));
    for (double x : new double[] {20, 100, 180}) list.add(taken(x, t.volts(x) + off));
    return list;
  }

  /** Room is counted from the end that is nearer to a limit, and an end beyond it fails. */
  @Test
  void learntEndsKeepClearOfTheFaultLimits() {
    var ends = new LearntEnds(v(0), v(100));
    Known known = line(1, Optional.of(new Thresholds(v(0.3), v(4.7))));
    List<Taken> good = List.of(taken(0, 0.52), taken(100, 4.48));
    JobRecord record = ends.record(good, known);
    assertThat(record.verdict()).isEqualTo(Verdict.PASS);
    assertThat(record.lines())
        .extracting(JobRecord.Line::value)
        .contains("+220.0 mV", "3.9600 V", "opening raises it");
    assertThat(ends.mirrored(good, known)).isFalse();
    List<Taken> turned = List.of(taken(0, 4.48), taken(100, 0.52));
    assertThat(ends.mirrored(turned, known)).isTrue();
    assertThat(ends.record(turned, known).verdict()).isEqualTo(Verdict.PASS);
    assertThat(ends.record(List.of(taken(0, 0.28), taken(100, 4)), known).verdict())
        .isEqualTo(Verdict.FAIL);
    assertThat(ends.record(List.of(taken(0, 2), taken(100, 2.0002)), known).verdict())
        .isEqualTo(Verdict.FAIL);
  }

  /** A station that was missed, slack, and a cycle that is not closed are told apart. */
  @Test
  void stationsAreJudged() {
    var lever = new Stations(List.of("a", "b", "c"), v(0.02));
    assertThat(lever.steps(List.of())).extracting(Step::at).containsExactly(1., 2., 3., 2., 1.);
    assertThat(lever.record(of(1, 2, 3, 2.01, 1.005), LEVER).verdict()).isEqualTo(Verdict.PASS);
    JobRecord slack = lever.record(of(1, 2, 3, 2.05, 1), LEVER);
    assertThat(slack.verdict()).isEqualTo(Verdict.FAIL);
    assertThat(slack.says()).startsWith("b has 50.0 mV");
    assertThat(lever.record(of(1, 2, 2, 2, 1), LEVER).says()).contains("a station was missed");
    assertThat(lever.record(of(1, 2, 3, 2), LEVER).verdict()).isEqualTo(Verdict.OPEN);
    assertThat(lever.record(of(1, 2, 3, 2, Double.NaN), LEVER).verdict()).isEqualTo(Verdict.OPEN);
  }

  /** A lever that sticks rises a little at each throw, and stands at the first all the time. */
  @Test
  void aStationThatReadsLikeAnotherOneIsNotEstablished() {
    var lever = new Stations(List.of("a", "b", "c"), v(0.02));
    JobRecord sticks = lever.record(of(1, 1.01, 1.02, 1.01, 1), LEVER);
    assertThat(sticks.verdict()).isEqualTo(Verdict.OPEN);
    assertThat(sticks.says())
        .isEqualTo("Not established: b reads 1.0100 V, where the design has a (2.0000 V for b).");
    assertThat(lever.record(of(2, 3, 3.4, 3, 2), LEVER).says()).contains("a reads 2.0000 V");
  }

  private static Taken swings(double applied, double volts) {
    return new Taken(0, applied, volts, 1e-4, false, "it swings by ±20 mV with 40 s");
  }

  /** What had not settled is named, and neither passes nor fails, however good it looks. */
  @Test
  void whatHadNotSettledEstablishesNothing() {
    var lever = new Stations(List.of("a", "b"), v(0.02));
    var ends = new LearntEnds(v(0), v(100));
    var zero = new ZeroAndSpan(v(0), v(100), "");
    Taken confirmed = taken(0, Double.NaN);
    List<JobRecord> records =
        List.of(
            lever.record(List.of(taken(1, 1), swings(2, 2), taken(1, 1)), LEVER),
            ends.record(List.of(taken(0, 0.5), swings(100, 4.5)), LINE),
            ends.record(List.of(swings(0, 2), taken(100, 2)), LINE),
            zero.record(List.of(swings(0, 0.5), taken(100, 4.5), taken(0, 0.5)), LINE),
            new MechanicalTrim(v(2.5), v(0.005), "", null)
                .record(List.of(swings(0, 2.5), confirmed), LINE));
    for (JobRecord r : records) {
      assertThat(r.verdict()).as(r.says()).isEqualTo(Verdict.OPEN);
      assertThat(r.says()).startsWith("Not established: step ").endsWith("had not settled.");
      assertThat(r.lines()).last().extracting(JobRecord.Line::note).asString().contains("swings");
    }
    assertThat(zero.forbids(List.of(swings(0, 5)), LINE)).isEmpty();
  }

  /** What was read on the way may be anything: what counts is how it ends. */
  @Test
  void whatWasReadOnTheWayMayBeUnsettled() {
    var trim = new MechanicalTrim(v(2.5), v(0.005), "", null);
    List<Taken> done =
        List.of(swings(0, 2.4), swings(2, 2.5), taken(2, 2.501), taken(Double.NaN, Double.NaN));
    assertThat(trim.record(done, LINE).verdict()).isEqualTo(Verdict.PASS);
    assertThat(trim.record(done, LINE).lines())
        .filteredOn(l -> l.what().equals("a degree is worth"))
        .singleElement()
        .matches(l -> l.note().equals("± 0.14 mV, from 2 readings"), "2 √2 · 0.1 mV over 2°");
  }

  /** A trim that puts one end right and the other beyond a limit is none. */
  @Test
  void aTrimLooksAtTheOtherEnd() {
    var trim = new MechanicalTrim(v(0.6), v(0.2), "", null);
    List<Taken> high = List.of(taken(0, 0.78), taken(Double.NaN, Double.NaN));
    assertThat(trim.record(high, LINE).verdict()).isEqualTo(Verdict.PASS);
    JobRecord beyond = trim.record(high, line(1, Optional.of(new Thresholds(v(0.2), v(4.7)))));
    assertThat(beyond.verdict()).isEqualTo(Verdict.FAIL);
    assertThat(beyond.says())
        .isEqualTo(
            "Near enough here, but by the design it would read 4.7800 V at 100.0 kPa, beyond the"
                + " fault limits (below 0.2 V or above 4.7 V).");
  }

  /** Before the span is worked at, a zero that is none is refused. */
  @Test
  void aZeroThatIsNoneForbidsToGoOn() {
    var job = new ZeroAndSpan(v(0), v(100), "");
    assertThat(job.forbids(List.of(), LINE)).isEmpty();
    assertThat(job.forbids(List.of(taken(0, 0.52)), LINE)).isEmpty();
    assertThat(job.forbids(List.of(taken(0, 1.3)), LINE)).contains("that is another sensor");
    assertThat(job.forbids(List.of(taken(0, 0.5), taken(100, 3)), LINE))
        .contains("A span factor of 1.6");
  }

  private static List<Taken> of(double... volts) {
    var list = new ArrayList<Taken>();
    for (double x : volts) list.add(taken(0, x));
    return list;
  }

  /** A sensor that is off by an offset and a factor reads the truth at both points once trimmed. */
  @Test
  void aTrimPutsZeroAndSpanRight() {
    var r = new Random(8);
    for (int i = 0; i < 300; i++) {
      double offset = (r.nextDouble() - 0.5) * 0.6;
      double factor = 0.93 + 0.14 * r.nextDouble();
      double at = 40 + 60 * r.nextDouble();
      var job = new ZeroAndSpan(v(0), v(at), "");
      List<Taken> done =
          List.of(
              taken(0, 0.5 + offset),
              taken(at, 0.5 + offset + 0.04 * factor * at),
              taken(0, 0.5 + offset));
      boolean zeroOff = Math.abs(offset / 0.04) > 10;
      boolean spanOff = Math.abs(1 / factor - 1) > 0.1;
      Optional<Trim> trim = job.trim(done, LINE);
      assertThat(trim.isEmpty()).as("%s %s", offset, factor).isEqualTo(zeroOff || spanOff);
      if (trim.isEmpty()) {
        assertThat(job.record(done, LINE).verdict()).isEqualTo(Verdict.FAIL);
        continue;
      }
      double x = 100 * r.nextDouble();
      double reads = (offset + 0.04 * factor * x) / 0.04;
      assertThat(trim.get().of(reads)).isCloseTo(x, within(1e-9));
      assertThat(trim.get().before(x)).isCloseTo(reads, within(1e-9));
      assertThat(job.record(done, LINE).verdict()).isEqualTo(Verdict.PASS);
    }
  }

  /** What is no trim is refused by its size; a zero that does not come back is no pass. */
  @Test
  void implausibleTrimsAreRefused() {
    var job = new ZeroAndSpan(v(0), null, "");
    JobRecord far = job.record(List.of(taken(0, 0.5 + 0.04 * 240), taken(0, 10.1)), LINE);
    assertThat(far.verdict()).isEqualTo(Verdict.FAIL);
    assertThat(far.says()).contains("2.4 times");
    JobRecord drifts = job.record(List.of(taken(0, 0.54), taken(0, 0.58)), LINE);
    assertThat(drifts.verdict()).isEqualTo(Verdict.FAIL);
    assertThat(drifts.says()).contains("+1.00").contains("does not come back");
    assertThat(job.record(List.of(taken(0, 0.54)), LINE).verdict()).isEqualTo(Verdict.OPEN);
    var span = new ZeroAndSpan(v(0), v(100), "");
    JobRecord units = span.record(List.of(taken(0, 0.5), taken(100, 0.5 + 0.04 * 14.5)), LINE);
    assertThat(units.says()).contains("6.897").contains("mixed-up unit");
  }
}
