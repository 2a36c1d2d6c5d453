package nocking.table;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.Arrays;
import java.util.Random;
import java.util.stream.LongStream;
import nocking.fit.Samples;
import nocking.quantity.QuantityException;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** The smallest table against a search through all tables, and at its size. */
class FewestBreakPointsTest {

  static LongStream seeds() {
    return LongStream.range(0, 200);
  }

  /** Bench pairs on some of 8-bit codes: curved, noisy, with gaps and repeats. */
  private static Samples small(long seed) {
    var r = new Random(seed);
    int codes = 6 + r.nextInt(26);
    int first = r.nextInt(256 - codes);
    int n = codes + r.nextInt(codes);
    // Every other set has data at each code, the others have gaps.
    int told = seed % 4 < 2 ? codes : 0;
    double[] raw = new double[n];
    double[] y = new double[n];
    double bend = 12 * r.nextGaussian();
    for (int i = 0; i < n; i++) {
      int code = i < 2 ? (i == 0 ? 0 : codes - 1) : i < told ? i - 1 : r.nextInt(codes);
      double t = (double) code / codes;
      raw[i] = first + code;
      y[i] = 8 * t + bend * t * (1 - t) + 2 * Math.sin(6 * t) + 0.3 * r.nextGaussian();
    }
    return new Samples(raw, y);
  }

  /**
   * Fewest cells by going through all of them: least number of pieces to each code and whole
   * output, each piece tried and read by the receiver's own integers at every code. A code without
   * data may have any output that is near its neighbours'.
   */
  private static int exhaustive(Samples s, double tolerance, boolean rounded) {
    int first = (int) Arrays.stream(s.raw()).min().orElseThrow();
    int last = (int) Arrays.stream(s.raw()).max().orElseThrow();
    int low = (int) Math.floor(Arrays.stream(s.quantity()).min().orElseThrow() - 4 - tolerance);
    int high = (int) Math.ceil(Arrays.stream(s.quantity()).max().orElseThrow() + 4 + tolerance);
    int n = last - first + 1;
    int m = high - low + 1;
    int[][] cells = new int[n][m];
    for (int[] row : cells) Arrays.fill(row, Integer.MAX_VALUE);
    for (int v = 0; v < m; v++) if (holds(s, tolerance, first, v + low)) cells[0][v] = 1;
    for (int x = 1; x < n; x++) {
      for (int v = 0; v < m; v++) {
        if (!holds(s, tolerance, first + x, v + low)) continue;
        for (int a = 0; a < x; a++) {
          for (int u = 0; u < m; u++) {
            if (cells[a][u] >= cells[x][v] - 1 || cells[a][u] == Integer.MAX_VALUE) continue;
            if (piece(s, tolerance, first + a, u + low, first + x, v + low, rounded)) {
              cells[x][v] = cells[a][u] + 1;
            }
          }
        }
      }
    }
    return Arrays.stream(cells[n - 1]).min().orElseThrow();
  }

  private static boolean holds(Samples s, double tolerance, int code, double read) {
    for (int i = 0; i < s.size(); i++) {
      if (s.raw()[i] == code && Math.abs(read - s.quantity()[i]) > tolerance + 1e-9) return false;
    }
    return true;
  }

  private static boolean piece(
      Samples s, double tolerance, int x0, int y0, int x1, int y1, boolean rounded) {
    for (int x = x0 + 1; x < x1; x++) {
      double line = y0 + (double) (y1 - y0) * (x - x0) / (x1 - x0);
      if (!holds(s, tolerance, x, rounded ? Math.floor(line + 0.5) : line)) return false;
    }
    return true;
  }

  @ParameterizedTest
  @MethodSource("seeds")
  void noTableIsSmaller(long seed) {
    Samples s = small(seed);
    Truth truth = Truth.of(s, 0);
    // Below half a step many a code has no whole output within it, which a line need not have.
    double tolerance = truth.spread() / 2 + 0.1 + 2.4 * new Random(~seed).nextDouble();
    boolean rounded = seed % 2 == 0;
    int fewest = exhaustive(s, tolerance, rounded);
    if (fewest == Integer.MAX_VALUE) {
      assertThatThrownBy(() -> FewestBreakPoints.of(truth, tolerance, 0, rounded))
          .isInstanceOf(QuantityException.class);
      return;
    }
    FewestBreakPoints f = FewestBreakPoints.of(truth, tolerance, 0, rounded);
    // Beside the data a break-point may have an output that going through all does not come to.
    double far = 4 + tolerance;
    double lowest = Arrays.stream(s.quantity()).min().orElseThrow() - far;
    double highest = Arrays.stream(s.quantity()).max().orElseThrow() + far;
    boolean near = Arrays.stream(f.table().out()).allMatch(v -> v >= lowest && v <= highest);
    assertThat(f.table().count()).as("seed %d", seed).isLessThanOrEqualTo(fewest);
    if (near) assertThat(f.table().count()).as("seed %d", seed).isEqualTo(fewest);
    boolean everywhere = truth.axis().size() == Arrays.stream(s.raw()).distinct().count();
    // Where a code allows no whole output the argument for the gaps does not hold.
    if (everywhere || rounded) assertThat(f.proven()).as("seed %d", seed).isTrue();
    assertThat(f.bound()).isLessThanOrEqualTo(f.table().count());
    assertThat(f.table().against(truth).worst()).isLessThanOrEqualTo(tolerance + 1e-9);
  }

  /** Long tables: the tolerance holds at every code, and what was found is the smallest. */
  @ParameterizedTest
  @ValueSource(longs = {1, 2, 3, 4, 5, 6, 7, 8})
  void longTablesHoldTheToleranceAndComeToTheBound(long seed) {
    var r = new Random(seed);
    int bits = seed % 2 == 0 ? 12 : 16;
    double full = (1 << bits) - 1;
    double bend = 0.1 + 0.3 * r.nextDouble();
    Truth truth = Truth.of(c -> 4000 * (c / full + bend * Math.sin(3 * c / full)), 0, full, 0);
    double tolerance = 0.8 + 3 * r.nextDouble();
    FewestBreakPoints f = FewestBreakPoints.of(truth, tolerance, 0, true);
    assertThat(f.table().against(truth).worst()).isLessThanOrEqualTo(tolerance);
    // On 16 bits a table may stay open by a cell or two, and says so.
    if (bits == 12) assertThat(f.proven()).isTrue();
    assertThat(f.table().count()).isLessThanOrEqualTo(f.bound() + (f.proven() ? 1 : 2));
  }

  /**
   * Few data on many codes, and outputs by the thousand: searches that once took a minute or all of
   * the memory end with a table that holds, and say what is not known.
   */
  @ParameterizedTest
  @ValueSource(longs = {9, 19, 23, 39, 40, 46})
  void whatCannotBeSearchedToItsEndEnds(long seed) {
    var r = new Random(seed);
    int bits = 8 + r.nextInt(9);
    int n = 3 + (int) Math.pow(10, 0.5 + 3.2 * r.nextDouble());
    double full = (1 << bits) - 1;
    double scale = Math.pow(10, 1 + 3 * r.nextDouble());
    double bend = r.nextGaussian();
    double noise = r.nextBoolean() ? 0 : Math.pow(10, -3 + 2 * r.nextDouble()) * scale;
    double[] raw = new double[n];
    double[] y = new double[n];
    for (int i = 0; i < n; i++) {
      raw[i] = i == 0 ? 0 : i == 1 ? full : Math.floor(r.nextDouble() * full);
      double t = raw[i] / full;
      y[i] = scale * (t + bend * t * (1 - t) + 0.2 * Math.sin(9 * t)) + noise * r.nextGaussian();
    }
    Truth truth = Truth.of(new Samples(raw, y), 0);
    double tolerance = truth.spread() / 2 + Math.pow(10, -0.5 + 2.5 * r.nextDouble());
    boolean rounded = r.nextBoolean();
    FewestBreakPoints f = FewestBreakPoints.of(truth, tolerance, 0, rounded);
    assertThat(f.table().against(truth).worst()).isLessThanOrEqualTo(tolerance + 1e-9);
    assertThat(f.bound()).isLessThanOrEqualTo(f.table().count());
    if (f.allowance() == 0 && f.table().count() == f.bound()) assertThat(f.proven()).isTrue();
    int fewer = Math.max(2, f.table().count() - 1);
    LeastWorstError least = LeastWorstError.of(truth, fewer, 0, rounded);
    assertThat(least.table().count()).isLessThanOrEqualTo(fewer);
    double worst = least.table().against(truth).worst();
    assertThat(least.bound()).isLessThanOrEqualTo(worst + 1e-9);
    // Where fewer cells were shown not to hold it, none of fewer does.
    if (f.proven()) assertThat(worst).isGreaterThan(tolerance);
  }

  /** A parabola, by the book: a chord of width w leaves w²/8, so that the cells follow. */
  @Test
  void aParabolaNeedsWhatItsCurvatureAsksFor() {
    Truth truth = Truth.of(c -> c * c / 1000, 0, 1000, 0);
    FewestBreakPoints f = FewestBreakPoints.of(truth, 1, 3, false);
    // Each piece leaves ±1: a sag of 2 over w²/4000, thus w = 89.4; 1000/89.4 = 11.2 pieces.
    assertThat(f.table().count()).isEqualTo(13);
    assertThat(f.proven()).isTrue();
  }

  @Test
  void whatCannotBeHeldIsSaid() {
    Samples apart = new Samples(new double[] {1, 5, 5, 9}, new double[] {1, 4, 9, 12});
    assertThatThrownBy(() -> FewestBreakPoints.of(Truth.of(apart, 0), 2, 0, true))
        .hasMessage(
            "at raw 5 the true values lie 5 apart, more than twice the tolerance of 2: no table"
                + " holds it");
    Samples fine = new Samples(new double[] {1, 9}, new double[] {1.5, 12});
    assertThatThrownBy(() -> FewestBreakPoints.of(Truth.of(fine, 0), 0.4, 0, true))
        .hasMessage("at raw 1 no output in steps of 1 lies within 0.4 of what is true there");
    Samples odd = new Samples(new double[] {1, 2.5}, new double[] {1, 2});
    assertThatThrownBy(() -> Truth.of(odd, 0)).hasMessage("raw value 2.5 has more than 0 decimals");
    Samples large = new Samples(new double[] {1, 2, 3}, new double[] {5, 1e308, -1e308});
    assertThatThrownBy(() -> FewestBreakPoints.of(Truth.of(large, 0), 2, 0, true))
        .hasMessageStartingWith("an output of ")
        .hasMessageEndingWith(" with 0 decimals is more steps than a table can hold");
    assertThatThrownBy(() -> LeastWorstError.of(Truth.of(large, 0), 3, 0, true))
        .hasMessageContaining("more steps than a table can hold");
    Samples one = new Samples(new double[] {3, 3}, new double[] {1, 2});
    assertThatThrownBy(() -> Truth.of(one, 0))
        .hasMessage("a table needs at least two different raw values");
  }

  /** So many cells: no tolerance below what is left can be held by them. */
  @ParameterizedTest
  @MethodSource("fewSeeds")
  void theWorstErrorOfSoManyCellsIsLeast(long seed) {
    Samples s = small(seed);
    Truth truth = Truth.of(s, 0);
    boolean rounded = seed % 2 == 0;
    int cells = 3 + (int) (seed % 4);
    LeastWorstError f = LeastWorstError.of(truth, cells, 1, rounded);
    double worst = f.table().against(truth).worst();
    assertThat(f.table().count()).isLessThanOrEqualTo(cells);
    assertThat(worst).isGreaterThanOrEqualTo(f.bound() - 1e-9);
    double less = worst * 0.99 - 0.003;
    if (less > truth.spread() / 2 + 0.05) {
      assertThat(FewestBreakPoints.of(truth, less, 1, rounded).table().count())
          .as("seed %d", seed)
          .isGreaterThan(cells);
    }
    for (StepTable other :
        java.util.List.of(
            Placements.equalSteps(truth, cells, 1, rounded),
            Placements.powersOfTwo(truth, cells, 1, rounded))) {
      if (other.raw()[0] != truth.axis().first()) continue;
      assertThat(other.against(truth).worst()).isGreaterThanOrEqualTo(worst * 0.998 - 1e-9);
    }
  }

  static LongStream fewSeeds() {
    return LongStream.range(0, 60);
  }
}
