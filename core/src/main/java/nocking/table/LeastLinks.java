package nocking.table;

import java.util.Arrays;

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
  private static final double HAIR = 1e-9;

  private LeastLinks() {}

  /**
   * How far so many pieces can come.
   *
   * @return index of the furthest step that 0, 1, 2 … pieces from the first step on can come to;
   *     the last of them is the last step
   */
  static int[] reach(Corridor c) {
    var line = new StabbingLine();
    int[] reach = new int[16];
    int pieces = 1;
    for (int i = 0; i < c.size(); i++) {
      if (!c.asks(i)) continue;
      boolean down = c.high()[i] < line.bottom(i) - HAIR;
      boolean up = c.low()[i] > line.top(i) + HAIR;
      if (down || up) {
        int from = down ? line.bottomContact() : line.topContact();
        line.clear();
        for (int k = from; k < i; k++) {
          if (!c.asks(k)) continue;
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
    return Arrays.copyOf(reach, pieces + 1);
  }
}
