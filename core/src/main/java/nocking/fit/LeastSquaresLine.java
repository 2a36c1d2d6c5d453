package nocking.fit;

import java.util.Arrays;
import java.util.List;
import nocking.algebra.Expr;
import org.hipparchus.stat.regression.OLSMultipleLinearRegression;

/** x = b₀ + b₁·V by least squares, equal weights. */
public final class LeastSquaresLine implements FitModel {

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
  public List<Coefficient> coefficients(Samples samples) {
    samples.require(fewestPoints(), title());
    return regress(samples, true, "b0", "b1");
  }

  /** Ordinary least squares on the raw value, with or without a constant term. */
  static List<Coefficient> regress(Samples samples, boolean constant, String... names) {
    var ols = new OLSMultipleLinearRegression();
    ols.setNoIntercept(!constant);
    double[][] raw =
        Arrays.stream(samples.raw()).mapToObj(v -> new double[] {v}).toArray(double[][]::new);
    ols.newSampleData(samples.quantity(), raw);
    double[] b = ols.estimateRegressionParameters();
    boolean freedom = samples.size() > b.length;
    double[] se = freedom ? ols.estimateRegressionParametersStandardErrors() : null;
    var list = new Coefficient[b.length];
    for (int i = 0; i < b.length; i++) {
      list[i] = new Coefficient(names[i], b[i], freedom ? se[i] : Double.NaN);
    }
    return List.of(list);
  }

  /** e_i/(1 − h_i) with the leverage h_i = 1/n + (V_i − V̄)²/Σ(V − V̄)². */
  @Override
  public double[] unseenErrors(Samples samples) {
    double[] raw = samples.raw();
    double mean = Arrays.stream(raw).average().orElseThrow();
    double spread = Arrays.stream(raw).map(v -> (v - mean) * (v - mean)).sum();
    return leverageErrors(this, samples, v -> 1.0 / raw.length + (v - mean) * (v - mean) / spread);
  }

  static double[] leverageErrors(
      FitModel model, Samples samples, java.util.function.DoubleUnaryOperator leverage) {
    var f = Curve.of(model.title(), model.equation(), model.coefficients(samples)).function();
    double[] errors = new double[samples.size()];
    for (int i = 0; i < errors.length; i++) {
      double h = leverage.applyAsDouble(samples.raw()[i]);
      double e = f.applyAsDouble(samples.raw()[i]) - samples.quantity()[i];
      errors[i] = 1 - h < 1e-12 ? Double.NaN : e / (1 - h);
    }
    return errors;
  }
}
