package nocking.table;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * The least number of straight pieces that any continuous function within a corridor can have,
 * wherever its break-points stand: a bound that no table falls below, in linear time.
 *
 * <p>H. Imai and M. Iri, "An optimal algorithm for approximating a piecewise linear function", J.
 * Information Processing 9 (1986); S. Suri, "A linear time algorithm for minimum link paths inside
 * a simple polygon", Comput. Vision Graph. Image Process. 35 (1986). What the first piece can reach
 * ends where no line passes through all ranges any more. The extreme line, steepest or flattest, is
 * then the window: every path of two pieces beyond it crosses it, behind the place where it last
 * touches a limit. Lines that cross there are those that keep that same limit from there on and the
 * other one only beyond the window. So each step is looked at twice at most.
 */
final class LeastLinks {
  private LeastLinks() {}

  /**
   * How far so many pieces can come.
   *
   * @return index of the furthest step that 0, 1, 2 … pieces from the first step on can come to;
   *     the last of them is the last step
   */
  static int[] reach(Corridor c) {
    return of(c).reach;
  }

  /**
   * Pieces of a function with as few as can be, wherever its break-points stand: the windows one
   * after the other, and at last a line in the middle of what is left.
   *
   * @param reach index that 0, 1, 2 … pieces can come to
   * @param lines one a piece; each meets the next at a break-point
   */
  record Pieces(int[] reach, List<StabbingLine.Line> lines) {
    /** Places and values of the break-points, the ends among them. */
    double[][] knots() {
      int n = lines.size();
      double[][] knots = new double[n + 1][];
      knots[0] = new double[] {0, lines.getFirst().at(0)};
      for (int k = 1; k < n; k++) {
        var before = lines.get(k - 1);
        double x = before.meets(lines.get(k));
        // Parallels meet where the window ends.
        double at = Double.isFinite(x) ? Math.clamp(x, knots[k - 1][0], reach[k] + 1.0) : reach[k];
        knots[k] = new double[] {at, before.at(at)};
      }
      int end = reach[n];
      knots[n] = new double[] {end, lines.getLast().at(end)};
      return knots;
    }
  }

  static Pieces of(Corridor c) {
    var lines = new ArrayList<StabbingLine.Line>();
    var line = new StabbingLine();
    double hair = c.hair();
    int[] reach = new int[16];
    int pieces = 1;
    int[] stops = c.stops();
    for (int s = 0; s < stops.length; s++) {
      int i = stops[s];
      boolean down = c.high()[i] < line.bottom(i) - hair;
      boolean up = c.low()[i] > line.top(i) + hair;
      if (down || up) {
        int from = down ? line.bottomContact() : line.topContact();
        lines.add(down ? line.flattest() : line.steepest());
        line.clear();
        for (int t = Arrays.binarySearch(stops, from); t < s; t++) {
          int k = stops[t];
          if (down) line.over(k, c.low()[k]);
          else line.under(k, c.high()[k]);
        }
        // A step without data before the one that is out of reach may still be within it.
        if (pieces + 2 > reach.length) reach = Arrays.copyOf(reach, 2 * reach.length);
        reach[pieces++] = i - 1;
      }
      line.between(i, c.low()[i], c.high()[i]);
    }
    reach[pieces] = c.size() - 1;
    lines.add(line.middle());
    return new Pieces(Arrays.copyOf(reach, pieces + 1), lines);
  }
}
