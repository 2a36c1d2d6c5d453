package nocking.band;

import java.util.ArrayList;
import java.util.List;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Unit;

/** Checks alarm bands and switches against each other and against the range. */
public final class Alarms {
  private Alarms() {}

  /**
   * What contradicts in the alarm bands: order, gaps, overlaps, a hysteresis wider than a band.
   *
   * @param unit of the quantity
   */
  public static List<BandProblem> problems(BandPlan plan, Unit unit) {
    var list = new ArrayList<BandProblem>();
    List<AlarmBand> bands = plan.alarms();
    double hysteresis = plan.hysteresis() == null ? 0 : plan.hysteresis().number();
    for (int i = 0; i < bands.size(); i++) {
      AlarmBand b = bands.get(i);
      if (!(b.low() < b.high())) {
        list.add(
            new BandProblem(
                BandProblem.Kind.ORDER,
                i,
                "%s begins at %s and ends at %s"
                    .formatted(b.name(), amount(b.low(), unit), amount(b.high(), unit))));
      } else if (hysteresis >= b.high() - b.low()) {
        list.add(
            new BandProblem(
                BandProblem.Kind.TOO_CLOSE,
                i,
                "the hysteresis of %s is not smaller than %s, which is %s wide"
                    .formatted(
                        amount(hysteresis, unit), b.name(), amount(b.high() - b.low(), unit))));
      }
      if (i == 0) continue;
      AlarmBand a = bands.get(i - 1);
      double apart = b.low() - a.high();
      if (Double.isNaN(apart) || apart < 0) {
        boolean turned = b.low() < a.low();
        list.add(
            new BandProblem(
                turned ? BandProblem.Kind.ORDER : BandProblem.Kind.OVERLAP,
                i,
                turned
                    ? "%s lies below %s and is listed above it".formatted(b.name(), a.name())
                    : "%s and %s overlap from %s to %s"
                        .formatted(
                            a.name(), b.name(), amount(b.low(), unit), amount(a.high(), unit))));
      } else if (apart > 0) {
        list.add(
            new BandProblem(
                BandProblem.Kind.GAP,
                i,
                "between %s and %s nothing is said from %s to %s"
                    .formatted(a.name(), b.name(), amount(a.high(), unit), amount(b.low(), unit))));
      }
    }
    return List.copyOf(list);
  }

  /** Switches that change elsewhere than they must, or lie outside the travel. */
  public static List<BandProblem> switches(BandPlan plan, Span travel, Unit unit) {
    var list = new ArrayList<BandProblem>();
    for (int i = 0; i < plan.switches().size(); i++) {
      SwitchPoint s = plan.switches().get(i);
      if (!travel.contains(s.at().number())) {
        list.add(
            new BandProblem(
                BandProblem.Kind.SWITCH,
                i,
                "%s should change at %s, outside the travel"
                    .formatted(s.name(), amount(s.at().number(), unit))));
      }
      seen(s, i, s.up() == null ? Double.NaN : s.up().number(), "up", unit, list);
      seen(s, i, s.down() == null ? Double.NaN : s.down().number(), "down", unit, list);
    }
    return List.copyOf(list);
  }

  private static void seen(
      SwitchPoint s, int index, double at, String way, Unit unit, List<BandProblem> list) {
    double off = at - s.at().number();
    if (Double.isNaN(at) || Math.abs(off) <= s.window().number()) return;
    list.add(
        new BandProblem(
            BandProblem.Kind.SWITCH,
            index,
            "on the way %s %s changed at %s, %s from where it must; its window is ±%s"
                .formatted(
                    way,
                    s.name(),
                    amount(at, unit),
                    amount(Math.abs(off), unit),
                    amount(s.window().number(), unit))));
  }

  private static String amount(double v, Unit unit) {
    if (Double.isInfinite(v)) return v < 0 ? "below" : "above";
    return (Numbers.trimmed(v, 5) + " " + unit.symbol()).strip();
  }
}
