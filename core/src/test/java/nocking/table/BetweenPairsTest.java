package nocking.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Optional;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import nocking.fit.Samples;
import org.junit.jupiter.api.Test;

/** What a table of a tank leaves between its pours, against the tank's own geometry. */
class BetweenPairsTest {
  private static final int FULL = 4000;

  /** Litres in a lying cylinder, a ball, or a box on a wedge, at a share of its height. */
  private static DoubleUnaryOperator tank(Random r) {
    double litres = 20 + 500 * r.nextDouble();
    double wedge = 0.2 + 0.5 * r.nextDouble();
    return switch (r.nextInt(3)) {
      case 0 ->
          h -> litres * (Math.acos(1 - 2 * h) - (1 - 2 * h) * 2 * Math.sqrt(h - h * h)) / Math.PI;
      case 1 -> h -> litres * h * h * (3 - 2 * h);
      default -> h -> litres * (h < wedge ? h * h / (2 * wedge) : h - wedge / 2);
    };
  }

  private static double worst(StepTable t, DoubleUnaryOperator tank) {
    double worst = 0;
    for (int c = t.raw()[0]; c <= t.raw()[t.count() - 1]; c++) {
      worst = Math.max(worst, Math.abs(t.read(c) - tank.applyAsDouble((double) c / FULL)));
    }
    return worst;
  }

  @Test
  void whatIsSaidOfATankIsAboutWhatItLeaves() {
    var ratios = new ArrayList<Double>();
    int missed = 0;
    for (int seed = 0; seed < 120; seed++) {
      var r = new Random(seed);
      DoubleUnaryOperator tank = tank(r);
      int pours = 6 + r.nextInt(10);
      double[] raw = new double[pours];
      double[] litres = new double[pours];
      for (int i = 0; i < pours; i++) {
        raw[i] = Math.round(FULL * (0.02 + 0.96 * i / (pours - 1)));
        litres[i] = tank.applyAsDouble(raw[i] / FULL);
      }
      Truth pairs = Truth.of(new Samples(raw, litres), 0);
      Truth truth = seed % 2 == 0 ? pairs : pairs.joined();
      double tolerance = truth.span() * (0.005 + 0.02 * r.nextDouble());
      StepTable t = FewestBreakPoints.of(truth, tolerance, 2, false).table();
      double told = t.against(truth).worst();
      double truly = worst(t, tank);
      Optional<BetweenPairs> said = BetweenPairs.of(t, truth);
      // What is said is never a mere fright, and seldom silent where it is half as much again.
      said.ifPresent(b -> assertThat(truly).isGreaterThan(told));
      said.ifPresent(b -> ratios.add(b.error() / truly));
      if (said.isEmpty() && truly > 1.5 * told) missed++;
    }
    Collections.sort(ratios);
    // A kink between two pours is seen by none of them; what bends evenly is told to a tenth.
    assertThat(ratios).hasSizeGreaterThan(40);
    assertThat(ratios.getFirst()).isGreaterThan(0.3);
    assertThat(ratios.get(ratios.size() / 2)).isBetween(0.85, 1.1);
    assertThat(ratios.getLast()).isLessThan(1.25);
    assertThat(missed).isLessThan(20);
  }

  /** Scatter of many pairs is no bend: nothing is said of it. */
  @Test
  void scatterIsNoBend() {
    int said = 0;
    for (int seed = 0; seed < 200; seed++) {
      var r = new Random(seed);
      int n = 30 + r.nextInt(200);
      double[] raw = new double[n];
      double[] y = new double[n];
      for (int i = 0; i < n; i++) {
        raw[i] = Math.round(FULL * (double) i / (n - 1));
        y[i] = 100.0 * i / (n - 1) + 0.3 * r.nextGaussian();
      }
      Truth truth = Truth.of(new Samples(raw, y), 0);
      StepTable t = FewestBreakPoints.of(truth, 1.2, 2, false).table();
      if (BetweenPairs.of(t, truth).isPresent()) said++;
    }
    assertThat(said).isLessThanOrEqualTo(4);
  }

  /** Three pairs tell no bend that could be checked; straight lines between rows are no truth. */
  @Test
  void whatTellsNothingSaysNothing() {
    Truth every = Truth.of(new Samples(new double[] {0, 1, 2, 3}, new double[] {0, 1, 4, 9}), 0);
    assertThat(BetweenPairs.gaps(every)).isFalse();
    Truth three = Truth.of(new Samples(new double[] {0, 50, 100}, new double[] {0, 40, 100}), 0);
    assertThat(BetweenPairs.of(FewestBreakPoints.of(three, 1, 1, false).table(), three)).isEmpty();
    assertThat(BetweenPairs.gaps(three)).isTrue();
    var rows =
        Truth.of(new Samples(new double[] {0, 40, 80, 120, 160}, new double[] {0, 1, 4, 9, 16}), 0)
            .joined();
    assertThat(BetweenPairs.of(FewestBreakPoints.of(rows, 0.1, 1, false).table(), rows))
        .hasValueSatisfying(b -> assertThat(b.error()).isCloseTo(0.25, within(0.06)));
    assertThat(BetweenPairs.gaps(rows)).isTrue();
    assertThat(BetweenPairs.assumed(rows)).contains("straight lines");
  }
}
