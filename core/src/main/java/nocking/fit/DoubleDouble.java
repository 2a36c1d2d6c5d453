package nocking.fit;

/**
 * A number as the unevaluated sum of two doubles, about 32 digits: what the normal polynomials of a
 * badly scaled set lose is then not missed in the sixteenth digit.
 *
 * <p>T. J. Dekker, "A floating-point technique for extending the available precision", Numer. Math.
 * 18 (1971); the product by a fused multiply-add.
 *
 * @param high the nearest double
 * @param low what is left, at most half a unit in the last place of {@code high}
 */
record DoubleDouble(double high, double low) {
  static final DoubleDouble ZERO = of(0);
  static final DoubleDouble ONE = of(1);

  static DoubleDouble of(double v) {
    return new DoubleDouble(v, 0);
  }

  /** Sum of two doubles without loss. */
  static DoubleDouble sum(double a, double b) {
    double s = a + b;
    double t = s - a;
    return new DoubleDouble(s, (a - (s - t)) + (b - t));
  }

  /** Sum of two numbers of which the first is not the smaller. */
  private static DoubleDouble quick(double a, double b) {
    double s = a + b;
    return new DoubleDouble(s, b - (s - a));
  }

  DoubleDouble plus(DoubleDouble o) {
    DoubleDouble s = sum(high, o.high);
    DoubleDouble t = sum(low, o.low);
    DoubleDouble u = quick(s.high, s.low + t.high);
    return quick(u.high, u.low + t.low);
  }

  DoubleDouble minus(DoubleDouble o) {
    return plus(o.negated());
  }

  DoubleDouble negated() {
    return new DoubleDouble(-high, -low);
  }

  DoubleDouble times(DoubleDouble o) {
    double p = high * o.high;
    double e = Math.fma(high, o.high, -p);
    return quick(p, e + (high * o.low + low * o.high));
  }

  DoubleDouble times(double o) {
    return times(of(o));
  }

  DoubleDouble over(DoubleDouble o) {
    double q1 = high / o.high;
    DoubleDouble r = minus(o.times(q1));
    double q2 = r.high / o.high;
    r = r.minus(o.times(q2));
    double q3 = r.high / o.high;
    return sum(q1, q2).plus(of(q3));
  }

  double value() {
    return high + low;
  }
}
