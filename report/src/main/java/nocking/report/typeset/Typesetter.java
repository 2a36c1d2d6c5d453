package nocking.report.typeset;

import java.awt.Font;
import java.awt.font.FontRenderContext;
import java.awt.font.LineMetrics;
import java.util.List;
import nocking.algebra.Expr;
import nocking.algebra.Expr.Add;
import nocking.algebra.Expr.Apply;
import nocking.algebra.Expr.Div;
import nocking.algebra.Expr.Function;
import nocking.algebra.Expr.Mul;
import nocking.algebra.Expr.Neg;
import nocking.algebra.Expr.Num;
import nocking.algebra.Expr.Pow;
import nocking.algebra.Expr.Sub;
import nocking.algebra.Expr.Sym;
import nocking.algebra.Expr.Through;
import nocking.algebra.Notation;
import nocking.algebra.TabulatedFunction;
import nocking.quantity.Numbers;
import nocking.report.Typefaces;

/** Lays out an equation at a font size. */
public final class Typesetter {
  private static final FontRenderContext CONTEXT = new FontRenderContext(null, true, true);
  private static final double SMALLER = 0.72;
  private static final double SMALLEST = 9;
  private static final double DIGITS_SHOWN = 7;

  /** Height of the fraction bar above the baseline, in parts of the size (TeX's axis height). */
  private static final double AXIS = 0.26;

  private Typesetter() {}

  /** The line {@code left = right}. */
  public static EquationLayout equation(Expr left, Expr right, double size) {
    Box line = Box.row(box(left, size), sign(" = ", size), box(right, size));
    return layout(line);
  }

  /** An expression alone. */
  public static EquationLayout expression(Expr e, double size) {
    return layout(box(e, size));
  }

  private static EquationLayout layout(Box b) {
    List<Glyphs> glyphs = b.glyphs().stream().map(g -> g.moved(0, b.ascent())).toList();
    List<Rule> rules = b.rules().stream().map(r -> r.moved(0, b.ascent())).toList();
    return new EquationLayout(b.width(), b.ascent(), b.descent(), glyphs, rules);
  }

  private static Box box(Expr e, double size) {
    return switch (e) {
      case Num(double v) ->
          letters(Numbers.trimmed(v, (int) DIGITS_SHOWN).replace('-', '−'), size, false, "");
      case Sym(String name) -> symbol(name, size);
      case Neg(Expr a) ->
          Box.row(sign("−", size), bracketed(a, size, a instanceof Add || a instanceof Sub));
      case Add(Expr a, Expr b) -> Box.row(box(a, size), sign(" + ", size), box(b, size));
      case Sub(Expr a, Expr b) ->
          Box.row(
              box(a, size),
              sign(" − ", size),
              bracketed(b, size, b instanceof Add || b instanceof Sub || b instanceof Neg));
      case Mul(Expr a, Expr b) ->
          Box.row(bracketed(a, size, isSum(a)), sign(" · ", size), bracketed(b, size, isSum(b)));
      case Div(Expr a, Expr b) -> fraction(a, b, size);
      case Pow(Expr a, Expr b) ->
          power(bracketed(a, size, !(a instanceof Sym || a instanceof Num)), b, size);
      case Apply(Function f, Expr a) -> call(f, a, size);
      case Through(TabulatedFunction g, Expr.Mode mode, Expr a) ->
          Box.row(graph(g, mode, size), bracketed(a, size, true));
    };
  }

  private static boolean isSum(Expr e) {
    return e instanceof Add || e instanceof Sub || e instanceof Neg;
  }

  private static Box symbol(String name, double size) {
    int stem = Notation.stemLength(name);
    String head = Notation.greek(name.substring(0, stem));
    Box base = letters(head, size, stem == 1 || head.length() == 1, name);
    String tail = name.substring(stem);
    if (tail.isEmpty()) return base;
    boolean word = tail.length() > 1 || Character.isDigit(tail.charAt(0));
    Box under = letters(tail, Math.max(SMALLEST, size * SMALLER), !word, name);
    return new Box.Builder()
        .put(base, 0, 0)
        .put(under, base.width(), 0.2 * size)
        .box(base.width() + under.width() + 0.04 * size);
  }

  private static Box fraction(Expr over, Expr under, double size) {
    double inner = Math.max(SMALLEST + 2, size * 0.86);
    Box n = box(over, inner);
    Box d = box(under, inner);
    double width = Math.max(n.width(), d.width()) + 0.3 * size;
    double axis = -AXIS * size;
    double gap = 0.16 * size;
    double thickness = Math.max(1, size / 18);
    return new Box.Builder()
        .put(n, (width - n.width()) / 2, axis - gap - n.descent())
        .put(d, (width - d.width()) / 2, axis + gap + d.ascent())
        .rule(new Rule(0.04 * size, axis, width - 0.04 * size, axis, thickness))
        .box(width);
  }

  private static Box power(Box base, Expr exponent, double size) {
    Box up = box(exponent, Math.max(SMALLEST, size * SMALLER));
    return new Box.Builder()
        .put(base, 0, 0)
        .put(up, base.width(), -Math.max(0.38 * size, base.ascent() - 0.4 * size))
        .box(base.width() + up.width());
  }

  private static Box call(Function f, Expr a, double size) {
    return switch (f) {
      case EXP -> power(letters("e", size, true, ""), a, size);
      case LN -> Box.row(letters("ln", size, false, ""), bracketed(a, size, true));
      case SQRT -> root(box(a, size), size);
      default -> Box.row(letters(f.word(), size, false, ""), bracketed(a, size, true));
    };
  }

  /** Name of a graph, raised to −1 where it is turned round. */
  private static Box graph(TabulatedFunction g, Expr.Mode mode, double size) {
    Box name = symbol(g.name(), size);
    if (mode == Expr.Mode.VALUE) return name;
    Box up = letters("−1", Math.max(SMALLEST, size * SMALLER), false, "");
    return new Box.Builder()
        .put(name, 0, 0)
        .put(up, name.width(), -0.38 * size)
        .box(name.width() + up.width());
  }

  private static Box root(Box inner, double size) {
    double top = -inner.ascent() - 0.12 * size;
    double foot = inner.descent();
    double hook = 0.55 * size;
    double t = Math.max(1, size / 18);
    return new Box.Builder()
        .put(inner, hook + 0.08 * size, 0)
        .rule(new Rule(0, -0.3 * size, 0.18 * size, -0.36 * size, t))
        .rule(new Rule(0.18 * size, -0.36 * size, 0.34 * size, foot, t))
        .rule(new Rule(0.34 * size, foot, hook, top, t))
        .rule(new Rule(hook, top, hook + inner.width() + 0.16 * size, top, t))
        .box(hook + inner.width() + 0.2 * size);
  }

  private static Box bracketed(Expr e, double size, boolean needed) {
    Box inner = box(e, size);
    if (!needed) return inner;
    // Brackets grow with what they hold, about the same middle line.
    double grow = Math.max(1, inner.height() / (1.15 * size));
    double bracket = size * grow;
    double middle = (inner.descent() - inner.ascent()) / 2;
    double shift = middle + AXIS * bracket;
    Box open = letters("(", bracket, false, "");
    Box close = letters(")", bracket, false, "");
    return new Box.Builder()
        .put(open, 0, shift)
        .put(inner, open.width(), 0)
        .put(close, open.width() + inner.width(), shift)
        .box(open.width() + inner.width() + close.width());
  }

  private static Box sign(String text, double size) {
    return letters(text, size, false, "");
  }

  private static Box letters(String text, double size, boolean italic, String symbol) {
    Font font = italic ? Typefaces.mathsItalic(size) : Typefaces.maths(size);
    double width = font.getStringBounds(text, CONTEXT).getWidth();
    LineMetrics metrics = font.getLineMetrics(text, CONTEXT);
    double ascent = Math.min(metrics.getAscent(), 0.76 * size);
    return new Box(
        width,
        ascent,
        0.24 * size,
        List.of(new Glyphs(text, 0, 0, size, italic, symbol)),
        List.of());
  }
}
