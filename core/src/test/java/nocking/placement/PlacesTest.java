package nocking.placement;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.IntStream;
import nocking.quantity.Span;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PlacesTest {
  private static final int STEPS = 10;

  /** What every choice of so many of eleven places leaves, one after the other; the least. */
  private static double bruteForce(Nominal n, Model model, int count) {
    double[] least = {Double.POSITIVE_INFINITY};
    choose(n, model, new double[count], 0, 0, least);
    return least[0];
  }

  private static void choose(
      Nominal n, Model model, double[] at, int chosen, int from, double[] least) {
    if (chosen == at.length) {
      least[0] = Math.min(least[0], model.leaves(n, at).worst());
      return;
    }
    for (int g = from; g <= STEPS; g++) {
      at[chosen] = n.range().at((double) g / STEPS);
      choose(n, model, at, chosen + 1, g, least);
    }
  }

  /** Fifteen curves that bend: no choice of places leaves a fiftieth less. */
  @ParameterizedTest
  @CsvSource({"line, 2", "line, 4", "poly:2, 3", "poly:2, 5", "poly:3, 5", "table, 3", "table, 5"})
  void noChoiceOfPlacesLeavesClearlyLess(String name, int count) {
    Model model = Model.named(name);
    var r = new Random(count + 31L * name.hashCode());
    int worse = 0;
    for (int i = 0; i < 15; i++) {
      double bend = 0.3 * r.nextGaussian();
      double cube = 0.1 * r.nextGaussian();
      DoubleUnaryOperator raw = x -> 0.3 + 0.02 * x * (1 + bend * x / 100 + cube * x * x / 1e4);
      var n = new Nominal(new Span(0, 60), raw, 0.003 * r.nextDouble());
      double best = Places.best(n, model, count, STEPS).leaves().worst();
      double least = bruteForce(n, model, count);
      assertThat(best).as("%s, curve %d", name, i).isGreaterThanOrEqualTo(least * (1 - 1e-9));
      if (best > 1.02 * least) worse++;
    }
    assertThat(worse).isLessThanOrEqualTo(1);
  }

  /** The schools' own answers: a line at its ends, a parabola at its ends and in the middle. */
  @Test
  void aLineIsMeasuredAtItsEndsAndAParabolaInTheMiddleToo() {
    var straight = new Nominal(new Span(0, 100), x -> 0.4 + 0.042 * x, 0.001);
    assertThat(Places.best(straight, Model.named("line"), 4, 40).at())
        .containsExactly(0.0, 0.0, 100.0, 100.0);
    assertThat(Places.best(straight, Model.named("poly:2"), 3, 40).at())
        .containsExactly(0.0, 50.0, 100.0);
    // Chebyshev's extrema of degree 3 lie a quarter of the way in.
    assertThat(Places.best(straight, Model.named("poly:3"), 4, 40).at().get(1))
        .isCloseTo(27.6, within(2.6));
  }

  /** What is said to be left is what is left, by drawing the readings 4 000 times. */
  @Test
  void theBandIsThatOfRepeatedRuns() {
    var n = new Nominal(new Span(0, 100), x -> 0.4 + 0.042 * x, 0.002);
    Places p = Places.equalSteps(n, Model.named("line"), 5);
    var r = new Random(8);
    int outside = 0;
    int draws = 4000;
    for (int i = 0; i < draws; i++) {
      double[] x = p.at().stream().mapToDouble(v -> v).toArray();
      double[] v =
          IntStream.range(0, 5)
              .mapToDouble(k -> n.raw().applyAsDouble(x[k]) + 0.002 * r.nextGaussian())
              .toArray();
      double mv = (v[0] + v[1] + v[2] + v[3] + v[4]) / 5;
      double sxy = 0;
      double sxx = 0;
      for (int k = 0; k < 5; k++) {
        sxy += (v[k] - mv) * (x[k] - 50);
        sxx += (v[k] - mv) * (v[k] - mv);
      }
      double atEnd = 50 + sxy / sxx * (n.raw().applyAsDouble(100) - mv);
      if (Math.abs(atEnd - 100) > p.leaves().band()) outside++;
    }
    assertThat((double) outside / draws).isCloseTo(0.05, within(0.015));
  }

  /** A curve that bends needs more cells where it bends. */
  @Test
  void aTableIsDenserWhereTheCurveBends() {
    DoubleUnaryOperator thermistor =
        t -> {
          double ohms = 1e4 * Math.exp(3900 * (1 / (t + 273.15) - 1 / 298.15));
          return 3.3 * ohms / (ohms + 2e3);
        };
    var n = new Nominal(new Span(0, 100), thermistor, 0);
    Places p = Places.fewest(n, Model.named("table"), 1, 50);
    Places equal = Places.equalSteps(n, Model.named("table"), p.at().size());
    assertThat(p.leaves().worst()).isLessThanOrEqualTo(1);
    assertThat(Places.best(n, Model.named("table"), p.at().size() - 1, 50).leaves().worst())
        .isGreaterThan(1);
    assertThat(equal.leaves().worst()).isGreaterThan(1.2 * p.leaves().worst());
  }

  @Test
  void tooFewPointsLeaveAnything() {
    var n = new Nominal(new Span(0, 10), x -> x, 0.1);
    assertThat(Places.equalSteps(n, Model.named("poly:3"), 3).leaves().worst()).isInfinite();
    assertThat(Places.equalSteps(n, Model.named("table"), 1).leaves().worst()).isInfinite();
  }
}
