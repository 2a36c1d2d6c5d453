package nocking.fit;

import java.util.List;
import nocking.algebra.Expr;

/** t = (V − Vm)/Vh, which runs from −1 to 1 over the points: powers of it keep their digits. */
final class Scaling {
  static final String CENTRE = "Vm";
  static final String HALF = "Vh";

  private Scaling() {}

  static Expr variable() {
    return Expr.sym(Curve.RAW).minus(Expr.sym(CENTRE)).over(Expr.sym(HALF));
  }

  static List<Coefficient> constants(double centre, double half) {
    return List.of(
        new Coefficient(CENTRE, centre, Double.NaN), new Coefficient(HALF, half, Double.NaN));
  }

  /** True for a constant that was chosen and not fitted. */
  static boolean chosen(Coefficient c) {
    return c.name().equals(CENTRE) || c.name().equals(HALF);
  }
}
