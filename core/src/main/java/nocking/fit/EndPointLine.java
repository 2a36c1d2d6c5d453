package nocking.fit;

import java.util.List;
import java.util.stream.IntStream;
import nocking.algebra.Expr;
import nocking.quantity.Span;

/**
 * The line through the two points with the lowest and highest raw value; an input that was applied
 * more than once counts with the mean of its readings, and a raw value that came more than once
 * with the mean of the quantity there. The two-point school.
 */
public final class EndPointLine implements FormulaModel {

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
  public Estimate estimate(Samples samples) {
    samples.require(fewestPoints(), title());
    var inputs = new EndGroups(samples);
    double[] line = inputs.determined() ? inputs.line() : throughRaw(samples);
    return Estimate.plain(
        List.of(
            new Coefficient("b0", line[0], Double.NaN),
            new Coefficient("b1", line[1], Double.NaN)));
  }

  /** Where one input was applied only: the samples with the lowest and the highest raw value. */
  private static double[] throughRaw(Samples samples) {
    Span raw = samples.rawSpan();
    double low = meanAt(samples, raw.low());
    double slope = (meanAt(samples, raw.high()) - low) / raw.width();
    return new double[] {low - slope * raw.low(), slope};
  }

  @Override
  public double[] unseenErrors(Samples samples, Estimate estimate) {
    var inputs = new EndGroups(samples);
    double[] errors = new double[samples.size()];
    for (int i = 0; i < errors.length; i++) {
      double[] line = inputs.lineWithout(i);
      errors[i] =
          line == null ? Double.NaN : line[0] + line[1] * samples.raw()[i] - samples.quantity()[i];
    }
    return errors;
  }

  private static double meanAt(Samples samples, double raw) {
    return IntStream.range(0, samples.size())
        .filter(i -> samples.raw()[i] == raw)
        .mapToDouble(i -> samples.quantity()[i])
        .average()
        .orElseThrow();
  }

  @Override
  public String outside() {
    return "goes on straight";
  }
}
