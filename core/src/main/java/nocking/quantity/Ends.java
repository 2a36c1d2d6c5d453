package nocking.quantity;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * Two ends of a range in the order in which they were typed, which may fall: {@code 4 … 14}, {@code
 * 4..20mA}, {@code 1V...3V}, {@code 10k to 50k}.
 */
public record Ends(Value from, Value to) {
  private static final Pattern BETWEEN =
      Pattern.compile("\\s*(?:…|(?<!\\.)\\.{2,3}(?!\\.)|(?<![\\w.])(?i:to)(?![\\w.]))\\s*");

  private static final Pattern BARE = Pattern.compile("[-+−]?[0-9.]+(?:[eE][-+−]?[0-9]+)?");

  /** A number with nothing but a unit or a prefix behind it. */
  private static final Pattern WITH_UNIT =
      Pattern.compile(BARE.pattern() + "(\\s*[A-Za-zµΩ°%‰][^0-9*+()|^−-]*)");

  /** True for a text with two ends. */
  public static boolean in(String text) {
    return BETWEEN.matcher(text.strip()).find();
  }

  /**
   * Reads two ends. A unit that stands behind the second one only belongs to both, unless the range
   * would fall by that and rises without: {@code 4..20mA} begins at 4 mA, {@code 100..1k} at 100.
   *
   * @param unit of the field
   * @throws QuantityException saying what was read and what was expected
   */
  public static Ends typed(String text, Unit unit) {
    String[] ends = split(text, unit);
    return of(ends[0], ends[1], unit);
  }

  /**
   * The same, of which one end may be left open: {@code 10k..}, {@code .. 50k}.
   *
   * @param whole what an open end stands for
   */
  public static Span typed(String text, Unit unit, Span whole) {
    String t = text.strip();
    Matcher m = BETWEEN.matcher(t);
    if (m.find() && m.start() == 0 && m.end() < t.length()) {
      return rising(whole.low(), Value.typed(t.substring(m.end()), unit).number(), t);
    }
    m.reset();
    if (m.find() && m.start() > 0 && m.end() == t.length()) {
      return rising(Value.typed(t.substring(0, m.start()), unit).number(), whole.high(), t);
    }
    return typed(t, unit).span();
  }

  private static Span rising(double low, double high, String text) {
    if (!(low <= high)) throw new QuantityException("a range must rise: read '" + text + "'");
    return new Span(low, high);
  }

  private static String[] split(String text, Unit unit) {
    String[] ends = BETWEEN.split(text.strip(), -1);
    if (ends.length != 2 || ends[0].isEmpty() || ends[1].isEmpty()) {
      String in = unit.symbol().isEmpty() ? "" : " " + unit.symbol();
      throw new QuantityException(
          "read '%s', expected two ends, for example 4 … 14%s".formatted(text.strip(), in));
    }
    return ends;
  }

  private static Ends of(String first, String second, Unit unit) {
    Value to = Value.typed(second, unit);
    Matcher m = WITH_UNIT.matcher(second);
    if (!BARE.matcher(first).matches() || !m.matches()) {
      return new Ends(Value.typed(first, unit), to);
    }
    Value own = Value.typed(first, unit);
    Value shared = Value.typed(first + m.group(1), unit);
    boolean falls = shared.number() > to.number() && own.number() <= to.number();
    return new Ends(falls ? own : shared, to);
  }

  /**
   * The ends as a rising interval.
   *
   * @throws QuantityException where they fall
   */
  public Span span() {
    return rising(from.number(), to.number(), from.typed() + " … " + to.typed());
  }
}
