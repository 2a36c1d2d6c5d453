package nocking.fit;

import java.util.Arrays;
import java.util.List;
import nocking.algebra.Expr;

/** x = b₁·V by least squares: for a sensor that is known to give nothing at zero. */
public final class LineThroughZero implements FormulaModel {

  @Override
  public String key() {
    return "line-zero";
  }

  @Override
  public String title() {
    return "Line through zero";
  }

  @Override
  public int fewestPoints() {
    return 1;
  }

  @Override
  public Expr equation() {
    return Expr.sym("b1").times(Expr.sym(Curve.RAW));
  }

  /** b₁ = ΣwVx/ΣwV², with the leverages h_i = w_i·V_i²/ΣwV². */
  @Override
  public Estimate estimate(Samples s) {
    s.require(fewestPoints(), title());
    double[] v = s.raw();
    double[] w = s.weights();
    if (Arrays.stream(v).allMatch(x -> x == 0)) {
      throw new FitException("a line through zero needs a raw value other than 0");
    }
    int n = s.size();
    DoubleDouble squares = DoubleDouble.ZERO;
    DoubleDouble products = DoubleDouble.ZERO;
    for (int i = 0; i < n; i++) {
      DoubleDouble weighted = DoubleDouble.of(v[i]).times(w[i]);
      squares = squares.plus(weighted.times(v[i]));
      products = products.plus(weighted.times(s.quantity()[i]));
    }
    double slope = products.over(squares).value();
    double all = squares.value();
    double left = 0;
    double[] leverages = new double[n];
    for (int i = 0; i < n; i++) {
      double e = s.quantity()[i] - slope * v[i];
      left += w[i] * e * e;
      leverages[i] = w[i] * v[i] * v[i] / all;
    }
    double variance = n > 1 ? left / (n - 1) / all : Double.NaN;
    double error = Math.sqrt(variance);
    var b1 = List.of(new Coefficient("b1", slope, error));
    return new Estimate(b1, b1, new double[][] {{variance}}, x -> error * Math.abs(x), leverages);
  }

  @Override
  public String outside() {
    return "goes on straight";
  }
}
