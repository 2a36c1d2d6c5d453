package nocking.table;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
import nocking.quantity.Ends;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * What a display cannot go beyond: it stands still at its limit while the quantity goes on.
 *
 * @param low least reading, channel's unit; null where there is no limit below
 * @param high largest reading, above {@code low}; null where there is no limit above
 */
public record DisplayLimits(Value low, Value high) {
  private static final Pattern OPEN_BELOW = Pattern.compile("\\s*(?:…|\\.{2,3})\\s*([^.…\\s].*)");
  private static final Pattern OPEN_ABOVE =
      Pattern.compile("\\s*(.*[^.…\\s])\\s*(?:…|(?<!\\.)\\.{2,3})\\s*");

  public DisplayLimits {
    if (low == null && high == null) {
      throw new QuantityException("limits of a display need at least one end");
    }
    if (low != null && high != null && !(low.number() < high.number())) {
      throw new QuantityException(
          "the limits of the display must rise: read %s … %s".formatted(low.typed(), high.typed()));
    }
  }

  /**
   * Reads limits of which one may be left open: {@code 0 … 100}, {@code … 100}, {@code 0 …}.
   *
   * @throws QuantityException saying what was read and what was expected
   */
  public static DisplayLimits typed(String text, Unit unit) {
    Matcher below = OPEN_BELOW.matcher(text);
    if (below.matches()) return new DisplayLimits(null, Value.typed(below.group(1), unit));
    Matcher above = OPEN_ABOVE.matcher(text);
    if (above.matches()) return new DisplayLimits(Value.typed(above.group(1), unit), null);
    Ends ends = Ends.typed(text, unit);
    return new DisplayLimits(ends.from(), ends.to());
  }

  /** A reading as the display shows it; NaN stays NaN. */
  public double shown(double reading) {
    if (low != null && reading < low.number()) return low.number();
    if (high != null && reading > high.number()) return high.number();
    return reading;
  }
}
