package nocking.algebra;

import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.regex.Pattern;
import nocking.algebra.Expr.Add;
import nocking.algebra.Expr.Apply;
import nocking.algebra.Expr.Div;
import nocking.algebra.Expr.Function;
import nocking.algebra.Expr.Mode;
import nocking.algebra.Expr.Mul;
import nocking.algebra.Expr.Neg;
import nocking.algebra.Expr.Num;
import nocking.algebra.Expr.Pow;
import nocking.algebra.Expr.Sub;
import nocking.algebra.Expr.Sym;
import nocking.algebra.Expr.Through;
import nocking.quantity.Numbers;

/** The written forms of an expression. Brackets stand only where the form's own rules need them. */
public enum Notation {
  TEXT,
  LATEX,
  C,
  PYTHON,
  SHEET;

  private static final int SUM = 1;
  private static final int PRODUCT = 2;
  private static final int SIGN = 3;
  private static final int POWER = 4;
  private static final int ATOM = 5;

  /** A1 and R1C1 references, which a spreadsheet would not take as a name. */
  private static final Pattern CELL_LIKE =
      Pattern.compile("(?i)[a-z]{1,3}[0-9]+|[rc][0-9]*|r[0-9]*c[0-9]*");

  /** Names that are words and have no subscript. */
  private static final Set<String> WORDS = Set.of("code", "table", "positions");

  private static final Map<String, String> GREEK =
      Map.of("alpha", "α", "beta", "β", "delta", "δ", "Omega", "Ω", "rho", "ρ", "theta", "θ");

  public String write(Expr e) {
    return part(e, SUM);
  }

  /** A symbol's name in this notation. */
  public String name(String symbol) {
    return switch (this) {
      case TEXT -> GREEK.getOrDefault(symbol, symbol);
      case LATEX -> latexName(symbol);
      case SHEET -> CELL_LIKE.matcher(symbol).matches() ? symbol + "_" : symbol;
      case C -> symbol;
      case PYTHON -> symbol.equals("lambda") || symbol.equals("in") ? symbol + "_" : symbol;
    };
  }

  /** Greek letter for names such as alpha, else the name itself. */
  public static String greek(String name) {
    return GREEK.getOrDefault(name, name);
  }

  /** Length of the part of a symbol that stands on the line; what follows is its subscript. */
  public static int stemLength(String symbol) {
    for (String letter : GREEK.keySet()) {
      if (symbol.startsWith(letter)) return letter.length();
    }
    if (symbol.startsWith("TP")) return 2;
    return WORDS.contains(symbol) ? symbol.length() : 1;
  }

  private static String latexName(String symbol) {
    int stem = stemLength(symbol);
    String head = symbol.substring(0, stem);
    if (GREEK.containsKey(head)) head = "\\" + head;
    else if (stem > 1) head = "\\mathrm{" + head + "}";
    String tail = symbol.substring(stem);
    return tail.isEmpty() ? head : head + "_{" + tail + "}";
  }

  private String part(Expr e, int needed) {
    String s = raw(e);
    if (precedence(e) >= needed) return s;
    return this == LATEX ? "\\left(" + s + "\\right)" : "(" + s + ")";
  }

  private int precedence(Expr e) {
    return switch (e) {
      case Num(double v) -> v < 0 ? SIGN : ATOM;
      case Sym _, Apply _, Through _ -> ATOM;
      case Add _, Sub _ -> SUM;
      case Mul _ -> PRODUCT;
      case Div _ -> this == LATEX ? ATOM : PRODUCT;
      case Neg _ -> this == SHEET ? ATOM : SIGN;
      case Pow _ -> this == C ? ATOM : POWER;
    };
  }

  private String raw(Expr e) {
    return switch (e) {
      case Num(double v) -> number(v);
      case Sym(String name) -> name(name);
      // A spreadsheet binds a sign tighter than a power, so the sign is written as a subtraction.
      case Neg(Expr a) -> this == SHEET ? "(0-" + part(a, PRODUCT) + ")" : "-" + part(a, SIGN);
      case Add(Expr a, Expr b) -> part(a, SUM) + " + " + part(b, PRODUCT);
      case Sub(Expr a, Expr b) -> part(a, SUM) + (this == TEXT ? " − " : " - ") + part(b, PRODUCT);
      case Mul(Expr a, Expr b) -> part(a, PRODUCT) + times() + part(b, SIGN);
      case Div(Expr a, Expr b) ->
          this == LATEX
              ? "\\frac{" + part(a, SUM) + "}{" + part(b, SUM) + "}"
              : part(a, PRODUCT) + "/" + part(b, SIGN);
      case Pow(Expr a, Expr b) -> power(a, b);
      case Apply(Function f, Expr a) -> call(f, a);
      case Through(TabulatedFunction g, Mode mode, Expr a) -> through(g, mode, a);
    };
  }

  private String times() {
    return switch (this) {
      case TEXT -> "·";
      case LATEX -> " \\cdot ";
      case C, PYTHON, SHEET -> "*";
    };
  }

  private String power(Expr a, Expr b) {
    return switch (this) {
      case TEXT, SHEET -> part(a, ATOM) + "^" + part(b, ATOM);
      case LATEX -> part(a, ATOM) + "^{" + part(b, SUM) + "}";
      case C -> "pow(" + part(a, SUM) + ", " + part(b, SUM) + ")";
      case PYTHON -> part(a, ATOM) + "**" + part(b, ATOM);
    };
  }

  private String call(Function f, Expr a) {
    String inner = part(a, SUM);
    return switch (this) {
      case LATEX ->
          switch (f) {
            case EXP -> "e^{" + inner + "}";
            case SQRT -> "\\sqrt{" + inner + "}";
            case LOG -> "\\log_{10}\\left(" + inner + "\\right)";
            case ASIN, ACOS, ATAN ->
                "\\arc" + f.word().substring(1) + "\\left(" + inner + "\\right)";
            default -> "\\" + f.word() + "\\left(" + inner + "\\right)";
          };
      case TEXT -> f.word() + "(" + inner + ")";
      case C -> programWord(f) + "(" + inner + ")";
      case PYTHON -> "math." + programWord(f) + "(" + inner + ")";
      case SHEET ->
          (f == Function.LOG ? "LOG10" : f.word().toUpperCase(Locale.ROOT)) + "(" + inner + ")";
    };
  }

  private static String programWord(Function f) {
    return switch (f) {
      case LN -> "log";
      case LOG -> "log10";
      default -> f.word();
    };
  }

  private String through(TabulatedFunction g, Mode mode, Expr a) {
    String inner = part(a, SUM);
    String mark =
        switch (mode) {
          case VALUE -> "";
          case SLOPE -> "′";
          case INVERSE -> "⁻¹";
          case INVERSE_SLOPE -> "⁻¹′";
        };
    return switch (this) {
      case TEXT -> g.name() + mark + "(" + inner + ")";
      case LATEX ->
          latexName(g.name())
              + mark.replace("⁻¹", "^{-1}").replace("′", "{}'")
              + "\\left("
              + inner
              + "\\right)";
      case C, PYTHON, SHEET -> functionName(g, mode) + "(" + inner + ")";
    };
  }

  /** Name of a graph's function in generated source, for example {@code E_K_inverse}. */
  public static String functionName(TabulatedFunction g, Mode mode) {
    return switch (mode) {
      case VALUE -> g.name();
      case INVERSE -> g.name() + "_inverse";
      case SLOPE, INVERSE_SLOPE ->
          throw new AlgebraException("a slope of " + g.name() + " is not written as source");
    };
  }

  private String number(double v) {
    return switch (this) {
      case TEXT, LATEX -> Numbers.plain(v);
      case SHEET, PYTHON, C -> literal(v);
    };
  }

  /** All seventeen digits where they are needed, and always a floating literal. */
  public static String literal(double v) {
    String s = Double.toString(v);
    return s.contains("E") && s.endsWith(".0") ? s.replace(".0", "") : s;
  }
}
