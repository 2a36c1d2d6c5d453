package nocking.diagnosis;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.wiring.PairReading;
import nocking.wiring.Place;
import nocking.wiring.Seen;

/** Between what is written down and what the engine counts with. */
public final class Diagnosis {
  private static final Pattern DECIMALS = Pattern.compile("[-+]?[0-9]*\\.?([0-9]*)");

  private Diagnosis() {}

  /** What was seen as an observation; the digits that were typed say how exact a display is. */
  public static Observation observed(Seen s) {
    double at = s.at() == null ? Double.NaN : s.at().number();
    double step = s.place().equals(Place.DISPLAY) ? lastDigit(s.value().typed()) : 0;
    return new Observation(s.place(), at, s.value().number(), step);
  }

  private static double lastDigit(String typed) {
    Matcher m = DECIMALS.matcher(typed.strip());
    return m.lookingAt() ? Math.pow(10, -m.group(1).length()) : 0;
  }

  /** A reading of a place with its unit. */
  public static String reading(Place place, double value, Unit quantity) {
    if (Double.isNaN(value)) return "floats";
    Unit unit = place.unit(quantity);
    if (unit.equals(Unit.OHM) && value >= PairReading.OPEN) return "open";
    if (place.equals(Place.DISPLAY)) {
      return (Numbers.trimmed(value, 4) + " " + unit.symbol()).strip();
    }
    return Math.abs(value) < 5e-5 && unit.equals(Unit.VOLT)
        ? "0 V"
        : Numbers.engineering(value, unit.symbol(), 4);
  }
}
