package nocking.quantity;

/**
 * A number as it stands in a field: its value in the field's unit, and what was typed.
 *
 * @param number finite, in the unit that the field states
 * @param typed the keystrokes, for example {@code 25 psi} or {@code 2*4k7}; never empty
 */
public record Value(double number, String typed) {

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

  /** True when what was typed says more than the number itself. */
  public boolean needsMeaning() {
    return !typed.equals(Numbers.plain(number)) && !isPlainNumber();
  }

  private boolean isPlainNumber() {
    try {
      return Double.parseDouble(typed) == number;
    } catch (NumberFormatException e) {
      return false;
    }
  }
}
