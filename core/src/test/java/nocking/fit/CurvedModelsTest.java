package nocking.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.function.DoubleUnaryOperator;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Curved models: what they were made from comes back, and no neighbour is better. */
class CurvedModelsTest {
  private static Samples made(double low, double high, int n, DoubleUnaryOperator y) {
    double[] x = new double[n];
    for (int i = 0; i < n; i++) x[i] = low + (high - low) * i / (n - 1);
    return new Samples(x, Arrays.stream(x).map(y).toArray());
  }

  private static FitModel model(String key) {
    return FitModel.of(key).orElseThrow();
  }

  private static double value(Fit f, String name) {
    return f.inRaw().stream().filter(c -> c.name().equals(name)).findFirst().orElseThrow().value();
  }

  /** Rates of either sign, weak and strong, on volts and on codes. */
  @ParameterizedTest
  @CsvSource({"0.5, 4.5, -1.2", "0.5, 4.5, 0.05", "0, 4095, 0.0011", "100, 60000, -0.00007"})
  void anExponentialComesBack(double low, double high, double rate) {
    Fit f = model("exp").fit(made(low, high, 9, v -> 3 - 7 * Math.exp(rate * v)));
    assertThat(value(f, "b2")).isCloseTo(rate, within(1e-9 * Math.abs(rate)));
    assertThat(value(f, "b0")).isCloseTo(3, within(1e-7));
    assertThat(f.worstError()).isLessThan(1e-8);
  }

  @ParameterizedTest
  @ValueSource(doubles = {-2.4, -1.1, -0.3, 0.4, 1.7, 3.2})
  void aPowerComesBack(double power) {
    Fit f = model("power").fit(made(0.4, 2.8, 9, v -> 2 + 12 * Math.pow(v, power)));
    assertThat(value(f, "b2")).isCloseTo(power, within(1e-8));
    assertThat(value(f, "b1")).isCloseTo(12, within(1e-6));
  }

  @Test
  void aLogarithmComesBack() {
    Fit f = model("log").fit(made(0.01, 5, 9, v -> 4 - 1.5 * Math.log(v)));
    assertThat(value(f, "b1")).isCloseTo(-1.5, within(1e-12));
  }

  @ParameterizedTest
  @ValueSource(ints = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12})
  void aRationalComesBack(long seed) {
    var r = new Random(seed);
    double a0 = r.nextGaussian();
    double a1 = 5 + r.nextGaussian();
    double b1 = 0.4 * r.nextDouble();
    double b2 = 0.1 * r.nextDouble();
    Samples s = made(0.2, 4.2, 15, v -> (a0 + a1 * v) / (1 + b1 * v + b2 * v * v));
    Fit f = model("rational:1/2").fit(s);
    assertThat(value(f, "a0")).isCloseTo(a0, within(1e-7));
    assertThat(value(f, "b2")).isCloseTo(b2, within(1e-7));
    for (double x : s.quantity()) {
      if (f.monotone()) assertThat(f.curve().quantity(f.curve().raw(x))).isCloseTo(x, within(1e-8));
    }
  }

  @Test
  void aPoleBetweenThePointsIsRefused() {
    Samples s = made(-2, 2, 8, v -> 1 / (v - 0.1));
    assertThatThrownBy(() -> model("rational:0/1").fit(s))
        .isInstanceOf(FitException.class)
        .hasMessageStartingWith("Rational 0/1 has a pole between the points, at raw 0");
  }

  /** A thermistor by its three constants, and by β alone. */
  @Test
  void thermistorConstantsComeBack() {
    double a = 1.032e-3;
    double b = 2.387e-4;
    double c = 1.58e-7;
    DoubleUnaryOperator t =
        ohms -> {
          double ln = Math.log(ohms);
          return 1 / (a + b * ln + c * ln * ln * ln) - 273.15;
        };
    Fit f = model("steinhart").fit(made(2000, 40_000, 9, t));
    assertThat(value(f, "A")).isCloseTo(a, within(1e-12));
    assertThat(value(f, "C")).isCloseTo(c, within(1e-14));
    Fit beta =
        model("beta")
            .fit(
                made(
                    2000,
                    40_000,
                    9,
                    ohms -> 1 / (1 / 298.15 + Math.log(ohms / 1e4) / 3977) - 273.15));
    assertThat(value(beta, "beta")).isCloseTo(3977, within(1e-6));
    assertThat(value(beta, "R25")).isCloseTo(1e4, within(1e-5));
    Samples cold = new Samples(new double[] {1, 2, 3}, new double[] {-300, 1, 2});
    assertThatThrownBy(() -> model("beta").fit(cold))
        .hasMessageContaining("above −273.15; the least is -300");
  }

  private static Samples noisy(long seed) {
    var r = new Random(seed);
    int n = 8 + r.nextInt(14);
    double[] x = new double[n];
    double[] y = new double[n];
    double[] w = new double[n];
    for (int i = 0; i < n; i++) {
      x[i] = 0.3 + 4 * r.nextDouble();
      y[i] = 5 + 20 * x[i] - 1.5 * x[i] * x[i] + 0.2 * r.nextGaussian();
      w[i] = seed % 2 == 0 ? 1 : 0.3 + r.nextDouble();
    }
    return new Samples(x, y, w);
  }

  /** No constants beside those that were found leave a smaller weighted sum. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14, 15, 16, 17, 18, 19, 20})
  void noNeighbourIsBetter(long seed) {
    Samples s = noisy(seed);
    var r = new Random(seed);
    for (String key :
        List.of("line", "log", "poly:2", "poly:4", "exp", "power", "rational:1/1", "line-zero")) {
      FitModel m = model(key);
      Fit f = m.fit(s);
      double least = squares(s, f.curve());
      for (int k = 0; k < 40; k++) {
        List<Coefficient> beside =
            f.coefficients().stream()
                .map(
                    c ->
                        new Coefficient(
                            c.name(),
                            Scaling.chosen(c)
                                ? c.value()
                                : c.value() * (1 + 1e-3 * r.nextGaussian()),
                            0))
                .toList();
        assertThat(squares(s, m.curve(beside)))
            .as("%s, seed %d", key, seed)
            .isGreaterThanOrEqualTo(least * (1 - 1e-10));
      }
    }
  }

  private static double squares(Samples s, Curve c) {
    double sum = 0;
    DoubleUnaryOperator f = c.function();
    for (int i = 0; i < s.size(); i++) {
      double e = f.applyAsDouble(s.raw()[i]) - s.quantity()[i];
      sum += s.weights()[i] * e * e;
    }
    return sum;
  }

  /** Leaving each point out by its leverage is fitting anew, with weights too. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8, 9, 10})
  void unseenErrorsAreThoseOfFittingAnew(long seed) {
    Samples s = noisy(seed);
    for (String key :
        List.of("line", "log", "poly:2", "poly:5", "line-zero", "exp", "rational:1/1")) {
      FitModel m = model(key);
      Fit f = m.fit(s);
      for (int i = 0; i < s.size(); i++) {
        double anew = m.fit(s.without(i)).curve().quantity(s.raw()[i]) - s.quantity()[i];
        assertThat(f.unseen()[i]).as("%s, seed %d", key, seed).isCloseTo(anew, within(1e-6));
      }
    }
  }

  /** The error band at a raw value is what many repeats of the measurement scatter by. */
  @Test
  void theBandIsTheScatterOfManyFits() {
    for (String key : List.of("line", "poly:3", "exp", "rational:1/1", "log", "line-zero")) {
      FitModel m = model(key);
      Samples truth =
          made(0.5, 4, 12, v -> key.equals("line-zero") ? 4 * v : 3 + 6 * Math.log(1 + v));
      Curve mean = m.fit(truth).curve();
      var r = new Random(9);
      double at = 1.3;
      double squares = 0;
      double stated = 0;
      int n = 400;
      for (int k = 0; k < n; k++) {
        double[] y =
            Arrays.stream(truth.raw())
                .map(v -> mean.quantity(v) + 0.02 * r.nextGaussian())
                .toArray();
        Fit f = m.fit(new Samples(truth.raw(), y));
        double e = f.curve().quantity(at) - mean.quantity(at);
        squares += e * e;
        stated += Math.pow(f.standardError().applyAsDouble(at), 2);
      }
      assertThat(Math.sqrt(squares / n)).as(key).isCloseTo(Math.sqrt(stated / n), within(0.0013));
    }
  }

  @Test
  void throughThePointsMeansThroughThePoints() {
    Samples s = new Samples(new double[] {3, 1, 2, 1}, new double[] {9, 1, 4, 2});
    for (String key : List.of("pwl", "pchip", "nearest")) {
      Fit f = model(key).fit(s);
      assertThat(f.curve().quantity(2)).as(key).isEqualTo(4);
      assertThat(f.curve().quantity(1)).as(key).isEqualTo(1.5);
      assertThat(model(key).curve(f.coefficients()).quantity(2.2))
          .isEqualTo(f.curve().quantity(2.2));
    }
    assertThat(model("pwl").fit(s).curve().quantity(2.5)).isEqualTo(6.5);
    assertThat(model("nearest").fit(s).curve().quantity(2.6)).isEqualTo(9);
    // Without the middle the straight line from the ends reads 5.25 there.
    assertThat(model("pwl").fit(s).unseen()[2]).isCloseTo(1.25, within(1e-12));
    Samples many = made(0, 1, 300, v -> v);
    assertThatThrownBy(() -> model("pwl").fit(many))
        .hasMessageEndingWith(
            "there are 300 different raw values, and 256 at most; make a table of them");
  }

  /** All keys lead back to their models; others to none. */
  @Test
  void keysAreKnown() {
    for (FitModel m : FitModel.all())
      assertThat(FitModel.of(m.key())).contains(m.getClass().isRecord() ? m : model(m.key()));
    for (String odd :
        List.of(
            "poly:0",
            "poly:13",
            "poly",
            "rational:4/1",
            "rational:1/0",
            "rational:2",
            "minimax:10",
            "poly:2/3",
            "cubic",
            "")) {
      assertThat(FitModel.of(odd)).as(odd).isEmpty();
    }
    assertThat(model("poly:1").key()).isEqualTo("line");
  }

  /** Values at the ends of what a double holds: every model fits or says why not. */
  @Test
  void oddNumbersAreFittedOrRefused() {
    double[][] raws = {
      {5, 1e308, -1e308}, {1, 1, 1}, {-1e120, 1e-300, 2e-300, 1e120}, {1e16, 1e16 + 2, 1e16 + 4, 1},
      {0, -0.0, 1, 2}, {1e-12, 2e-12, 5e-12, 9e-12}, {1}, {1, 2}
    };
    for (double[] raw : raws) {
      double[] y = new double[raw.length];
      for (int i = 0; i < y.length; i++) y[i] = i * i - 2;
      for (Samples s : List.of(new Samples(raw, y), new Samples(y, raw))) {
        for (FitModel m : FitModel.all()) {
          try {
            Fit f = m.fit(s);
            assertThat(f.worstError()).as("%s %s", m.key(), Arrays.toString(raw)).isFinite();
          } catch (FitException e) {
            assertThat(e.getMessage()).isNotBlank();
          }
        }
      }
    }
  }
}
