package nocking.placement;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;

/**
 * Places of reference points, and what they leave.
 *
 * @param at quantities, rising; one that stands there twice is taken twice
 */
public record Places(Model model, List<Double> at, Leaves leaves) {
  /** Most points that are looked at. */
  public static final int MOST = 24;

  private static final int SCATTERED = 6;

  /** Its multiples fall evenly into an interval. */
  private static final double GOLDEN = 0.6180339887498949;

  public Places {
    at = List.copyOf(at);
  }

  static Places of(Nominal n, Model model, double[] at) {
    double[] rising = Arrays.stream(at).sorted().toArray();
    return new Places(model, DoubleStream.of(rising).boxed().toList(), model.leaves(n, rising));
  }

  /** The school of equal steps. */
  public static Places equalSteps(Nominal n, Model model, int count) {
    return of(
        n,
        model,
        IntStream.range(0, count)
            .mapToDouble(i -> n.range().at((double) i / Math.max(1, count - 1)))
            .toArray());
  }

  /**
   * The school of best places, among a number of steps that can be set.
   *
   * <p>Begun from equal steps, from Chebyshev's extrema, from the ends taken in turn and from some
   * scattered choices; then one point at a time goes where it leaves least, until none can
   * (coordinate exchange; Meyer and Nachtsheim, Technometrics 37, 1995), and the best is taken.
   *
   * @param steps into which the range is cut, at least 1
   */
  public static Places best(Nominal n, Model model, int count, int steps) {
    double[] grid =
        IntStream.rangeClosed(0, steps)
            .mapToDouble(i -> n.range().at((double) i / steps))
            .toArray();
    Places best = null;
    for (double[] start : starts(count)) {
      int[] at = Arrays.stream(start).mapToInt(u -> (int) Math.round(u * steps)).toArray();
      Places p = exchanged(n, model, grid, at);
      if (best == null || p.leaves.worst() < best.leaves.worst() * (1 - 1e-9)) best = p;
    }
    return best;
  }

  private static List<double[]> starts(int count) {
    double last = Math.max(1, count - 1);
    var starts = new ArrayList<double[]>();
    starts.add(IntStream.range(0, count).mapToDouble(i -> i / last).toArray());
    starts.add(
        IntStream.range(0, count)
            .mapToDouble(i -> (1 - Math.cos(Math.PI * i / last)) / 2)
            .toArray());
    starts.add(IntStream.range(0, count).mapToDouble(i -> i % 2).toArray());
    for (int k = 0; k < SCATTERED; k++) {
      int first = k * count;
      starts.add(IntStream.range(0, count).mapToDouble(i -> (first + i) * GOLDEN % 1).toArray());
    }
    return starts;
  }

  private static Places exchanged(Nominal n, Model model, double[] grid, int[] at) {
    double least = worst(n, model, grid, at);
    boolean better = true;
    while (better) {
      better = false;
      for (int i = 0; i < at.length; i++) {
        int here = at[i];
        int to = here;
        for (int g = 0; g < grid.length; g++) {
          at[i] = g;
          double w = worst(n, model, grid, at);
          if (w < least * (1 - 1e-9)) {
            least = w;
            to = g;
          }
        }
        at[i] = to;
        better |= to != here;
      }
    }
    return of(n, model, Arrays.stream(at).mapToDouble(i -> grid[i]).toArray());
  }

  private static double worst(Nominal n, Model model, double[] grid, int[] at) {
    return model.leaves(n, Arrays.stream(at).mapToDouble(i -> grid[i]).toArray()).worst();
  }

  /**
   * The fewest points at their best places that leave no more than the tolerance; as many as are
   * looked at where none do, which {@link Leaves#worst} tells.
   *
   * @param tolerance in the quantity, above 0
   */
  public static Places fewest(Nominal n, Model model, double tolerance, int steps) {
    Places p = null;
    for (int count = model.fewest(); count <= MOST; count++) {
      p = best(n, model, count, steps);
      if (p.leaves.worst() <= tolerance) return p;
      // What a model cannot follow no number of points mends, nor what scatters at each cell's end.
      boolean curve =
          model instanceof Model.Polynomial
              && count > 2 * model.fewest()
              && p.leaves.misfit() > tolerance;
      boolean cells = model instanceof Model.Table && p.leaves.band() > tolerance;
      if (curve || cells) {
        return p;
      }
    }
    return p;
  }
}
