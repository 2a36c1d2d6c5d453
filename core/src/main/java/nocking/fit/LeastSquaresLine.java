package nocking.fit;

import nocking.algebra.Expr;

/** x = b₀ + b₁·V by least squares. */
public final class LeastSquaresLine implements FormulaModel {

  @Override
  public String key() {
    return "line";
  }

  @Override
  public String title() {
    return "Least-squares line";
  }

  @Override
  public int fewestPoints() {
    return 2;
  }

  @Override
  public Expr equation() {
    return Expr.sym("b0").plus(Expr.sym("b1").times(Expr.sym(Curve.RAW)));
  }

  @Override
  public Estimate estimate(Samples s) {
    s.require(fewestPoints(), title());
    var p = new OrthogonalPolynomials(s.raw(), s.quantity(), s.weights(), 1);
    return Polynomial.inRaw(p, Polynomial.powers(p));
  }

  @Override
  public String outside() {
    return "goes on straight";
  }
}
