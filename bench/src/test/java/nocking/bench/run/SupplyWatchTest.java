package nocking.bench.run;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.api.Test;

/** A supply that stays says nothing, whatever it is; one that moves says so once. */
class SupplyWatchTest {
  @Test
  void onlyWhatMovesIsSaid() {
    for (double v : new double[] {5, 12, -5, 0}) {
      var watch = new SupplyWatch();
      for (int i = 0; i < 3; i++) assertThat(watch.take(v)).as("%s V", v).isEmpty();
      assertThat(watch.take(Double.NaN)).isEmpty();
      assertThat(watch.take(v * 1.004)).isEmpty();
      assertThat(watch.take(v + 0.5)).startsWith("the supply has moved");
      assertThat(watch.take(v + 0.5)).isEmpty();
      assertThat(watch.warning()).isNotEmpty();
      assertThat(watch.take(v)).startsWith("the supply is back");
      assertThat(watch.warning()).isEmpty();
    }
  }
}
