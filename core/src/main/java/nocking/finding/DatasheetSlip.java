package nocking.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.element.Signal;
import nocking.quantity.Numbers;
import nocking.quantity.Value;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.sensor.TwoPointSensor;
import nocking.view.ChannelView;

/**
 * One row of a datasheet table is out of line and stands in it ten, a hundred or a thousand times
 * larger or smaller; or the two points of a sensor are millivolts typed as volts.
 */
final class DatasheetSlip implements Rule {
  private static final double[] FACTORS = {10, 0.1, 100, 0.01, 1000, 0.001};

  /** More than any sensor's output that a receiver of this kind takes, volts. */
  private static final double TOO_HIGH = 50;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    Channel c = e.channel();
    return switch (c.design().sensor()) {
      case TableSensor t -> table(t).stream();
      case TwoPointSensor s -> points(c, s).stream();
      case null, default -> Stream.empty();
    };
  }

  private static Optional<Finding> table(TableSensor t) {
    List<TablePoint> rows = t.points();
    if (rows.size() < 4) return Optional.empty();
    for (int i = 0; i < rows.size(); i++) {
      if (inLine(rows, i, 1)) continue;
      // A neighbour of the row that slipped is out of line as well; only the slip mends all.
      for (double factor : FACTORS) {
        if (!inLine(rows, i, factor) || !allInLine(rows, i, factor)) continue;
        return Optional.of(slip(t, i, factor));
      }
    }
    return Optional.empty();
  }

  private static boolean allInLine(List<TablePoint> rows, int slipped, double factor) {
    var next = new ArrayList<>(rows);
    TablePoint p = rows.get(slipped);
    next.set(slipped, new TablePoint(p.at(), Value.of(p.output().number() * factor)));
    for (int i = 0; i < next.size(); i++) if (!inLine(next, i, 1)) return false;
    return true;
  }

  /**
   * True when a row, times a factor, lies about where its neighbours let one expect it: between
   * them, or beyond them by no more than a few steps of theirs.
   */
  private static boolean inLine(List<TablePoint> rows, int i, double factor) {
    int a = i == 0 ? 1 : i - 1;
    int b = i == 0 ? 2 : i == rows.size() - 1 ? i - 2 : i + 1;
    double at = rows.get(i).at().number();
    double xa = rows.get(a).at().number();
    double xb = rows.get(b).at().number();
    double ya = rows.get(a).output().number();
    double yb = rows.get(b).output().number();
    double y = rows.get(i).output().number() * factor;
    boolean ratios = ya > 0 && yb > 0 && y > 0;
    double la = ratios ? Math.log(ya) : ya;
    double lb = ratios ? Math.log(yb) : yb;
    double ly = ratios ? Math.log(y) : y;
    double expected = la + (lb - la) * (at - xa) / (xb - xa);
    double step = Math.abs(lb - la);
    return Math.abs(ly - expected) <= 1.5 * step + (ratios ? 0.3 : 0);
  }

  private static Finding slip(TableSensor t, int row, double factor) {
    Value now = t.points().get(row).output();
    double meant = Double.parseDouble(Numbers.significant(now.number() * factor, 12));
    String unit = t.signal().unit().symbol();
    var rows = new ArrayList<>(t.points());
    rows.set(row, new TablePoint(rows.get(row).at(), Value.of(meant)));
    var mended = new TableSensor(rows, t.interpolation(), t.signal(), t.sourceResistance());
    String times =
        factor > 1 ? "×" + Numbers.plain(factor) : "÷" + Numbers.plain(Math.rint(1 / factor));
    return Finding.of(
            "datasheet-slip",
            Severity.WARNING,
            WorkStep.DEFINE,
            "Row %d of the table is out of line".formatted(row + 1),
            "It says %s; %s, %s, it stands in line with its neighbours."
                .formatted(
                    Numbers.compact(now.number(), unit, 5), times, Numbers.compact(meant, unit, 5)))
        .with(
            new Fix(
                "Set row %d to %s, from %s"
                    .formatted(
                        row + 1,
                        Numbers.compact(meant, unit, 5),
                        Numbers.compact(now.number(), unit, 5)),
                c -> c.design(d -> d.withSensor(mended))));
  }

  private static Optional<Finding> points(Channel c, TwoPointSensor s) {
    double high = Math.max(Math.abs(s.lowOutput().number()), Math.abs(s.highOutput().number()));
    double supply =
        c.wiring().plan().supply() == null
            ? TOO_HIGH
            : Math.max(1, c.wiring().plan().supply().number());
    if (s.signal() != Signal.VOLTAGE || high <= Math.max(supply, TOO_HIGH)) return Optional.empty();
    if (high / 1000 > supply) return Optional.empty();
    var mended =
        new TwoPointSensor(
            s.lowAt(),
            thousandth(s.lowOutput()),
            s.highAt(),
            thousandth(s.highOutput()),
            s.sourceResistance());
    return Optional.of(
        Finding.of(
                "datasheet-slip",
                Severity.WARNING,
                WorkStep.DEFINE,
                "Millivolts typed as volts?",
                "The sensor would give %s; in millivolts it is %s."
                    .formatted(
                        Numbers.engineering(high, "V", 3),
                        Numbers.engineering(high / 1000, "V", 3)))
            .with(
                new Fix(
                    "Take both outputs as millivolts", k -> k.design(d -> d.withSensor(mended)))));
  }

  private static Value thousandth(Value v) {
    return Value.of(Double.parseDouble(Numbers.significant(v.number() / 1000, 12)));
  }
}
