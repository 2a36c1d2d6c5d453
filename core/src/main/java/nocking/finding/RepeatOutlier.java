package nocking.finding;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.Numbers;
import nocking.quantity.Value;
import nocking.view.ChannelView;

/**
 * One of a point's repeated readings lies far from its fellows: its distance from their median
 * against the median of such distances (Iglewicz and Hoaglin, "How to Detect and Handle Outliers",
 * 1993, with 3.5 as the limit).
 */
final class RepeatOutlier implements Rule {
  private static final double LIMIT = 3.5;

  /** Standard deviations of a normal in one median distance. */
  private static final double OF_NORMAL = 0.6745;

  private static final int LEAST_REPEATS = 3;

  /** Digits behind the first that a hand-held meter shows: of ohms, 14.82 kΩ. */
  private static final int DIGITS = 3;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    List<ReferencePoint> all = e.channel().calibration().points().points();
    double least = least(e, all);
    return IntStream.range(0, all.size())
        .filter(i -> all.get(i).counts() && all.get(i).readings().size() >= LEAST_REPEATS)
        .boxed()
        .flatMap(i -> look(e, all, i, least).stream());
  }

  /** The least difference that is one: the converter's, or the last digit that a meter shows. */
  private static double least(ChannelView e, List<ReferencePoint> all) {
    RawUnit raw = e.channel().calibration().points().raw();
    if (raw == RawUnit.COUNTS) return 1;
    if (raw == RawUnit.VOLTS) return e.channel().design().converter().step();
    return all.stream()
        .flatMap(p -> p.readings().stream())
        .mapToDouble(v -> Math.abs(v.number()))
        .filter(v -> v > 0)
        .map(v -> Math.pow(10, Math.floor(Math.log10(v)) - DIGITS))
        .max()
        .orElse(0);
  }

  private static Optional<Finding> look(
      ChannelView e, List<ReferencePoint> all, int i, double least) {
    double[] v = all.get(i).readings().stream().mapToDouble(Value::number).toArray();
    double middle = median(v);
    double spread = median(Arrays.stream(v).map(x -> Math.abs(x - middle)).toArray());
    // A few readings may agree by chance: other points and the last digit say what is usual.
    double usual = Math.max(usual(all, i), Math.max(spread, least));
    int worst = 0;
    for (int k = 0; k < v.length; k++) {
      if (Math.abs(v[k] - middle) > Math.abs(v[worst] - middle)) worst = k;
    }
    double off = v[worst] - middle;
    if (!(OF_NORMAL * Math.abs(off) / usual > LIMIT)) return Optional.empty();
    RawUnit unit = e.channel().calibration().points().raw();
    return Optional.of(
        Finding.of(
                "repeat-outlier",
                Severity.WARNING,
                WorkStep.COLLECT,
                "Point %d: reading %d lies far from its fellows".formatted(i + 1, worst + 1),
                "It is %s where the others are about %s. Read again before anything is averaged."
                    .formatted(amount(v[worst], unit), amount(middle, unit)))
            .at(i));
  }

  private static String amount(double v, RawUnit unit) {
    return unit == RawUnit.VOLTS ? Numbers.engineering(v, "V", 4) : unit.amount(v);
  }

  /** Median distance from the median at the other points. */
  private static double usual(List<ReferencePoint> all, int but) {
    double[] spreads =
        IntStream.range(0, all.size())
            .filter(k -> k != but && all.get(k).readings().size() >= LEAST_REPEATS)
            .mapToDouble(
                k -> {
                  double[] v = all.get(k).readings().stream().mapToDouble(Value::number).toArray();
                  double m = median(v);
                  return median(Arrays.stream(v).map(x -> Math.abs(x - m)).toArray());
                })
            .toArray();
    return spreads.length == 0 ? 0 : median(spreads);
  }

  private static double median(double[] v) {
    double[] sorted = v.clone();
    Arrays.sort(sorted);
    int n = sorted.length;
    return n % 2 == 1 ? sorted[n / 2] : (sorted[n / 2 - 1] + sorted[n / 2]) / 2;
  }
}
