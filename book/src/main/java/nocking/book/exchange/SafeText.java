package nocking.book.exchange;

import java.util.regex.Pattern;
import nocking.quantity.PlainText;

/**
 * Text cells that a spreadsheet would take for a formula get an apostrophe on the way out and lose
 * it on the way in. A cell may also begin behind a separator or the end of a line inside it:
 * another language's spreadsheet separates by those. Numbers are never touched.
 */
final class SafeText {
  /** Beginnings of a formula, also in the wide forms of other scripts, behind what is skipped. */
  private static final String RISKY = "\\s*[=+\\-@\uFF1D\uFF0B\uFF0D\uFF20\u2212]";

  private static final Pattern BEGIN = Pattern.compile("^(?=(?:" + RISKY + "|\\s*'))");
  private static final Pattern INSIDE =
      Pattern.compile("(?<=[,;|\\n\\t])(?=['\"\\s]*" + RISKY + ")");
  private static final Pattern MARKED =
      Pattern.compile("(?<=[,;|\\n\\t])'(?=['\"\\s]*" + RISKY + ")");

  private SafeText() {}

  static String out(String text) {
    return BEGIN.matcher(INSIDE.matcher(PlainText.of(text)).replaceAll("'")).replaceAll("'");
  }

  static String in(String text) {
    String own = text.startsWith("'") ? text.substring(1) : text;
    return MARKED.matcher(own).replaceAll("");
  }
}
