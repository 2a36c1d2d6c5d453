package nocking.path;

import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import nocking.algebra.Expr;
import nocking.algebra.Notation;
import nocking.algebra.NumericalInverse;
import nocking.algebra.TabulatedFunction;

/**
 * An equation as text for another program, with the constants it needs above it.
 *
 * <p>The C form is one function in C99; the Python form one function; the sheet form a formula with
 * named cells and the list of the names to define. All are printed from the same expression tree.
 */
public final class GeneratedEquation {
  private GeneratedEquation() {}

  /**
   * @param function name of the function, a C identifier
   * @param variable symbol of the argument
   * @param result symbol of what is computed
   * @param constants numbers of all other symbols
   */
  public static String write(
      Notation form,
      String function,
      String variable,
      String result,
      Expr expression,
      Map<String, Double> constants) {
    if (form == Notation.SHEET && !expression.graphs().isEmpty()) {
      return "There is no sheet formula: the equation goes through a table or reference function."
          + " Use C or Python, or the table of the sixth stage.\n";
    }
    String body = form.write(expression);
    String text =
        switch (form) {
          case TEXT, LATEX -> form.name(result) + " = " + body;
          case C ->
              constants.entrySet().stream()
                  .map(
                      c ->
                          "    const double %s = %s;\n"
                              .formatted(c.getKey(), Notation.literal(c.getValue())))
                  .collect(
                      Collectors.joining(
                          "",
                          "#include <math.h>\n\n%sdouble %s(double %s)\n{\n"
                              .formatted(TabulatedSource.of(form, expression), function, variable),
                          "    return %s;\n}\n".formatted(body)));
          case PYTHON ->
              constants.entrySet().stream()
                  .map(
                      c ->
                          "    %s = %s\n"
                              .formatted(form.name(c.getKey()), Notation.literal(c.getValue())))
                  .collect(
                      Collectors.joining(
                          "",
                          "import math\n\n\n%sdef %s(%s):\n"
                              .formatted(
                                  TabulatedSource.of(form, expression),
                                  function,
                                  form.name(variable)),
                          "    return %s\n".formatted(body)));
          case SHEET ->
              constants.entrySet().stream()
                  .map(c -> form.name(c.getKey()) + "\t" + Notation.literal(c.getValue()) + "\n")
                  .collect(Collectors.joining("", "=" + body + "\n\nname\tvalue\n", ""));
        };
    boolean program = form == Notation.C || form == Notation.PYTHON;
    return program ? own(text, function, expression) : text;
  }

  /**
   * Functions of graphs get the name of the equation before theirs, so that two can stand together.
   */
  private static String own(String text, String function, Expr expression) {
    String names =
        allGraphs(expression)
            .map(TabulatedFunction::name)
            .distinct()
            .collect(Collectors.joining("|"));
    if (names.isEmpty()) return text;
    return text.replaceAll(
        "\\b((?:" + names + ")(?:_inverse|_known)?)\\(",
        Matcher.quoteReplacement(function) + "_$1(");
  }

  private static Stream<TabulatedFunction> allGraphs(Expr e) {
    return e.graphs().stream()
        .flatMap(
            g ->
                g instanceof NumericalInverse t
                    ? Stream.concat(Stream.of(g), allGraphs(t.equation()))
                    : Stream.of(g));
  }

  /** A C and Python identifier made from a channel's tag: {@code IN-T2} becomes {@code in_t2}. */
  public static String identifier(String tag) {
    String s = tag.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "_").replaceAll("^_|_$", "");
    return s.isEmpty() || Character.isDigit(s.charAt(0)) ? "ch_" + s : s;
  }
}
