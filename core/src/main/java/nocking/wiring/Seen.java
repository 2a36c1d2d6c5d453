package nocking.wiring;

import java.util.regex.Matcher;
import java.util.regex.Pattern;
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
public record Seen(Place place, Value at, Value value, Value until) {
  public Seen {
    if (place == null || value == null) {
      throw new QuantityException("what was seen needs its place and its value");
    }
  }

  /** Between two readings of a jumping one, and what may be said behind it. */
  private static final Pattern JUMP =
      Pattern.compile(
          "(?i)(.*[^.\\s])\\s*(?:…|\\.\\.\\.?|\\bto\\b)\\s*([^,;]+?)\\s*(?:[,;]?\\s*jump(?:s|ing))?");

  /**
   * What was seen at a place, as it is typed: {@code 4.36 V}, or {@code 1.2 … 3.4 V, jumping}.
   *
   * @param unit of the place, for a bare number
   * @throws QuantityException saying what was read and expected
   */
  public static Seen typed(Place place, Value at, String text, Unit unit) {
    Matcher m = JUMP.matcher(text.strip());
    if (!m.matches()) return new Seen(place, at, value(text, unit));
    Value end = value(m.group(2), unit);
    String start = m.group(1).strip();
    // The unit behind the second number is that of the first as well.
    boolean bare = start.matches("[-+−]?[0-9.,]+");
    String tail = m.group(2).strip().replaceFirst("^[-+−]?[0-9.,]+", "");
    return new Seen(place, at, value(bare ? start + tail : start, unit), end);
  }

  /** True for a text that tells two ends of a jumping reading. */
  public static boolean jumps(String text) {
    return JUMP.matcher(text.strip()).matches();
  }

  private static Value value(String text, Unit unit) {
    return unit.equals(Unit.OHM) ? PairReading.read(text) : Value.typed(text.strip(), unit);
  }

  /** As it was typed. */
  public String says() {
    return until == null ? value.typed() : value.typed() + " … " + until.typed() + ", jumping";
  }

  /** A steady reading. */
  public Seen(Place place, Value at, Value value) {
    this(place, at, value, null);
  }

  public boolean jumping() {
    return until != null;
  }
}
