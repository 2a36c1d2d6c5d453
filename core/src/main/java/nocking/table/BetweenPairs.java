package nocking.table;

import java.util.Arrays;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * How far a table is off between the pairs that it was made of, as far as their own bend tells: the
 * table is held against the parabolas and cubics through neighbouring pairs half way between two of
 * them (Newton's divided differences; Abramowitz and Stegun 25.1). It is an estimate: what bends
 * only between two pairs is not seen by any of them.
 *
 * @param error largest |table − estimate|, in the quantity
 * @param at raw value where that is
 * @param unsure by how much the estimates there differ
 */
public record BetweenPairs(double error, double at, double unsure) {
  /** Fewest pairs whose bend is looked at. */
  private static final int FEWEST = 4;

  /** So many pairs or fewer are looked at one by one. */
  private static final int FEW = 200;

  /** So many times what single pairs lie beside their neighbours' curve is more than scatter. */
  private static final double CLEAR = 2;

  /**
   * What is worth saying: that a table is clearly farther off between its pairs than at them.
   *
   * @param truth of pairs; where straight lines stand between them they are not believed
   * @return empty where nothing is told, or nothing more than at the pairs
   */
  public static Optional<BetweenPairs> of(StepTable table, Truth truth) {
    int[] at = given(truth);
    if (at.length < FEWEST) return Optional.empty();
    double[] x = Arrays.stream(at).asDoubleStream().toArray();
    double[] y = Arrays.stream(at).mapToDouble(i -> truth.mean()[i]).toArray();
    BetweenPairs worst = new BetweenPairs(0, Double.NaN, 0);
    for (int k = 0; k + 1 < at.length; k++) {
      int middle = (at[k] + at[k + 1]) / 2;
      if (middle == at[k]) continue;
      double read = table.read(truth.axis().first() + middle);
      double[] about = about(x, y, k, middle);
      double error = Math.abs(read - (about[0] + about[1]) / 2);
      if (error > worst.error) {
        double raw = truth.axis().at(truth.axis().first() + middle);
        worst = new BetweenPairs(error, raw, Math.abs(about[0] - about[1]) / 2);
      }
    }
    double told = table.against(truth).worst();
    boolean clear = worst.error - told > CLEAR * scatter(x, y) + worst.unsure;
    return clear ? Optional.of(worst) : Optional.empty();
  }

  /** True for a few pairs with room between them, of which a reader may think that it is known. */
  public static boolean gaps(Truth truth) {
    int known = given(truth).length;
    return known <= FEW && truth.mean().length > 2 * known;
  }

  /** What holds between few pairs of which nothing more is told; a sentence. */
  public static String assumed(Truth truth) {
    return truth.hasLines()
        ? "Between the pairs straight lines are taken to be true."
        : "That is at the pairs; between them nothing was measured.";
  }

  private static int[] given(Truth truth) {
    return IntStream.range(0, truth.given().length).filter(i -> truth.given()[i]).toArray();
  }

  /** The value between two pairs by the parabolas with the one before and with the one behind. */
  private static double[] about(double[] x, double[] y, int k, double at) {
    boolean before = k > 0;
    boolean behind = k + 2 < x.length;
    double one = before ? through(x, y, k - 1, at) : through(x, y, k, at);
    double other = behind ? through(x, y, k, at) : one;
    return new double[] {one, other};
  }

  /** The parabola through three pairs from one on. */
  private static double through(double[] x, double[] y, int from, double at) {
    double first = (y[from + 1] - y[from]) / (x[from + 1] - x[from]);
    double second = (y[from + 2] - y[from + 1]) / (x[from + 2] - x[from + 1]);
    double bend = (second - first) / (x[from + 2] - x[from]);
    return y[from] + (at - x[from]) * (first + (at - x[from + 1]) * bend);
  }

  /** How far a pair usually lies beside the cubic through two on either side; 0 for too few. */
  private static double scatter(double[] x, double[] y) {
    double[] off =
        IntStream.range(2, x.length - 2)
            .mapToDouble(
                k -> Math.abs(y[k] - cubic(x, y, new int[] {k - 2, k - 1, k + 1, k + 2}, x[k])))
            .sorted()
            .toArray();
    return off.length == 0 ? 0 : off[off.length / 2];
  }

  /** Lagrange's form. */
  private static double cubic(double[] x, double[] y, int[] nodes, double at) {
    double sum = 0;
    for (int i : nodes) {
      double term = y[i];
      for (int j : nodes) if (j != i) term *= (at - x[j]) / (x[i] - x[j]);
      sum += term;
    }
    return sum;
  }
}
