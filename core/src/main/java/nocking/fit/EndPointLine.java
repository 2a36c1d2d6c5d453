package nocking.fit;

import java.util.List;
import java.util.stream.IntStream;
import nocking.algebra.Expr;

/**
 * The line through the two points with the lowest and highest raw value; an input that was applied
 * more than once counts with the mean of its readings, and a raw value that came more than once
 * with the mean of the quantity there. The two-point school.
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
    Samples ends = samples.meansByQuantity();
    if (ends.size() < 2 || ends.rawSpan().width() == 0) ends = samples;
    double low = ends.rawSpan().low();
    double high = ends.rawSpan().high();
    double slope = (meanAt(ends, high) - meanAt(ends, low)) / (high - low);
    return List.of(
        new Coefficient("b0", meanAt(ends, low) - slope * low, Double.NaN),
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
