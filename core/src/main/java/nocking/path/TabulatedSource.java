package nocking.path;

import java.util.LinkedHashSet;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import nocking.algebra.Expr;
import nocking.algebra.Notation;
import nocking.algebra.NumericalInverse;
import nocking.algebra.Piecewise;
import nocking.algebra.Piecewise.Piece;
import nocking.algebra.TabulatedFunction;

/**
 * C99 and Python functions for the graphs that an equation goes through: the pieces as they are,
 * and their inverse by bisection down to neighbouring numbers.
 */
final class TabulatedSource {
  private static final int HALVINGS = 200;

  private final Notation form;
  private final Set<String> functions = new LinkedHashSet<>();

  private TabulatedSource(Notation form) {
    this.form = form;
  }

  /** Definitions of every graph of an expression; empty when there is none. */
  static String of(Notation form, Expr e) {
    var source = new TabulatedSource(form);
    source.define(e);
    return String.join("", source.functions);
  }

  private void define(Expr e) {
    for (TabulatedFunction g : e.graphs()) {
      functions.add(
          switch (g) {
            case Piecewise p -> pieces(p);
            case NumericalInverse t -> equation(t);
            default -> throw new IllegalStateException("no source for " + g.name());
          });
      // A compiler warns of a function that nothing calls.
      if (g instanceof Piecewise && uses(e, g, Expr.Mode.VALUE)) functions.add(continued(g));
      if (uses(e, g, Expr.Mode.INVERSE)) functions.add(inverse(g));
    }
  }

  private static boolean uses(Expr e, TabulatedFunction g, Expr.Mode mode) {
    boolean here = e instanceof Expr.Through t && t.mode() == mode && t.graph().equals(g);
    return here || e.operands().stream().anyMatch(o -> uses(o, g, mode));
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
    String name = p.name();
    return c
        ? "static double %s_known(double x)\n{\n%s    return NAN;\n}\n\n".formatted(name, body)
        : "def %s_known(x):\n%s    return math.nan\n\n\n".formatted(name, body);
  }

  /** A graph goes on straight beyond the ends of what it is known for, and no farther. */
  private String continued(TabulatedFunction g) {
    Object[] values = {
      g.name(),
      number(g.domain().low()),
      number(g.domain().high()),
      number(g.reach().low()),
      number(g.reach().high()),
      number(g.endSlope(true)),
      number(g.endSlope(false)),
      number(g.known(g.domain().low())),
      number(g.known(g.domain().high()))
    };
    return form == Notation.C
        ? """
          /* Known from %2$s to %3$s; beyond that extrapolated with the end slope. */
          static double %1$s(double x)
          {
              if (!(x >= %4$s && x <= %5$s)) return NAN;
              if (x < %2$s) return %8$s + %6$s*(x - %2$s);
              if (x > %3$s) return %9$s + %7$s*(x - %3$s);
              return %1$s_known(x);
          }

          """
            .formatted(values)
        : """
          # Known from %2$s to %3$s; beyond that extrapolated with the end slope.
          def %1$s(x):
              if not %4$s <= x <= %5$s:
                  return math.nan
              if x < %2$s:
                  return %8$s + %6$s*(x - %2$s)
              if x > %3$s:
                  return %9$s + %7$s*(x - %3$s)
              return %1$s_known(x)


          """
            .formatted(values);
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

  private String equation(NumericalInverse t) {
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

  private String inverse(TabulatedFunction g) {
    boolean openLow = g.branch().low() == g.domain().low();
    boolean openHigh = g.branch().high() == g.domain().high();
    boolean c = form == Notation.C;
    String nan = c ? "NAN" : "math.nan";
    Object[] values = {
      g.name(),
      number(g.branch().low()),
      number(g.branch().high()),
      number(g.reach().low()),
      number(g.reach().high()),
      openLow ? "low + (y - start)/" + bracketed(g.endSlope(true)) : nan,
      openHigh ? "high + (y - end)/" + bracketed(g.endSlope(false)) : nan,
      HALVINGS,
      // A turned equation is written as it stands; a table only knows its own part.
      g instanceof NumericalInverse ? g.name() : g.name() + "_known"
    };
    return c
        ? """
          /* Turned round from %2$s to %3$s; beyond that extrapolated with the end slope. */
          static double %1$s_inverse(double y)
          {
              double low = %2$s;
              double high = %3$s;
              const double start = %9$s(low);
              const double end = %9$s(high);
              const double slack = 1e-14*fabs(end - start);
              int i;
              if (y < fmin(start, end) - slack || y > fmax(start, end) + slack) {
                  const int first = (y < start) == (start < end);
                  const double x = first ? %6$s : %7$s;
                  return x >= %4$s && x <= %5$s ? x : NAN;
              }
              for (i = 0; i < %8$d; ++i) {
                  const double x = low + (high - low)/2;
                  if ((%9$s(x) < y) == (start < end)) low = x;
                  else high = x;
              }
              return low + (high - low)/2;
          }

          """
            .formatted(values)
        : """
          # Turned round from %2$s to %3$s; beyond that extrapolated with the end slope.
          def %1$s_inverse(y):
              low = %2$s
              high = %3$s
              start, end = %9$s(low), %9$s(high)
              slack = 1e-14*abs(end - start)
              if not min(start, end) - slack <= y <= max(start, end) + slack:
                  first = (y < start) == (start < end)
                  x = %6$s if first else %7$s
                  return x if %4$s <= x <= %5$s else math.nan
              for _ in range(%8$d):
                  x = low + (high - low)/2
                  if (%9$s(x) < y) == (start < end):
                      low = x
                  else:
                      high = x
              return low + (high - low)/2


          """
            .formatted(values);
  }

  private static String bracketed(double v) {
    return v < 0 ? "(" + number(v) + ")" : number(v);
  }

  private static String number(double v) {
    return Notation.literal(v);
  }
}
