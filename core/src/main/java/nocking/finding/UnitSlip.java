package nocking.finding;

import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import java.util.function.ToDoubleFunction;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.points.PointSet;
import nocking.points.ReferencePoint;
import nocking.quantity.Dimension;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * The applied values make sense in another unit, or one atmosphere away. Factors: NIST SP 811.
 * Standard atmosphere: 101.325 kPa (10th CGPM, 1954).
 */
final class UnitSlip implements Rule {

  private static final List<String> CANDIDATES =
      List.of(
          "Pa", "kPa", "MPa", "bar", "mbar", "psi", "inHg", "mmHg", "inH2O", "°C", "°F", "K", "mm",
          "cm", "m", "in", "ft", "g", "kg", "lb", "mV", "V", "N", "lbf", "kgf", "mL", "L", "mg/L",
          "g/L");
  private static final double ATMOSPHERE = 101325;

  /** Share of the range by which points may miss and still be taken to agree. */
  private static final double AGREES = 0.03;

  private static final double DIFFERS = 0.1;

  @Override
  public Stream<Finding> examine(Evidence e) {
    List<ReferencePoint> points = e.channel().points().counting();
    if (e.path().isEmpty() || points.size() < 2) return Stream.empty();
    double width = e.channel().definition().working().width();
    if (worst(e, points, x -> x) < DIFFERS * width) return Stream.empty();
    return Stream.concat(
            unit(e, points, AGREES * width).stream(), gauge(e, points, AGREES * width).stream())
        .limit(1);
  }

  private static double worst(Evidence e, List<ReferencePoint> points, DoubleUnaryOperator change) {
    return points.stream()
        .mapToDouble(
            p ->
                Math.abs(
                    e.path().get().quantity(e.volts(p))
                        - change.applyAsDouble(p.applied().number())))
        .max()
        .orElse(0);
  }

  private static Optional<Finding> unit(Evidence e, List<ReferencePoint> points, double limit) {
    Unit own = e.channel().unit();
    for (String symbol : CANDIDATES) {
      Unit other = Unit.of(symbol);
      if (!other.dimension().equals(own.dimension()) || symbol.equals(own.symbol())) continue;
      if (worst(e, points, x -> other.convert(x, own)) > limit) continue;
      double factor = other.factor() / own.factor();
      return Optional.of(
          Finding.of(
                  "unit-slip",
                  Severity.WARNING,
                  WorkStep.COLLECT,
                  "Applied values look like " + symbol,
                  "Against the design they are off by the factor %s, which is %s for %s."
                      .formatted(Numbers.significant(factor, 4), symbol, own.symbol()))
              .with(
                  new Fix(
                      "Take them as " + symbol,
                      c -> applied(c, v -> other.convert(v.number(), own), " " + symbol))));
    }
    return Optional.empty();
  }

  private static Optional<Finding> gauge(Evidence e, List<ReferencePoint> points, double limit) {
    Unit own = e.channel().unit();
    if (!own.dimension().equals(Dimension.PRESSURE)) return Optional.empty();
    double atmosphere = ATMOSPHERE / own.factor();
    for (int sign : new int[] {1, -1}) {
      // The ambient pressure differs from the standard one by a few percent with height and
      // weather.
      if (worst(e, points, x -> x + sign * atmosphere) > limit + 0.05 * atmosphere) continue;
      String shift = Numbers.significant(atmosphere, 4) + " " + own.symbol();
      return Optional.of(
          Finding.of(
                  "gauge-absolute",
                  Severity.WARNING,
                  WorkStep.COLLECT,
                  "Gauge or absolute?",
                  "Readings and applied values are one atmosphere (%s) apart: one of them is absolute, the other gauge."
                      .formatted(shift))
              .with(
                  new Fix(
                      (sign > 0
                              ? "Add %s to the applied values"
                              : "Take %s from the applied values")
                          .formatted(shift),
                      c -> applied(c, v -> v.number() + sign * atmosphere, null))));
    }
    return Optional.empty();
  }

  /** All applied values changed; what was typed is kept with its unit where there is one. */
  private static Channel applied(Channel c, ToDoubleFunction<Value> change, String unit) {
    List<ReferencePoint> next =
        c.points().points().stream()
            .map(
                p -> {
                  double x = change.applyAsDouble(p.applied());
                  String typed = unit == null ? Value.of(x).typed() : p.applied().typed() + unit;
                  return p.withApplied(new Value(x, typed));
                })
            .toList();
    return c.withPoints(new PointSet(c.points().raw(), next));
  }
}
