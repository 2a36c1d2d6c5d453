package nocking.algebra;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.LongStream;
import nocking.algebra.Expr.Function;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Derivatives against difference quotients, solutions against substitution. */
class CalculusTest {

  static LongStream seeds() {
    return LongStream.range(0, 200);
  }

  /** A random expression in which x occurs once; all values stay positive. */
  private static Expr random(Random r, int depth, Map<String, Double> values) {
    if (depth == 0) return Expr.sym("x");
    Expr inner = random(r, depth - 1, values);
    String name = "a" + values.size();
    values.put(name, 0.5 + r.nextDouble());
    Expr other = Expr.sym(name);
    return switch (r.nextInt(8)) {
      case 0 -> inner.plus(other);
      case 1 -> inner.plus(Expr.num(3)).minus(other);
      case 2 -> inner.times(other);
      case 3 -> inner.over(other);
      case 4 -> other.over(inner);
      case 5 -> inner.plus(Expr.num(2)).apply(Function.LN);
      case 6 -> inner.apply(Function.SQRT);
      default -> inner.power(Expr.num(2));
    };
  }

  @ParameterizedTest
  @MethodSource("seeds")
  void derivativeAgreesWithTheDifferenceQuotient(long seed) {
    Random r = new Random(seed);
    var values = new HashMap<String, Double>();
    Expr e = random(r, 4, values);
    double x = 0.7 + r.nextDouble();
    double h = 1e-6;
    double derivative = at(Calculus.derivative(e, "x"), values, x);
    double quotient = (at(e, values, x + h) - at(e, values, x - h)) / (2 * h);
    assertThat(derivative)
        .as("seed %d: %s", seed, Notation.TEXT.write(e))
        .isCloseTo(quotient, within(1e-6 * Math.max(1, Math.abs(quotient))));
  }

  @ParameterizedTest
  @MethodSource("seeds")
  void solutionPutsBackTheUnknown(long seed) {
    Random r = new Random(seed);
    var values = new HashMap<String, Double>();
    Expr e = random(r, 5, values);
    double x = 0.7 + r.nextDouble();
    values.put("y", at(e, values, x));
    Expr solved = Calculus.solve(Expr.sym("y"), e, "x");
    assertThat(solved.evaluate(values))
        .as("seed %d: %s", seed, Notation.TEXT.write(e))
        .isCloseTo(x, within(1e-8));
  }

  private static double at(Expr e, Map<String, Double> values, double x) {
    var all = new HashMap<>(values);
    all.put("x", x);
    double direct = e.evaluate(all);
    assertThat(Compiled.of(e, "x", values).applyAsDouble(x)).isEqualTo(direct);
    return direct;
  }

  @Test
  void unknownThatNeedsMoreThanARatioOfLinesIsRefused() {
    Expr x = Expr.sym("x");
    for (Expr e : List.of(x.times(x.plus(Expr.sym("a"))), x.plus(x.apply(Expr.Function.EXP)))) {
      assertThatThrownBy(() -> Calculus.solve(Expr.sym("y"), e, "x"))
          .isInstanceOf(AlgebraException.class)
          .hasMessage("the unknown stands in the equation more than once");
    }
  }

  /** A divider is a ratio of two straight lines in each of its resistors, loaded or not. */
  @Test
  void dividerIsSolvedForAnyOfItsResistors() {
    Expr lower = Expr.sym("R2").parallel(Expr.sym("RL"));
    Expr out = Expr.sym("Vin").times(lower).over(Expr.sym("R1").plus(lower));
    var values = new HashMap<>(Map.of("R1", 4.7, "R2", 10.0, "RL", 33.0, "Vin", 5.0));
    double y = out.evaluate(values);
    values.put("y", y);
    for (String unknown : List.of("R1", "R2", "RL", "Vin")) {
      Expr solved = Calculus.solve(Expr.sym("y"), out, unknown);
      assertThat(solved.contains(unknown)).isFalse();
      assertThat(solved.evaluate(values)).isCloseTo(values.get(unknown), within(1e-9));
    }
  }

  @Test
  void bracketsStandOnlyWhereTheyAreNeeded() {
    Expr a = Expr.sym("a");
    Expr b = Expr.sym("b");
    Expr c = Expr.sym("c");
    assertThat(Notation.TEXT.write(a.minus(b.minus(c)))).isEqualTo("a − (b − c)");
    assertThat(Notation.TEXT.write(a.minus(b).minus(c))).isEqualTo("a − b − c");
    assertThat(Notation.TEXT.write(a.plus(b).times(c))).isEqualTo("(a + b)·c");
    assertThat(Notation.C.write(a.times(b.over(c)).negated())).isEqualTo("-(a*(b/c))");
    assertThat(Notation.C.write(a.power(b.plus(c)))).isEqualTo("pow(a, b + c)");
    assertThat(Notation.PYTHON.write(a.negated().power(Expr.num(2)))).isEqualTo("(-a)**2.0");
    assertThat(Notation.SHEET.write(a.negated().power(Expr.num(2)))).isEqualTo("(0-a)^2.0");
    assertThat(Notation.LATEX.write(a.plus(b).over(c))).isEqualTo("\\frac{a + b}{c}");
    assertThat(Notation.TEXT.write(a.over(b.over(c)))).isEqualTo("a·c/b");
  }

  @Test
  void neutralElementsDisappear() {
    Expr a = Expr.sym("a");
    assertThat(a.plus(Expr.ZERO)).isEqualTo(a);
    assertThat(a.times(Expr.ONE)).isEqualTo(a);
    assertThat(a.times(Expr.ZERO)).isEqualTo(Expr.ZERO);
    assertThat(a.minus(a)).isEqualTo(Expr.ZERO);
    assertThat(Expr.num(2).times(Expr.num(3))).isEqualTo(Expr.num(6));
  }

  /**
   * What is solved is written as one fraction, numbers first, and no fraction stands in another.
   */
  @Test
  void solvedEquationsAreOneFraction() {
    Expr right =
        Formula.parse(
            "Vsup*(ra + k*p)/100*R2/(R1 + R2)", Set.of("Vsup", "ra", "k", "p", "R1", "R2"));
    Expr solved = Calculus.solve(Expr.sym("Vout"), right, "p");
    assertThat(Notation.TEXT.write(solved)).isEqualTo("(100·Vout·(R1 + R2)/(R2·Vsup) − ra)/k");
  }
}
