package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.TreeMap;
import nocking.analysis.Analysis;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.diagnosis.Diagnostician;
import nocking.diagnosis.Exercise;
import nocking.diagnosis.Explanation;
import nocking.diagnosis.MeasuredValue;
import nocking.diagnosis.NextMeasurement;
import nocking.diagnosis.Ranking;
import nocking.fault.Fault;
import nocking.fault.Subject;
import nocking.prior.PriorWeights;
import nocking.wiring.Meter;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * How well the engine finds single faults by its own advice: 300 random ones over all channels, by
 * their prior weights and at random degrees, each noticed because the display is off by more than
 * the tolerance. The meter errs by its gain and its last digits, the sensor inside the channel's
 * tolerance. The display that raised the alarm is given; at most four measurements follow.
 */
@Tag("campaign")
class DiagnosisReportTest {
  private static final int FAULTS = 300;
  private static final int MEASUREMENTS = 4;
  private static final long SEED = 20260401;

  private record Outcome(String tag, Fault truth, int place, boolean alone, int measurements) {}

  @Test
  void faultsAreFoundByTheEnginesOwnAdvice() {
    Book book = Hatchery.book(Hatchery.SEED);
    var random = new Random(SEED);
    record Case(Channel channel, long seed) {}
    var cases = new ArrayList<Case>();
    while (cases.size() < FAULTS) {
      Channel c = book.channels().get(random.nextInt(book.channels().size()));
      cases.add(new Case(c, random.nextLong()));
    }
    List<Outcome> outcomes =
        cases.parallelStream()
            .map(k -> outcome(Analysis.of(k.channel, book.cards()), k.seed))
            .toList();
    double first = share(outcomes, o -> o.place == 0);
    double alone = share(outcomes, o -> o.place == 0 && o.alone);
    double third = share(outcomes, o -> o.place >= 0);
    double used = outcomes.stream().mapToInt(Outcome::measurements).average().orElseThrow();
    System.out.printf("Diagnosis of %d random single faults, seed %d%n", FAULTS, SEED);
    System.out.printf(
        "  first, or named as not to be told from the first  %5.1f %%%n", 100 * first);
    System.out.printf(
        "  first by itself                                   %5.1f %%%n", 100 * alone);
    System.out.printf(
        "  within the first three                            %5.1f %%%n", 100 * third);
    System.out.printf("  measurements, mean                                %5.2f%n", used);
    missed(outcomes).forEach((what, n) -> System.out.printf("  not first: %s (%d)%n", what, n));
    assertThat(first).isGreaterThanOrEqualTo(0.90);
    assertThat(third).isGreaterThanOrEqualTo(0.98);
    assertThat(outcomes).allMatch(o -> o.measurements <= MEASUREMENTS);
    // Most faults must be told by themselves: naming everything alike would be no diagnosis.
    assertThat(alone).isGreaterThan(0.6);
  }

  private static double share(List<Outcome> outcomes, java.util.function.Predicate<Outcome> holds) {
    return outcomes.stream().filter(holds).count() / (double) outcomes.size();
  }

  private static Map<String, Long> missed(List<Outcome> outcomes) {
    var map = new TreeMap<String, Long>();
    for (Outcome o : outcomes) {
      if (o.place != 0) map.merge(o.tag + " " + o.truth.name(), 1L, Long::sum);
    }
    return map;
  }

  private static Outcome outcome(Analysis a, long seed) {
    Subject subject = a.wiring().subject().orElseThrow();
    Exercise exercise =
        Exercise.hide(
                subject, Meter.HAND_HELD, a.design().decimals(), Exercise.Difficulty.HARD, seed)
            .orElseThrow();
    var engine = Diagnostician.of(subject, PriorWeights.USUAL);
    Ranking ranking = engine.rank(exercise.seen());
    for (int i = 0; i < MEASUREMENTS; i++) {
      NextMeasurement next = engine.next(ranking).orElse(null);
      if (next == null) break;
      exercise.measure(next.place(), next.at());
      ranking = engine.rank(exercise.seen());
    }
    Fault truth = exercise.hidden();
    for (int i = 0; i < 3; i++) {
      Explanation e = ranking.explanations().get(i);
      boolean itself = e.fault().same(truth);
      List<Explanation> alike = engine.indistinguishable(e, ranking);
      if (itself || alike.stream().anyMatch(o -> o.fault().same(truth))) {
        return new Outcome(
            a.channel().tag(), truth, i, itself && alike.isEmpty(), exercise.measurements());
      }
    }
    return new Outcome(a.channel().tag(), truth, -1, false, exercise.measurements());
  }

  /**
   * Two faults that are named as not to be told apart give the same readings everywhere, within
   * what meter and tolerance leave open.
   */
  @Test
  void whatIsNamedAlikeReadsAlike() {
    Book book = Hatchery.book(Hatchery.SEED);
    for (Channel c : book.channels()) {
      Analysis a = Analysis.of(c, book.cards());
      Subject subject = a.wiring().subject().orElseThrow();
      var engine = Diagnostician.of(subject, PriorWeights.USUAL);
      for (long seed = 0; seed < 8; seed++) {
        Exercise e =
            Exercise.hide(
                    subject,
                    Meter.HAND_HELD,
                    a.design().decimals(),
                    Exercise.Difficulty.MEDIUM,
                    seed)
                .orElseThrow();
        Ranking r = engine.rank(e.seen());
        Fault top = r.best().fault();
        for (Explanation alike : engine.indistinguishable(r.best(), r)) {
          // The twin is fitted anew to all that the first one would show.
          var shown = new ArrayList<MeasuredValue>();
          for (var place : engine.places()) {
            double v = engine.reading(top, place, e.complaintAt());
            if (!Double.isNaN(v)) shown.add(MeasuredValue.of(place, e.complaintAt(), v));
          }
          Explanation twin = engine.rank(shown).of(alike.fault()).orElseThrow();
          assertThat(twin.misfit())
              .as("%s: %s and %s", c.tag(), top.says(), alike.fault().says())
              .isLessThan(9.5);
        }
      }
    }
  }
}
