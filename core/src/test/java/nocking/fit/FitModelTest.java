package nocking.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.io.InputStream;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.LongStream;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Fits against certified results, and leave-one-out against fitting anew. */
class FitModelTest {
  private static final FitModel LINE = new LeastSquaresLine();
  private static final FitModel ZERO = new LineThroughZero();
  private static final FitModel ENDS = new EndPointLine();

  /** Columns of a certified set: quantity first, raw second. */
  static Samples certified(String file) throws IOException {
    try (InputStream in = FitModelTest.class.getResourceAsStream(file)) {
      double[][] rows =
          new String(in.readAllBytes(), StandardCharsets.UTF_8)
              .lines()
              .filter(l -> Character.isDigit(l.charAt(0)))
              .map(l -> Arrays.stream(l.split(",")).mapToDouble(Double::parseDouble).toArray())
              .toArray(double[][]::new);
      double[] first = Arrays.stream(rows).mapToDouble(r -> r[0]).toArray();
      double[] second = Arrays.stream(rows).mapToDouble(r -> r[1]).toArray();
      return new Samples(first, second);
    }
  }

  private static double lre(double value, double certified) {
    return -Math.log10(Math.abs(value - certified) / Math.abs(certified));
  }

  /** NIST StRD, linear regression, the ozone monitor set: reading = b0 + b1·reference. */
  @Test
  void ozoneMonitorMeetsItsCertificate() throws IOException {
    Fit f = LINE.fit(certified("ozone-monitor.csv"));
    assertThat(lre(f.coefficients().get(0).value(), -0.262323073774029)).isGreaterThan(9);
    assertThat(lre(f.coefficients().get(1).value(), 1.00211681802045)).isGreaterThan(9);
    assertThat(lre(f.coefficients().get(0).standardError(), 0.232818234301152)).isGreaterThan(9);
    assertThat(lre(f.coefficients().get(1).standardError(), 0.429796848199937e-3)).isGreaterThan(9);
    assertThat(lre(f.residualSd(), 0.884796396144373)).isGreaterThan(9);
    assertThat(f.rSquared()).isCloseTo(0.999993745883712, within(1e-12));
  }

  /** The load cell is curved: what its certified parabola leaves, a line must exceed. */
  @Test
  void lineLeavesTheBowOfTheLoadCell() throws IOException {
    Fit f = LINE.fit(certified("load-cell.csv"));
    assertThat(f.residualSd()).isGreaterThan(5 * 0.205177424076185e-3);
    assertThat(f.errors()[0]).isPositive();
    assertThat(f.errors()[10]).isNegative();
    assertThat(f.errors()[19]).isPositive();
  }

  static LongStream seeds() {
    return LongStream.range(0, 60);
  }

  private static Samples random(long seed) {
    Random r = new Random(seed);
    int n = 3 + r.nextInt(20);
    double[] raw = new double[n];
    double[] quantity = new double[n];
    for (int i = 0; i < n; i++) {
      raw[i] = 3.3 * r.nextDouble();
      quantity[i] = -5 + 30 * raw[i] + 0.1 * r.nextGaussian();
    }
    return new Samples(raw, quantity);
  }

  @ParameterizedTest
  @MethodSource("seeds")
  void leveragesGiveWhatFittingAnewGives(long seed) {
    Samples s = random(seed);
    for (FitModel m : List.of(LINE, ZERO)) {
      double[] fast = m.fit(s).unseen();
      for (int i = 0; i < s.size(); i++) {
        Curve rest = m.fit(s.without(i)).curve();
        double anew = rest.quantity(s.raw()[i]) - s.quantity()[i];
        assertThat(fast[i])
            .as("seed %d, %s, point %d", seed, m.key(), i)
            .isCloseTo(anew, within(1e-8));
      }
    }
  }

  /** Inputs that were applied several times, the ends among them. */
  @ParameterizedTest
  @MethodSource("seeds")
  void theLineThroughTheEndsIsFittedAnewWithoutEachPoint(long seed) {
    var random = new Random(seed);
    double[] raw = new double[12];
    double[] quantity = new double[12];
    for (int i = 0; i < raw.length; i++) {
      quantity[i] = random.nextInt(5);
      raw[i] = quantity[i] + random.nextGaussian();
    }
    var s = new Samples(raw, quantity);
    double[] fast = ENDS.fit(s).unseen();
    for (int i = 0; i < s.size(); i++) {
      Curve rest = ENDS.fit(s.without(i)).curve();
      assertThat(fast[i]).isCloseTo(rest.quantity(raw[i]) - quantity[i], within(1e-9));
    }
  }

  @ParameterizedTest
  @MethodSource("seeds")
  void noOtherLineHasASmallerSquareSum(long seed) {
    Samples s = random(seed);
    Fit best = LINE.fit(s);
    Random r = new Random(seed);
    double b0 = best.coefficients().get(0).value();
    double b1 = best.coefficients().get(1).value();
    for (int k = 0; k < 50; k++) {
      double a = b0 + 0.1 * r.nextGaussian();
      double b = b1 + 0.1 * r.nextGaussian();
      double sum = 0;
      for (int i = 0; i < s.size(); i++) {
        sum += Math.pow(a + b * s.raw()[i] - s.quantity()[i], 2);
      }
      assertThat(Math.sqrt(sum / s.size())).isGreaterThanOrEqualTo(best.rms());
    }
  }

  @Test
  void endsPassThroughTheEnds() {
    Samples s = new Samples(new double[] {1, 0, 0.5, 0}, new double[] {10, 1, 5, -1});
    Fit f = ENDS.fit(s);
    assertThat(f.curve().quantity(0)).isCloseTo(0, within(1e-12));
    assertThat(f.curve().quantity(1)).isCloseTo(10, within(1e-12));
    assertThat(f.worstError()).isCloseTo(1, within(1e-12));
  }

  @Test
  void tooFewOrEqualPointsAreRefused() {
    Samples one = new Samples(new double[] {1}, new double[] {10});
    Samples equal = new Samples(new double[] {1.65, 1.65}, new double[] {9, 10});
    assertThatThrownBy(() -> LINE.fit(one))
        .isInstanceOf(FitException.class)
        .hasMessage("Least-squares line needs at least 2 points; there is 1");
    assertThatThrownBy(() -> ENDS.fit(equal))
        .hasMessage("Line through the ends needs two different raw values; all 2 are 1.65");
    assertThat(ZERO.fit(one).curve().quantity(2)).isCloseTo(20, within(1e-12));
    assertThat(ZERO.fit(one).residualSd()).isNaN();
  }

  @Test
  void simplestModelInsideTheToleranceIsRecommended() {
    double[] raw = {0, 1, 2, 3};
    Samples straight = new Samples(raw, new double[] {0.01, 9.98, 20.02, 30});
    List<Fit> fits = Stream.of(ZERO, ENDS, LINE).map(m -> m.fit(straight)).toList();
    Recommendation r = Recommendation.of(fits, 0.2, "kPa").orElseThrow();
    assertThat(r.model()).isEqualTo("line-zero");
    assertThat(r.reason()).startsWith("Simplest that is good enough: Line through zero.");
    assertThat(Recommendation.of(fits, 1e-4, "kPa").orElseThrow().reason())
        .startsWith("No model stays within 0.00010 kPa");
    assertThat(Recommendation.of(List.of(), 1, "kPa")).isEmpty();
  }

  @Test
  void curveIsTurnedRound() {
    Curve c = LINE.fit(random(1)).curve();
    assertThat(c.quantity(c.raw(12))).isCloseTo(12, within(1e-9));
  }

  /** One reading that slipped: no model is advised for its sake, and it is named. */
  @Test
  void aLonePointIsNamedAndNoModelIsAdvised() {
    double[] raw = {0.4, 0.82, 1.24, 1.66, 20.8, 2.5};
    Samples s = new Samples(raw, new double[] {0, 10, 20, 30, 40, 50});
    List<Fit> fits = FitModel.all().stream().limit(8).map(m -> m.fit(s)).toList();
    Recommendation r = Recommendation.of(fits, s, 0.5, "kPa").orElseThrow();
    assertThat(r.holds()).isFalse();
    assertThat(r.reason())
        .startsWith("No model stays within 0.50 kPa")
        .contains(" Without the point at 40 kPa ");
    // Without an odd one there is nothing to add.
    Samples curved = new Samples(new double[] {1, 2, 3, 4, 5}, new double[] {1, 4, 9, 16, 25});
    List<Fit> lines = Stream.of(ENDS, LINE).map(m -> m.fit(curved)).toList();
    assertThat(Recommendation.of(lines, curved, 0.5, "kPa").orElseThrow().reason())
        .doesNotContain("Without");
  }
}
