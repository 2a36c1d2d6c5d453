package nocking.fit;

import java.util.Arrays;
import java.util.List;
import nocking.algebra.Expr;
import nocking.quantity.Numbers;

/**
 * The temperature of a thermistor in °C from its ohms, 1/T = A + B·ln R + C·(ln R)³: J. S.
 * Steinhart and S. R. Hart, "Calibration curves for thermistors", Deep-Sea Research 15 (1968).
 */
public final class SteinhartHart extends NonlinearModel {
  /** Kelvin at 0 °C. */
  static final double ZERO = 273.15;

  @Override
  public String key() {
    return "steinhart";
  }

  @Override
  public String title() {
    return "Steinhart–Hart";
  }

  @Override
  public int fewestPoints() {
    return 3;
  }

  @Override
  public Expr equation() {
    Expr ln = new Expr.Apply(Expr.Function.LN, Expr.sym(Curve.RAW));
    Expr cube = ln.times(ln).times(ln);
    Expr inverse = Expr.sym("A").plus(Expr.sym("B").times(ln)).plus(Expr.sym("C").times(cube));
    return Expr.ONE.over(inverse).minus(Expr.num(ZERO));
  }

  @Override
  List<String> names() {
    return List.of("A", "B", "C");
  }

  @Override
  void accept(Samples s) {
    s.requirePositive(title());
    requireWarm(s, title());
  }

  /** Temperatures in °C have an inverse only above the absolute zero. */
  static void requireWarm(Samples s, String title) {
    double least = s.quantitySpan().low();
    if (!(least > -ZERO)) {
      throw new FitException(
          "%s needs temperatures in °C, above −273.15; the least is %s"
              .formatted(title, Numbers.plain(least)));
    }
  }

  /** 1/T stands linear in A, B and C. */
  @Override
  List<double[]> starts(Samples s) {
    double[] ln = Arrays.stream(s.raw()).map(Math::log).toArray();
    double[] cube = Arrays.stream(ln).map(v -> v * v * v).toArray();
    double[] one = new double[ln.length];
    Arrays.fill(one, 1);
    double[] inverse = Arrays.stream(s.quantity()).map(t -> 1 / (t + ZERO)).toArray();
    double[] b = Columns.solve(inverse, s.weights(), one, ln, cube);
    return b == null ? List.of() : List.of(b);
  }
}
