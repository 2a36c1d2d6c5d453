package nocking.wiring;

import java.util.regex.Pattern;
import nocking.quantity.Ends;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * Something that was seen on the channel while a fault was looked for.
 *
 * @param at quantity at the sensor, channel's unit; null when it is not known
 * @param value in the place's unit
 * @param until the other end where the reading jumps between two; null for a steady one
 */
public record Observation(Place place, Value at, Value value, Value until) {
  public Observation {
    if (place == null || value == null) {
      throw new QuantityException("what was seen needs its place and its value");
    }
  }

  /** What may be said behind the two ends of a jumping reading. */
  private static final Pattern JUMPING = Pattern.compile("(?i)\\s*[,;]?\\s*jump(?:s|ing)\\s*$");

  /**
   * What was seen at a place, as it is typed: {@code 4.36 V}, or {@code 1.2 … 3.4 V, jumping}.
   *
   * @param unit of the place, for a bare number
   * @throws QuantityException saying what was read and expected
   */
  public static Observation typed(Place place, Value at, String text, Unit unit) {
    if (!jumps(text)) return new Observation(place, at, value(text, unit));
    Ends ends = Ends.typed(JUMPING.matcher(text).replaceFirst(""), unit);
    return new Observation(place, at, ends.from(), ends.to());
  }

  /** True for a text that tells two ends of a jumping reading. */
  public static boolean jumps(String text) {
    return Ends.in(JUMPING.matcher(text).replaceFirst(""));
  }

  private static Value value(String text, Unit unit) {
    return unit.equals(Unit.OHM) ? PairReading.read(text) : Value.typed(text.strip(), unit);
  }

  /** As it was typed. */
  public String says() {
    return until == null ? value.typed() : value.typed() + " … " + until.typed() + ", jumping";
  }

  /** A steady reading. */
  public Observation(Place place, Value at, Value value) {
    this(place, at, value, null);
  }

  public boolean jumping() {
    return until != null;
  }
}
