package nocking.table;

import java.util.Arrays;

/**
 * All straight lines that pass above some points and below others, as their steepest and their
 * flattest: J. O'Rourke, "An on-line algorithm for fitting straight lines between data ranges",
 * Comm. ACM 24 (1981). Points come with rising place; each is looked at a constant number of times.
 */
final class StabbingLine {
  private final Hull below = new Hull(1);
  private final Hull above = new Hull(-1);
  private double topSlope = Double.POSITIVE_INFINITY;
  private double topX;
  private double topY;
  private double lowSlope = Double.NEGATIVE_INFINITY;
  private double lowX;
  private double lowY;

  /** Half of a convex hull: points over which (1) or under which (−1) a tangent runs. */
  private static final class Hull {
    private final int side;
    private double[] x = new double[64];
    private double[] y = new double[64];
    private int n;
    private int from;

    Hull(int side) {
      this.side = side;
    }

    void clear() {
      n = 0;
      from = 0;
    }

    boolean isEmpty() {
      return n == from;
    }

    void add(double px, double py) {
      while (n - from >= 2 && side * turn(n - 2, n - 1, px, py) >= 0) n--;
      if (n == x.length) {
        x = Arrays.copyOf(x, 2 * n);
        y = Arrays.copyOf(y, 2 * n);
      }
      x[n] = px;
      y[n++] = py;
    }

    private double turn(int a, int b, double px, double py) {
      return (x[b] - x[a]) * (py - y[a]) - (y[b] - y[a]) * (px - x[a]);
    }

    /** Slope of the tangent from a point at the right; what lies before it is touched no more. */
    double tangent(double px, double py) {
      while (n - from >= 2 && side * (slope(from + 1, px, py) - slope(from, px, py)) <= 0) from++;
      return slope(from, px, py);
    }

    private double slope(int i, double px, double py) {
      return (py - y[i]) / (px - x[i]);
    }
  }

  /**
   * A straight line.
   *
   * @param x place of one of its points
   * @param y value there
   */
  record Line(double x, double y, double slope) {
    double at(double place) {
      return y + slope * (place - x);
    }

    /** Place at which two lines meet; not finite for parallels. */
    double meets(Line o) {
      return (o.at(0) - at(0)) / (slope - o.slope);
    }
  }

  /** The steepest line; it is there from the second limit on. */
  Line steepest() {
    return new Line(topX, topY, topSlope);
  }

  /** The flattest line. */
  Line flattest() {
    return new Line(lowX, lowY, lowSlope);
  }

  /** A line in the middle of all of them. */
  Line middle() {
    boolean top = topSlope < Double.POSITIVE_INFINITY;
    boolean low = lowSlope > Double.NEGATIVE_INFINITY;
    if (!top || !low) return top ? steepest() : flattest();
    double at = (topX + lowX) / 2;
    return new Line(at, (top(at) + bottom(at)) / 2, (topSlope + lowSlope) / 2);
  }

  /** Forgets all points. */
  void clear() {
    below.clear();
    above.clear();
    topSlope = Double.POSITIVE_INFINITY;
    lowSlope = Double.NEGATIVE_INFINITY;
  }

  /** Value of the steepest line at the right of all points; +∞ while there is none. */
  double top(double x) {
    return topSlope == Double.POSITIVE_INFINITY ? topSlope : topY + topSlope * (x - topX);
  }

  /** Value of the flattest line at the right of all points; −∞ while there is none. */
  double bottom(double x) {
    return lowSlope == Double.NEGATIVE_INFINITY ? lowSlope : lowY + lowSlope * (x - lowX);
  }

  /** Place at which the steepest line touches a point from below, last. */
  int topContact() {
    return (int) topX;
  }

  /** Place at which the flattest line touches a point from above, last. */
  int bottomContact() {
    return (int) lowX;
  }

  /** The lines have to pass over a point, which they can. */
  void over(double x, double y) {
    if (!above.isEmpty() && y > bottom(x)) {
      lowSlope = above.tangent(x, y);
      lowX = x;
      lowY = y;
    }
    below.add(x, y);
  }

  /** The lines have to pass under a point, which they can. */
  void under(double x, double y) {
    if (!below.isEmpty() && y < top(x)) {
      topSlope = below.tangent(x, y);
      topX = x;
      topY = y;
    }
    above.add(x, y);
  }

  /** Both at once: neither point is a contact for the line that ends at the other. */
  void between(double x, double low, double high) {
    boolean lower = !above.isEmpty() && low > bottom(x);
    boolean upper = !below.isEmpty() && high < top(x);
    double least = lower ? above.tangent(x, low) : lowSlope;
    double most = upper ? below.tangent(x, high) : topSlope;
    if (lower) {
      lowSlope = least;
      lowX = x;
      lowY = low;
    }
    if (upper) {
      topSlope = most;
      topX = x;
      topY = high;
    }
    below.add(x, low);
    above.add(x, high);
  }
}
