package nocking.fit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Random;
import java.util.stream.LongStream;
import org.hipparchus.optim.linear.LinearConstraint;
import org.hipparchus.optim.linear.LinearConstraintSet;
import org.hipparchus.optim.linear.LinearObjectiveFunction;
import org.hipparchus.optim.linear.NonNegativeConstraint;
import org.hipparchus.optim.linear.Relationship;
import org.hipparchus.optim.linear.SimplexSolver;
import org.hipparchus.optim.nonlinear.scalar.GoalType;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/** Least-worst curves against a linear program, with repeated raw values and equal quantities. */
class MinimaxTest {

  static LongStream seeds() {
    return LongStream.range(0, 60);
  }

  private static Samples random(long seed, int degree) {
    var r = new Random(seed);
    int n = degree + 2 + r.nextInt(12);
    double[] x = new double[n];
    double[] y = new double[n];
    for (int i = 0; i < n; i++) {
      x[i] =
          i < degree + 2
              ? i * 0.4
              : seed % 3 == 0 ? 0.4 * r.nextInt(degree + 2) : 4 * r.nextDouble();
      y[i] = seed % 5 == 0 ? r.nextInt(3) : 2 * x[i] + Math.sin(3 * x[i]) + 0.2 * r.nextGaussian();
    }
    return new Samples(x, y);
  }

  /** The least E by the simplex method on all 2n inequalities. */
  private static double program(Samples s, int degree) {
    var list = new ArrayList<LinearConstraint>();
    for (int i = 0; i < s.size(); i++) {
      for (int sign : new int[] {-1, 1}) {
        double[] row = new double[degree + 2];
        for (int k = 0; k <= degree; k++) row[k] = sign * Math.pow((s.raw()[i] - 2) / 2, k);
        row[degree + 1] = 1;
        list.add(new LinearConstraint(row, Relationship.GEQ, sign * s.quantity()[i]));
      }
    }
    double[] cost = new double[degree + 2];
    cost[degree + 1] = 1;
    return new SimplexSolver()
        .optimize(
            new LinearObjectiveFunction(cost, 0),
            new LinearConstraintSet(list),
            GoalType.MINIMIZE,
            new NonNegativeConstraint(false))
        .getValue();
  }

  @ParameterizedTest
  @MethodSource("seeds")
  void noCurveOfTheDegreeHasASmallerWorstError(long seed) {
    for (int degree : List.of(1, 2, 4)) {
      Samples s = random(seed, degree);
      Fit f = new Minimax(degree).fit(s);
      assertThat(f.worstError())
          .as("seed %d, degree %d, %s", seed, degree, Arrays.toString(s.raw()))
          .isCloseTo(program(s, degree), within(1e-9));
    }
  }

  /** The line of a parabola over 0 … 1: half the sag, 1/8. */
  @Test
  void theWorstErrorOfALineThroughAParabolaIsAnEighth() {
    double[] x = new double[101];
    double[] y = new double[101];
    for (int i = 0; i <= 100; i++) {
      x[i] = i / 100.0;
      y[i] = x[i] * x[i];
    }
    Fit f = new Minimax(1).fit(new Samples(x, y));
    assertThat(f.worstError()).isCloseTo(0.125, within(1e-12));
    assertThat(f.curve().quantity(0)).isCloseTo(-0.125, within(1e-12));
  }

  /** As many places as constants, or a hundred thousand points: no matter. */
  @Test
  void fewAndManyPoints() {
    Samples two = new Samples(new double[] {1, 1, 3}, new double[] {4, 6, 9});
    assertThat(new Minimax(1).fit(two).worstError()).isCloseTo(1, within(1e-12));
    int n = 100_000;
    double[] x = new double[n];
    double[] y = new double[n];
    var r = new Random(4);
    for (int i = 0; i < n; i++) {
      x[i] = 5 * r.nextDouble();
      y[i] = 3 * x[i] + r.nextDouble() - 0.5;
    }
    Fit f = new Minimax(1).fit(new Samples(x, y));
    assertThat(f.worstError()).isBetween(0.4999, 0.5);
  }
}
