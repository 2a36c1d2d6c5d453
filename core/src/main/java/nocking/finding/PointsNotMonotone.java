package nocking.finding;

import java.util.Comparator;
import java.util.List;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.misfit.Cause;
import nocking.misfit.PointsMisfit;
import nocking.points.ReferencePoint;
import nocking.view.ChannelView;

/** A reading goes the wrong way between its neighbours. */
final class PointsNotMonotone implements Rule {

  /** Share of the raw span that noise may turn the wrong way. */
  private static final double NOISE = 0.02;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    List<ReferencePoint> all = e.channel().calibration().points().points();
    List<ReferencePoint> sorted =
        e.channel().calibration().points().counting().stream()
            .sorted(Comparator.comparingDouble(p -> p.applied().number()))
            .toList();
    if (sorted.size() < 3) return Stream.empty();
    // What makes all points agree is said once, with its cause.
    boolean explained =
        e.calibration()
            .misfit()
            .flatMap(PointsMisfit::clear)
            .filter(c -> c.kind() == Cause.Kind.READING_SLIP || c.kind() == Cause.Kind.EXCHANGED)
            .isPresent();
    if (explained) return Stream.empty();
    double rise = sorted.getLast().mean() - sorted.getFirst().mean();
    for (int i = 1; i < sorted.size(); i++) {
      if (turns(sorted, i - 1, i, rise)) {
        int row = all.indexOf(sorted.get(outOfLine(sorted, i, rise)));
        return Stream.of(
            Finding.of(
                    "not-monotone",
                    Severity.WARNING,
                    WorkStep.COLLECT,
                    "Points are not monotone at row " + (row + 1),
                    "From %s to %s the reading goes the other way than over the whole range."
                        .formatted(
                            e.design().amount(sorted.get(i - 1).applied().number()),
                            e.design().amount(sorted.get(i).applied().number())))
                .at(row));
      }
    }
    return Stream.empty();
  }

  private static boolean turns(List<ReferencePoint> sorted, int from, int to, double rise) {
    double step = sorted.get(to).mean() - sorted.get(from).mean();
    return step * Math.signum(rise) < -NOISE * Math.abs(rise);
  }

  /** Of the two points between which the reading turns, the one without which it would not. */
  private static int outOfLine(List<ReferencePoint> sorted, int i, double rise) {
    boolean laterIsSound = i + 1 == sorted.size() || turns(sorted, i - 1, i + 1, rise);
    boolean withoutEarlier = i == 1 || !turns(sorted, i - 2, i, rise);
    return laterIsSound && withoutEarlier ? i - 1 : i;
  }
}
