package nocking.quantity;

import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.regex.Pattern;

/**
 * Reads what a technician types: numbers with prefixes and units, resistor codes, arithmetic and
 * {@code ||} for parallel. Recursive descent, one character of look-ahead.
 *
 * <pre>
 *   sum      = shunt (("+" | "-") shunt)*
 *   shunt    = product ("||" product)*
 *   product  = factor (("*" | "·" | "/") factor)*
 *   factor   = ("-" | "+") factor | primary ("^" factor)?
 *   primary  = number unit? | name | name "(" sum ")" | "(" sum ")" unit?
 * </pre>
 */
public final class QuantityParser {
  private static final String CODE_LETTERS = "pnuµmkKMGR";

  /** Brackets within brackets beyond which nobody meant it. */
  private static final int DEEPEST = 200;

  private static final Pattern RATIO = Pattern.compile("[%‰]|ppm|[A-Za-zµΩ]\\s*/\\s*[A-Za-zµΩ]");

  /** In whose fields a prefix stands for the unit with it. */
  private static final Set<Dimension> ELECTRICAL =
      Set.of(Dimension.VOLTAGE, Dimension.CURRENT, Dimension.RESISTANCE);

  private final String text;
  private final Function<String, Optional<Quantity>> symbols;
  private final boolean prefixFirst;
  private int at;
  private int depth;
  private boolean prefixed;

  private QuantityParser(
      String text, Function<String, Optional<Quantity>> symbols, boolean prefixFirst) {
    this.text = text;
    this.symbols = symbols;
    this.prefixFirst = prefixFirst;
  }

  /**
   * The value of an expression.
   *
   * @param symbols values of names that are not units, tried before units
   * @throws QuantityException one sentence that says what was read and what was expected
   */
  public static Quantity evaluate(String text, Function<String, Optional<Quantity>> symbols) {
    return new QuantityParser(text, symbols, false).whole();
  }

  public static Quantity evaluate(String text) {
    return evaluate(text, name -> Optional.empty());
  }

  /**
   * The value of a number field in its own unit. A plain number is taken in that unit; another unit
   * of the same dimension is converted; a unit at the very end may belong to the whole expression
   * ({@code 3.3/2 V}); and {@code 530m} in a voltage field is milli, not metres. A prefix by itself
   * is one of the volt, ampere or ohm: {@code 12.3m} in a field of milliamperes is 12.3 of them.
   *
   * @return the number before {@code unit}
   * @throws QuantityException one sentence that says what was read and what was expected
   */
  public static double value(String text, Unit unit) {
    String t = text.strip();
    if (t.isEmpty()) {
      throw new QuantityException("this is empty; expected " + expected(unit));
    }
    QuantityException first = null;
    for (boolean prefixFirst : new boolean[] {false, true}) {
      try {
        var parser = new QuantityParser(t, name -> Optional.empty(), prefixFirst);
        Quantity q = parser.whole();
        if (q.dimension().isNone() && !unit.dimension().isNone()) {
          // A share of what? One hundredth of the number is never what was meant.
          if (RATIO.matcher(t).find()) {
            throw new QuantityException(
                "'%s' is a share; expected %s".formatted(t, expected(unit)));
          }
          boolean ofBase = parser.prefixed && ELECTRICAL.contains(unit.dimension());
          return finite(ofBase ? unit.fromSi(q.si()) : q.si(), t);
        }
        if (q.dimension().isNone() && unit.dimension().isNone()) {
          // 2 in a field of mV/V is 2 mV/V, and so is 2 mV/V itself, although both are plain
          // numbers.
          boolean bare = !RATIO.matcher(t).find();
          return finite(bare ? q.si() : q.in(unit), t);
        }
        if (q.dimension().equals(unit.dimension())) return finite(q.in(unit), t);
        if (first == null) {
          first =
              new QuantityException(
                  "'%s' is %s; expected %s".formatted(t, q.dimension().says(), expected(unit)));
        }
      } catch (QuantityException e) {
        if (first == null) first = e;
      }
    }
    Optional<Double> whole = trailingUnit(t, unit);
    if (whole.isPresent()) return finite(whole.get(), t);
    throw first;
  }

  private static Optional<Double> trailingUnit(String t, Unit unit) {
    int space = t.lastIndexOf(' ');
    if (space < 0) return Optional.empty();
    Optional<Unit> last = UnitCatalogue.find(t.substring(space + 1));
    if (last.isEmpty() || !last.get().dimension().equals(unit.dimension())) return Optional.empty();
    try {
      Quantity rest = evaluate(t.substring(0, space));
      if (!rest.dimension().isNone()) return Optional.empty();
      return Optional.of(Quantity.of(rest.si(), last.get()).in(unit));
    } catch (QuantityException e) {
      return Optional.empty();
    }
  }

  private static double finite(double value, String text) {
    if (Double.isInfinite(value) || Double.isNaN(value)) {
      throw new QuantityException("'" + text + "' has no finite value");
    }
    return value;
  }

  private static String expected(Unit unit) {
    if (unit.dimension().isNone()) {
      return "a number" + (unit.symbol().isEmpty() ? "" : " in " + unit.symbol());
    }
    String says = unit.dimension().says();
    return (says.startsWith("a quantity") ? "a value" : says) + " in " + unit.symbol();
  }

  private Quantity whole() {
    if (text.isBlank()) throw new QuantityException("this is empty; expected a number");
    Quantity q = sum();
    skip();
    if (at < text.length()) throw unexpected("an operator");
    return q;
  }

  private Quantity sum() {
    Quantity q = shunt();
    while (true) {
      if (take('+')) q = q.plus(shunt());
      else if (take('-') || take('−')) q = q.minus(shunt());
      else return q;
    }
  }

  private Quantity shunt() {
    Quantity q = product();
    while (peek() == '|') {
      at++;
      if (!take('|')) throw unexpected("|| (in parallel with)");
      q = q.parallel(product());
    }
    return q;
  }

  private Quantity product() {
    Quantity q = factor();
    while (true) {
      if (take('*') || take('·') || take('×')) q = q.times(factor());
      else if (take('/')) q = q.over(factor());
      else return q;
    }
  }

  private Quantity factor() {
    if (depth == DEEPEST) throw new QuantityException("'%s' is nested too deeply".formatted(text));
    depth++;
    Quantity q = signed();
    depth--;
    return q;
  }

  private Quantity signed() {
    if (take('-') || take('−')) {
      Quantity q = factor();
      return q.negated();
    }
    if (take('+')) return factor();
    Quantity q = primary();
    return take('^') ? q.power(factor()) : q;
  }

  private Quantity primary() {
    char c = peek();
    if (c == '(') {
      at++;
      Quantity q = sum();
      if (!take(')')) throw unexpected("a closing bracket");
      return withUnit(q, true);
    }
    if (Character.isDigit(c) || c == '.') return number();
    if (isNameStart(c)) return name();
    throw unexpected("a number");
  }

  private Quantity number() {
    int from = at;
    while (at < text.length() && (Character.isDigit(text.charAt(at)) || text.charAt(at) == '.'))
      at++;
    exponent();
    String digits = text.substring(from, at).replace('−', '-');
    double mantissa;
    try {
      mantissa = Double.parseDouble(digits);
    } catch (NumberFormatException e) {
      throw new QuantityException("'" + digits + "' is not a number");
    }
    if (at < text.length() && text.charAt(at) == ',') {
      throw new QuantityException(
          "'%s' has a comma; write decimals with a point".formatted(text.strip()));
    }
    return withUnit(Quantity.number(codeLetter(digits, mantissa)), false);
  }

  private void exponent() {
    int mark = at;
    if (at < text.length() && (text.charAt(at) == 'e' || text.charAt(at) == 'E')) {
      at++;
      if (at < text.length() && "+-−".indexOf(text.charAt(at)) >= 0) at++;
      int digits = at;
      while (at < text.length() && Character.isDigit(text.charAt(at))) at++;
      if (digits == at) at = mark;
    }
  }

  /** IEC 60062: the letter stands for the decimal point, 4k7 = 4700, 4R7 = 4.7. */
  private double codeLetter(String digits, double mantissa) {
    if (at + 1 >= text.length()
        || CODE_LETTERS.indexOf(text.charAt(at)) < 0
        || !Character.isDigit(text.charAt(at + 1))
        || digits.contains(".")) {
      return mantissa;
    }
    String letter = text.substring(at, at + 1);
    prefixed = true;
    int from = ++at;
    while (at < text.length() && Character.isDigit(text.charAt(at))) at++;
    double value = Double.parseDouble(digits + "." + text.substring(from, at));
    return letter.equals("R")
        ? value
        : Unit.scaled(value, UnitCatalogue.prefix(letter).orElseThrow());
  }

  private Quantity withUnit(Quantity q, boolean onlyUnit) {
    int mark = at;
    skip();
    boolean adjacent = mark == at;
    int from = at;
    if (at < text.length() && isNameStart(text.charAt(at))) {
      while (at < text.length() && isUnitCharacter(text.charAt(at))) at++;
    }
    String word = text.substring(from, at);
    if (word.isEmpty()) {
      at = mark;
      return q;
    }
    Optional<Double> prefix = UnitCatalogue.prefix(word);
    Optional<Unit> unit = UnitCatalogue.find(word);
    if (prefix.isPresent() && (unit.isEmpty() || (prefixFirst && adjacent)) && !onlyUnit) {
      return prefixed(q, prefix.get());
    }
    if (unit.isPresent()) {
      if (!q.dimension().isNone()) throw new QuantityException("'" + word + "' is a second unit");
      return Quantity.of(q.si(), unit.get());
    }
    if (word.equals("in") || word.equals("at") || word.equals("of")) {
      at = mark;
      return q;
    }
    throw UnitCatalogue.unknown(word);
  }

  /** A prefix may be followed by a unit after a space: {@code 4.7 k ohm}. */
  private Quantity prefixed(Quantity q, double prefix) {
    prefixed = true;
    return withUnit(Quantity.number(Unit.scaled(q.si(), prefix)), true);
  }

  private Quantity name() {
    int from = at;
    while (at < text.length() && (isUnitCharacter(text.charAt(at)) || text.charAt(at) == '_')) {
      at++;
    }
    String word = text.substring(from, at);
    if (peek() == '(') return call(word);
    Optional<Quantity> symbol = symbols.apply(word);
    if (symbol.isPresent()) return symbol.get();
    if (word.equals("pi") || word.equals("π")) return Quantity.number(Math.PI);
    return UnitCatalogue.find(word)
        .map(u -> Quantity.of(1, u.difference()))
        .orElseThrow(
            () -> new QuantityException("'" + word + "' is neither a unit nor a symbol here"));
  }

  private Quantity call(String function) {
    take('(');
    Quantity argument = sum();
    if (!take(')')) throw unexpected("a closing bracket");
    if (function.equals("abs")) {
      return argument.si() < 0 ? argument.negated() : argument;
    }
    if (function.equals("sqrt") && !argument.dimension().isNone()) {
      throw new QuantityException("sqrt takes a plain number here");
    }
    if (!argument.dimension().isNone()) {
      throw new QuantityException(function + " takes a plain number");
    }
    double x = argument.si();
    return Quantity.number(
        switch (function) {
          case "sqrt" -> Math.sqrt(x);
          case "ln" -> Math.log(x);
          case "log" -> Math.log10(x);
          case "exp" -> Math.exp(x);
          case "sin" -> Math.sin(x);
          case "cos" -> Math.cos(x);
          case "tan" -> Math.tan(x);
          case "asin" -> Math.asin(x);
          case "acos" -> Math.acos(x);
          case "atan" -> Math.atan(x);
          default ->
              throw new QuantityException(
                  "'"
                      + function
                      + "' is no function here; known are sqrt, ln, log, exp, abs, sin, cos, tan,"
                      + " asin, acos, atan");
        });
  }

  private static boolean isNameStart(char c) {
    return Character.isLetter(c) || "%‰°ºΩµ_".indexOf(c) >= 0;
  }

  private boolean isUnitCharacter(char c) {
    return isNameStart(c) || Character.isDigit(c);
  }

  private void skip() {
    while (at < text.length() && Character.isWhitespace(text.charAt(at))) at++;
  }

  private char peek() {
    skip();
    return at < text.length() ? text.charAt(at) : '\0';
  }

  private boolean take(char c) {
    if (peek() != c) return false;
    at++;
    return true;
  }

  private QuantityException unexpected(String expected) {
    skip();
    String read = at >= text.length() ? "the end" : "'" + text.substring(at) + "'";
    return new QuantityException("read %s where %s was expected".formatted(read, expected));
  }
}
