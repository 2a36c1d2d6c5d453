package nocking.algebra;

import java.util.Arrays;
import java.util.Set;
import java.util.stream.Collectors;
import nocking.algebra.Expr.Function;
import nocking.quantity.QuantityException;

/**
 * Reads a formula as a technician types it. Recursive descent.
 *
 * <pre>
 *   sum     = product (("+" | "-") product)*
 *   product = factor (("*" | "/") factor)*
 *   factor  = "-" factor | primary ("^" factor)?
 *   primary = number | symbol | function "(" sum ")" | "(" sum ")"
 * </pre>
 */
public final class Formula {
  /** Characters and brackets within brackets beyond which nobody meant it. */
  private static final int LONGEST = 4000;

  private static final int DEEPEST = 200;

  private final String text;
  private final Set<String> symbols;
  private int at;
  private int depth;

  private Formula(String text, Set<String> symbols) {
    this.text = text;
    this.symbols = symbols;
  }

  /**
   * @param symbols the names that may stand in it
   * @throws QuantityException one sentence that says what was read and what was expected
   */
  public static Expr parse(String text, Set<String> symbols) {
    var reader = new Formula(text, symbols);
    if (text.isBlank()) throw new QuantityException("the formula is empty");
    if (text.length() > LONGEST) {
      throw new QuantityException(
          "the formula has %d characters, expected %d at most".formatted(text.length(), LONGEST));
    }
    Expr e = reader.sum();
    if (reader.peek() != '\0') throw reader.unexpected("an operator");
    return e;
  }

  private Expr sum() {
    Expr e = product();
    while (true) {
      if (take('+')) e = e.plus(product());
      else if (take('-') || take('−')) e = e.minus(product());
      else return e;
    }
  }

  private Expr product() {
    Expr e = factor();
    while (true) {
      if (take('*') || take('·') || take('×')) e = e.times(factor());
      else if (take('/')) e = e.over(factor());
      else return e;
    }
  }

  private Expr factor() {
    if (depth == DEEPEST) throw new QuantityException("the formula is nested too deeply");
    depth++;
    Expr e = signed();
    depth--;
    return e;
  }

  private Expr signed() {
    if (take('-') || take('−')) return factor().negated();
    if (take('+')) return factor();
    Expr e = primary();
    return take('^') ? e.power(factor()) : e;
  }

  private Expr primary() {
    char c = peek();
    if (take('(')) return closed(sum());
    if (Character.isDigit(c) || c == '.') return number();
    if (!Character.isLetter(c)) throw unexpected("a number, a symbol or a bracket");
    int from = at;
    while (at < text.length()
        && (Character.isLetterOrDigit(text.charAt(at)) || text.charAt(at) == '_')) at++;
    String word = text.substring(from, at);
    if (take('(')) return called(word, closed(sum()));
    if (word.equals("pi") || word.equals("π")) return Expr.num(Math.PI);
    if (!symbols.contains(word)) {
      throw new QuantityException(
          "'%s' is no symbol here; known are %s and pi"
              .formatted(word, symbols.stream().sorted().collect(Collectors.joining(", "))));
    }
    return Expr.sym(word);
  }

  /** The size of a number is the root of its square, which has a derivative and an inverse. */
  private static Expr called(String word, Expr of) {
    return word.equals("abs")
        ? of.power(Expr.num(2)).apply(Function.SQRT)
        : of.apply(function(word));
  }

  private static Function function(String word) {
    return Arrays.stream(Function.values())
        .filter(f -> f.word().equals(word))
        .findFirst()
        .orElseThrow(
            () ->
                new QuantityException(
                    "'%s' is no function here; known are %s"
                        .formatted(
                            word,
                            Arrays.stream(Function.values())
                                .map(Function::word)
                                .collect(Collectors.joining(", ", "abs, ", "")))));
  }

  private Expr closed(Expr inner) {
    if (!take(')')) throw unexpected("a closing bracket");
    return inner;
  }

  private Expr number() {
    int from = at;
    while (at < text.length() && (Character.isDigit(text.charAt(at)) || text.charAt(at) == '.')) {
      at++;
    }
    int mark = at;
    if (at < text.length() && (text.charAt(at) == 'e' || text.charAt(at) == 'E')) {
      at++;
      if (at < text.length() && "+-−".indexOf(text.charAt(at)) >= 0) at++;
      int digits = at;
      while (at < text.length() && Character.isDigit(text.charAt(at))) at++;
      if (digits == at) at = mark;
    }
    String read = text.substring(from, at).replace('−', '-');
    if (at < text.length() && text.charAt(at) == ',') {
      throw new QuantityException("'" + text + "' has a comma; write decimals with a point");
    }
    try {
      return Expr.num(Double.parseDouble(read));
    } catch (NumberFormatException e) {
      throw new QuantityException("'" + read + "' is not a number");
    }
  }

  private char peek() {
    while (at < text.length() && Character.isWhitespace(text.charAt(at))) at++;
    return at < text.length() ? text.charAt(at) : '\0';
  }

  private boolean take(char c) {
    if (peek() != c) return false;
    at++;
    return true;
  }

  private QuantityException unexpected(String expected) {
    String read = peek() == '\0' ? "the end" : "'" + text.substring(at) + "'";
    return new QuantityException(
        "the formula has %s where %s was expected".formatted(read, expected));
  }
}
