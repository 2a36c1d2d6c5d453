package nocking.quantity;

import java.util.regex.Pattern;

/**
 * A sentence that quotes what someone typed or what a file holds. However long or odd that is, the
 * sentence can still be read on one line of a window or a terminal.
 */
public final class Sentence {
  private static final int LONGEST = 600;
  private static final int QUOTED = 60;
  private static final Pattern LONG_QUOTE = Pattern.compile("'([^']{%d})[^']+'".formatted(QUOTED));

  /** What moves the cursor, rings or cannot be seen, but for the end of a line. */
  private static final Pattern CONTROL = Pattern.compile("[\\p{Cc}\\p{Cf}\\p{Cs}&&[^\\n\\r\\t]]+");

  private Sentence() {}

  /** The sentence with long quotations cut and without control characters. */
  public static String readable(String sentence) {
    String s = CONTROL.matcher(sentence).replaceAll("\uFFFD");
    s = LONG_QUOTE.matcher(s).replaceAll("'$1…'");
    return s.length() <= LONGEST ? s : s.substring(0, LONGEST - 1).strip() + "…";
  }
}
