package nocking.fit;

import java.util.Arrays;
import java.util.List;
import nocking.algebra.Expr;

/** x = b₁·V by least squares: for a sensor that is known to give nothing at zero. */
public final class LineThroughZero implements FitModel {

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

  @Override
  public List<Coefficient> coefficients(Samples samples) {
    samples.require(fewestPoints(), title());
    if (Arrays.stream(samples.raw()).allMatch(v -> v == 0)) {
      throw new FitException("a line through zero needs a raw value other than 0");
    }
    return LeastSquaresLine.regress(samples, false, "b1");
  }

  /** Leverage h_i = V_i²/ΣV². */
  @Override
  public double[] unseenErrors(Samples samples) {
    double squares = Arrays.stream(samples.raw()).map(v -> v * v).sum();
    return LeastSquaresLine.leverageErrors(this, samples, v -> v * v / squares);
  }
}
