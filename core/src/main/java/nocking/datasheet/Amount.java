package nocking.datasheet;

import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.UnitCatalogue;

/**
 * A number or a range with its unit, as a datasheet prints it.
 *
 * @param low the number, or the start of the range
 * @param high the end of the range; the same as {@code low} for a number
 * @param unit empty where none is printed
 * @param tolerance what stands behind ±, or NaN
 * @param toleranceUnit unit of the tolerance; empty where none is printed
 * @param of what a percentage is of: {@code FS}, {@code Vs}; empty for nothing said
 */
record Amount(
    double low,
    double high,
    Optional<Unit> unit,
    double tolerance,
    Optional<Unit> toleranceUnit,
    String of) {

  private static final String NUMBER = "[-+−]?\\d+(?:\\.\\d+)?(?:[eE][-+]?\\d+)?";
  private static final String UNIT = "(?:[%‰]|[°ºµμΩA-Za-z][%°ºµμΩA-Za-z0-9/·²³]*)";
  private static final String BETWEEN = "(?:…|\\.{2,3}|[–—-]|~|\\bto\\b)";
  private static final String SIGN = "(?:±|\\+/-|\\+-)";
  private static final Pattern TEXT =
      Pattern.compile(
          "(?<a>%1$s)?\\s*(?<ua>(?!to\\b)%2$s)?\\s*(?:%3$s\\s*(?<b>%1$s)\\s*(?<ub>%2$s)?)?\\s*(?:%4$s\\s*(?<t>%1$s)\\s*(?<ut>%2$s)?)?(?<rest>.*)"
              .formatted(NUMBER, UNIT, BETWEEN, SIGN));

  /** More digits behind a number: it was not read to its end. */
  private static final Pattern GOES_ON = Pattern.compile("[.,'’]?\\d.*");

  private static final Pattern FULL_SCALE =
      Pattern.compile("(?i)\\s*(?:of\\s+)?(?:full[ -]?scale|span|FSO?|F\\.S\\.|BFSL)\\b.*");
  private static final Pattern SUPPLY =
      Pattern.compile("(?i)\\s*(?:of\\s+)?(?:the\\s+)?(?:supply|Vs|Vcc|Vdd|Ub|U_B|Vsup)\\b.*");

  boolean isRange() {
    return low != high;
  }

  /** From −t to +t, where nothing but ± t is printed. */
  Amount bothWays() {
    return new Amount(-tolerance, tolerance, toleranceUnit, Double.NaN, Optional.empty(), of);
  }

  /**
   * Reads a cell or what stands behind a label.
   *
   * @param heading unit that the label states; empty for none
   * @throws QuantityException where there is no number or the unit is not known
   */
  static Amount of(String text, Optional<Unit> heading) {
    String s = text.strip().replace('−', '-');
    Matcher m = TEXT.matcher(s);
    if (!m.matches() || m.group("a") == null && m.group("t") == null) {
      throw new QuantityException("no number in '%s'".formatted(text.strip()));
    }
    Optional<Unit> first = unit(m.group("ua"));
    Optional<Unit> second = unit(m.group("ub"));
    Optional<Unit> own = second.or(() -> first).or(() -> heading);
    Optional<Unit> tolerated = unit(m.group("ut"));
    String rest = m.group("rest").strip();
    String last = m.group("t") != null ? "ut" : m.group("b") != null ? "ub" : "ua";
    if (m.group(last) == null && GOES_ON.matcher(rest).matches()) {
      throw new QuantityException(
          "'%s' goes on behind its number with '%s'".formatted(text.strip(), rest));
    }
    double t = m.group("t") == null ? Double.NaN : Double.parseDouble(m.group("t"));
    if (m.group("a") == null) {
      return new Amount(
          Double.NaN, Double.NaN, heading, t, tolerated.or(() -> heading), whole(rest));
    }
    double low = Double.parseDouble(m.group("a"));
    double high = m.group("b") == null ? low : Double.parseDouble(m.group("b"));
    if (first.isPresent() && second.isPresent() && !first.get().equals(second.get())) {
      low = first.get().convert(low, second.get());
    }
    // ± 5 V for a single number is a tolerance; a unit behind it serves both.
    return new Amount(low, high, own.or(() -> tolerated), t, tolerated.or(() -> own), whole(rest));
  }

  private static String whole(String rest) {
    if (FULL_SCALE.matcher(rest).matches()) return "FS";
    return SUPPLY.matcher(rest).matches() ? "Vs" : "";
  }

  /** A unit as datasheets write it: {@code VDC} is volts. */
  static Optional<Unit> unit(String text) {
    if (text == null || text.isBlank()) return Optional.empty();
    String s = text.strip().replaceFirst("(?i)^(m?V)\\s*[_.]?DC$", "$1");
    if (s.equals("C")) return Optional.of(Unit.CELSIUS);
    try {
      return UnitCatalogue.find(s).or(() -> Optional.of(UnitCatalogue.parse(s)));
    } catch (QuantityException e) {
      throw new QuantityException("'%s' is no unit that is known".formatted(text.strip()));
    }
  }

  /** In words: {@code 0.5 … 4.5 V ±1 %}. */
  String says() {
    String u = unit.map(Unit::symbol).orElse("");
    var words = new StringBuilder();
    if (!Double.isNaN(low)) {
      words.append(Numbers.trimmed(low, 7));
      if (isRange()) words.append(" … ").append(Numbers.trimmed(high, 7));
      words.append(u.isEmpty() ? ", no unit" : " " + u);
    }
    if (!Double.isNaN(tolerance)) {
      words
          .append(" ±")
          .append(Numbers.trimmed(tolerance, 5))
          .append(' ')
          .append(toleranceUnit.map(Unit::symbol).orElse(""));
    }
    if (!of.isEmpty()) words.append(of.equals("FS") ? " of full scale" : " of the supply");
    return words.toString().strip();
  }
}
