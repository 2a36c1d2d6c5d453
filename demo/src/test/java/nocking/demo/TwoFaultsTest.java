package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.LongStream;
import nocking.analysis.Analysis;
import nocking.demo.Plant.Broken;
import nocking.diagnosis.Diagnostician;
import nocking.diagnosis.FaultPair;
import nocking.diagnosis.MeasuredValue;
import nocking.diagnosis.Ranking;
import nocking.diagnosis.TwoFaults;
import nocking.fault.Fault;
import nocking.fault.FaultMatrix;
import nocking.fault.Subject;
import nocking.prior.PriorWeights;
import nocking.wiring.Place;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Two things broken at once in circuits of a second model: what is named is there. */
@Tag("campaign")
class TwoFaultsTest {
  /** Two hundred with -Dnocking.pairs=200. */
  private static final int CASES = Integer.getInteger("nocking.pairs", 16);

  private record Outcome(String what, String says, boolean spoke, boolean pair, boolean untrue) {}

  /** Everything that can be looked at with the plug on, at three inputs. */
  private static List<MeasuredValue> lookEverywhere(Plant plant, Subject subject) {
    var seen = new ArrayList<MeasuredValue>();
    for (double along : new double[] {0.15, 0.5, 0.85}) {
      double x = plant.at(along);
      for (Place p : FaultMatrix.places(subject)) {
        if (p.live() || p.equals(Place.DISPLAY)) seen.add(plant.look(p, x));
      }
    }
    return seen;
  }

  private static boolean there(Fault f, List<Broken> truth) {
    return truth.stream().anyMatch(b -> OtherCircuitsTest.names(f, b));
  }

  @Test
  void whatIsNamedIsThere() {
    List<Outcome> all =
        LongStream.range(9000, 9000 + 12L * CASES)
            .parallel()
            .mapToObj(TwoFaultsTest::look)
            .flatMap(Optional::stream)
            .limit(CASES)
            .toList();
    long spoke = all.stream().filter(Outcome::spoke).count();
    long pair = all.stream().filter(Outcome::pair).count();
    long untrue = all.stream().filter(Outcome::untrue).count();
    System.out.printf("Two faults that no single one explains: %d%n", all.size());
    System.out.printf(
        "  both named, or the one that all likely pairs share %5.1f %%%n", 100.0 * spoke / CASES);
    System.out.printf(
        "  both named                                         %5.1f %%%n", 100.0 * pair / CASES);
    System.out.printf(
        "  untrue of what was named                           %5.1f %%%n", 100.0 * untrue / spoke);
    all.stream()
        .filter(Outcome::untrue)
        .forEach(o -> System.out.println("  " + o.what + " -> " + o.says));
    assertThat(all).hasSize(CASES);
    assertThat(spoke).isGreaterThan(CASES / 2);
    assertThat(untrue).isLessThanOrEqualTo(spoke / 20);
  }

  private static Optional<Outcome> look(long seed) {
    var plant = new Plant(seed);
    List<Broken> truth = List.of(plant.any(), plant.any());
    if (truth.get(0).what() == truth.get(1).what()) return Optional.empty();
    plant.breakDown(truth);
    Subject subject = Analysis.of(plant.channel()).wiring().subject().orElseThrow();
    var engine = Diagnostician.of(subject, PriorWeights.USUAL);
    Ranking r = engine.rank(lookEverywhere(plant, subject));
    if (!r.noneFits() && !r.somethingElse()) return Optional.empty();
    long t = System.nanoTime();
    TwoFaults two = engine.twoAtOnce(r);
    long ms = (System.nanoTime() - t) / 1000000;
    Optional<FaultPair> pair = two.pair();
    Optional<Fault> common = two.common();
    boolean untrue =
        pair.filter(p -> !there(p.first(), truth) || !there(p.second(), truth)).isPresent()
            || common.filter(c -> !there(c, truth)).isPresent();
    return Optional.of(
        new Outcome(
            plant + " " + truth,
            two.says().orElse("-"),
            pair.isPresent() || common.isPresent(),
            pair.isPresent(),
            untrue));
  }
}
