package nocking.algebra;

import static nocking.algebra.Expr.ONE;
import static nocking.algebra.Expr.ZERO;

import nocking.algebra.Expr.Add;
import nocking.algebra.Expr.Div;
import nocking.algebra.Expr.Mul;
import nocking.algebra.Expr.Neg;
import nocking.algebra.Expr.Sub;

/**
 * A ratio of two straight lines in one part of an expression, (a·u + b)/(c·u + d): what any network
 * of resistors is in one of its resistors. It has one inverse, u = (d·y − b)/(a − c·y).
 */
record Moebius(Expr a, Expr b, Expr c, Expr d) {

  /**
   * Reads an expression as such a ratio in {@code u}.
   *
   * @throws AlgebraException when it is none
   */
  static Moebius of(Expr e, Expr u) {
    if (e.equals(u)) return new Moebius(ONE, ZERO, ZERO, ONE);
    if (!e.holds(u)) return new Moebius(ZERO, e, ZERO, ONE);
    return switch (e) {
      case Neg(Expr x) -> of(x, u).times(Expr.num(-1));
      case Add(Expr x, Expr y) -> of(x, u).plus(of(y, u));
      case Sub(Expr x, Expr y) -> of(x, u).plus(of(y, u).times(Expr.num(-1)));
      case Mul(Expr x, Expr y) -> of(x, u).times(of(y, u));
      case Div(Expr x, Expr y) -> of(x, u).times(of(y, u).inverted());
      default -> throw unsolvable();
    };
  }

  private static AlgebraException unsolvable() {
    return new AlgebraException("the unknown stands in the equation more than once");
  }

  private boolean constant() {
    return a.equals(ZERO) && c.equals(ZERO);
  }

  private boolean line() {
    return c.equals(ZERO);
  }

  private Moebius times(Expr k) {
    return new Moebius(a.times(k), b.times(k), c, d);
  }

  private Moebius inverted() {
    return new Moebius(c, d, a, b);
  }

  private Moebius plus(Moebius o) {
    if (c.equals(o.c) && d.equals(o.d)) return new Moebius(a.plus(o.a), b.plus(o.b), c, d);
    if (o.constant()) return shifted(o.b.over(o.d));
    if (constant()) return o.shifted(b.over(d));
    if (line() && o.line()) {
      return new Moebius(a.over(d).plus(o.a.over(o.d)), b.over(d).plus(o.b.over(o.d)), ZERO, ONE);
    }
    throw unsolvable();
  }

  private Moebius shifted(Expr k) {
    return new Moebius(a.plus(k.times(c)), b.plus(k.times(d)), c, d);
  }

  private Moebius times(Moebius o) {
    if (o.constant()) return times(o.b.over(o.d));
    if (constant()) return o.times(b.over(d));
    // (n/m)·(m/q) = n/q: what stands under one fraction stands over the other.
    if (c.equals(o.a) && d.equals(o.b)) return new Moebius(a, b, o.c, o.d);
    if (a.equals(o.c) && b.equals(o.d)) return new Moebius(o.a, o.b, c, d);
    // A line over a line of the same part.
    if (line() && o.a.equals(ZERO)) {
      return new Moebius(a.times(o.b), b.times(o.b), d.times(o.c), d.times(o.d));
    }
    if (o.line() && a.equals(ZERO)) return o.times(this);
    throw unsolvable();
  }

  /** u for a value y of the ratio. */
  Expr solved(Expr y) {
    return d.times(y).minus(b).over(a.minus(c.times(y)));
  }
}
