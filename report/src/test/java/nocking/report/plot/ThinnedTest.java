package nocking.report.plot;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.Random;
import org.junit.jupiter.api.Test;

/** A picture of a hundred thousand points shows the one that is off. */
class ThinnedTest {

  private static Thinned of(double... y) {
    var t = new Thinned();
    for (int i = 0; i < y.length; i++) t.add(i, y[i]);
    return t;
  }

  @Test
  void fewStayAsTheyAre() {
    double[] y = new Random(1).doubles(1200).toArray();
    assertThat(of(y).y()).containsExactly(y);
    assertThat(of().y()).isEmpty();
    assertThat(of().largest()).isZero();
  }

  /** Wherever a single spike stands, up or down, it is drawn, at its own place. */
  @Test
  void aSpikeIsNeverLost() {
    var r = new Random(2);
    for (int run = 0; run < 200; run++) {
      double[] y = r.doubles(5_000 + r.nextInt(20_000)).toArray();
      int at = run == 0 ? 0 : run == 1 ? y.length - 1 : r.nextInt(y.length);
      y[at] = run % 2 == 0 ? 7 : -7;
      Thinned t = of(y);
      double[] x = t.x();
      assertThat(x).hasSizeLessThanOrEqualTo(1200).isSorted().contains(at);
      assertThat(t.y()).contains(y[at]);
      assertThat(t.largest()).isEqualTo(7);
      assertThat(t.y()).containsExactly(Arrays.stream(x).map(v -> y[(int) v]).toArray());
    }
  }

  @Test
  void whatIsNoNumberIsPassedOver() {
    Thinned t = of(1, Double.NaN, -3, Double.POSITIVE_INFINITY, 2);
    assertThat(t.x()).containsExactly(0, 2, 4);
    assertThat(t.largest()).isEqualTo(3);
    double[] flat = new double[10_000];
    Arrays.fill(flat, 4);
    assertThat(of(flat).y()).as("equal values").hasSize(600).containsOnly(4);
  }
}
