package nocking.algebra;

import static nocking.algebra.Expr.ONE;
import static nocking.algebra.Expr.ZERO;
import static nocking.algebra.Expr.num;

import nocking.algebra.Expr.Add;
import nocking.algebra.Expr.Apply;
import nocking.algebra.Expr.Div;
import nocking.algebra.Expr.Function;
import nocking.algebra.Expr.Mul;
import nocking.algebra.Expr.Neg;
import nocking.algebra.Expr.Num;
import nocking.algebra.Expr.Pow;
import nocking.algebra.Expr.Sub;
import nocking.algebra.Expr.Sym;

/** Derivative and solution of expressions. */
public final class Calculus {
  private Calculus() {}

  /** Partial derivative with respect to a symbol. */
  public static Expr derivative(Expr e, String x) {
    if (!e.contains(x)) return ZERO;
    return switch (e) {
      case Num _ -> ZERO;
      case Sym _ -> ONE;
      case Neg(Expr a) -> derivative(a, x).negated();
      case Add(Expr a, Expr b) -> derivative(a, x).plus(derivative(b, x));
      case Sub(Expr a, Expr b) -> derivative(a, x).minus(derivative(b, x));
      case Mul(Expr a, Expr b) -> derivative(a, x).times(b).plus(a.times(derivative(b, x)));
      case Div(Expr a, Expr b) ->
          b.contains(x)
              ? derivative(a, x).times(b).minus(a.times(derivative(b, x))).over(b.power(num(2)))
              : derivative(a, x).over(b);
      case Pow(Expr a, Expr b) ->
          b.contains(x)
              ? e.times(derivative(b.times(a.apply(Function.LN)), x))
              : b.times(a.power(b.minus(ONE))).times(derivative(a, x));
      case Apply(Function f, Expr a) -> {
        Expr inner = derivative(a, x);
        yield switch (f) {
          case EXP -> e.times(inner);
          case LN -> inner.over(a);
          case SQRT -> inner.over(num(2).times(e));
        };
      }
    };
  }

  /**
   * Solves {@code left = right} for a symbol that occurs exactly once in {@code right} and not in
   * {@code left}, by undoing one operation after the other from the outside in.
   *
   * @throws AlgebraException when the symbol does not occur exactly once
   */
  public static Expr solve(Expr left, Expr right, String unknown) {
    if (left.contains(unknown) || right.count(unknown) != 1) {
      throw new AlgebraException(
          "%s must occur exactly once to be solved for; it occurs %d times"
              .formatted(unknown, left.count(unknown) + right.count(unknown)));
    }
    Expr l = left;
    Expr r = right;
    while (!(r instanceof Sym)) {
      switch (r) {
        case Neg(Expr a) -> {
          l = l.negated();
          r = a;
        }
        case Add(Expr a, Expr b) -> {
          boolean first = a.contains(unknown);
          l = l.minus(first ? b : a);
          r = first ? a : b;
        }
        case Sub(Expr a, Expr b) -> {
          boolean first = a.contains(unknown);
          l = first ? l.plus(b) : a.minus(l);
          r = first ? a : b;
        }
        case Mul(Expr a, Expr b) -> {
          boolean first = a.contains(unknown);
          l = l.over(first ? b : a);
          r = first ? a : b;
        }
        case Div(Expr a, Expr b) -> {
          boolean first = a.contains(unknown);
          l = first ? l.times(b) : a.over(l);
          r = first ? a : b;
        }
        case Pow(Expr a, Expr b) -> {
          boolean first = a.contains(unknown);
          l = first ? l.power(ONE.over(b)) : l.apply(Function.LN).over(a.apply(Function.LN));
          r = first ? a : b;
        }
        case Apply(Function f, Expr a) -> {
          l =
              switch (f) {
                case EXP -> l.apply(Function.LN);
                case LN -> l.apply(Function.EXP);
                case SQRT -> l.power(num(2));
              };
          r = a;
        }
        case Num _, Sym _ -> throw new IllegalStateException("the unknown was lost");
      }
    }
    return l;
  }
}
