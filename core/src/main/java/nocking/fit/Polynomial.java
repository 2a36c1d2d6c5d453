package nocking.fit;

import java.util.ArrayList;
import java.util.List;
import nocking.algebra.Expr;

/**
 * x = c₀ + c₁·t + … + cₙ·tⁿ by least squares, with t = (V − Vm)/Vh between −1 and 1 over the
 * points: the curve goes by this form, which loses no digits; the powers of V itself are the form
 * that is written down.
 *
 * @param degree 2 to {@link #MOST}
 */
public record Polynomial(int degree) implements FormulaModel {
  /** Beyond this the powers of t themselves lose more than a converter's count. */
  public static final int MOST = 12;

  @Override
  public String key() {
    return "poly:" + degree;
  }

  @Override
  public String title() {
    return "Polynomial of degree " + degree;
  }

  @Override
  public int fewestPoints() {
    return degree + 1;
  }

  @Override
  public Expr equation() {
    Expr t = Scaling.variable();
    Expr sum = Expr.sym("c" + degree);
    for (int k = degree - 1; k >= 0; k--) sum = Expr.sym("c" + k).plus(t.times(sum));
    return sum;
  }

  @Override
  public Estimate estimate(Samples s) {
    s.require(fewestPoints(), title());
    var p = new OrthogonalPolynomials(s.raw(), s.quantity(), s.weights(), degree);
    double[] c = p.scaledPowers();
    var list = new ArrayList<Coefficient>();
    for (int k = 0; k <= degree; k++) list.add(new Coefficient("c" + k, c[k], Double.NaN));
    list.addAll(Scaling.constants(p.centre(), p.half()));
    return inRaw(p, list);
  }

  /** The powers of V with their standard errors. */
  static List<Coefficient> powers(OrthogonalPolynomials p) {
    double[] b = p.rawPowers();
    double[][] covariance = p.covariance();
    var list = new ArrayList<Coefficient>();
    for (int k = 0; k < b.length; k++) {
      list.add(new Coefficient("b" + k, b[k], Math.sqrt(covariance[k][k])));
    }
    return list;
  }

  static Estimate inRaw(OrthogonalPolynomials p, List<Coefficient> coefficients) {
    return new Estimate(coefficients, powers(p), p.covariance(), p.standardError(), p.leverages());
  }

  @Override
  public String outside() {
    return "bends away: do not use it there";
  }
}
