package nocking.algebra;

import java.util.Map;
import java.util.function.DoubleUnaryOperator;
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

/**
 * An expression of one variable as a chain of closures: the same arithmetic in the same order as
 * {@link Expr#evaluate}, with every part that does not depend on the variable worked out once.
 */
public final class Compiled {
  private Compiled() {}

  /**
   * @param constants a number for every symbol but the variable
   * @throws AlgebraException naming a symbol without a value
   */
  public static DoubleUnaryOperator of(Expr e, String variable, Map<String, Double> constants) {
    if (!e.contains(variable)) {
      double constant = e.evaluate(constants);
      return x -> constant;
    }
    return switch (e) {
      case Num(double v) -> x -> v;
      case Sym _ -> x -> x;
      case Neg(Expr a) -> {
        var f = of(a, variable, constants);
        yield x -> -f.applyAsDouble(x);
      }
      case Add(Expr a, Expr b) -> {
        var f = of(a, variable, constants);
        var g = of(b, variable, constants);
        yield x -> f.applyAsDouble(x) + g.applyAsDouble(x);
      }
      case Sub(Expr a, Expr b) -> {
        var f = of(a, variable, constants);
        var g = of(b, variable, constants);
        yield x -> f.applyAsDouble(x) - g.applyAsDouble(x);
      }
      case Mul(Expr a, Expr b) -> {
        var f = of(a, variable, constants);
        var g = of(b, variable, constants);
        yield x -> f.applyAsDouble(x) * g.applyAsDouble(x);
      }
      case Div(Expr a, Expr b) -> {
        var f = of(a, variable, constants);
        var g = of(b, variable, constants);
        yield x -> f.applyAsDouble(x) / g.applyAsDouble(x);
      }
      case Pow(Expr a, Expr b) -> {
        var f = of(a, variable, constants);
        var g = of(b, variable, constants);
        yield x -> Math.pow(f.applyAsDouble(x), g.applyAsDouble(x));
      }
      case Apply(Function function, Expr a) -> {
        var f = of(a, variable, constants);
        yield x -> function.of(f.applyAsDouble(x));
      }
      case Through(TabulatedFunction graph, Mode mode, Expr a) -> {
        var f = of(a, variable, constants);
        yield x -> Expr.through(graph, mode, f.applyAsDouble(x));
      }
    };
  }
}
