package nocking.points;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import nocking.quantity.Value;
import org.junit.jupiter.api.Test;

class IncrementsTest {
  private static ReferencePoint at(double applied, double reads) {
    return ReferencePoint.of(Value.of(applied), Value.of(reads));
  }

  @Test
  void tenTimesATenthIsOne() {
    List<ReferencePoint> totals = Increments.totals(Collections.nCopies(10, at(0.1, 1)), 0);
    assertThat(totals.getLast().applied().number()).isEqualTo(1);
    assertThat(totals.getLast().applied().typed()).isEqualTo("1");
    assertThat(Increments.totals(List.of(at(5, 1), at(-2, 1)), 7))
        .extracting(p -> p.applied().number())
        .containsExactly(12.0, 10.0);
    assertThat(Increments.totals(List.of(), 3)).isEmpty();
  }

  /**
   * 200 probes that hang above the bottom, or drown, or both: the zones are found within a pour.
   */
  @Test
  void whereAProbeDoesNotAnswerIsFound() {
    for (long seed = 0; seed < 200; seed++) {
      var r = new Random(seed);
      double low = r.nextBoolean() ? 0 : 40 + 60 * r.nextDouble();
      double high = r.nextBoolean() ? 1000 : 300 + 60 * r.nextDouble();
      var points = new ArrayList<ReferencePoint>();
      for (int i = 0; i <= 40; i++) {
        double litres = 10 * i;
        double volts = 0.5 + 0.01 * (Math.clamp(litres, low, high) - low);
        points.add(at(litres, volts + 0.001 * r.nextGaussian()));
      }
      Collections.shuffle(points, r);
      DeadZones zones = DeadZones.of(points, 0.001);
      if (low > 0) {
        assertThat(zones.bottom().orElseThrow()).as("seed %d", seed).isBetween(low - 20, low + 10);
      } else {
        assertThat(zones.bottom()).as("seed %d", seed).isEmpty();
      }
      if (high < 400) {
        assertThat(zones.top().orElseThrow()).as("seed %d", seed).isBetween(high - 10, high + 20);
      } else {
        assertThat(zones.top()).as("seed %d", seed).isEmpty();
      }
    }
  }

  @Test
  void aDeadProbeHasNoZones() {
    List<ReferencePoint> dead = IntStream.range(0, 9).mapToObj(i -> at(i, 1.0)).toList();
    assertThat(DeadZones.of(dead, 0.001)).isEqualTo(DeadZones.of(List.of(), 0.001));
  }
}
