package nocking.quantity;

import java.util.regex.Pattern;

/**
 * Text from outside on its way out: names and remarks of a file as a terminal, a log, a page or a
 * generated source may show them. What moves a cursor, rings, turns the direction of writing or
 * cannot be seen is told to a machine and not to a reader.
 */
public final class PlainText {
  private static final char INSTEAD = '\uFFFD';

  /**
   * Controls (ISO 6429) but tab and line feed, direction marks (UAX 9, 2), line and paragraph
   * separators, invisible and tag characters, and halves of pairs. Joiners are letters of some
   * languages and stay.
   */
  private static final Pattern CONTROL =
      Pattern.compile(
          "[\\p{Cc}\\p{Cs}\\u00AD\\u061C\\u200B\\u200E\\u200F\\u2028-\\u202E\\u2060-\\u206F\\uFEFF\\uFFF9-\\uFFFB"
              + "\\x{E0000}-\\x{E007F}&&[^\\n\\t]]+");

  private static final Pattern COMMENT_END = Pattern.compile("[*](?=/)|/(?=[*])|[?](?=[?])");

  private PlainText() {}

  /** The text with a replacement character where there was no text; lines stay lines. */
  public static String of(String text) {
    return isPlain(text)
        ? text
        : CONTROL.matcher(text.replace("\r\n", "\n")).replaceAll(String.valueOf(INSTEAD));
  }

  /** Nearly all text is plain, and to see that takes one look at each character. */
  private static boolean isPlain(String text) {
    for (int i = 0; i < text.length(); i++) {
      char c = text.charAt(i);
      if (c < ' ' && c != '\n' && c != '\t' || c >= 0x7f) return !CONTROL.matcher(text).find();
    }
    return true;
  }

  /** The same on one line: ends of lines and tabs are blanks. */
  public static String line(String text) {
    return of(text.replaceAll("\\R|\t", " "));
  }

  /**
   * A JSON text in which every such character is written as an escape (RFC 8259, section 7): it
   * means the same, and none of them gets out raw.
   */
  public static String json(String json) {
    if (isPlain(json)) return json;
    return CONTROL
        .matcher(json)
        .replaceAll(
            m -> {
              var escaped = new StringBuilder();
              for (char c : m.group().toCharArray()) {
                // Two backslashes are one in a replacement.
                escaped.append(c == '\r' ? "\\\\r" : "\\\\u%04X".formatted((int) c));
              }
              return escaped.toString();
            });
  }

  /**
   * A line inside a comment of C or Python: nothing in it ends the comment, begins another, or is a
   * trigraph (ISO/IEC 9899:1999, 5.2.1.1); a backslash joins no lines.
   */
  public static String comment(String text) {
    return COMMENT_END.matcher(line(text).replace('\\', '/')).replaceAll("$0 ");
  }
}
