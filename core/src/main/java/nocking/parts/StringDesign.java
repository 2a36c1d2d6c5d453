package nocking.parts;

import java.util.Collections;
import java.util.List;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.ResistorCode;

/**
 * A string of equal resistors for a high voltage: as many that neither the power nor the working
 * voltage of any one is exceeded, both derated. With a high voltage it is often the working voltage
 * that asks for more parts.
 */
public final class StringDesign {
  /** Share of the ratings that is used unless said otherwise. */
  public static final double DERATING = 0.6;

  private static final int MOST = 100;

  private StringDesign() {}

  /**
   * @param target ohms of the whole string
   * @param volts across the string, peak or direct
   * @param watts rated power of one part
   * @param working rated working voltage of one part
   * @param derating share of both ratings that may be used, above 0 to 1
   */
  public static Candidates search(
      Assortment assortment,
      double target,
      double volts,
      double watts,
      double working,
      double derating) {
    if (!(target > 0) || !(volts > 0) || !(watts > 0) || !(working > 0)) {
      throw new QuantityException(
          "a string needs resistance, voltage, power and working voltage above 0");
    }
    if (!(derating > 0) || derating > 1) {
      throw new QuantityException("derating must be above 0 and at most 100 %");
    }
    var best = new Candidates.Best();
    int fewest = fewest(target, volts, watts, working, derating);
    for (int n = fewest; n <= Math.min(MOST, fewest + 6); n++) {
      int at = assortment.atLeast(target / n);
      int count = n;
      for (int i :
          Combination.beside(at, assortment.size(), k -> assortment.part(k).quantity() >= count)) {
        offer(best, assortment.part(i), n, target, volts, watts * derating, working * derating);
      }
    }
    return best.candidates(true);
  }

  /** Fewest equal parts that keep both ratings. */
  public static int fewest(
      double target, double volts, double watts, double working, double derating) {
    double byVoltage = volts / (working * derating);
    double byPower = volts * volts / target / (watts * derating);
    return (int) Math.max(1, Math.ceil(Math.max(byVoltage, byPower) - 1e-9));
  }

  private static void offer(
      Candidates.Best best,
      StockPart part,
      int n,
      double target,
      double volts,
      double watts,
      double working) {
    double each = volts / n;
    double power = each * each / part.ohms();
    if (each > working * (1 + 1e-9) || power > watts * (1 + 1e-9)) return;
    double whole = n * part.ohms();
    Network string =
        n == 1 ? Network.of(part) : new Network.Series(Collections.nCopies(n, Network.of(part)));
    double tolerance = part.tolerance() / 100;
    double error = whole / target - 1;
    best.offer(
        new Solution(
            List.of(new Solution.Named("R", string)),
            whole,
            error,
            Math.max(
                Math.abs((1 + error) * (1 + tolerance) - 1),
                Math.abs((1 + error) * (1 - tolerance) - 1)),
            power,
            "%d × %s, %s and %s each"
                .formatted(
                    n,
                    ResistorCode.of(part.ohms()),
                    Numbers.engineering(each, "V", 3),
                    Numbers.engineering(power, "W", 3)),
            List.of()));
  }
}
