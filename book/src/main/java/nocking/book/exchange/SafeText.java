package nocking.book.exchange;

import nocking.quantity.PlainText;

/**
 * Text cells that a spreadsheet would take for a formula get a leading apostrophe on the way out
 * and lose it on the way in. Numbers are never touched.
 */
final class SafeText {
  /** Beginnings of a formula, also in the wide forms of other scripts. */
  private static final String RISKY = "=+-@'\uFF1D\uFF0B\uFF0D\uFF20\u2212";

  private SafeText() {}

  /** What a spreadsheet skips before it looks for the beginning of a formula is skipped here. */
  static String out(String text) {
    String plain = PlainText.of(text);
    String begins = plain.strip();
    boolean risky = !begins.isEmpty() && RISKY.indexOf(begins.charAt(0)) >= 0;
    return risky ? "'" + plain : plain;
  }

  static String in(String text) {
    return text.startsWith("'") ? text.substring(1) : text;
  }
}
