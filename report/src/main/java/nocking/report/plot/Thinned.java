package nocking.report.plot;

import java.util.ArrayList;
import java.util.List;

/**
 * A line or points of any number, as the least and the largest of each of some hundred places along
 * them: more than a screen has no one sees.
 */
public final class Thinned {
  private static final int PLACES = 600;

  private final List<double[]> all = new ArrayList<>();

  /** The next one; what is no number is passed over. */
  public void add(double x, double y) {
    if (Double.isFinite(x) && Double.isFinite(y)) all.add(new double[] {x, y});
  }

  /** Largest height to either side; 0 where there is none. */
  public double largest() {
    return all.stream().mapToDouble(p -> Math.abs(p[1])).max().orElse(0);
  }

  private List<double[]> kept() {
    if (all.size() <= 2 * PLACES) return all;
    var kept = new ArrayList<double[]>();
    for (int k = 0; k < PLACES; k++) {
      int from = (int) ((long) k * all.size() / PLACES);
      int to = (int) ((k + 1L) * all.size() / PLACES);
      int least = from;
      int most = from;
      for (int i = from; i < to; i++) {
        if (all.get(i)[1] < all.get(least)[1]) least = i;
        if (all.get(i)[1] > all.get(most)[1]) most = i;
      }
      kept.add(all.get(Math.min(least, most)));
      if (least != most) kept.add(all.get(Math.max(least, most)));
    }
    return kept;
  }

  public double[] x() {
    return kept().stream().mapToDouble(p -> p[0]).toArray();
  }

  public double[] y() {
    return kept().stream().mapToDouble(p -> p[1]).toArray();
  }
}
