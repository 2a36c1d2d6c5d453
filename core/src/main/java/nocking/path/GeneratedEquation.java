package nocking.path;

import java.util.Locale;
import java.util.Map;
import java.util.stream.Collectors;
import nocking.algebra.Expr;
import nocking.algebra.Notation;

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
    String body = form.write(expression);
    return switch (form) {
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
                      "#include <math.h>\n\ndouble %s(double %s)\n{\n"
                          .formatted(function, variable),
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
                      "import math\n\n\ndef %s(%s):\n".formatted(function, form.name(variable)),
                      "    return %s\n".formatted(body)));
      case SHEET ->
          constants.entrySet().stream()
              .map(c -> form.name(c.getKey()) + "\t" + Notation.literal(c.getValue()) + "\n")
              .collect(Collectors.joining("", "=" + body + "\n\nname\tvalue\n", ""));
    };
  }

  /** A C and Python identifier made from a channel's tag: {@code IN-T2} becomes {@code in_t2}. */
  public static String identifier(String tag) {
    String s = tag.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "_").replaceAll("^_|_$", "");
    return s.isEmpty() || Character.isDigit(s.charAt(0)) ? "ch_" + s : s;
  }
}
