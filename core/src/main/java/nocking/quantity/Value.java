package nocking.quantity;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A number as it stands in a field: its value in the field's unit, and what was typed.
 *
 * @param number finite, in the unit that the field states
 * @param typed the keystrokes, for example {@code 25 psi} or {@code 2*4k7}; never empty
 */
public record Value(double number, String typed) {

  private static final Pattern CODE = Pattern.compile("[0-9]+[pnuµmkKMGR][0-9]+");
  private static final Pattern SIMPLE =
      Pattern.compile("[-+]?[0-9.]+(?:[eE][-+]?[0-9]+)?\\s*([^0-9()*/+\\s-]*)");

  public Value {
    if (!Double.isFinite(number)) throw new QuantityException("a value must be finite");
  }

  public static Value of(double number) {
    return new Value(number, Numbers.plain(number));
  }

  /**
   * Reads a field.
   *
   * @throws QuantityException one sentence that says what was read and what was expected
   */
  public static Value typed(String text, Unit unit) {
    return new Value(QuantityParser.value(text, unit), text.strip());
  }

  /** True when what was typed has to be worked out or converted to be the number in this unit. */
  public boolean needsMeaning(Unit unit) {
    if (CODE.matcher(typed).matches()) return false;
    Matcher simple = SIMPLE.matcher(typed);
    if (!simple.matches()) return true;
    String letters = simple.group(1).replace("ohm", "Ω").replace("deg", "°");
    boolean own = letters.equals(unit.symbol()) || letters.endsWith(unit.symbol());
    return letters.length() > 1 && !own;
  }
}
