package nocking.quantity;

import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * How far a real part may be from its nominal value.
 *
 * @param limit largest departure at the reference temperature, at least 0: in percent of the value
 *     where {@code relative}, else in the field's unit
 * @param temperatureCoefficient limit of the drift in ppm/K, at least 0
 */
public record Spread(
    double limit, boolean relative, double temperatureCoefficient, Distribution distribution) {

  private static final Pattern TEXT =
      Pattern.compile("(.+?)(?:[\\s,]+([0-9.]+)\\s*ppm(?:/K)?)?", Pattern.CASE_INSENSITIVE);
  private static final Pattern SIGN = Pattern.compile("±|\\+/-|\\+-");

  public Spread {
    if (!(limit >= 0) || !(temperatureCoefficient >= 0)) {
      throw new QuantityException("a tolerance must be at least 0");
    }
  }

  /** A tolerance in percent of the value, rectangular, without drift. */
  public static Spread percent(double limit) {
    return new Spread(limit, true, 0, Distribution.RECTANGULAR);
  }

  /** A tolerance in the field's unit, rectangular, without drift. */
  public static Spread absolute(double limit) {
    return new Spread(limit, false, 0, Distribution.RECTANGULAR);
  }

  public Spread withTemperatureCoefficient(double ppm) {
    return new Spread(limit, relative, ppm, distribution);
  }

  public Spread withDistribution(Distribution v) {
    return new Spread(limit, relative, temperatureCoefficient, v);
  }

  /** Largest departure of a value at the reference temperature, in the field's unit. */
  public double limitOf(double value) {
    return relative ? Math.abs(value) * limit / 100 : limit;
  }

  /** Place of the sign ± in a field's text; −1 when there is none. */
  static int signIn(String text) {
    Matcher m = SIGN.matcher(text);
    return m.find() ? m.start() : -1;
  }

  /**
   * Reads what stands behind ±: {@code 1 %}, {@code 0.1% 25ppm}, {@code 5 mV}.
   *
   * @param unit unit of the field; in a field of percent, percent are percent points
   * @throws QuantityException one sentence
   */
  public static Spread parse(String text, Unit unit) {
    Matcher m = TEXT.matcher(SIGN.matcher(text).replaceFirst("").strip());
    if (!m.matches()) throw new QuantityException("a tolerance is missing after ±");
    String amount = m.group(1).strip();
    boolean percent = amount.endsWith("%") && !unit.equals(Unit.PERCENT);
    double limit =
        percent
            ? QuantityParser.value(amount, Unit.PERCENT)
            : QuantityParser.value(amount, unit.difference());
    if (limit < 0) throw new QuantityException("a tolerance must be at least 0; read " + amount);
    double drift = m.group(2) == null ? 0 : Double.parseDouble(m.group(2));
    return new Spread(limit, percent, drift, Distribution.RECTANGULAR);
  }

  /** The spread as a field shows it, for example {@code ±1% 50ppm}. */
  public String text(Unit unit) {
    String amount =
        Numbers.plain(limit) + (relative ? "%" : unit.symbol().isEmpty() ? "" : " " + unit);
    return "±"
        + amount
        + (temperatureCoefficient == 0 ? "" : " " + Numbers.plain(temperatureCoefficient) + "ppm");
  }
}
