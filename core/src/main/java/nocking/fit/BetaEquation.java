package nocking.fit;

import java.util.Arrays;
import java.util.List;
import nocking.algebra.Expr;

/**
 * The temperature of a thermistor in °C from its ohms, 1/T = 1/298.15 K + ln(R/R25)/β (IEC 60539-1,
 * with 25 °C as the reference).
 */
public final class BetaEquation extends NonlinearModel {
  private static final double REFERENCE = 298.15;

  @Override
  public String key() {
    return "beta";
  }

  @Override
  public String title() {
    return "β equation";
  }

  @Override
  public int fewestPoints() {
    return 2;
  }

  @Override
  public Expr equation() {
    Expr ratio = Expr.sym(Curve.RAW).over(Expr.sym("R25"));
    Expr ln = new Expr.Apply(Expr.Function.LN, ratio);
    Expr inverse = Expr.num(1 / REFERENCE).plus(ln.over(Expr.sym("beta")));
    return Expr.ONE.over(inverse).minus(Expr.num(SteinhartHart.ZERO));
  }

  @Override
  List<String> names() {
    return List.of("R25", "beta");
  }

  @Override
  void accept(Samples s) {
    s.requirePositive(title());
    SteinhartHart.requireWarm(s, title());
  }

  /** 1/T on ln R is a line. */
  @Override
  List<double[]> starts(Samples s) {
    double[] ln = Arrays.stream(s.raw()).map(Math::log).toArray();
    double[] inverse = Arrays.stream(s.quantity()).map(t -> 1 / (t + SteinhartHart.ZERO)).toArray();
    var p = new OrthogonalPolynomials(ln, inverse, s.weights(), 1);
    double[] b = p.rawPowers();
    return List.of(new double[] {Math.exp((1 / REFERENCE - b[0]) / b[1]), 1 / b[1]});
  }
}
