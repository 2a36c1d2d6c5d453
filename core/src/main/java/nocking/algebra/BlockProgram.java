package nocking.algebra;

import java.util.Arrays;
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
 * along the block in one loop, which the virtual machine turns into vector instructions. Not safe
 * for several threads; the buffers are its own.
 */
public final class BlockProgram {
  /** Values that one call takes at most. */
  public static final int BLOCK = 512;

  private interface Node {
    double[] run(double[][] inputs, int n);
  }

  private final Node root;

  private BlockProgram(Node root) {
    this.root = root;
  }

  /**
   * @param variables symbols whose values are given to {@link #run}, in that order
   * @param constants a number for every other symbol
   */
  public static BlockProgram of(Expr e, List<String> variables, Map<String, Double> constants) {
    return new BlockProgram(node(e, variables, constants));
  }

  /**
   * @param inputs one row a variable, each with at least {@code n} values
   * @param n how many of them, at most {@link #BLOCK}
   * @return the results; the array belongs to the program and is overwritten by the next call
   */
  public double[] run(double[][] inputs, int n) {
    return root.run(inputs, n);
  }

  @FunctionalInterface
  private interface Binary {
    void run(double[] a, double[] b, double[] out, int n);
  }

  @FunctionalInterface
  private interface Unary {
    void run(double[] a, double[] out, int n);
  }

  private static Node node(Expr e, List<String> variables, Map<String, Double> constants) {
    if (variables.stream().noneMatch(e::contains)) {
      double[] same = new double[BLOCK];
      Arrays.fill(same, e.evaluate(constants));
      return (inputs, n) -> same;
    }
    return switch (e) {
      case Num _ -> throw new IllegalStateException("a number holds no variable");
      case Sym(String name) -> {
        int row = variables.indexOf(name);
        yield (inputs, n) -> inputs[row];
      }
      case Neg(Expr a) -> unary(node(a, variables, constants), BlockProgram::negate);
      case Add(Expr a, Expr b) -> binary(a, b, variables, constants, BlockProgram::add);
      case Sub(Expr a, Expr b) -> binary(a, b, variables, constants, BlockProgram::subtract);
      case Mul(Expr a, Expr b) -> binary(a, b, variables, constants, BlockProgram::multiply);
      case Div(Expr a, Expr b) -> binary(a, b, variables, constants, BlockProgram::divide);
      case Pow(Expr a, Num(double power)) when power == 2 || power == 3 ->
          unary(
              node(a, variables, constants),
              power == 2 ? BlockProgram::square : BlockProgram::cube);
      case Pow(Expr a, Expr b) ->
          binary(
              a,
              b,
              variables,
              constants,
              (x, y, out, n) -> {
                for (int i = 0; i < n; i++) out[i] = Math.pow(x[i], y[i]);
              });
      case Apply(Expr.Function f, Expr a) ->
          unary(
              node(a, variables, constants),
              (x, out, n) -> {
                for (int i = 0; i < n; i++) out[i] = f.of(x[i]);
              });
      case Through(Graph g, Expr.Mode mode, Expr a) ->
          unary(
              node(a, variables, constants),
              (x, out, n) -> {
                for (int i = 0; i < n; i++) out[i] = Expr.through(g, mode, x[i]);
              });
    };
  }

  private static Node unary(Node a, Unary operation) {
    double[] out = new double[BLOCK];
    return (inputs, n) -> {
      operation.run(a.run(inputs, n), out, n);
      return out;
    };
  }

  private static Node binary(
      Expr a, Expr b, List<String> variables, Map<String, Double> constants, Binary operation) {
    Node left = node(a, variables, constants);
    Node right = node(b, variables, constants);
    double[] out = new double[BLOCK];
    return (inputs, n) -> {
      double[] x = left.run(inputs, n);
      double[] y = right.run(inputs, n);
      operation.run(x, y, out, n);
      return out;
    };
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
