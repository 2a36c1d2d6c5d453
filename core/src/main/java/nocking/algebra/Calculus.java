package nocking.algebra;

import static nocking.algebra.Expr.ONE;
import static nocking.algebra.Expr.ZERO;
import static nocking.algebra.Expr.num;

import java.util.ArrayDeque;
import nocking.algebra.Expr.Add;
import nocking.algebra.Expr.Apply;
import nocking.algebra.Expr.Div;
import nocking.algebra.Expr.Function;
import nocking.algebra.Expr.Mode;
import nocking.algebra.Expr.Mul;
import nocking.algebra.Expr.Neg;
import nocking.algebra.Expr.Num;
import nocking.algebra.Expr.Pow;
import nocking.algebra.Expr.Sub;
import nocking.algebra.Expr.Sym;
import nocking.algebra.Expr.Through;

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
          case LOG -> inner.over(a.times(num(Math.log(10))));
          case SQRT -> inner.over(num(2).times(e));
          case SIN -> a.apply(Function.COS).times(inner);
          case COS -> a.apply(Function.SIN).times(inner).negated();
          case TAN -> inner.over(a.apply(Function.COS).power(num(2)));
          case ASIN -> inner.over(ONE.minus(a.power(num(2))).apply(Function.SQRT));
          case ACOS -> inner.over(ONE.minus(a.power(num(2))).apply(Function.SQRT)).negated();
          case ATAN -> inner.over(ONE.plus(a.power(num(2))));
        };
      }
      case Through(TabulatedFunction g, Mode mode, Expr a) ->
          switch (mode) {
            case VALUE -> a.through(g, Mode.SLOPE).times(derivative(a, x));
            case INVERSE -> a.through(g, Mode.INVERSE_SLOPE).times(derivative(a, x));
            case SLOPE, INVERSE_SLOPE ->
                throw new AlgebraException(
                    "the function %s has no second derivative here".formatted(g.name()));
          };
    };
  }

  /**
   * Solves {@code left = right} for a symbol, by undoing one operation after the other from the
   * outside in. Where the unknown stands on both sides of an operation, the equation is solved in
   * one step if it is a ratio of two straight lines in it, as a loaded divider is in its resistor.
   *
   * @throws AlgebraException when it cannot be solved that way
   */
  public static Expr solve(Expr left, Expr right, String unknown) {
    if (left.contains(unknown) || !right.contains(unknown)) {
      throw new AlgebraException(
          "%s must stand in the equation, on its right side only".formatted(unknown));
    }
    Expr l = left;
    Expr r = right;
    while (!(r instanceof Sym)) {
      if (inBoth(r, unknown)) {
        Expr core = core(r, unknown);
        l = Moebius.of(r, core).solved(l);
        r = core;
        continue;
      }
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
          l = first ? multiplied(l, b) : a.over(l);
          r = first ? a : b;
        }
        case Pow(Expr a, Expr b) -> {
          boolean first = a.contains(unknown);
          l = first ? l.power(ONE.over(b)) : l.apply(Function.LN).over(a.apply(Function.LN));
          r = first ? a : b;
        }
        case Apply(Function f, Expr a) -> {
          l = undone(f, l);
          r = a;
        }
        case Through(TabulatedFunction g, Mode mode, Expr a) -> {
          l = l.through(g, turned(g, mode));
          r = a;
        }
        case Num _, Sym _ -> throw new IllegalStateException("the unknown was lost");
      }
    }
    return l;
  }

  /** A fraction times something is one fraction; a number goes to the front of it. */
  private static Expr multiplied(Expr l, Expr by) {
    if (l instanceof Div(Expr over, Expr under)) return multiplied(over, by).over(under);
    return by instanceof Num ? inFront(by, l) : l.times(by);
  }

  private static Expr inFront(Expr number, Expr e) {
    return e instanceof Mul(Expr a, Expr b) ? inFront(number, a).times(b) : number.times(e);
  }

  private static Expr undone(Function f, Expr l) {
    return switch (f) {
      case EXP -> l.apply(Function.LN);
      case LN -> l.apply(Function.EXP);
      case LOG -> num(10).power(l);
      case SQRT -> l.power(num(2));
      case TAN -> l.apply(Function.ATAN);
      case ASIN -> l.apply(Function.SIN);
      case ACOS -> l.apply(Function.COS);
      case ATAN -> l.apply(Function.TAN);
      case SIN, COS ->
          throw new AlgebraException(
              "%s has more than one inverse and is turned round numerically".formatted(f.word()));
    };
  }

  private static Mode turned(TabulatedFunction g, Mode mode) {
    return switch (mode) {
      case VALUE -> Mode.INVERSE;
      case INVERSE -> Mode.VALUE;
      case SLOPE, INVERSE_SLOPE ->
          throw new AlgebraException("the slope of %s cannot be turned round".formatted(g.name()));
    };
  }

  private static boolean inBoth(Expr e, String x) {
    return e.operands().stream().filter(part -> part.contains(x)).count() > 1;
  }

  /** The largest part that holds every occurrence of the unknown, wherever it stands. */
  private static Expr core(Expr e, String x) {
    var next = new ArrayDeque<Expr>(e.operands());
    while (!next.isEmpty()) {
      Expr part = next.poll();
      if (!part.contains(x)) continue;
      if (outside(e, part, x) == 0) return part;
      next.addAll(part.operands());
    }
    throw new IllegalStateException("the unknown was lost");
  }

  /** Occurrences of the unknown that stand outside a part. */
  private static int outside(Expr e, Expr part, String x) {
    if (e.equals(part)) return 0;
    if (e instanceof Sym(String s)) return s.equals(x) ? 1 : 0;
    int sum = 0;
    for (Expr operand : e.operands()) sum += outside(operand, part, x);
    return sum;
  }
}
