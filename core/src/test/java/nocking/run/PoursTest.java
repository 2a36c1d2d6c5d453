package nocking.run;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.IntStream;
import nocking.points.RawUnit;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Pours.Seen;
import org.junit.jupiter.api.Test;

/** Vessels of shapes that the program knows nothing of, filled by hand. */
class PoursTest {
  private static final double WHOLE = 600;
  private static final int POURS = 12;
  private static final double LINES = 1;

  /** A shape by how much is in at a height of 0 … 1, as share of the whole; it rises. */
  private record Vessel(DoubleUnaryOperator filled, double scatter, Random r) {
    static Vessel of(long seed) {
      var r = new Random(seed);
      double a = 0.2 + r.nextDouble();
      DoubleUnaryOperator filled =
          switch ((int) (seed % 4)) {
            // A trough that widens, a lying cylinder, a ball, and two boxes with a slope between.
            case 0 -> h -> (0.05 * a * h + h * h) / (0.05 * a + 1);
            case 1 ->
                h -> (Math.acos(1 - 2 * h) - 2 * (1 - 2 * h) * Math.sqrt(h - h * h)) / Math.PI;
            case 2 -> h -> h * h * (3 - 2 * h);
            default -> h -> 0.3 * h + 0.7 * Math.pow(h, 2 + 3 * a);
          };
      return new Vessel(filled, 0.0005 * r.nextDouble(), r);
    }

    /** Height at a volume. */
    double height(double litres) {
      double low = 0;
      double high = 1;
      for (int i = 0; i < 60; i++) {
        double middle = (low + high) / 2;
        if (WHOLE * filled.applyAsDouble(middle) < litres) low = middle;
        else high = middle;
      }
      return low;
    }

    double volts(double litres) {
      return 0.5 + 4 * height(litres);
    }

    double reads(double litres) {
      return volts(litres) + scatter * r.nextGaussian();
    }

    /** The worst of what lines behind the third total are off by. */
    double worst(List<Double> totals) {
      return IntStream.range(3, totals.size())
          .mapToDouble(i -> off(totals.get(i - 1), totals.get(i)))
          .max()
          .orElseThrow();
    }

    /** What a straight line between two totals is off by at most. */
    double off(double from, double to) {
      double a = height(from);
      double b = height(to);
      return IntStream.range(1, 50)
          .mapToDouble(i -> i / 50.0)
          .map(
              k ->
                  Math.abs(
                      WHOLE * filled.applyAsDouble(a + k * (b - a)) - (from + k * (to - from))))
          .max()
          .orElseThrow();
    }
  }

  private static RunPlan plan(double straight) {
    var meter = Instrument.of("M", Instrument.Language.SCPI, "127.0.0.1:1", "READ?", Unit.VOLT);
    var all = new ArrayList<Value>();
    for (int i = 1; i <= POURS; i++) all.add(Value.of(i * WHOLE / POURS));
    return new RunPlan(
        "R",
        RunPlan.Kind.POURS,
        "L",
        List.of(new RunChannel("c", "C", RawUnit.VOLTS, meter, new SettleRule.Dwell(0), "")),
        Instrument.byHand("by eye", Unit.of("L")),
        all,
        Course.UP,
        1,
        1,
        3,
        1,
        600,
        WHOLE / POURS / 2,
        Unsettled.TAKE,
        Purpose.DEVELOPMENT,
        Conditions.NONE,
        null,
        null,
        null,
        straight > 0 ? Value.of(straight) : null);
  }

  /** Fills it as asked, each pour a little off; what is asked for stays so after a power cut. */
  private static List<Double> fill(Vessel v, RunPlan plan) {
    var journal = new ArrayList<RunEntry>();
    var progress = new RunProgress(plan);
    long clock = 1_795_000_000_000L;
    double in = 0;
    for (int k = 0; k < 200 && !progress.over(); k++) {
      double asked = progress.target().orElseThrow().setPoint();
      assertThat(asked).isGreaterThan(in);
      var again = RunProgress.after(plan, journal);
      assertThat(again.target().orElseThrow().setPoint()).isEqualTo(asked);
      // Nothing is read before it is poured.
      for (int i = 0; i < 5 && k > 0; i++) {
        progress.take(new Sweep(clock += 1000, progress.next(), in, List.of(v.reads(in))));
        assertThat(progress.phase()).isEqualTo(RunProgress.Phase.APPROACHING);
      }
      in = Math.min(WHOLE, asked + 0.1 * (asked - in) * (v.r.nextDouble() - 0.5));
      for (int i = 0; i < 50 && progress.points().size() <= k; i++) {
        var sweep = new Sweep(clock += 1000, progress.next(), in, List.of(v.reads(in)));
        progress.take(sweep).ifPresent(journal::add);
      }
      assertThat(progress.points()).hasSize(k + 1);
    }
    assertThat(progress.over()).isTrue();
    return progress.points().stream().map(RunPoint::applied).toList();
  }

  /** 200 fillings: behind the third pour straight lines hold, and not by pouring all too finely. */
  @Test
  void poursAreHalvedWhereTheVesselBends() {
    int bent = 0;
    for (long seed = 0; seed < 200; seed++) {
      Vessel v = Vessel.of(seed);
      List<Double> finer = fill(v, plan(LINES));
      List<Double> plain = fill(v, plan(0));
      assertThat(plain).hasSize(POURS);
      assertThat(finer.size()).as("seed %d", seed).isBetween(POURS, 2 * POURS);
      double worst = v.worst(plain);
      if (worst < 1.5 * LINES) continue;
      bent++;
      // What closes altogether at its very top is parted as finely as pours are ever parted.
      double most = Math.max(1.5 * LINES, 0.8 * worst);
      assertThat(v.worst(finer)).as("seed %d", seed).isLessThan(most);
    }
    assertThat(bent).isGreaterThan(100);
  }

  /** Skipped, repeated, held, killed anywhere: what is asked for is what the journal says. */
  @Test
  void whateverIsDoneARunGoneOnWithAsksForTheSame() {
    for (long seed = 0; seed < 300; seed++) {
      Vessel v = Vessel.of(seed);
      var r = new Random(seed);
      var journal = new ArrayList<RunEntry>();
      RunPlan plan = plan(LINES / 2);
      var progress = new RunProgress(plan);
      long clock = 1_795_000_000_000L;
      double in = 0;
      for (int k = 0; k < 300 && !progress.over(); k++) {
        double asked = progress.target().orElseThrow().setPoint();
        Act act =
            switch (r.nextInt(12)) {
              case 0 -> new Act(++clock, Act.Kind.SKIP, "spilt");
              case 1 -> new Act(++clock, Act.Kind.REPEAT, "again");
              case 2 -> new Act(++clock, Act.Kind.HOLD, "");
              case 3 -> new Act(++clock, Act.Kind.NOTE, "rain");
              default -> null;
            };
        if (act != null) {
          journal.add(act);
          progress.take(act);
          if (act.kind() == Act.Kind.HOLD) {
            var go = new Act(++clock, Act.Kind.GO, "");
            journal.add(go);
            progress.take(go);
          }
        } else {
          in = Math.max(in, asked);
          for (int i = 0; i < 8; i++) {
            var sweep = new Sweep(clock += 1000, progress.next(), in, List.of(v.reads(in)));
            progress.take(sweep).ifPresent(journal::add);
          }
        }
        var again = RunProgress.after(plan, journal);
        assertThat(again.targets()).as("seed %d", seed).isEqualTo(progress.targets());
        assertThat(again.next()).isEqualTo(progress.next());
        assertThat(progress.targets())
            .extracting(Target::setPoint)
            .isSorted()
            .containsAll(plan.setPoints().stream().map(Value::number).toList());
      }
    }
  }

  /**
   * The pours are to tell the shape: that it is none of the design's is no fault. What moves the
   * wrong way or lies beyond a limit is one.
   */
  @Test
  void aShapeThatIsNotAsGuessedIsNoDoubtAndAFaultIs() {
    var guess = new Expectation(List.of(0.0, WHOLE), List.of(0.5, 4.5), 0.45, 0.2, 4.8);
    for (long seed = 0; seed < 200; seed++) {
      Vessel v = Vessel.of(seed);
      RunPlan p = plan(LINES);
      RunPlan known = p.withChannels(List.of(p.channels().getFirst().withExpected(guess)));
      RunPlan unknown =
          p.withChannels(List.of(p.channels().getFirst().withExpected(guess.ofUnknownShape())));
      assertThat(doubted(v, unknown, x -> x)).as("seed %d", seed).isEmpty();
      if (seed % 4 == 0) assertThat(doubted(v, known, x -> x)).contains("expected is");
      assertThat(doubted(v, unknown, x -> 0.002)).contains("only a fault lies");
      assertThat(doubted(v, unknown, x -> 0.6 * x)).contains("wrong way: by −");
    }
  }

  /** What speaks against a filling in which something happens after half of it. */
  private static String doubted(Vessel v, RunPlan plan, DoubleUnaryOperator then) {
    var progress = new RunProgress(plan);
    long clock = 1_795_000_000_000L;
    for (int k = 0; k < 2000 && !progress.over(); k++) {
      double in = progress.target().orElseThrow().setPoint();
      double reads = in < WHOLE / 2 ? v.reads(in) : then.applyAsDouble(v.reads(in));
      progress.take(new Sweep(clock += 1000, progress.next(), in, List.of(reads)));
      if (progress.doubt().isPresent()) return progress.doubt().get().says();
    }
    return "";
  }

  /** Upright walls bend nowhere: what scatters is no bend. */
  @Test
  void uprightWallsArePouredAsPlanned() {
    for (long seed = 0; seed < 200; seed++) {
      var r = new Random(seed);
      var upright = new Vessel(h -> h, 0.02 * r.nextDouble(), r);
      assertThat(fill(upright, plan(1)).size()).as("seed %d", seed).isLessThanOrEqualTo(POURS + 1);
    }
  }

  /** What an earlier filling has told is known from the first pour on. */
  @Test
  void anEarlierFillingTellsWhereToPourFiner() {
    for (long seed = 0; seed < 200; seed++) {
      Vessel v = Vessel.of(seed);
      List<Seen> seen =
          fill(v, plan(LINES)).stream().map(x -> new Seen(x, v.reads(x), v.scatter())).toList();
      List<Value> planned = plan(0).setPoints();
      List<Value> finer = Pours.finer(planned, seen, LINES);
      assertThat(finer)
          .containsAll(planned)
          .isSortedAccordingTo((a, b) -> Double.compare(a.number(), b.number()));
      double plain = v.worst(planned.stream().map(Value::number).toList());
      assertThat(v.worst(finer.stream().map(Value::number).toList()))
          .as("seed %d", seed)
          .isLessThanOrEqualTo(Math.max(1.5 * LINES, 0.8 * plain));
      double first = v.off(0, finer.getFirst().number());
      assertThat(first).as("seed %d", seed).isLessThan(Math.max(3 * LINES, 0.8 * v.off(0, 50)));
    }
    assertThat(Pours.finer(plan(0).setPoints(), List.of(), LINES)).isEqualTo(plan(0).setPoints());
  }
}
