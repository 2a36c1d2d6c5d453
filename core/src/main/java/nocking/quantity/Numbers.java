package nocking.quantity;

import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;

/** Writing numbers: plain, with fixed decimals, with significant digits, with SI prefixes. */
public final class Numbers {
  private static final String[] PREFIXES = {"p", "n", "µ", "m", "", "k", "M", "G"};
  private static final int BASE_PREFIX = 4;

  private Numbers() {}

  /** Shortest text that reads back as the same double, without an exponent where that is short. */
  public static String plain(double x) {
    if (x == 0) return "0";
    if (!Double.isFinite(x)) return Double.toString(x);
    BigDecimal exact = new BigDecimal(Double.toString(x)).stripTrailingZeros();
    double size = Math.abs(x);
    return size >= 1e-6 && size < 1e12 ? exact.toPlainString() : exact.toString();
  }

  /** Fixed decimals; −0.00 is written 0.00. */
  public static String fixed(double x, int decimals) {
    if (!Double.isFinite(x)) return "–";
    String s =
        BigDecimal.valueOf(x).setScale(Math.max(0, decimals), RoundingMode.HALF_UP).toPlainString();
    boolean zero = s.chars().noneMatch(c -> c >= '1' && c <= '9');
    return zero && s.startsWith("-") ? s.substring(1) : s;
  }

  /** Fixed decimals with a sign, for errors: +0.02, −0.10, 0.00. */
  public static String signed(double x, int decimals) {
    String s = fixed(x, decimals);
    if (s.equals("–")) return s;
    boolean zero = s.chars().noneMatch(c -> c >= '1' && c <= '9');
    return zero ? s : s.startsWith("-") ? "−" + s.substring(1) : "+" + s;
  }

  /** Significant digits, no exponent between 1e-5 and 1e7. */
  public static String significant(double x, int digits) {
    if (!Double.isFinite(x)) return "–";
    if (x == 0) return "0";
    BigDecimal d = new BigDecimal(x, new MathContext(digits, RoundingMode.HALF_UP));
    int places = digits - (d.precision() - d.scale());
    if (d.scale() < places) d = d.setScale(places);
    double size = Math.abs(x);
    return size >= 1e-5 && size < 1e7 ? d.toPlainString() : d.stripTrailingZeros().toString();
  }

  /** Significant digits without trailing zeros after the point. */
  public static String trimmed(double x, int digits) {
    String s = significant(x, digits);
    if (s.indexOf('.') < 0 || s.indexOf('E') >= 0) return s;
    return s.replaceAll("0+$", "").replaceAll("\\.$", "");
  }

  /**
   * A value of an SI unit with the prefix that puts one to three digits before the point: 542.4 mV,
   * 15.72 kΩ. A plain 0 stays in the unit itself.
   */
  public static String engineering(double si, String unit, int digits) {
    return engineeringNumber(si, digits) + " " + engineeringPrefix(si, digits) + unit;
  }

  /** Like {@link #engineering}, without trailing zeros: 20 mV, 5.1 kΩ. */
  public static String compact(double si, String unit, int digits) {
    String number = engineeringNumber(si, digits);
    if (number.indexOf('.') >= 0) number = number.replaceAll("0+$", "").replaceAll("\\.$", "");
    return number + " " + engineeringPrefix(si, digits) + unit;
  }

  /**
   * A value and its limit of error in one prefix, the limit with two digits: 4.58 V ±0.11, 0 mV
   * ±20.
   */
  public static String withLimit(double si, double limit, String unit) {
    int i = prefixIndex(Math.max(Math.abs(si), limit), 3);
    double scale = Math.pow(10, 3 * (i - BASE_PREFIX));
    int decimals = limit > 0 ? decimals(limit / scale, 2) : decimals(si / scale, 3);
    String value = si == 0 ? "0" : fixed(si / scale, decimals);
    return value + " " + PREFIXES[i] + unit + " ±" + fixed(limit / scale, decimals);
  }

  /** Two ends in one prefix, the greater with three digits: 0.42 … 4.57 V. */
  public static String between(double from, double to, String unit) {
    double most = Math.max(Math.abs(from), Math.abs(to));
    int i = prefixIndex(most, 3);
    double scale = Math.pow(10, 3 * (i - BASE_PREFIX));
    int decimals = decimals(most / scale, 3);
    return fixed(from / scale, decimals)
        + " … "
        + fixed(to / scale, decimals)
        + " "
        + PREFIXES[i]
        + unit;
  }

  /** A place in a row: 1st, 2nd, 13th. */
  public static String ordinal(int n) {
    String end =
        n % 100 / 10 == 1
            ? "th"
            : switch (n % 10) {
              case 1 -> "st";
              case 2 -> "nd";
              case 3 -> "rd";
              default -> "th";
            };
    return n + end;
  }

  /** Decimals that leave so many significant digits. */
  private static int decimals(double v, int digits) {
    if (v == 0) return 0;
    double rounded = new BigDecimal(Math.abs(v), new MathContext(digits)).doubleValue();
    return Math.max(0, digits - 1 - (int) Math.floor(Math.log10(rounded) + 1e-12));
  }

  /** Prefix letter that {@link #engineering} would choose. */
  public static String engineeringPrefix(double si, int digits) {
    return PREFIXES[prefixIndex(si, digits)];
  }

  private static String engineeringNumber(double si, int digits) {
    int i = prefixIndex(si, digits);
    return significant(si / Math.pow(10, 3 * (i - BASE_PREFIX)), digits);
  }

  private static int prefixIndex(double si, int digits) {
    if (si == 0 || !Double.isFinite(si)) return BASE_PREFIX;
    double rounded = new BigDecimal(Math.abs(si), new MathContext(digits)).doubleValue();
    int i = BASE_PREFIX + (int) Math.floor(Math.log10(rounded) / 3 + 1e-12);
    return Math.clamp(i, 0, PREFIXES.length - 1);
  }

  /**
   * Decimals with which a step of this size is visible: one digit finer than the step's first, e.g.
   * 4 for 0.0019, 0 for 12. At most 9.
   */
  public static int decimalsFor(double step) {
    if (!(step > 0) || !Double.isFinite(step)) return 3;
    return Math.clamp((int) Math.ceil(-Math.log10(step) - 1e-9) + 1, 0, 9);
  }
}
