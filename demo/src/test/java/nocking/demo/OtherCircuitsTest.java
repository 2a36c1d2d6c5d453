package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import java.util.stream.LongStream;
import nocking.analysis.Analysis;
import nocking.demo.Plant.Break;
import nocking.demo.Plant.Broken;
import nocking.diagnosis.Diagnostician;
import nocking.diagnosis.Explanation;
import nocking.diagnosis.MeasuredValue;
import nocking.diagnosis.NextMeasurement;
import nocking.diagnosis.Ranking;
import nocking.fault.Fault;
import nocking.prior.FaultKind;
import nocking.prior.PriorWeights;
import nocking.wiring.Place;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/**
 * Diagnosis held against circuits of other channels than the demo's, broken by a second model with
 * netlists, supply currents and noise of its own: what is found, and what is claimed where nothing
 * on the list is true.
 */
@Tag("campaign")
class OtherCircuitsTest {
  /** A thousand and two hundred with -Dnocking.cases=1000 -Dnocking.outside=200. */
  private static final int SINGLE = Integer.getInteger("nocking.cases", 140);

  private static final int OUTSIDE = Integer.getInteger("nocking.outside", 80);
  private static final int MEASUREMENTS = 4;
  private static final double CONFIDENT = 0.9;

  private record Found(String what, Ranking ranking, Diagnostician engine, int measurements) {}

  /** Looks where the engine says, four times at most, after the display that raised the alarm. */
  private static Found search(Plant plant, String what, double at) {
    var a = Analysis.of(plant.channel());
    var engine = Diagnostician.of(a.wiring().subject().orElseThrow(), PriorWeights.USUAL);
    var seen = new ArrayList<MeasuredValue>(List.of(plant.look(Place.DISPLAY, at)));
    Ranking r = engine.rank(seen);
    int used = 0;
    for (; used < MEASUREMENTS; used++) {
      NextMeasurement next = engine.next(r).orElse(null);
      if (next == null) break;
      seen.add(plant.look(next.place(), next.at()));
      r = engine.rank(seen);
    }
    return new Found(what, r, engine, used);
  }

  /** True for what was broken, at the part where it was. */
  static boolean names(Fault f, Broken b) {
    if (f.kind() != b.what().kind()) return false;
    if (b.what() == Break.DECIMAL) return f.severity() == b.degree();
    if (b.part().isEmpty()) return true;
    boolean part = (f.element() + " " + f.part()).equals(b.part());
    return part && (b.what() != Break.PART_DECADE || f.severity() == b.degree());
  }

  private static boolean named(Explanation e, Found f, List<Broken> truth) {
    if (truth.stream().anyMatch(b -> names(e.fault(), b))) return true;
    return f.engine.indistinguishable(e, f.ranking).stream()
        .anyMatch(o -> truth.stream().anyMatch(b -> names(o.fault(), b)));
  }

  /** Input of a plant at which its display is off by more than the tolerance; NaN for none. */
  private static double noticed(Plant p) {
    for (int i = 0; i < 8; i++) {
      double x = p.at(0.05 + 0.9 * p.random().nextDouble());
      if (Math.abs(p.display(x) - x) > 1.5 * p.tolerance()) return x;
    }
    return Double.NaN;
  }

  @Test
  void singleFaultsOfOtherCircuitsAreFound() {
    record Outcome(String what, int place, boolean alone, int measurements) {}
    List<Outcome> all =
        LongStream.range(0, 3 * SINGLE)
            .parallel()
            .mapToObj(
                seed -> {
                  var plant = new Plant(seed);
                  Broken b = plant.any();
                  plant.breakDown(List.of(b));
                  double x = noticed(plant);
                  if (Double.isNaN(x)) return null;
                  Found f = search(plant, plant + " " + b, x);
                  for (int i = 0; i < 3; i++) {
                    Explanation e = f.ranking.explanations().get(i);
                    if (named(e, f, List.of(b))) {
                      boolean alone =
                          names(e.fault(), b) && f.engine.indistinguishable(e, f.ranking).isEmpty();
                      return new Outcome(f.what, i, alone, f.measurements);
                    }
                  }
                  String top = f.ranking.best().fault().says();
                  return new Outcome(f.what + " -> " + top, -1, false, f.measurements);
                })
            .filter(o -> o != null)
            .limit(SINGLE)
            .toList();
    double first = share(all.stream().filter(o -> o.place == 0).count(), all.size());
    double third = share(all.stream().filter(o -> o.place >= 0).count(), all.size());
    double alone = share(all.stream().filter(o -> o.place == 0 && o.alone).count(), all.size());
    System.out.printf("Single faults of other circuits: %d%n", all.size());
    System.out.printf("  first, or named as not to be told from the first  %5.1f %%%n", first);
    System.out.printf("  first by itself                                   %5.1f %%%n", alone);
    System.out.printf("  within the first three                            %5.1f %%%n", third);
    System.out.printf(
        "  measurements, mean                                %5.2f%n",
        all.stream().mapToInt(Outcome::measurements).average().orElseThrow());
    all.stream()
        .filter(o -> o.place != 0)
        .limit(40)
        .forEach(o -> System.out.println("  not first: " + o.place + " " + o.what));
    assertThat(all).hasSize(SINGLE);
    assertThat(first).isGreaterThanOrEqualTo(97);
    assertThat(third).isGreaterThanOrEqualTo(98);
    assertThat(alone).isGreaterThan(40);
  }

  /** Two faults at once, a wrong reference, a bad contact, a supply too high, another decade. */
  @Test
  void whatIsOutsideTheModelIsNotClaimed() {
    record Claim(String what, String top, double probability, boolean untrue) {}
    List<Claim> all =
        LongStream.range(5000, 5000 + 4 * OUTSIDE)
            .parallel()
            .mapToObj(
                seed -> {
                  var plant = new Plant(seed);
                  var truth = new ArrayList<Broken>();
                  var kinds = new ArrayList<FaultKind>();
                  int which = (int) (seed % 5);
                  switch (which) {
                    case 0 -> {
                      truth.add(plant.any());
                      truth.add(plant.any());
                    }
                    case 1 -> {
                      double off = (plant.random().nextBoolean() ? 1 : -1) * 0.15;
                      double width = plant.at(1) - plant.at(0);
                      boolean slope = plant.random().nextBoolean();
                      plant.misread(x -> slope ? x + off * (x - plant.at(0)) : x + off * width);
                      kinds.add(slope ? FaultKind.REFERENCE_SCALE : FaultKind.REFERENCE_OFF);
                    }
                    case 2 -> {
                      plant.loosen();
                      kinds.add(FaultKind.INTERMITTENT);
                      kinds.add(FaultKind.SIGNAL_OPEN);
                    }
                    case 3 ->
                        truth.add(
                            new Broken(Break.SUPPLY_HIGH, "", 1.15 + plant.random().nextDouble()));
                    default ->
                        truth.add(
                            new Broken(
                                Break.PART_DECADE,
                                plant.parts().get(plant.random().nextInt(plant.parts().size())),
                                plant.random().nextBoolean() ? 10 : 0.1));
                  }
                  if (truth.size() == 2 && truth.get(0).what() == truth.get(1).what()) return null;
                  plant.breakDown(truth);
                  double x = noticed(plant);
                  if (Double.isNaN(x)) return null;
                  Found f = search(plant, which + " " + plant + " " + truth, x);
                  Explanation top = f.ranking.best();
                  boolean right =
                      !top.listed()
                          || kinds.contains(top.fault().kind())
                          || named(top, f, truth)
                          || f.engine.indistinguishable(top, f.ranking).stream()
                              .anyMatch(o -> kinds.contains(o.fault().kind()));
                  return new Claim(
                      f.what
                          + " "
                          + f.ranking.observations().stream()
                              .map(o -> o.place().key() + "@" + o.at() + "=" + o.value())
                              .toList(),
                      top.fault().says(),
                      top.probability(),
                      !right && top.fits());
                })
            .filter(c -> c != null)
            .limit(OUTSIDE)
            .toList();
    List<Claim> wrong = all.stream().filter(c -> c.untrue && c.probability >= CONFIDENT).toList();
    double share = share(wrong.size(), all.size());
    System.out.printf(
        "Outside the model: %d, surely and wrongly named %.1f %%%n", all.size(), share);
    Map<String, Long> by =
        wrong.stream()
            .collect(
                Collectors.groupingBy(
                    c -> c.what.substring(0, 1), TreeMap::new, Collectors.counting()));
    System.out.println("  by kind: " + by);
    wrong.stream().limit(30).forEach(c -> System.out.println("  " + c));
    assertThat(all).hasSize(OUTSIDE);
    assertThat(share).isLessThanOrEqualTo(5);
  }

  private static double share(long some, long all) {
    return 100.0 * some / all;
  }
}
