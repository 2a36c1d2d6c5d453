package nocking.algebra;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.Random;
import org.junit.jupiter.api.Test;

/** Curves of datasheet tables, turned round. */
class PiecewiseTest {
  /**
   * Steps of very different steepness side by side: across their bends Newton's method goes to and
   * fro.
   */
  @Test
  void aMonotoneCubicIsTurnedRoundEverywhere() {
    var random = new Random(604);
    for (int table = 0; table < 300; table++) {
      int n = 3 + random.nextInt(20);
      double[] x = new double[n];
      double[] y = new double[n];
      for (int i = 1; i < n; i++) {
        x[i] = x[i - 1] + Math.pow(10, random.nextDouble(-2, 2));
        y[i] = y[i - 1] + Math.pow(10, random.nextDouble(-2, 2));
      }
      Piecewise curve = Piecewise.monotoneCubic("t", x, y);
      for (int k = 0; k <= 100; k++) {
        double at = x[n - 1] * k / 100;
        double turned = curve.inverse(curve.value(at));
        assertThat(curve.value(turned)).isCloseTo(curve.value(at), within(1e-12 * y[n - 1]));
      }
    }
  }

  /** The very table in which a step over the bend at 85.79 never came back. */
  @Test
  void aBendBesideASteepStep() {
    double[] x = {
      -29.902, -8.725, 24.363, 25.287, 26.786, 34.065, 45.233, 51.861, 62.445, 66.719, 71.645,
      85.79, 89.461, 106.875, 111.94, 117.869, 118.785
    };
    double[] y = {
      20.0962, 20.757, 20.967, 21.2117, 22.1368, 22.9954, 23.0725, 23.7447, 24.4009, 24.8244,
      25.5227, 26.0987, 26.7157, 27.3311, 27.362, 28.1913, 28.3517
    };
    Piecewise curve = Piecewise.monotoneCubic("t", x, y);
    for (double at = 85; at < 88; at += 1e-4) {
      assertThat(curve.inverse(curve.value(at))).isCloseTo(at, within(1e-10));
    }
  }
}
