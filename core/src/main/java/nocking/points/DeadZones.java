package nocking.points;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;

/**
 * Where a sensor does not answer at the ends of what was applied: a level probe that hangs above
 * the bottom, or is under water up to its head.
 *
 * @param bottom most that was applied without an answer from the low end; empty where it answers at
 *     once
 * @param top least that was applied without an answer up to the high end; empty where it answers to
 *     it
 */
public record DeadZones(Optional<Double> bottom, Optional<Double> top) {
  /**
   * Standard deviations of a mean that are no answer: of fifty points one passes three by chance.
   */
  private static final double NO_ANSWER = 4;

  /** Share of the range by which two places differ; nearer ones are repeats of one. */
  private static final double APART = 0.01;

  /** Fewest places of which a zone is told: two that are alike may be chance. */
  private static final int FEWEST = 3;

  /**
   * @param scatter standard deviation of a mean, in the unit of the readings, at least 0
   */
  public static DeadZones of(List<ReferencePoint> points, double scatter) {
    if (points.stream().noneMatch(ReferencePoint::counts)) {
      return new DeadZones(Optional.empty(), Optional.empty());
    }
    List<ReferencePoint> rising =
        points.stream()
            .filter(ReferencePoint::counts)
            .sorted(Comparator.comparingDouble(p -> p.applied().number()))
            .toList();
    // A sensor that never answers has no zones: it is dead.
    List<ReferencePoint> low = flat(rising, scatter);
    List<ReferencePoint> high = flat(rising.reversed(), scatter);
    if (low.size() == rising.size()) return new DeadZones(Optional.empty(), Optional.empty());
    double apart =
        APART * (rising.getLast().applied().number() - rising.getFirst().applied().number());
    return new DeadZones(end(low, apart), end(high, apart));
  }

  /** The last of the places that are alike; empty where they are too few to tell. */
  private static Optional<Double> end(List<ReferencePoint> alike, double apart) {
    int places = 1;
    double place = alike.getFirst().applied().number();
    for (ReferencePoint p : alike) {
      if (Math.abs(p.applied().number() - place) <= apart) continue;
      places++;
      place = p.applied().number();
    }
    return places < FEWEST ? Optional.empty() : Optional.of(place);
  }

  /** Those from the first on that read what the first reads. */
  private static List<ReferencePoint> flat(List<ReferencePoint> points, double scatter) {
    int n = 0;
    double sum = 0;
    for (ReferencePoint p : points) {
      double spread = scatter * Math.sqrt(1 + 1.0 / Math.max(1, n));
      if (n > 0 && Math.abs(p.mean() - sum / n) > NO_ANSWER * spread) break;
      sum += p.mean();
      n++;
    }
    return points.subList(0, n);
  }
}
