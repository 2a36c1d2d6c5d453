package nocking.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.path.SignalPath;
import nocking.points.PointSet;
import nocking.points.ReferencePoint;
import nocking.quantity.Numbers;
import nocking.quantity.Value;

/** Readings that are ten or a thousand times off: a decimal slip or the wrong prefix. */
final class PointSlip implements Rule {

  private static final double[] FACTORS = {10, 0.1, 1000, 0.001};
  private static final double AGREES = 0.15;

  private record Slip(int index, double factor) {}

  @Override
  public Stream<Finding> examine(Evidence e) {
    if (e.path().isEmpty()) return Stream.empty();
    List<ReferencePoint> points = e.channel().points().points();
    var slips = new ArrayList<Slip>();
    for (int i = 0; i < points.size(); i++) {
      if (points.get(i).counts()) look(e, e.path().get(), i, slips);
    }
    if (slips.isEmpty()) return Stream.empty();
    return Stream.of(finding(e, slips));
  }

  private static void look(Evidence e, SignalPath path, int i, List<Slip> slips) {
    ReferencePoint p = e.channel().points().points().get(i);
    double expected = path.output(p.applied().number());
    double read = e.volts(p);
    if (Math.abs(expected) < 10 * path.converter().step()) return;
    for (double factor : FACTORS) {
      if (Math.abs(read / expected / factor - 1) < AGREES) slips.add(new Slip(i, factor));
    }
  }

  private static Finding finding(Evidence e, List<Slip> slips) {
    Slip first = slips.getFirst();
    ReferencePoint p = e.channel().points().points().get(first.index);
    String rows =
        slips.stream().map(s -> String.valueOf(s.index + 1)).collect(Collectors.joining(", "));
    String factor =
        first.factor >= 1
            ? "×" + Numbers.plain(first.factor)
            : "÷" + Numbers.plain(Math.rint(1 / first.factor));
    String detail =
        "At %s it reads %s; the design expects %s."
            .formatted(
                e.amount(p.applied().number()),
                Numbers.engineering(e.volts(p), "V", 4),
                Numbers.engineering(e.path().get().output(p.applied().number()), "V", 4));
    return Finding.of(
            "point-slip",
            Severity.WARNING,
            WorkStep.COLLECT,
            slips.size() == 1
                ? "Point %s looks like a %s slip".formatted(rows, factor)
                : "Points %s look like a %s slip".formatted(rows, factor),
            detail)
        .at(first.index)
        .with(
            new Fix(
                slips.size() == 1 ? "Correct the point" : "Correct the points",
                c -> correct(c, slips)));
  }

  private static Channel correct(Channel c, List<Slip> slips) {
    PointSet set = c.points();
    for (Slip s : slips) {
      ReferencePoint p = set.points().get(s.index);
      List<Value> readings =
          p.readings().stream()
              .map(
                  v -> Value.of(Double.parseDouble(Numbers.significant(v.number() / s.factor, 15))))
              .toList();
      set = set.with(s.index, p.withReadings(readings));
    }
    return c.withPoints(set);
  }
}
