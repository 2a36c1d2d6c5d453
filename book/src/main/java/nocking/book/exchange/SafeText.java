package nocking.book.exchange;

/**
 * Text cells that a spreadsheet would take for a formula get a leading apostrophe on the way out
 * and lose it on the way in. Numbers are never touched.
 */
final class SafeText {
  private SafeText() {}

  static String out(String text) {
    boolean risky = !text.isEmpty() && "=+-@\t\r'".indexOf(text.charAt(0)) >= 0;
    return risky ? "'" + text : text;
  }

  static String in(String text) {
    return text.startsWith("'") ? text.substring(1) : text;
  }
}
