package nocking.fit;

import java.util.ArrayList;
import java.util.List;
import nocking.algebra.Expr;

/**
 * The line or polynomial whose largest error at the points is the least: of all curves of its
 * degree none has a smaller one. For a maximum permissible error, and the most sensitive of all
 * fits to a single slip.
 *
 * @param degree 1 to {@link #MOST}
 */
public record Minimax(int degree) implements FormulaModel {
  public static final int MOST = 9;

  @Override
  public String key() {
    return degree == 1 ? "minimax" : "minimax:" + degree;
  }

  @Override
  public String title() {
    return degree == 1 ? "Least-worst line" : "Least-worst polynomial of degree " + degree;
  }

  @Override
  public int fewestPoints() {
    return degree + 1;
  }

  @Override
  public Expr equation() {
    return degree == 1 ? new LeastSquaresLine().equation() : new Polynomial(degree).equation();
  }

  @Override
  public Estimate estimate(Samples s) {
    s.require(fewestPoints(), title());
    var exchange = new Exchange(s, degree);
    double[] c = exchange.powers();
    double centre = exchange.centre();
    double half = exchange.half();
    var list = new ArrayList<Coefficient>();
    if (degree == 1) {
      double slope = c[1] / half;
      list.add(new Coefficient("b0", c[0] - slope * centre, Double.NaN));
      list.add(new Coefficient("b1", slope, Double.NaN));
      return Estimate.plain(list);
    }
    for (int k = 0; k <= degree; k++) list.add(new Coefficient("c" + k, c[k], Double.NaN));
    list.addAll(Scaling.constants(centre, half));
    return Estimate.plain(List.copyOf(list));
  }

  @Override
  public String outside() {
    return degree == 1 ? "goes on straight" : "bends away: do not use it there";
  }
}
