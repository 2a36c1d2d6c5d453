package nocking.finding;

import java.util.List;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.points.ReferencePoint;
import nocking.quantity.Span;
import nocking.view.ChannelView;

/** Thirds of the working range that have no point. */
final class PointsCoverage implements Rule {

  /** Four points at equal steps stand on the borders of the middle third, about. */
  private static final double NEAR = 0.03;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    List<ReferencePoint> points = e.channel().calibration().points().counting();
    if (points.size() < 2) return Stream.empty();
    Span working = e.channel().definition().working();
    List<String> empty =
        Stream.of("lower", "middle", "upper")
            .filter(third -> points.stream().noneMatch(p -> inThird(working, third, p)))
            .toList();
    if (empty.isEmpty()) return Stream.empty();
    return Stream.of(
        Finding.of(
            "coverage",
            Severity.ADVICE,
            WorkStep.COLLECT,
            empty.size() == 1
                ? "No point in the %s third".formatted(empty.getFirst())
                : "No point in the %s thirds".formatted(String.join(" and ", empty)),
            empty.equals(List.of("middle"))
                ? "Points near the ends say nothing about the error between them."
                : "The curve is extended there, not measured."));
  }

  private static boolean inThird(Span working, String third, ReferencePoint p) {
    double f = working.fraction(p.applied().number());
    return switch (third) {
      case "lower" -> f <= 1.0 / 3;
      case "middle" -> f > 1.0 / 3 - NEAR && f < 2.0 / 3 + NEAR;
      default -> f >= 2.0 / 3;
    };
  }
}
