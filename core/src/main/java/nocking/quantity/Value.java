package nocking.quantity;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A number as it stands in a field: its value in the field's unit, and what was typed.
 *
 * @param number finite, in the unit that the field states
 * @param typed the keystrokes, for example {@code 25 psi} or {@code 2*4k7}; never empty
 * @param spread how far the real value may be from it; null when nothing is known
 */
public record Value(double number, String typed, Spread spread) {

  private static final Pattern CODE = Pattern.compile("[0-9]+[pnuµmkKMGR][0-9]+");
  private static final Pattern SIMPLE =
      Pattern.compile("[-+−]?[0-9.]+(?:[eE][-+−]?[0-9]+)?\\s*([^0-9()*/+\\s-]*)");

  public Value {
    if (!Double.isFinite(number)) throw new QuantityException("a value must be finite");
  }

  /** A value of which no tolerance is known. */
  public Value(double number, String typed) {
    this(number, typed, null);
  }

  public static Value of(double number) {
    return new Value(number, Numbers.plain(number));
  }

  /**
   * Reads a field; a tolerance may stand behind ±, as in {@code 4k7 ±1% 50ppm}.
   *
   * @throws QuantityException one sentence that says what was read and what was expected
   */
  public static Value typed(String text, Unit unit) {
    int sign = Spread.signIn(text);
    if (sign < 0) return new Value(QuantityParser.value(text, unit), text.strip());
    String number = text.substring(0, sign).strip();
    return new Value(
        QuantityParser.value(number, unit), number, Spread.parse(text.substring(sign), unit));
  }

  /**
   * Reads the field of a tolerance, in which a percentage is one of a span.
   *
   * @param unit in which the tolerance counts
   * @param width of the span in that unit, at least 0
   * @throws QuantityException one sentence that says what was read and what was expected
   */
  public static Value tolerance(String text, Unit unit, double width) {
    return ofSpan(text.strip(), unit)
        ? new Value(share(text.strip()) * width, text.strip())
        : typed(text, unit);
  }

  private static boolean ofSpan(String typed, Unit unit) {
    return typed.endsWith("%") && !typed.contains("±") && !unit.equals(Unit.PERCENT);
  }

  private static double share(String typed) {
    return QuantityParser.value(typed, Unit.PERCENT) * Unit.PERCENT.factor();
  }

  /** A tolerance as it is for another span: a percentage follows, everything else stays. */
  public Value forSpan(Unit unit, double width) {
    return ofSpan(typed, unit) ? new Value(share(typed) * width, typed, spread) : this;
  }

  public Value withSpread(Spread v) {
    return new Value(number, typed, v);
  }

  /** Another number in the place of this one, with the same tolerance. */
  public Value to(Value other) {
    return new Value(other.number, other.typed, other.spread == null ? spread : other.spread);
  }

  /** What the field shows: the keystrokes and the tolerance. */
  public String shown(Unit unit) {
    return spread == null ? typed : typed + " " + spread.text(unit);
  }

  /** True when what was typed has to be worked out or converted to be the number in this unit. */
  public boolean needsMeaning(Unit unit) {
    if (CODE.matcher(typed).matches()) return false;
    Matcher simple = SIMPLE.matcher(typed);
    if (!simple.matches()) return true;
    String letters = simple.group(1).replace("ohm", "Ω").replace("deg", "°");
    if (ofSpan(typed, unit)) return number != share(typed);
    boolean own = letters.equals(unit.symbol()) || letters.endsWith(unit.symbol());
    return letters.length() > 1 && !own;
  }
}
