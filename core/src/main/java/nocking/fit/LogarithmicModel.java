package nocking.fit;

import java.util.Arrays;
import nocking.algebra.Expr;

/** x = b₀ + b₁·ln V by least squares. */
public final class LogarithmicModel implements FormulaModel {

  @Override
  public String key() {
    return "log";
  }

  @Override
  public String title() {
    return "Logarithm";
  }

  @Override
  public int fewestPoints() {
    return 2;
  }

  @Override
  public Expr equation() {
    Expr ln = new Expr.Apply(Expr.Function.LN, Expr.sym(Curve.RAW));
    return Expr.sym("b0").plus(Expr.sym("b1").times(ln));
  }

  @Override
  public Estimate estimate(Samples s) {
    s.require(fewestPoints(), title());
    s.requirePositive(title());
    double[] ln = Arrays.stream(s.raw()).map(Math::log).toArray();
    var p = new OrthogonalPolynomials(ln, s.quantity(), s.weights(), 1);
    Estimate e = Polynomial.inRaw(p, Polynomial.powers(p));
    var error = e.standardError();
    return new Estimate(
        e.coefficients(),
        e.inRaw(),
        e.covariance(),
        v -> error.applyAsDouble(Math.log(v)),
        e.leverages());
  }
}
