package nocking.algebra;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** An algebraic expression over named symbols. Immutable; equality is structural. */
public sealed interface Expr {

  record Num(double value) implements Expr {}

  record Sym(String name) implements Expr {}

  record Neg(Expr a) implements Expr {}

  record Add(Expr a, Expr b) implements Expr {}

  record Sub(Expr a, Expr b) implements Expr {}

  record Mul(Expr a, Expr b) implements Expr {}

  record Div(Expr a, Expr b) implements Expr {}

  record Pow(Expr a, Expr b) implements Expr {}

  record Apply(Function function, Expr a) implements Expr {}

  /** A function known by its graph: its value, its slope, or either of them turned round. */
  record Through(TabulatedFunction graph, Mode mode, Expr a) implements Expr {}

  /** What is asked of a graph. */
  enum Mode {
    VALUE,
    SLOPE,
    INVERSE,
    INVERSE_SLOPE
  }

  /** Functions of one argument; each has its inverse and derivative in {@link Calculus}. */
  enum Function {
    EXP,
    LN,
    LOG,
    SQRT,
    SIN,
    COS,
    TAN,
    ASIN,
    ACOS,
    ATAN;

    public double of(double x) {
      return switch (this) {
        case EXP -> Math.exp(x);
        case LN -> Math.log(x);
        case LOG -> Math.log10(x);
        case SQRT -> Math.sqrt(x);
        case SIN -> Math.sin(x);
        case COS -> Math.cos(x);
        case TAN -> Math.tan(x);
        case ASIN -> Math.asin(x);
        case ACOS -> Math.acos(x);
        case ATAN -> Math.atan(x);
      };
    }

    /** Name in formulas: exp, ln, log … */
    public String word() {
      return name().toLowerCase(java.util.Locale.ROOT);
    }
  }

  Expr ZERO = new Num(0);
  Expr ONE = new Num(1);

  static Expr num(double value) {
    return value == 0 ? ZERO : value == 1 ? ONE : new Num(value);
  }

  static Expr sym(String name) {
    return new Sym(name);
  }

  default Expr plus(Expr b) {
    if (isNumber(this, 0)) return b;
    if (isNumber(b, 0)) return this;
    if (b instanceof Neg(Expr inner)) return minus(inner);
    return fold(new Add(this, b));
  }

  default Expr minus(Expr b) {
    if (isNumber(b, 0)) return this;
    if (isNumber(this, 0)) return b.negated();
    if (b instanceof Neg(Expr inner)) return plus(inner);
    if (equals(b)) return ZERO;
    return fold(new Sub(this, b));
  }

  default Expr times(Expr b) {
    if (isNumber(this, 0) || isNumber(b, 0)) return ZERO;
    if (isNumber(this, 1)) return b;
    if (isNumber(b, 1)) return this;
    return fold(new Mul(this, b));
  }

  default Expr over(Expr b) {
    if (isNumber(this, 0)) return ZERO;
    if (isNumber(b, 1)) return this;
    if (equals(b)) return ONE;
    Expr reduced = cancelled(this, b);
    if (reduced != null) return reduced;
    // Nobody writes a fraction below a fraction: a/(b/c) is a·c/b.
    if (b instanceof Div(Expr numerator, Expr denominator)) {
      return times(denominator).over(numerator);
    }
    // Nor one above it: (a/b)/c is a/(b·c).
    if (this instanceof Div(Expr numerator, Expr denominator)) {
      return numerator.over(denominator.times(b));
    }
    return fold(new Div(this, b));
  }

  /** a/b without the factors that stand above and below the line; null when there are none. */
  private static Expr cancelled(Expr a, Expr b) {
    var over = new ArrayList<Expr>();
    var under = new ArrayList<Expr>();
    factors(a, over, under);
    int before = under.size();
    var below = new ArrayList<Expr>();
    factors(b, below, over);
    under.addAll(below);
    boolean any = false;
    for (Expr f : List.copyOf(under.subList(before, under.size()))) {
      // A number is worked out, not crossed out.
      if (!(f instanceof Num) && over.remove(f)) {
        under.remove(f);
        any = true;
      }
    }
    if (!any) return null;
    Expr n = over.stream().reduce(ONE, Expr::times);
    Expr d = under.stream().reduce(ONE, Expr::times);
    return n.over(d);
  }

  private static void factors(Expr e, List<Expr> over, List<Expr> under) {
    switch (e) {
      case Mul(Expr a, Expr b) -> {
        factors(a, over, under);
        factors(b, over, under);
      }
      case Div(Expr a, Expr b) -> {
        factors(a, over, under);
        factors(b, under, over);
      }
      default -> over.add(e);
    }
  }

  default Expr power(Expr b) {
    if (isNumber(b, 1)) return this;
    if (isNumber(b, 0)) return ONE;
    return fold(new Pow(this, b));
  }

  default Expr negated() {
    return this instanceof Neg(Expr inner) ? inner : fold(new Neg(this));
  }

  /** Two resistances in parallel, a·b/(a + b). */
  default Expr parallel(Expr b) {
    return times(b).over(plus(b));
  }

  default Expr apply(Function function) {
    return fold(new Apply(function, this));
  }

  /** This expression put through a graph. */
  default Expr through(TabulatedFunction graph, Mode mode) {
    return new Through(graph, mode, this);
  }

  private static boolean isNumber(Expr e, double value) {
    return e instanceof Num(double v) && v == value;
  }

  /** Numbers meet numbers: 1/(2·3) becomes one number; symbols are never touched. */
  private static Expr fold(Expr e) {
    boolean numbers =
        switch (e) {
          case Neg(Num _), Apply(var _, Num _) -> true;
          case Add(Num _, Num _), Sub(Num _, Num _), Mul(Num _, Num _) -> true;
          case Div(Num _, Num _), Pow(Num _, Num _) -> true;
          default -> false;
        };
    return numbers ? num(e.evaluate(Map.of())) : e;
  }

  /**
   * Numerical value.
   *
   * @param values a number for every symbol that occurs
   * @throws AlgebraException naming a symbol without a value
   */
  default double evaluate(Map<String, Double> values) {
    return switch (this) {
      case Num(double v) -> v;
      case Sym(String name) -> {
        Double v = values.get(name);
        if (v == null) throw new AlgebraException("the symbol " + name + " has no value");
        yield v;
      }
      case Neg(Expr a) -> -a.evaluate(values);
      case Add(Expr a, Expr b) -> a.evaluate(values) + b.evaluate(values);
      case Sub(Expr a, Expr b) -> a.evaluate(values) - b.evaluate(values);
      case Mul(Expr a, Expr b) -> a.evaluate(values) * b.evaluate(values);
      case Div(Expr a, Expr b) -> a.evaluate(values) / b.evaluate(values);
      case Pow(Expr a, Expr b) -> Math.pow(a.evaluate(values), b.evaluate(values));
      case Apply(Function f, Expr a) -> f.of(a.evaluate(values));
      case Through t -> through(t.graph, t.mode, t.a.evaluate(values));
    };
  }

  /** Value of a graph in one of its modes. */
  static double through(TabulatedFunction graph, Mode mode, double x) {
    return switch (mode) {
      case VALUE -> graph.value(x);
      case SLOPE -> graph.slope(x);
      case INVERSE -> graph.inverse(x);
      case INVERSE_SLOPE -> 1 / graph.slope(graph.inverse(x));
    };
  }

  /** The expression with every occurrence of a symbol replaced. */
  default Expr substitute(String name, Expr by) {
    return switch (this) {
      case Num _ -> this;
      case Sym(String s) -> s.equals(name) ? by : this;
      case Neg(Expr a) -> a.substitute(name, by).negated();
      case Add(Expr a, Expr b) -> a.substitute(name, by).plus(b.substitute(name, by));
      case Sub(Expr a, Expr b) -> a.substitute(name, by).minus(b.substitute(name, by));
      case Mul(Expr a, Expr b) -> a.substitute(name, by).times(b.substitute(name, by));
      case Div(Expr a, Expr b) -> a.substitute(name, by).over(b.substitute(name, by));
      case Pow(Expr a, Expr b) -> a.substitute(name, by).power(b.substitute(name, by));
      case Apply(Function f, Expr a) -> a.substitute(name, by).apply(f);
      case Through(TabulatedFunction g, Mode m, Expr a) -> a.substitute(name, by).through(g, m);
    };
  }

  /** The expressions that the outermost operation joins; empty for a number or a symbol. */
  default List<Expr> operands() {
    return switch (this) {
      case Num _, Sym _ -> List.of();
      case Neg(Expr a) -> List.of(a);
      case Apply(Function _, Expr a) -> List.of(a);
      case Through(var _, var _, Expr a) -> List.of(a);
      case Add(Expr a, Expr b) -> List.of(a, b);
      case Sub(Expr a, Expr b) -> List.of(a, b);
      case Mul(Expr a, Expr b) -> List.of(a, b);
      case Div(Expr a, Expr b) -> List.of(a, b);
      case Pow(Expr a, Expr b) -> List.of(a, b);
    };
  }

  /** How often a symbol occurs. */
  default int count(String name) {
    if (this instanceof Sym(String s)) return s.equals(name) ? 1 : 0;
    int sum = 0;
    for (Expr e : operands()) sum += e.count(name);
    return sum;
  }

  default boolean contains(String name) {
    return count(name) > 0;
  }

  /** True when {@code part} stands somewhere in the expression as it is. */
  default boolean holds(Expr part) {
    return equals(part) || operands().stream().anyMatch(e -> e.holds(part));
  }

  /** Every symbol, in reading order. */
  default Set<String> symbols() {
    var found = new LinkedHashSet<String>();
    collect(found);
    return found;
  }

  private void collect(Set<String> into) {
    if (this instanceof Sym(String s)) into.add(s);
    operands().forEach(e -> e.collect(into));
  }

  /** Every graph that the expression goes through, in reading order. */
  default Set<TabulatedFunction> graphs() {
    var found = new LinkedHashSet<TabulatedFunction>();
    collectGraphs(found);
    return found;
  }

  private void collectGraphs(Set<TabulatedFunction> into) {
    if (this instanceof Through t) into.add(t.graph);
    operands().forEach(e -> e.collectGraphs(into));
  }
}
