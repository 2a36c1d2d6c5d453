package nocking.parts;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.LongStream;
import nocking.element.Measurand;
import nocking.element.Signal;
import nocking.network.Circuit;
import nocking.path.SensorCurve;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.sensor.NtcBeta;
import nocking.stage.Sensed;
import nocking.stage.Stage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** Part choice against the standard's tables, exhaustive search and the nodal solver. */
class PartsTest {

  static LongStream seeds() {
    return LongStream.range(0, 200);
  }

  static LongStream fewSeeds() {
    return LongStream.range(0, 25);
  }

  /** IEC 60063: the values that rounding alone would not give, and the sizes of the series. */
  @Test
  void preferredValuesAreThoseOfTheStandard() {
    assertThat(PreferredSeries.E3.decade()).containsExactly(1.0, 2.2, 4.7);
    assertThat(PreferredSeries.E12.decade())
        .containsExactly(1.0, 1.2, 1.5, 1.8, 2.2, 2.7, 3.3, 3.9, 4.7, 5.6, 6.8, 8.2);
    assertThat(PreferredSeries.E24.decade()).contains(2.7, 3.0, 3.3, 3.6, 3.9, 4.3, 4.7, 9.1);
    assertThat(PreferredSeries.E48.decade()).contains(1.05, 1.47, 4.87, 9.53).hasSize(48);
    assertThat(PreferredSeries.E96.decade()).contains(1.02, 4.99, 6.04, 9.76).hasSize(96);
    assertThat(PreferredSeries.E192.decade())
        .contains(9.20, 1.01, 4.75, 9.88)
        .doesNotContain(9.19)
        .hasSize(192);
    assertThat(PreferredSeries.E24.between(4.6e3, 5.2e3)).containsExactly(4700, 5100);
    assertThat(PreferredSeries.E12.nearest(4000)).isEqualTo(3900);
  }

  private static Assortment random(Random r) {
    PreferredSeries series = PreferredSeries.values()[2 + r.nextInt(5)];
    return Assortment.of(series, 100, 1e6, 1);
  }

  @ParameterizedTest
  @MethodSource("seeds")
  void bestDividerIsThatOfExhaustiveSearch(long seed) {
    Random r = new Random(seed);
    Assortment a = random(r);
    double ratio = 0.05 + 0.9 * r.nextDouble();
    double low = Math.pow(10, 3 + 2 * r.nextDouble());
    Span total = new Span(low, low * (1.1 + 3 * r.nextDouble()));
    double best = Double.POSITIVE_INFINITY;
    for (int i = 0; i < a.size(); i++) {
      for (int j = 0; j < a.size(); j++) {
        if (!total.contains(a.ohms(i) + a.ohms(j))) continue;
        double k = a.ohms(j) / (a.ohms(i) + a.ohms(j));
        best = Math.min(best, Math.abs(k / ratio - 1));
      }
    }
    Candidates d =
        DividerDesign.search(
            a, new DividerDesign.Goal(10, 10 * ratio, total, Double.POSITIVE_INFINITY), 2);
    assertThat(d.exact()).isTrue();
    if (Double.isInfinite(best)) {
      assertThat(d.found()).as("seed %d", seed).isFalse();
      return;
    }
    Solution s = d.solutions().getFirst();
    assertThat(Math.abs(s.error())).as("seed %d", seed).isCloseTo(best, within(1e-12));
    double sum = s.parts().stream().mapToDouble(p -> p.network().ohms()).sum();
    assertThat(total.contains(sum)).isTrue();
  }

  private static List<StockPart> drawer(Random r, int kinds) {
    var list = new ArrayList<StockPart>();
    for (int i = 0; i < kinds; i++) {
      double ohms = PreferredSeries.E24.nearest(Math.pow(10, 2 + 4 * r.nextDouble()));
      list.add(new StockPart("", ohms, 1, 0.25, 200, 1 + r.nextInt(2)));
    }
    return list;
  }

  private static boolean available(List<StockPart> drawer, Solution s) {
    var used =
        s.parts().stream()
            .flatMap(p -> p.network().parts().stream())
            .collect(Collectors.groupingBy(StockPart::ohms, Collectors.counting()));
    return used.entrySet().stream()
        .allMatch(
            e ->
                drawer.stream()
                        .filter(p -> p.ohms() == e.getKey())
                        .mapToInt(StockPart::quantity)
                        .sum()
                    >= e.getValue());
  }

  @ParameterizedTest
  @MethodSource("seeds")
  void stockIsNeverUsedTwiceOver(long seed) {
    Random r = new Random(seed);
    List<StockPart> drawer = drawer(r, 8);
    Assortment a = Assortment.of(drawer);
    double ratio = 0.2 + 0.6 * r.nextDouble();
    var wish = new DividerDesign.Goal(5, 5 * ratio, new Span(500, 3e6), Double.POSITIVE_INFINITY);
    for (int parts = 2; parts <= 4; parts++) {
      for (Solution s : DividerDesign.search(a, wish, parts).solutions()) {
        assertThat(available(drawer, s)).as("seed %d: %s", seed, s.text()).isTrue();
        assertThat(s.count()).isLessThanOrEqualTo(parts);
      }
    }
    for (Solution s : Combination.search(a, 1e3 + 1e4 * r.nextDouble(), 5).solutions()) {
      assertThat(available(drawer, s)).as("seed %d: %s", seed, s.text()).isTrue();
    }
    double best = Double.POSITIVE_INFINITY;
    for (int i = 0; i < a.size(); i++) {
      for (int j = 0; j < a.size(); j++) {
        if (i == j && a.part(i).quantity() < 2) continue;
        double total = a.ohms(i) + a.ohms(j);
        if (!wish.total().contains(total)) continue;
        best = Math.min(best, Math.abs(a.ohms(j) / total / ratio - 1));
      }
    }
    Candidates two = DividerDesign.search(a, wish, 2);
    if (two.found()) {
      assertThat(Math.abs(two.solutions().getFirst().error())).isCloseTo(best, within(1e-12));
    }
  }

  @ParameterizedTest
  @CsvSource({"14.5, E96", "2, E24", "0.37, E12", "99.2, E192"})
  void ratioIsTheBestOfAllPairs(double ratio, PreferredSeries series) {
    double[] values = series.between(1e3, 2.2e6);
    double best = Double.POSITIVE_INFINITY;
    for (double a : values) {
      for (double b : values) best = Math.min(best, Math.abs(a / b / ratio - 1));
    }
    Candidates d = RatioDesign.search(Assortment.of(series), "Rf", "Rg", ratio, 2);
    double last = 0;
    for (Solution s : d.solutions()) {
      assertThat(Math.abs(s.error())).isGreaterThanOrEqualTo(last);
      last = Math.abs(s.error());
    }
    assertThat(Math.abs(d.solutions().getFirst().error())).isCloseTo(best, within(1e-12));
    Candidates three = RatioDesign.search(Assortment.of(series), "Rf", "Rg", ratio, 3);
    assertThat(Math.abs(three.solutions().getFirst().error())).isLessThanOrEqualTo(best);
    assertThat(three.exact()).isFalse();
  }

  /** Every network of up to four of the parts at hand, built by joining smaller ones. */
  private static double exhaustive(double[] parts, int most, double target) {
    var all = new ArrayList<Sub>();
    for (int i = 0; i < parts.length; i++) all.add(new Sub(parts[i], 1 << i));
    var bySize = new ArrayList<List<Sub>>();
    bySize.add(List.of());
    bySize.add(all);
    for (int size = 2; size <= most; size++) {
      var next = new ArrayList<Sub>();
      for (int left = 1; left <= size / 2; left++) {
        for (Sub a : bySize.get(left)) {
          for (Sub b : bySize.get(size - left)) {
            if ((a.used & b.used) != 0) continue;
            next.add(new Sub(a.ohms + b.ohms, a.used | b.used));
            next.add(new Sub(a.ohms * b.ohms / (a.ohms + b.ohms), a.used | b.used));
          }
        }
      }
      bySize.add(next);
    }
    return bySize.stream()
        .flatMap(List::stream)
        .mapToDouble(s -> Math.abs(s.ohms / target - 1))
        .min()
        .orElseThrow();
  }

  private record Sub(double ohms, int used) {}

  @ParameterizedTest
  @MethodSource("fewSeeds")
  void combinationsOfUpToFourAreTheBestThereAre(long seed) {
    Random r = new Random(seed);
    double[] ohms = new double[8];
    var drawer = new ArrayList<StockPart>();
    for (int i = 0; i < ohms.length; i++) {
      ohms[i] = Math.round(100 * Math.pow(10, 3 * r.nextDouble()));
      drawer.add(new StockPart("", ohms[i], 5, 0, 0, 1));
    }
    double target = 200 * Math.pow(10, 2 * r.nextDouble());
    for (int most = 1; most <= 4; most++) {
      Candidates d = Combination.search(Assortment.of(drawer), target, most);
      assertThat(d.exact()).isTrue();
      assertThat(Math.abs(d.solutions().getFirst().error()))
          .as("seed %d, %d parts for %s", seed, most, target)
          .isCloseTo(exhaustive(ohms, most, target), within(1e-12));
    }
    assertThat(Combination.search(Assortment.of(drawer), target, 6).exact()).isFalse();
  }

  @ParameterizedTest
  @MethodSource("fewSeeds")
  void networkIsWhatItSays(long seed) {
    Random r = new Random(seed);
    Assortment a = Assortment.of(PreferredSeries.E12, 100, 1e5, 5);
    for (Solution s : Combination.search(a, 300 + 2e4 * r.nextDouble(), 5).solutions()) {
      Network n = s.parts().getFirst().network();
      assertThat(QuantityParser.evaluate(n.text()).si())
          .as(n.text())
          .isCloseTo(n.ohms(), within(1e-6 * n.ohms()));
      assertThat(n.limit(-1)).isCloseTo(0.95 * n.ohms(), within(1e-9 * n.ohms()));
    }
  }

  /** 230 V RMS is 325 V peak: 250 V parts at 60 % take 150 V each, so three of them. */
  @ParameterizedTest
  @CsvSource({"1e6, 325.27, 0.25, 250, 3", "1e5, 325.27, 0.25, 250, 8", "1e6, 100, 0.25, 250, 1"})
  void stringKeepsPowerAndWorkingVoltage(
      double ohms, double volts, double watts, double working, int fewest) {
    assertThat(StringDesign.fewest(ohms, volts, watts, working, 0.6)).isEqualTo(fewest);
    Candidates d =
        StringDesign.search(Assortment.of(PreferredSeries.E96), ohms, volts, watts, working, 0.6);
    for (Solution s : d.solutions()) {
      double each = volts / s.count();
      double part = s.value() / s.count();
      assertThat(each).isLessThanOrEqualTo(0.6 * working * (1 + 1e-9));
      assertThat(each * each / part).isLessThanOrEqualTo(0.6 * watts * (1 + 1e-9));
    }
    assertThat(d.solutions().getFirst().error()).isCloseTo(0, within(0.02));
  }

  @Test
  void extenderLetsTheHigherVoltageFit() {
    double ohms = ExtenderDesign.resistance(50, 30, 15.1e3);
    assertThat(ohms).isCloseTo(20 * 15.1e3 / 30, within(1e-9));
    double out =
        new Circuit()
            .source("in", Circuit.GROUND, 50)
            .resistor("in", "a", ohms)
            .resistor("a", "out", 5.1e3)
            .resistor("out", Circuit.GROUND, 10e3)
            .solve()
            .get("out");
    assertThat(out).isCloseTo(30 * 10 / 15.1, within(1e-9));
  }

  private static double solved(List<Stage> stages, double in) {
    var c = new Circuit().source("n0", Circuit.GROUND, in);
    for (int i = 0; i < stages.size(); i++) {
      stages.get(i).build(c, "n" + i, "n" + (i + 1), Sensed.of(Signal.VOLTAGE, 0));
    }
    return c.solve().get("n" + stages.size());
  }

  /** All four cases of the signs, and gains below one. */
  @ParameterizedTest
  @CsvSource({
    "0.2, 0.6, 0.3, 3.0, 3.3",
    "0.1, 2.0, 1.0, 3.0, 3.3",
    "1.0, 2.0, 3.0, 0.5, 3.3",
    "-1, 0, 0.2, 3.1, 3.3",
    "0.5, 4.5, 0.1, 3.2, 3.3",
    "0, 1, -0.5, -3, 2.5",
    "0, 0.05, 0, 2.5, 5",
    "0, 5, 0, 3.3, 5",
    "-10, 10, 0.2, 3.1, 3.3"
  })
  void gainAndShiftDoWhatWasAsked(double a, double b, double c, double d, double reference) {
    var wish = new GainShift.Goal(a, b, c, d, reference, new Span(-1e3, 1e3));
    Candidates candidates = GainShift.search(Assortment.of(PreferredSeries.E96), wish);
    assertThat(candidates.found()).as(wish.text()).isTrue();
    Solution s = candidates.solutions().getFirst();
    double allowed = 0.005 * Math.abs(d - c);
    assertThat(solved(s.stages(), a)).as(s.text()).isCloseTo(c, within(allowed));
    assertThat(solved(s.stages(), b)).as(s.text()).isCloseTo(d, within(allowed));
    assertThat(s.worstCase()).isGreaterThan(Math.abs(s.error()));
    assertThat(s.count()).isLessThanOrEqualTo(6);
  }

  /** For a β thermistor the inflection stands at R·(β − 2T)/(β + 2T), T in the middle. */
  @Test
  void pullUpByEverySchool() {
    var curve = SensorCurve.of(new Measurand("T", Unit.CELSIUS), NtcBeta.of(10e3, 25, 3950));
    List<PullUpDesign.Choice> choices =
        PullUpDesign.choices(Assortment.of(PreferredSeries.E96), curve::at, new Span(0, 40), 3.3);
    assertThat(choices).hasSize(3);
    double kelvin = 293.15;
    double expected = curve.at(20) * (3950 - 2 * kelvin) / (3950 + 2 * kelvin);
    var inflection =
        choices.stream().filter(c -> c.rule().startsWith("inflection")).findFirst().orElseThrow();
    assertThat(inflection.ideal()).isCloseTo(expected, within(1e-3 * expected));
    var least =
        choices.stream().filter(c -> c.rule().startsWith("least")).findFirst().orElseThrow();
    for (var c : choices) {
      assertThat(least.idealError()).isLessThanOrEqualTo(c.idealError() * (1 + 1e-6));
      assertThat(Math.abs(c.chosen() / c.ideal() - 1)).isLessThan(0.025);
    }
  }

  @Test
  void wishesWithoutSenseAreRefused() {
    assertThatThrownBy(() -> new DividerDesign.Goal(3, 5, new Span(1, 2), 1))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("read 3 V in and 5 V out");
    assertThatThrownBy(() -> Combination.search(Assortment.of(PreferredSeries.E12), 100, 7))
        .hasMessage("a search takes 1 to 6 parts, not 7");
    assertThatThrownBy(() -> PreferredSeries.of("E13")).hasMessageContaining("'E13' is no series");
    assertThatThrownBy(() -> Assortment.of(List.of())).hasMessage("the drawer is empty");
    assertThat(Arrays.stream(PreferredSeries.values()).mapToInt(s -> s.decade().length).sum())
        .isEqualTo(3 + 6 + 12 + 24 + 48 + 96 + 192);
  }
}
