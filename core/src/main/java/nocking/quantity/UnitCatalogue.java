package nocking.quantity;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * The units that the bench knows. Exact by definition where a definition exists; other factors from
 * NIST SP 811 (2008), appendix B.8.
 */
public final class UnitCatalogue {
  private static final Map<String, Unit> UNITS = new LinkedHashMap<>();
  private static final Map<String, Double> PREFIXES =
      Map.ofEntries(
          Map.entry("p", 1e-12),
          Map.entry("n", 1e-9),
          Map.entry("u", 1e-6),
          Map.entry("µ", 1e-6),
          Map.entry("μ", 1e-6),
          Map.entry("m", 1e-3),
          Map.entry("c", 1e-2),
          Map.entry("k", 1e3),
          Map.entry("K", 1e3),
          Map.entry("M", 1e6),
          Map.entry("G", 1e9));
  private static final List<String> PREFIXABLE =
      List.of("V", "A", "Ω", "W", "F", "Hz", "s", "m", "g", "Pa", "bar", "N", "J", "L", "K", "mol");

  /** Newton per kilogram, the conventional value (3rd CGPM, 1901). */
  private static final double STANDARD_GRAVITY = 9.80665;

  private static final double POUND = 0.45359237;
  private static final double INCH = 0.0254;

  static {
    add(Unit.VOLT);
    add("A", Dimension.CURRENT, 1);
    add(Unit.OHM, "ohm", "Ohm", "ohms", "\u2126");
    add("W", Dimension.VOLTAGE.times(Dimension.CURRENT), 1);
    add("F", Dimension.CURRENT.times(Dimension.TIME).over(Dimension.VOLTAGE), 1);
    add("Hz", Dimension.TIME.power(-1), 1);
    add("s", Dimension.TIME, 1, "sec");
    add("min", Dimension.TIME, 60);
    add("h", Dimension.TIME, 3600);
    add("m", Dimension.LENGTH, 1);
    add("in", Dimension.LENGTH, INCH, "inch");
    add("ft", Dimension.LENGTH, 12 * INCH);
    add("g", Dimension.MASS, 1e-3);
    add("t", Dimension.MASS, 1e3, "tonne");
    add("lb", Dimension.MASS, POUND);
    add("oz", Dimension.MASS, POUND / 16);
    add("N", Dimension.FORCE, 1);
    add("kgf", Dimension.FORCE, STANDARD_GRAVITY);
    add("gf", Dimension.FORCE, 1e-3 * STANDARD_GRAVITY);
    add("lbf", Dimension.FORCE, POUND * STANDARD_GRAVITY);
    add("J", Dimension.FORCE.times(Dimension.LENGTH), 1);
    add("Pa", Dimension.PRESSURE, 1);
    add("hPa", Dimension.PRESSURE, 100);
    add("bar", Dimension.PRESSURE, 1e5);
    add("atm", Dimension.PRESSURE, 101325);
    add("psi", Dimension.PRESSURE, POUND * STANDARD_GRAVITY / (INCH * INCH));
    add("mmHg", Dimension.PRESSURE, 133.322387415);
    add("Torr", Dimension.PRESSURE, 101325.0 / 760);
    add("inHg", Dimension.PRESSURE, 25.4 * 133.322387415);
    add("mmH2O", Dimension.PRESSURE, STANDARD_GRAVITY);
    add("cmH2O", Dimension.PRESSURE, 10 * STANDARD_GRAVITY);
    add("inH2O", Dimension.PRESSURE, 25.4 * STANDARD_GRAVITY);
    add("L", Dimension.LENGTH.power(3), 1e-3, "l");
    add("K", Dimension.TEMPERATURE, 1);
    addUnit(new Unit("°C", Dimension.TEMPERATURE, 1, 273.15), "degC", "ºC", "celsius");
    addUnit(
        new Unit("°F", Dimension.TEMPERATURE, 5.0 / 9, 459.67 * 5 / 9), "degF", "ºF", "fahrenheit");
    addUnit(Unit.PERCENT, "percent", "pct");
    add("‰", Dimension.NONE, 1e-3);
    add("ppm", Dimension.NONE, 1e-6);
    add("pH", Dimension.NONE, 1);
    add("NTU", Dimension.NONE, 1);
    addUnit(new Unit("°", Dimension.ANGLE, Math.PI / 180, 0), "deg", "º");
    add("rad", Dimension.ANGLE, 1);
    add("rpm", Dimension.TIME.power(-1), 1.0 / 60);
    add("mol", Dimension.NONE, 1);
    addUnit(Unit.COUNTS, "count", "LSB", "lsb");
  }

  private UnitCatalogue() {}

  private static void add(Unit unit, String... aliases) {
    addUnit(unit, aliases);
  }

  private static void add(String symbol, Dimension dimension, double factor, String... aliases) {
    addUnit(new Unit(symbol, dimension, factor, 0), aliases);
  }

  private static void addUnit(Unit unit, String... aliases) {
    UNITS.put(unit.symbol(), unit);
    for (String alias : aliases) UNITS.put(alias, unit);
  }

  /** Multiplier of an SI prefix letter alone, as in {@code 4.7 k}. */
  public static Optional<Double> prefix(String letter) {
    return Optional.ofNullable(PREFIXES.get(letter));
  }

  /** A single unit, with or without an SI prefix; empty when the symbol is not known. */
  public static Optional<Unit> find(String symbol) {
    Unit plain = UNITS.get(symbol);
    if (plain != null) return Optional.of(plain);
    if (symbol.length() < 2) return Optional.empty();
    String letter = symbol.substring(0, 1);
    Double factor = PREFIXES.get(letter);
    Unit base = UNITS.get(symbol.substring(1));
    if (factor == null || base == null || !PREFIXABLE.contains(base.symbol())) {
      return Optional.empty();
    }
    String shown = (letter.equals("u") || letter.equals("μ") ? "µ" : letter) + base.symbol();
    return Optional.of(new Unit(shown, base.dimension(), factor * base.factor(), 0));
  }

  /**
   * A unit written as products, quotients and powers of symbols: {@code mg/L}, {@code N·m}, {@code
   * mV/kPa}, {@code m^3}. Shifted zeros are dropped inside a product.
   *
   * @throws QuantityException naming the symbol that is not known
   */
  public static Unit parse(String text) {
    String t = text.strip();
    if (t.isEmpty() || t.equals("1")) return Unit.ONE;
    Optional<Unit> single = find(t);
    if (single.isPresent()) return single.get();
    Dimension dimension = Dimension.NONE;
    double factor = 1;
    int sign = 1;
    for (String part : split(t)) {
      switch (part) {
        case "*", "·" -> sign = 1;
        case "/" -> sign = -1;
        case "1" -> sign = 1;
        default -> {
          int caret = part.indexOf('^');
          String name = caret < 0 ? part : part.substring(0, caret);
          int power = sign * (caret < 0 ? 1 : exponent(part.substring(caret + 1), text));
          Unit unit = find(name).orElseThrow(() -> unknown(name));
          dimension = dimension.times(unit.dimension().power(power));
          factor *= Math.pow(unit.factor(), power);
        }
      }
    }
    return new Unit(
        t.replace('*', '·').replace("degC", "°C").replace("ohm", "Ω"), dimension, factor, 0);
  }

  private static int exponent(String digits, String whole) {
    try {
      return Integer.parseInt(digits);
    } catch (NumberFormatException e) {
      throw new QuantityException("'" + whole + "' has a power that is not a whole number");
    }
  }

  private static List<String> split(String text) {
    var parts = new ArrayList<String>();
    int from = 0;
    for (int i = 0; i < text.length(); i++) {
      if ("*·/".indexOf(text.charAt(i)) >= 0) {
        parts.add(text.substring(from, i).strip());
        parts.add(text.substring(i, i + 1));
        from = i + 1;
      }
    }
    parts.add(text.substring(from).strip());
    return parts;
  }

  static QuantityException unknown(String symbol) {
    return new QuantityException(
        symbol.isEmpty()
            ? "a unit is missing"
            : "'" + symbol + "' is no unit that Nocking knows, such as kPa, psi, degC, mV or kg");
  }
}
