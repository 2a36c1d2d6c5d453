package nocking.path;

import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import nocking.algebra.Expr;
import nocking.algebra.Graph;
import nocking.algebra.Notation;
import nocking.algebra.Piecewise;
import nocking.algebra.Piecewise.Piece;
import nocking.algebra.TurnedEquation;

/**
 * C99 and Python functions for the graphs that an equation goes through: the pieces as they are,
 * and their inverse by bisection down to neighbouring numbers.
 */
final class GraphSource {
  private static final int HALVINGS = 200;

  private final Notation form;
  private final Set<String> functions = new LinkedHashSet<>();

  private GraphSource(Notation form) {
    this.form = form;
  }

  /** Definitions of every graph of an expression; empty when there is none. */
  static String of(Notation form, Expr e) {
    var source = new GraphSource(form);
    source.define(e);
    return String.join("", source.functions);
  }

  private void define(Expr e) {
    for (Graph g : e.graphs()) {
      functions.add(
          switch (g) {
            case Piecewise p -> pieces(p);
            case TurnedEquation t -> equation(t);
            default -> throw new IllegalStateException("no source for " + g.name());
          });
    }
    if (uses(e, Expr.Mode.INVERSE)) {
      for (Graph g : e.graphs()) functions.add(inverse(g));
    }
  }

  private static boolean uses(Expr e, Expr.Mode mode) {
    boolean here = e instanceof Expr.Through t && t.mode() == mode;
    return here || e.operands().stream().anyMatch(o -> uses(o, mode));
  }

  private String pieces(Piecewise p) {
    boolean c = form == Notation.C;
    String body =
        p.pieces().stream()
            .map(
                q ->
                    c
                        ? "    if (x <= %s) return %s;\n".formatted(number(q.to()), value(q))
                        : "    if x <= %s:\n        return %s\n"
                            .formatted(number(q.to()), value(q)))
            .collect(Collectors.joining());
    String low = number(p.domain().low());
    return c
        ? "static double %s(double x)\n{\n    if (x < %s) return NAN;\n%s    return NAN;\n}\n\n"
            .formatted(p.name(), low, body)
        : "def %s(x):\n    if x < %s:\n        return math.nan\n%s    return math.nan\n\n\n"
            .formatted(p.name(), low, body);
  }

  /** Horner's form, the coefficients as they are in the model. */
  private String value(Piece p) {
    double[] c = p.coefficients();
    String t = p.origin() == 0 ? "x" : "(x - " + number(p.origin()) + ")";
    String sum =
        IntStream.iterate(c.length - 2, i -> i >= 0, i -> i - 1)
            .boxed()
            .reduce(
                number(c[c.length - 1]),
                (s, i) -> "(" + s + ")*" + t + " + " + number(c[i]),
                (a, b) -> b);
    if (p.bump() == null) return sum;
    String exp = form == Notation.C ? "exp" : "math.exp";
    String centre = number(p.bump().centre());
    return sum
        + " + %s*%s(%s*(x - %s)*(x - %s))"
            .formatted(number(p.bump().height()), exp, number(p.bump().exponent()), centre, centre);
  }

  private String equation(TurnedEquation t) {
    define(t.equation());
    String constants =
        t.constants().entrySet().stream()
            .sorted(Map.Entry.comparingByKey())
            .map(
                e ->
                    form == Notation.C
                        ? "    const double %s = %s;\n".formatted(e.getKey(), number(e.getValue()))
                        : "    %s = %s\n".formatted(form.name(e.getKey()), number(e.getValue())))
            .collect(Collectors.joining());
    String written = form.write(t.equation());
    return form == Notation.C
        ? "static double %s(double %s)\n{\n%s    return %s;\n}\n\n"
            .formatted(t.name(), t.variable(), constants, written)
        : "def %s(%s):\n%s    return %s\n\n\n"
            .formatted(t.name(), form.name(t.variable()), constants, written);
  }

  private String inverse(Graph g) {
    String name = g.name();
    String low = number(g.branch().low());
    String high = number(g.branch().high());
    return form == Notation.C
        ? """
          static double %1$s_inverse(double y)
          {
              double low = %2$s;
              double high = %3$s;
              const double from = %1$s(low);
              const double to = %1$s(high);
              const double slack = 1e-14*fabs(to - from);
              int i;
              if (y < fmin(from, to) - slack || y > fmax(from, to) + slack) return NAN;
              for (i = 0; i < %4$d; ++i) {
                  const double x = low + (high - low)/2;
                  if ((%1$s(x) < y) == (from < to)) low = x;
                  else high = x;
              }
              return low + (high - low)/2;
          }

          """
            .formatted(name, low, high, HALVINGS)
        : """
          def %1$s_inverse(y):
              low = %2$s
              high = %3$s
              start, end = %1$s(low), %1$s(high)
              slack = 1e-14*abs(end - start)
              if not min(start, end) - slack <= y <= max(start, end) + slack:
                  return math.nan
              for _ in range(%4$d):
                  x = low + (high - low)/2
                  if (%1$s(x) < y) == (start < end):
                      low = x
                  else:
                      high = x
              return low + (high - low)/2


          """
            .formatted(name, low, high, HALVINGS);
  }

  private static String number(double v) {
    return Notation.literal(v);
  }
}
