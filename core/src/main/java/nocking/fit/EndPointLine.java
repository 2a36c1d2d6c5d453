package nocking.fit;

import java.util.List;
import java.util.stream.IntStream;
import nocking.algebra.Expr;

/**
 * The line through the two points with the lowest and highest raw value; where one of them was
 * taken more than once, through the mean of the quantity there. The two-point school.
 */
public final class EndPointLine implements FitModel {

  @Override
  public String key() {
    return "ends";
  }

  @Override
  public String title() {
    return "Line through the ends";
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
    double low = samples.rawSpan().low();
    double high = samples.rawSpan().high();
    double slope = (meanAt(samples, high) - meanAt(samples, low)) / (high - low);
    return List.of(
        new Coefficient("b0", meanAt(samples, low) - slope * low, Double.NaN),
        new Coefficient("b1", slope, Double.NaN));
  }

  private static double meanAt(Samples samples, double raw) {
    return IntStream.range(0, samples.size())
        .filter(i -> samples.raw()[i] == raw)
        .mapToDouble(i -> samples.quantity()[i])
        .average()
        .orElseThrow();
  }
}
