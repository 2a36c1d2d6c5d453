package nocking.algebra;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import nocking.algebra.Expr.Add;
import nocking.algebra.Expr.Apply;
import nocking.algebra.Expr.Div;
import nocking.algebra.Expr.Mul;
import nocking.algebra.Expr.Neg;
import nocking.algebra.Expr.Num;
import nocking.algebra.Expr.Pow;
import nocking.algebra.Expr.Sub;
import nocking.algebra.Expr.Sym;
import nocking.algebra.Expr.Through;

/**
 * An expression of several variables evaluated for a block of values at a time: each operation runs
 * along the block in one loop, which the virtual machine turns into vector instructions, and a part
 * that stands in the expression more than once, as a load does, is worked out once. Not safe for
 * several threads; the buffers are its own.
 */
public final class BlockProgram {
  /** Values that one call takes at most. */
  public static final int BLOCK = 256;

  /** One operation from buffers to a buffer. */
  @FunctionalInterface
  private interface Step {
    void run(double[][] buffers, int n);
  }

  @FunctionalInterface
  private interface Binary {
    void run(double[] a, double[] b, double[] out, int n);
  }

  @FunctionalInterface
  private interface Unary {
    void run(double[] a, double[] out, int n);
  }

  private final List<String> variables;
  private final Map<String, Double> constants;
  private final Map<Expr, Integer> places = new HashMap<>();
  private final List<double[]> made = new ArrayList<>();
  private final List<Step> program = new ArrayList<>();
  private final double[][] buffers;
  private final Step[] steps;
  private final int result;

  private BlockProgram(Expr e, List<String> variables, Map<String, Double> constants) {
    this.variables = variables;
    this.constants = constants;
    // The inputs come first; their rows are put in with every call.
    for (String v : variables) places.put(Expr.sym(v), place(null));
    result = place(e);
    buffers = made.toArray(double[][]::new);
    steps = program.toArray(Step[]::new);
  }

  /**
   * @param variables symbols whose values are given to {@link #run}, in that order
   * @param constants a number for every other symbol
   */
  public static BlockProgram of(Expr e, List<String> variables, Map<String, Double> constants) {
    return new BlockProgram(e, variables, constants);
  }

  /**
   * @param inputs one row a variable, each with at least {@code n} values
   * @param n how many of them, at most {@link #BLOCK}
   * @return the results; the array belongs to the program and is overwritten by the next call
   */
  public double[] run(double[][] inputs, int n) {
    System.arraycopy(inputs, 0, buffers, 0, variables.size());
    for (Step s : steps) s.run(buffers, n);
    return buffers[result];
  }

  /** Place of the buffer that holds an expression; null for an input. */
  private int place(Expr e) {
    if (e == null) {
      made.add(null);
      return made.size() - 1;
    }
    Integer known = places.get(e);
    if (known != null) return known;
    int at = variables.stream().anyMatch(e::contains) ? worked(e) : constant(e);
    places.put(e, at);
    return at;
  }

  private int constant(Expr e) {
    double[] same = new double[BLOCK];
    Arrays.fill(same, e.evaluate(constants));
    made.add(same);
    return made.size() - 1;
  }

  private int worked(Expr e) {
    return switch (e) {
      case Num _, Sym _ -> throw new IllegalStateException("a symbol has its place already");
      case Neg(Expr a) -> unary(a, BlockProgram::negate);
      case Add(Expr a, Expr b) -> binary(a, b, BlockProgram::add);
      case Sub(Expr a, Expr b) -> binary(a, b, BlockProgram::subtract);
      case Mul(Expr a, Expr b) -> binary(a, b, BlockProgram::multiply);
      case Div(Expr a, Expr b) -> binary(a, b, BlockProgram::divide);
      case Pow(Expr a, Num(double power)) when power == 2 -> unary(a, BlockProgram::square);
      case Pow(Expr a, Num(double power)) when power == 3 -> unary(a, BlockProgram::cube);
      case Pow(Expr a, Expr b) ->
          binary(
              a,
              b,
              (x, y, out, n) -> {
                for (int i = 0; i < n; i++) out[i] = Math.pow(x[i], y[i]);
              });
      case Apply(Expr.Function f, Expr a) ->
          unary(
              a,
              (x, out, n) -> {
                for (int i = 0; i < n; i++) out[i] = f.of(x[i]);
              });
      case Through(TabulatedFunction g, Expr.Mode mode, Expr a) ->
          unary(
              a,
              (x, out, n) -> {
                for (int i = 0; i < n; i++) out[i] = drawn(g, mode, x[i]);
              });
    };
  }

  /** A draw of parts may lie as far beyond a graph's end as its tolerance takes it. */
  private static double drawn(TabulatedFunction graph, Expr.Mode mode, double x) {
    return switch (mode) {
      case VALUE -> graph.continued(x);
      case INVERSE -> graph.continuedInverse(x);
      case SLOPE, INVERSE_SLOPE -> Expr.through(graph, mode, x);
    };
  }

  private int unary(Expr a, Unary operation) {
    int from = place(a);
    int to = buffer();
    program.add((b, n) -> operation.run(b[from], b[to], n));
    return to;
  }

  private int binary(Expr a, Expr b, Binary operation) {
    int left = place(a);
    int right = place(b);
    int to = buffer();
    program.add((buffer, n) -> operation.run(buffer[left], buffer[right], buffer[to], n));
    return to;
  }

  private int buffer() {
    made.add(new double[BLOCK]);
    return made.size() - 1;
  }

  private static void negate(double[] a, double[] out, int n) {
    for (int i = 0; i < n; i++) out[i] = -a[i];
  }

  private static void square(double[] a, double[] out, int n) {
    for (int i = 0; i < n; i++) out[i] = a[i] * a[i];
  }

  private static void cube(double[] a, double[] out, int n) {
    for (int i = 0; i < n; i++) out[i] = a[i] * a[i] * a[i];
  }

  private static void add(double[] a, double[] b, double[] out, int n) {
    for (int i = 0; i < n; i++) out[i] = a[i] + b[i];
  }

  private static void subtract(double[] a, double[] b, double[] out, int n) {
    for (int i = 0; i < n; i++) out[i] = a[i] - b[i];
  }

  private static void multiply(double[] a, double[] b, double[] out, int n) {
    for (int i = 0; i < n; i++) out[i] = a[i] * b[i];
  }

  private static void divide(double[] a, double[] b, double[] out, int n) {
    for (int i = 0; i < n; i++) out[i] = a[i] / b[i];
  }
}
