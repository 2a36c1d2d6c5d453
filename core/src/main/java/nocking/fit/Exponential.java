package nocking.fit;

import java.util.ArrayList;
import java.util.List;
import nocking.algebra.Expr;
import nocking.quantity.Span;

/** x = b₀ + b₁·exp(b₂·V). */
public final class Exponential extends NonlinearModel {
  /** Bends over the points that are tried as starts: exp(±k) from one end to the other. */
  private static final double[] BENDS = {0.1, 0.3, 1, 2, 4, 8, 16};

  @Override
  public String key() {
    return "exp";
  }

  @Override
  public String title() {
    return "Exponential";
  }

  @Override
  public int fewestPoints() {
    return 3;
  }

  @Override
  public Expr equation() {
    Expr power = Expr.sym("b2").times(Expr.sym(Curve.RAW));
    return Expr.sym("b0").plus(Expr.sym("b1").times(new Expr.Apply(Expr.Function.EXP, power)));
  }

  @Override
  List<String> names() {
    return List.of("b0", "b1", "b2");
  }

  @Override
  void accept(Samples s) {
    // Every raw value has an exponential.
  }

  /** With b₂ given the others stand linear. */
  @Override
  List<double[]> starts(Samples s) {
    var list = new ArrayList<double[]>();
    Span raw = s.rawSpan();
    for (double bend : BENDS) {
      for (int sign : new int[] {-1, 1}) {
        double b2 = sign * bend / raw.width();
        double[] one = new double[s.size()];
        double[] e = new double[s.size()];
        for (int i = 0; i < e.length; i++) {
          one[i] = 1;
          e[i] = Math.exp(b2 * (s.raw()[i] - raw.low()));
        }
        double[] b = Columns.solve(s.quantity(), s.weights(), one, e);
        if (b != null) list.add(new double[] {b[0], b[1] * Math.exp(-b2 * raw.low()), b2});
      }
    }
    return list;
  }
}
