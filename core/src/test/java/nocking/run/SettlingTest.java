package nocking.run;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Arrays;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.LongStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

class SettlingTest {

  /** What settles behind a lag, with the rule that is proposed for it. */
  private record Approach(double amplitude, double lag, double scatter, double within, Random r) {
    double bias(double t) {
      return amplitude * Math.exp(-t / lag);
    }

    /** Seconds after which no more than the distance is left. */
    double optimum() {
      return lag * Math.log(amplitude / within);
    }

    double settlesAt(SettleRule rule) {
      var s = new Settling(rule);
      for (double t = 0; t < 100 * lag; t++) {
        s.take(1_700_000_000_000L + (long) (1000 * t), 5 + bias(t) + scatter * r.nextGaussian());
        if (s.settled()) return t;
      }
      return Double.NaN;
    }
  }

  /**
   * 1 000 first-order lags with noise: hardly ever early, and half of them within twice the best.
   */
  @Test
  void aFirstOrderLagIsTakenNeitherEarlyNorLate() {
    var r = new Random(2611);
    int early = 0;
    double[] ratios = new double[1000];
    for (int i = 0; i < ratios.length; i++) {
      double within = Math.exp(r.nextGaussian());
      double lag = 5 * Math.pow(24, r.nextDouble());
      var a =
          new Approach(
              within * (5 + 195 * r.nextDouble()),
              lag,
              within * 0.5 * r.nextDouble(),
              within,
              new Random(r.nextLong()));
      double t = a.settlesAt(SettleRule.proposed(within, a.scatter, lag, 1));
      assertThat(t).as("case %d %s", i, a).isNotNaN();
      if (a.bias(t) > within) early++;
      ratios[i] = t / a.optimum();
    }
    Arrays.sort(ratios);
    assertThat(early).isLessThanOrEqualTo(10);
    assertThat(ratios[500]).isLessThanOrEqualTo(2);
  }

  static LongStream seeds() {
    return new Random(4).longs(50);
  }

  /** Sums that move with the window against the same taken afresh, after 20 000 readings. */
  @ParameterizedTest
  @MethodSource("seeds")
  void sumsThatMoveAreThoseOfTheWindow(long seed) {
    var r = new Random(seed);
    double offset = Math.exp(8 * r.nextGaussian());
    int window = 5 + r.nextInt(60);
    var s = new Settling(new SettleRule.Stable(1, 1, window));
    double[] last = new double[20_000];
    for (int i = 0; i < last.length; i++) {
      last[i] = offset + Math.sin(i / 40.0) + 0.1 * r.nextGaussian();
      s.take(1_700_000_000_000L + 1000L * i, last[i]);
    }
    double[] seen = Arrays.copyOfRange(last, last.length - window - 1, last.length);
    double mean = Arrays.stream(seen).average().orElseThrow();
    double middle = window / 2.0;
    double tt = IntStream.range(0, seen.length).mapToDouble(i -> sq(i - middle)).sum();
    double ty =
        IntStream.range(0, seen.length).mapToDouble(i -> (i - middle) * (seen[i] - mean)).sum();
    double yy = Arrays.stream(seen).map(v -> sq(v - mean)).sum();
    double exact = 1e-9 * (1 + offset);
    assertThat(s.size()).as("seed %d", seed).isEqualTo(seen.length);
    assertThat(s.mean()).isCloseTo(mean, within(exact));
    assertThat(s.slope()).isCloseTo(ty / tt, within(exact));
    assertThat(s.deviation()).isCloseTo(Math.sqrt(yy / window), within(exact));
    assertThat(s.slopeError())
        .isCloseTo(Math.sqrt((yy - ty * ty / tt) / (seen.length - 2) / tt), within(exact));
  }

  private static double sq(double v) {
    return v * v;
  }

  /** Seconds that it still takes, half-way, against the seconds that it took. */
  @ParameterizedTest
  @ValueSource(doubles = {8, 30, 90})
  void theTimeLeftIsThatOfTheLagSeenSoFar(double lag) {
    double within = 0.02;
    SettleRule.Stable rule = SettleRule.proposed(within, 0.001, lag, 1);
    var s = new Settling(rule);
    var r = new Random(9);
    double said = Double.NaN;
    double half = lag * Math.log(10 / within) / 2;
    double t = 0;
    for (; !s.settled(); t++) {
      s.take((long) (1000 * t), 20 - 10 * Math.exp(-t / lag) + 0.001 * r.nextGaussian());
      if (t <= half) said = t + s.left();
    }
    assertThat(s.lag()).isCloseTo(lag, within(0.15 * lag));
    assertThat(said).isCloseTo(t, within(0.25 * t));
  }

  @Test
  void oneEqualValueAfterTheOtherIsFrozen() {
    var s = new Settling(new SettleRule.Stable(0.1, 0.1, 10));
    for (int i = 0; i < 30; i++) s.take(1000L * i, 0.1);
    assertThat(s.frozen()).isTrue();
    assertThat(s.settled()).isTrue();
    s.take(31_000, 0.1000001);
    assertThat(s.frozen()).isFalse();
  }

  /** What is no reading, a clock set back and another set point each begin anew. */
  @Test
  void whatIsNoReadingBeginsAnew() {
    var s = new Settling(new SettleRule.Stable(1, 1, 5));
    for (int i = 0; i < 10; i++) s.take(1000L * i, 3);
    assertThat(s.settled()).isTrue();
    s.take(11_000, Double.NaN);
    assertThat(s.settled()).isFalse();
    for (int i = 0; i < 10; i++) s.take(20_000 + 1000L * i, 3);
    s.take(5_000, 3);
    assertThat(s.size()).isOne();
    assertThat(s.settled()).isFalse();
  }

  @Test
  void aWaitEndsWithItsSecondsAndAHandWhenItSays() {
    var wait = new Settling(new SettleRule.Dwell(8));
    wait.take(0, 1);
    wait.take(7_999, 50);
    assertThat(wait.settled()).isFalse();
    assertThat(wait.left()).isCloseTo(0.001, within(1e-9));
    wait.take(8_000, 3);
    assertThat(wait.settled()).isTrue();
    var hand = new Settling(new SettleRule.ByHand());
    hand.take(0, 1);
    assertThat(hand.settled()).isFalse();
    hand.sayso();
    assertThat(hand.settled()).isTrue();
    hand.forget();
    assertThat(hand.settled()).isFalse();
  }

  /** The reason is the one that stands in the way. */
  @Test
  void whatIsInTheWayIsSaid() {
    var moving = new Settling(new SettleRule.Stable(10, 0.1, 5));
    for (int i = 0; i < 10; i++) moving.take(1000L * i, i);
    assertThat(moving.why()).isEqualTo("it still moves");
    var scattering = new Settling(new SettleRule.Stable(0.1, 0.5, 9));
    for (int i = 0; i < 12; i++) scattering.take(1000L * i, i % 2);
    assertThat(scattering.why()).isEqualTo("it scatters too much");
    var hidden = new Settling(new SettleRule.Stable(1, 0.05, 9));
    for (int i = 0; i < 12; i++) hidden.take(1000L * i, i % 2);
    assertThat(hidden.why()).startsWith("noise hides the slope");
  }
}
