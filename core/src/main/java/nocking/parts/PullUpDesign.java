package nocking.parts;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.ResistorCode;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.stage.PullUp;

/**
 * The pull-up that makes a thermistor's voltage straightest over a range, by the three usual
 * schools. All are shown, with the error that the straight line through the ends leaves.
 */
public final class PullUpDesign {
  private static final int STEPS = 200;

  /**
   * One choice.
   *
   * @param rule which school
   * @param ideal ohms that the rule asks for
   * @param chosen ohms that the assortment has
   * @param error largest departure of the quantity from the least-worst straight line, in the
   *     quantity's unit
   * @param idealError the same with the ideal resistance
   */
  public record Choice(
      String rule,
      double ideal,
      double chosen,
      double error,
      double idealError,
      Solution solution) {}

  private final DoubleUnaryOperator resistance;
  private final Span range;

  private PullUpDesign(DoubleUnaryOperator resistance, Span range) {
    this.resistance = resistance;
    this.range = range;
  }

  /**
   * @param resistance ohms of the sensor for the quantity, monotone over the range
   * @param supply volts
   */
  public static List<Choice> choices(
      Assortment assortment, DoubleUnaryOperator resistance, Span range, double supply) {
    if (!(supply > 0)) throw new QuantityException("the supply of a pull-up must be above 0 V");
    var d = new PullUpDesign(resistance, range);
    var list = new ArrayList<Choice>();
    d.add(list, assortment, "equal slope about the middle", d.equalSlope(), supply);
    d.add(list, assortment, "inflection in the middle", d.inflection(), supply);
    d.add(list, assortment, "least worst error", d.leastWorst(), supply);
    if (list.isEmpty()) {
      throw new QuantityException(
          "no pull-up straightens this sensor over the range: it bends the other way");
    }
    list.sort(Comparator.comparingDouble(Choice::error));
    return list;
  }

  private void add(
      List<Choice> list, Assortment assortment, String rule, double ideal, double supply) {
    if (!(ideal > 0) || !Double.isFinite(ideal)) return;
    double best = Double.NaN;
    StockPart part = null;
    for (int i : Combination.beside(assortment.atLeast(ideal), assortment.size(), k -> true)) {
      double e = error(assortment.ohms(i));
      if (Double.isNaN(best) || e < best) {
        best = e;
        part = assortment.part(i);
      }
    }
    if (part == null) return;
    Network n = Network.of(part);
    double error = part.ohms() / ideal - 1;
    double tolerance = part.tolerance() / 100;
    double amperes = supply / (part.ohms() + least());
    list.add(
        new Choice(
            rule,
            ideal,
            part.ohms(),
            best,
            error(ideal),
            new Solution(
                List.of(new Solution.Named("Rp", n)),
                part.ohms(),
                error,
                Math.max(
                    Math.abs((1 + error) * (1 + tolerance) - 1),
                    Math.abs((1 + error) * (1 - tolerance) - 1)),
                amperes * amperes * part.ohms(),
                rule,
                List.of(new PullUp(Value.of(supply), new Value(n.ohms(), n.text()))))));
  }

  private double least() {
    return Math.min(resistance.applyAsDouble(range.low()), resistance.applyAsDouble(range.high()));
  }

  private double share(double x, double pullUp) {
    double r = resistance.applyAsDouble(x);
    return r / (r + pullUp);
  }

  /**
   * Both halves of the range with the same mean slope: the output in the middle is the mean of
   * those at the ends, R_p = (R_l·R_m + R_m·R_h − 2·R_l·R_h)/(R_l + R_h − 2·R_m).
   */
  private double equalSlope() {
    double low = resistance.applyAsDouble(range.low());
    double middle = resistance.applyAsDouble(range.middle());
    double high = resistance.applyAsDouble(range.high());
    return (low * middle + middle * high - 2 * low * high) / (low + high - 2 * middle);
  }

  /**
   * Second derivative 0 in the middle: with R, R', R'' there, R_p = 2R'²/R'' − R. For a β
   * thermistor this is R·(β − 2T)/(β + 2T).
   */
  private double inflection() {
    double x = range.middle();
    double h = range.width() * 1e-3;
    double before = resistance.applyAsDouble(x - h);
    double at = resistance.applyAsDouble(x);
    double after = resistance.applyAsDouble(x + h);
    double first = (after - before) / (2 * h);
    double second = (after - 2 * at + before) / (h * h);
    return 2 * first * first / second - at;
  }

  /** The resistance whose worst departure from a straight line is least, by golden section. */
  private double leastWorst() {
    double middle = resistance.applyAsDouble(range.middle());
    double low = Math.log(middle / 1000);
    double high = Math.log(middle * 1000);
    double golden = (Math.sqrt(5) - 1) / 2;
    double start = coarse(low, high);
    low = start - 0.4;
    high = start + 0.4;
    for (int i = 0; i < 60; i++) {
      double a = high - golden * (high - low);
      double b = low + golden * (high - low);
      if (error(Math.exp(a)) < error(Math.exp(b))) high = b;
      else low = a;
    }
    return Math.exp((low + high) / 2);
  }

  private double coarse(double low, double high) {
    double best = low;
    double least = Double.POSITIVE_INFINITY;
    for (double v = low; v <= high; v += 0.2) {
      double e = error(Math.exp(v));
      if (e < least) {
        least = e;
        best = v;
      }
    }
    return best;
  }

  /**
   * Largest departure of the quantity from the best straight line in the output: half of the
   * vertical width of the curve x(share) about the line parallel to its chord that halves it.
   */
  double error(double pullUp) {
    double from = share(range.low(), pullUp);
    double to = share(range.high(), pullUp);
    double most = 0;
    double least = 0;
    for (int i = 1; i < STEPS; i++) {
      double x = range.at((double) i / STEPS);
      double line = range.low() + (share(x, pullUp) - from) / (to - from) * range.width();
      most = Math.max(most, line - x);
      least = Math.min(least, line - x);
    }
    return (most - least) / 2;
  }

  /** What one choice says, for a list. */
  public static String text(Choice c, String unit) {
    return "%s: %s, within ±%s %s"
        .formatted(c.rule(), ResistorCode.of(c.chosen()), Numbers.significant(c.error(), 2), unit);
  }
}
