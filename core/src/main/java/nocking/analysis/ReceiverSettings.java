package nocking.analysis;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.band.AlarmBand;
import nocking.band.BandPlan;
import nocking.band.Positions;
import nocking.channel.Channel;
import nocking.converter.Converter;
import nocking.fit.Curve;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.table.Cell;
import nocking.table.DisplayLimits;
import nocking.table.TableSpec;
import nocking.view.OutputColumn;
import nocking.view.TableResult;
import nocking.wiring.Thresholds;

/**
 * Everything that is typed into a receiver for a channel, rounded, with what the rounding costs.
 */
public final class ReceiverSettings {
  private static final int MOST_DECIMALS = 9;

  /** Share of a count that the rounding of one constant may cost. */
  private static final double SHARE = 0.1;

  /**
   * One value.
   *
   * @param group what belongs together: a line, a table, fault limits, positions, alarms
   * @param value as it is typed in
   * @param unit of the value
   * @param cost largest change of a reading that the rounding makes, with its unit; empty where
   *     nothing is rounded
   */
  public record Setting(String group, String name, String value, String unit, String cost) {}

  private final Analysis analysis;
  private final Channel channel;
  private final String unit;
  private final List<Setting> list = new ArrayList<>();

  private ReceiverSettings(Analysis analysis) {
    this.analysis = analysis;
    channel = analysis.channel();
    unit = channel.definition().unit();
  }

  /** The settings in the order in which they are typed; empty while there is no path. */
  public static List<Setting> of(Analysis analysis) {
    var s = new ReceiverSettings(analysis);
    if (analysis.calibration().curve().isEmpty()) return List.of();
    s.line();
    s.table();
    s.limits();
    s.display();
    s.positions();
    s.alarms();
    return List.copyOf(s.list);
  }

  private void add(String group, String name, String value, String of, String cost) {
    list.add(new Setting(group, name, value, of, cost));
  }

  private String amount(double v) {
    return (Numbers.significant(v, 2) + " " + unit).strip();
  }

  /** Slope and intercept of a straight line, with the fewest decimals that cost next to nothing. */
  private void line() {
    DoubleUnaryOperator f = analysis.calibration().curve().map(Curve::function).orElseThrow();
    double top = channel.design().converter().reference().number();
    double zero = f.applyAsDouble(0);
    double half = f.applyAsDouble(top / 2);
    double full = f.applyAsDouble(top);
    double scale = Math.max(Math.abs(zero), Math.abs(full));
    // A curve has no slope to type in; its table follows.
    if (!(Math.abs(zero + full - 2 * half) <= 1e-9 * scale)) return;
    double slope = (full - zero) / top;
    double count = Math.abs(slope) * channel.design().converter().step();
    constant("slope", slope, unit + "/V", top, count);
    constant("intercept", zero, unit, 1, count);
  }

  private void constant(String name, double exact, String of, double reach, double count) {
    for (int decimals = 0; decimals <= MOST_DECIMALS; decimals++) {
      String rounded = Numbers.fixed(exact, decimals);
      double cost = Math.abs(Double.parseDouble(rounded) - exact) * reach;
      if (cost > SHARE * count && decimals < MOST_DECIMALS) continue;
      add("Straight line", name, rounded, of, amount(cost));
      return;
    }
  }

  private void table() {
    TableSpec spec = channel.receiver().table();
    Optional<TableResult> made = analysis.receiver().table().result();
    if (spec == null || made.isEmpty()) return;
    OutputColumn output = made.get().output();
    int i = 1;
    for (Cell c : made.get().ordered()) {
      double cost = made.get().offAt(c) * output.worth();
      add(
          "Table",
          "cell %d at %s %s"
              .formatted(
                  i++, Numbers.fixed(c.raw(), spec.rawDecimals()), spec.axis().unit().symbol()),
          output.text(c.out()),
          output.unit(),
          Double.isNaN(cost) ? "" : amount(cost));
    }
  }

  private void limits() {
    Thresholds t = channel.wiring().plan().thresholds();
    if (t == null) return;
    if (t.low() != null) limit("fault below", t.low());
    if (t.high() != null) limit("fault above", t.high());
  }

  private void display() {
    DisplayLimits l = channel.receiver().limits();
    if (l == null) return;
    if (l.low() != null) add("Display", "least reading", l.low().typed(), unit, "");
    if (l.high() != null) add("Display", "largest reading", l.high().typed(), unit, "");
  }

  private void limit(String name, Value volts) {
    add("Fault limits", name, counts(volts.number()), "counts", volts(volts.number()));
  }

  private String counts(double volts) {
    return String.valueOf(channel.design().converter().code(volts));
  }

  /** How far the middle of the code's step lies from the volts that were meant. */
  private String volts(double meant) {
    Converter c = channel.design().converter();
    double off = Math.abs(c.volts(c.code(meant)) - meant);
    return Numbers.engineering(off, "V", 2);
  }

  private void positions() {
    BandPlan plan = channel.wiring().bands();
    Span range = new Span(0, channel.design().converter().reference().number());
    for (Positions.Window w : Positions.of(plan, range).windows()) {
      double low = range.clamp(w.low());
      double high = range.clamp(w.high());
      add("Positions", w.name() + " from", counts(low), "counts", volts(low));
      add("Positions", w.name() + " to", counts(high), "counts", volts(high));
    }
    if (plan.dwell() != null) add("Positions", "dwell", plan.dwell().typed(), "s", "");
  }

  private void alarms() {
    BandPlan plan = channel.wiring().bands();
    for (AlarmBand b : plan.alarms()) {
      if (b.from() != null) add("Alarms", b.name() + " from", b.from().typed(), unit, "");
      if (b.to() != null) add("Alarms", b.name() + " to", b.to().typed(), unit, "");
    }
    if (plan.hysteresis() != null && !plan.alarms().isEmpty()) {
      add("Alarms", "hysteresis", plan.hysteresis().typed(), unit, "");
    }
  }
}
