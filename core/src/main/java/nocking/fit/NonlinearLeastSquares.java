package nocking.fit;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleUnaryOperator;
import nocking.algebra.Calculus;
import nocking.algebra.Compiled;
import nocking.algebra.Expr;
import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.QRDecomposition;
import org.hipparchus.linear.RealMatrix;
import org.hipparchus.linear.RealVector;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LeastSquaresBuilder;
import org.hipparchus.optim.nonlinear.vector.leastsquares.LevenbergMarquardtOptimizer;
import org.hipparchus.util.Pair;

/**
 * Least squares of an equation in which constants do not stand linear: the iteration is that of
 * Levenberg and Marquardt in Hipparchus, with the derivatives of the equation itself; a few steps
 * of Gauss and Newton with scaled columns bring the last digits.
 */
final class NonlinearLeastSquares {
  private static final int EVALUATIONS = 400;

  /** How many of the starts are gone on from: those that leave least. */
  private static final int TRIED = 3;

  private static final int POLISHING = 12;
  private static final double SINGULAR = 1e-14;

  private final Expr equation;
  private final List<String> names;
  private final List<Expr> derivatives;
  private final Samples samples;

  /**
   * @param names the constants that are fitted; every other symbol but the raw value has a number
   */
  NonlinearLeastSquares(Expr equation, List<String> names, Samples samples) {
    this.equation = equation;
    this.names = names;
    this.samples = samples;
    derivatives = names.stream().map(n -> Calculus.derivative(equation, n)).toList();
  }

  /**
   * Constants and what is left by them.
   *
   * @param values of the constants, in the order of their names
   * @param squares Σwe²
   */
  record Found(double[] values, double squares) {}

  /** The best that comes of several starts; null where none leads anywhere. */
  Found best(List<double[]> starts) {
    List<double[]> promising =
        starts.stream()
            .filter(p -> Double.isFinite(squares(p)))
            .sorted(Comparator.comparingDouble(this::squares))
            .limit(TRIED)
            .toList();
    Found best = null;
    for (double[] start : promising) {
      Found f = from(start);
      if (f != null && (best == null || f.squares < best.squares)) best = f;
    }
    return best;
  }

  private Found from(double[] start) {
    double[] target = new double[samples.size()];
    for (int i = 0; i < target.length; i++) target[i] = root(i) * samples.quantity()[i];
    try {
      var problem =
          new LeastSquaresBuilder()
              .start(start)
              .target(target)
              .model(this::modelled)
              .lazyEvaluation(false)
              .maxEvaluations(EVALUATIONS)
              .maxIterations(EVALUATIONS)
              .build();
      double[] p = new LevenbergMarquardtOptimizer().optimize(problem).getPoint().toArray();
      return polished(p);
    } catch (MathRuntimeException e) {
      // A start that leads nowhere is one of several.
      return null;
    }
  }

  private double root(int i) {
    return Math.sqrt(samples.weights()[i]);
  }

  private Map<String, Double> named(double[] p) {
    var constants = new HashMap<String, Double>();
    for (int k = 0; k < p.length; k++) constants.put(names.get(k), p[k]);
    return constants;
  }

  private double[] values(Map<String, Double> constants) {
    DoubleUnaryOperator f = Compiled.of(equation, Curve.RAW, constants);
    double[] y = new double[samples.size()];
    for (int i = 0; i < y.length; i++) y[i] = root(i) * f.applyAsDouble(samples.raw()[i]);
    return y;
  }

  private double[][] jacobian(Map<String, Double> constants) {
    double[][] j = new double[samples.size()][names.size()];
    for (int k = 0; k < names.size(); k++) {
      DoubleUnaryOperator d = Compiled.of(derivatives.get(k), Curve.RAW, constants);
      for (int i = 0; i < j.length; i++) j[i][k] = root(i) * d.applyAsDouble(samples.raw()[i]);
    }
    return j;
  }

  private Pair<RealVector, RealMatrix> modelled(RealVector point) {
    Map<String, Double> constants = named(point.toArray());
    double[] y = values(constants);
    double[][] j = jacobian(constants);
    // Where the equation has no value the step was too far: an error that cannot be preferred.
    for (int i = 0; i < y.length; i++) {
      if (!Double.isFinite(y[i])) y[i] = 1e150;
      for (int k = 0; k < j[i].length; k++) if (!Double.isFinite(j[i][k])) j[i][k] = 0;
    }
    return new Pair<>(new ArrayRealVector(y, false), new Array2DRowRealMatrix(j, false));
  }

  private double squares(double[] p) {
    double[] y = values(named(p));
    double sum = 0;
    for (int i = 0; i < y.length; i++) {
      double e = y[i] - root(i) * samples.quantity()[i];
      sum += e * e;
    }
    return sum;
  }

  /** A few steps of Gauss and Newton; null where the equation has no value. */
  Found polished(double[] start) {
    double[] p = start;
    double squares = squares(p);
    if (!Double.isFinite(squares)) return null;
    for (int step = 0; step < POLISHING; step++) {
      double[] move = gaussNewton(p);
      if (move == null) break;
      double[] next = p.clone();
      double relative = 0;
      for (int k = 0; k < next.length; k++) {
        next[k] += move[k];
        relative = Math.max(relative, Math.abs(move[k]) / Math.max(Math.abs(p[k]), 1e-300));
      }
      double then = squares(next);
      // At the bottom the sum stands still within rounding while the constants still improve.
      if (!(then <= squares * (1 + 1e-9))) break;
      p = next;
      squares = Math.min(squares, then);
      if (relative < 1e-15) break;
    }
    return new Found(p, squares(p));
  }

  private double[] gaussNewton(double[] p) {
    Map<String, Double> constants = named(p);
    double[][] j = jacobian(constants);
    double[] y = values(constants);
    double[] left = new double[y.length];
    for (int i = 0; i < y.length; i++) left[i] = root(i) * samples.quantity()[i] - y[i];
    return Columns.solve(j, left);
  }

  /** (JᵀWJ)⁻¹·s², with the scaled columns; null where the constants cannot be told apart. */
  double[][] covariance(double[] p, double variance) {
    double[][] j = jacobian(named(p));
    double[] scale = Columns.scale(j);
    RealMatrix m = new Array2DRowRealMatrix(j, false);
    try {
      RealMatrix r =
          new QRDecomposition(m, SINGULAR).getR().getSubMatrix(0, p.length - 1, 0, p.length - 1);
      RealMatrix inverse = new QRDecomposition(r, SINGULAR).getSolver().getInverse();
      double[][] c = inverse.multiplyTransposed(inverse).getData();
      for (int a = 0; a < p.length; a++) {
        for (int b = 0; b < p.length; b++) c[a][b] *= variance / (scale[a] * scale[b]);
      }
      return c;
    } catch (MathRuntimeException e) {
      return null;
    }
  }

  /** gᵀ·C·g with g the derivatives at a raw value. */
  DoubleUnaryOperator standardError(double[] p, double[][] covariance) {
    Map<String, Double> constants = named(p);
    List<DoubleUnaryOperator> d =
        derivatives.stream().map(e -> Compiled.of(e, Curve.RAW, constants)).toList();
    return v -> {
      double[] g = d.stream().mapToDouble(f -> f.applyAsDouble(v)).toArray();
      double sum = 0;
      for (int a = 0; a < g.length; a++) {
        for (int b = 0; b < g.length; b++) sum += g[a] * covariance[a][b] * g[b];
      }
      return Math.sqrt(Math.max(0, sum));
    };
  }

  /** Leverages of the equation made straight at its constants. */
  double[] leverages(double[] p) {
    double[][] j = jacobian(named(p));
    Columns.scale(j);
    // Rows of Q are those of J through R: the whole of Q would have a column for each point.
    RealMatrix r =
        new QRDecomposition(new Array2DRowRealMatrix(j, false))
            .getR()
            .getSubMatrix(0, p.length - 1, 0, p.length - 1);
    double[] h = new double[j.length];
    double[] q = new double[p.length];
    for (int i = 0; i < h.length; i++) {
      for (int k = 0; k < q.length; k++) {
        double sum = j[i][k];
        for (int m = 0; m < k; m++) sum -= r.getEntry(m, k) * q[m];
        q[k] = sum / r.getEntry(k, k);
        h[i] += q[k] * q[k];
      }
    }
    return h;
  }
}
