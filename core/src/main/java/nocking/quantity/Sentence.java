package nocking.quantity;

import java.util.Locale;
import java.util.regex.Pattern;

/**
 * A sentence that quotes what someone typed or what a file holds. However long or odd that is, the
 * sentence can still be read on one line of a window or a terminal.
 */
public final class Sentence {
  private static final int LONGEST = 600;
  private static final int QUOTED = 60;
  private static final int LONGEST_UNIT = 4;
  private static final Pattern LONG_QUOTE = Pattern.compile("'([^']{%d})[^']+'".formatted(QUOTED));

  private static final Pattern PLAIN_WORD = Pattern.compile("[a-z][a-z'’-]*");

  private Sentence() {}

  /**
   * So many of something, {@code 1 row} and {@code 2 rows}.
   *
   * @param one of a word that takes an s for more
   */
  public static String count(long n, String one) {
    return "%d %s%s".formatted(n, one, n == 1 ? "" : "s");
  }

  /**
   * The words as they stand at the beginning of a sentence. A unit or a symbol keeps its letters:
   * mV/V in capitals would be megavolts, and β another letter.
   */
  public static String capital(String words) {
    String first = words.split("[\\s,.:;]", 2)[0];
    if (!PLAIN_WORD.matcher(first).matches() || isUnit(first)) return words;
    return words.substring(0, 1).toUpperCase(Locale.ROOT) + words.substring(1);
  }

  /** The word "in" is never meant for inches here. */
  private static boolean isUnit(String word) {
    try {
      UnitCatalogue.parse(word);
      return word.length() <= LONGEST_UNIT && !word.equals("in");
    } catch (QuantityException e) {
      return false;
    }
  }

  /** The sentence with long quotations cut and without control characters. */
  public static String readable(String sentence) {
    String s = PlainText.of(sentence);
    s = LONG_QUOTE.matcher(s).replaceAll("'$1…'");
    return s.length() <= LONGEST ? s : s.substring(0, LONGEST - 1).strip() + "…";
  }
}
