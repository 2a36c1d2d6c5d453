package nocking.quantity;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;

/** A ruler is marked at round places, never at too many, whatever its range. */
class TicksTest {
  @Test
  void usualRulersHaveTheUsualMarks() {
    assertThat(Ticks.of(new Span(0, 5), 8)).containsExactly(0, 1, 2, 3, 4, 5);
    assertThat(Ticks.of(new Span(0, 3.3), 8))
        .containsExactly(new double[] {0, 0.5, 1, 1.5, 2, 2.5, 3}, within(1e-12));
    assertThat(Ticks.of(new Span(-10, 10), 8)).containsExactly(-10, -5, 0, 5, 10);
    assertThat(Ticks.of(new Span(0, 325), 8)).containsExactly(0, 50, 100, 150, 200, 250, 300);
  }

  @Test
  void anyRangeHasFewRoundMarksInside() {
    var random = new Random(1);
    for (int i = 0; i < 2000; i++) {
      double width = Math.pow(10, random.nextInt(600) - 300) * (1 + random.nextDouble());
      double low = width * (random.nextDouble() * 4 - 2);
      double[] ticks = Ticks.of(new Span(low, low + width), 8);
      assertThat(ticks.length).isBetween(2, 8);
      assertThat(ticks[0]).isGreaterThanOrEqualTo(low - 1e-6 * width);
      assertThat(ticks[ticks.length - 1]).isLessThanOrEqualTo(low + width * (1 + 1e-6));
    }
  }

  @Test
  void whatIsNoRulerHasNoMarks() {
    assertThat(Ticks.of(new Span(1, 1), 8)).isEmpty();
    assertThat(Ticks.of(new Span(0, Double.POSITIVE_INFINITY), 8)).isEmpty();
    assertThat(Ticks.of(new Span(1e300, 1e300 * (1 + 1e-15)), 8).length).isLessThanOrEqualTo(8);
  }
}
