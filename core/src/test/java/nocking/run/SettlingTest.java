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
    var rule = new SettleRule.Rest(within, 20, 0, 0);
    var s = new Settling(rule);
    var r = new Random(9);
    double said = Double.NaN;
    double half = lag * Math.log(10 / within) / 2;
    double t = 0;
    for (; !s.settled(); t++) {
      s.take((long) (1000 * t), 20 - 10 * Math.exp(-t / lag) + 0.001 * r.nextGaussian());
      if (t <= half) said = t + s.left();
    }
    assertThat(s.lag()).isCloseTo(lag, within(0.25 * lag));
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
