package nocking.fit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import nocking.algebra.Expr;

/** x = b₀ + b₁·V^b₂. */
public final class PowerLaw extends NonlinearModel {
  private static final double[] POWERS = {-3, -2, -1.5, -1, -0.5, 0.3, 0.5, 1.5, 2, 3};

  @Override
  public String key() {
    return "power";
  }

  @Override
  public String title() {
    return "Power law";
  }

  @Override
  public int fewestPoints() {
    return 3;
  }

  @Override
  public Expr equation() {
    Expr power = new Expr.Pow(Expr.sym(Curve.RAW), Expr.sym("b2"));
    return Expr.sym("b0").plus(Expr.sym("b1").times(power));
  }

  @Override
  List<String> names() {
    return List.of("b0", "b1", "b2");
  }

  @Override
  void accept(Samples s) {
    s.requirePositive(title());
  }

  /** With b₂ given the others stand linear. */
  @Override
  List<double[]> starts(Samples s) {
    var list = new ArrayList<double[]>();
    double[] one = new double[s.size()];
    Arrays.fill(one, 1);
    for (double b2 : POWERS) {
      double[] power = Arrays.stream(s.raw()).map(v -> Math.pow(v, b2)).toArray();
      double[] b = Columns.solve(s.quantity(), s.weights(), one, power);
      if (b != null) list.add(new double[] {b[0], b[1], b2});
    }
    return list;
  }
}
