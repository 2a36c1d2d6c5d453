package nocking.table;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Random;
import java.util.stream.LongStream;
import nocking.fit.Samples;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Rows that slipped by a power of ten are named, and sound ones never. */
class RowSlipTest {

  static LongStream seeds() {
    return LongStream.range(0, 200);
  }

  /** A datasheet's rows or a noisy bench, straight or bent, through zero or far from it. */
  private static Samples sound(long seed) {
    var r = new Random(seed);
    boolean bench = seed % 2 == 0;
    int n = bench ? 40 + r.nextInt(300) : 5 + r.nextInt(40);
    double noise = bench ? 0.2 + r.nextDouble() : 0;
    double offset = seed % 3 == 0 ? 0 : seed % 3 == 1 ? -50 : 400;
    double bend = 6 * r.nextDouble();
    double[] raw = new double[n];
    double[] y = new double[n];
    for (int i = 0; i < n; i++) {
      double t = bench ? r.nextDouble() : i / (n - 1.0);
      raw[i] = Math.rint(4095 * t);
      double curve = seed % 5 == 0 ? Math.exp(bend * t) : t + 0.1 * bend * t * (1 - t);
      y[i] = Math.rint(100 * (offset + 100 * curve + noise * r.nextGaussian())) / 100;
    }
    return new Samples(raw, y);
  }

  @ParameterizedTest
  @MethodSource("seeds")
  void soundRowsAreNoSlips(long seed) {
    assertThat(RowSlip.of(sound(seed))).as("seed %d", seed).isEmpty();
  }

  /** One row ten times too large or small, where that is far from its neighbours. */
  @ParameterizedTest
  @MethodSource("seeds")
  void theRowThatSlippedIsNamed(long seed) {
    Samples s = sound(seed);
    var r = new Random(~seed);
    int row = r.nextInt(s.size());
    double factor = r.nextBoolean() ? 10 : 0.1;
    double[] y = s.quantity().clone();
    // Near zero a slip changes nothing that anyone could see.
    if (Math.abs(y[row]) < 60) return;
    y[row] *= factor;
    var found = RowSlip.of(new Samples(s.raw(), y));
    // On a steep curve it may still stand between its neighbours; of few rows none stays in line.
    if (seed % 5 != 0 && s.size() >= 8)
      assertThat(found).as("seed %d, row %d", seed, row).hasSize(1);
    for (RowSlip slip : found) assertThat(slip.index()).as("seed %d", seed).isEqualTo(row);
    for (RowSlip slip : found) assertThat(slip.factor()).isEqualTo(factor);
  }
}
