package nocking.diagnosis;

/**
 * v = (a + b·s)/(1 + c·s) through three points. What any node of a network of resistors and sources
 * is in any one of its parts or sources, so that a degree between two solved ones needs no solving.
 */
record Moebius(double a, double b, double c) {

  /** The curve through three points; a straight line where they give none without a pole. */
  static Moebius through(
      double s0, double v0, double s1, double v1, double s2, double v2, double from, double to) {
    // a + b·s − c·s·v = v for each point; the first is taken from the others.
    double a1 = s1 - s0;
    double b1 = -(s1 * v1 - s0 * v0);
    double r1 = v1 - v0;
    double a2 = s2 - s0;
    double b2 = -(s2 * v2 - s0 * v0);
    double r2 = v2 - v0;
    double det = a1 * b2 - a2 * b1;
    double scale = Math.abs(a1 * b2) + Math.abs(a2 * b1);
    if (Math.abs(det) > 1e-9 * scale) {
      double b = (r1 * b2 - r2 * b1) / det;
      double c = (a1 * r2 - a2 * r1) / det;
      double a = v0 - b * s0 + c * s0 * v0;
      double sign = Math.signum(1 + c * from);
      boolean sound = sign != 0 && sign == Math.signum(1 + c * to);
      if (sound && Double.isFinite(a)) return new Moebius(a, b, c);
    }
    double vFrom = line(s0, v0, s1, v1, s2, v2, from);
    double vTo = line(s0, v0, s1, v1, s2, v2, to);
    double slope = to == from ? 0 : (vTo - vFrom) / (to - from);
    return new Moebius(vFrom - slope * from, slope, 0);
  }

  private static double line(
      double s0, double v0, double s1, double v1, double s2, double v2, double at) {
    if (at <= s1) return s1 == s0 ? v0 : v0 + (v1 - v0) * (at - s0) / (s1 - s0);
    return s2 == s1 ? v1 : v1 + (v2 - v1) * (at - s1) / (s2 - s1);
  }

  double at(double s) {
    return (a + b * s) / (1 + c * s);
  }
}
