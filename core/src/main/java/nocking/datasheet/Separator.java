package nocking.datasheet;

import java.util.List;
import java.util.regex.MatchResult;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import nocking.quantity.QuantityException;

/** What stands between whole numbers and decimals in a text. */
public enum Separator {
  POINT("decimal point"),
  COMMA("decimal comma");

  /** A number that has a comma or a point in it. */
  private static final Pattern MARKED = Pattern.compile("(?<!\\d)\\d++(?:[.,]\\d++)++");

  /** What stands between groups of three digits, ISO 80000-1, 7.3.1: no usual space. */
  private static final Pattern GROUPED =
      Pattern.compile("(?<=\\d)[\\u00A0\\u2009\\u202F](?=\\d{3}(?!\\d))");

  private static final Pattern SPACE = Pattern.compile("[\\h&&[^\\t]]");

  private final String title;

  Separator(String title) {
    this.title = title;
  }

  public String title() {
    return title;
  }

  /**
   * What a text is written with, from those of its numbers that can be read in one way only.
   *
   * @throws QuantityException where they disagree, or where every comma may be either
   */
  public static Separator of(String text) {
    String comma = "";
    String point = "";
    String either = "";
    List<String> numbers =
        text.lines()
            .filter(l -> l.length() <= Datasheet.LONGEST_LINE)
            .flatMap(l -> MARKED.matcher(l).results().map(MatchResult::group))
            .toList();
    for (String n : numbers) {
      int lastComma = n.lastIndexOf(',');
      int lastPoint = n.lastIndexOf('.');
      boolean both = lastComma >= 0 && lastPoint >= 0;
      if (both) {
        if (lastComma > lastPoint) comma = n;
        else point = n;
      } else if (lastComma >= 0) {
        if (thousands(n, ',')) either = n;
        else comma = n;
      } else if (!thousands(n, '.')) {
        point = n;
      } else if (n.indexOf('.') != lastPoint) {
        // Two points can only stand between thousands; one may as well be a decimal point.
        comma = n;
      }
    }
    if (!comma.isEmpty() && !point.isEmpty()) {
      throw new QuantityException(
          "'%s' has a decimal comma and '%s' a decimal point: say which it is"
              .formatted(comma, point));
    }
    if (!comma.isEmpty()) return COMMA;
    if (point.isEmpty() && !either.isEmpty()) {
      throw new QuantityException(
          "'%s' may have a decimal comma or a comma between thousands: say which it is"
              .formatted(either));
    }
    return POINT;
  }

  /** True for {@code 1,000} and {@code 12,500,000}, which may be whole numbers. */
  private static boolean thousands(String n, char mark) {
    String q = Pattern.quote(String.valueOf(mark));
    return n.matches("[1-9]\\d{0,2}(?:" + q + "\\d{3})+");
  }

  /** The text with decimal points, nothing between thousands, and one kind of space. */
  String pointed(String text) {
    String spaced = GROUPED.matcher(text).replaceAll("");
    Matcher m = MARKED.matcher(SPACE.matcher(spaced).replaceAll(" "));
    return m.replaceAll(
        r ->
            this == COMMA
                ? r.group().replace(".", "").replace(',', '.')
                : r.group().replace(",", ""));
  }
}
