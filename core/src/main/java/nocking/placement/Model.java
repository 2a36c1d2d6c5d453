package nocking.placement;

import java.util.Arrays;
import nocking.quantity.QuantityException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.QRDecomposition;
import org.hipparchus.linear.RealMatrix;

/** What is going to be fitted through the points: quantity from raw. */
public sealed interface Model {
  /** Name as it is written, {@code line}, {@code poly:3}, {@code table}. */
  String name();

  /** Fewest different places that determine it. */
  int fewest();

  /** What it leaves, fitted through points at these places. */
  Leaves leaves(Nominal n, double[] places);

  /**
   * A model by its name.
   *
   * @throws QuantityException naming those that there are
   */
  static Model named(String name) {
    if (name.equals("line")) return new Polynomial(1);
    if (name.equals("table")) return new Table();
    if (name.matches("poly:[1-9]")) return new Polynomial(name.charAt(5) - '0');
    throw new QuantityException(
        "read model '%s', expected line, poly:1 … poly:9 or table".formatted(name));
  }

  /** Least squares; a line is one of degree 1. */
  record Polynomial(int degree) implements Model {
    @Override
    public String name() {
      return degree == 1 ? "line" : "poly:" + degree;
    }

    @Override
    public int fewest() {
      return degree + 1;
    }

    @Override
    public Leaves leaves(Nominal n, double[] places) {
      if (Arrays.stream(places).distinct().count() <= degree) return Leaves.NOTHING_KNOWN;
      double a = n.raw().applyAsDouble(n.range().low());
      double b = n.raw().applyAsDouble(n.range().high());
      var x = new Array2DRowRealMatrix(places.length, degree + 1);
      var y = new ArrayRealVector(places);
      for (int i = 0; i < places.length; i++) {
        x.setRow(i, basis(n.raw().applyAsDouble(places[i]), a, b));
      }
      var qr = new QRDecomposition(x);
      double[] c = qr.getSolver().solve(y).toArray();
      RealMatrix inverseR =
          new QRDecomposition(qr.getR().getSubMatrix(0, degree, 0, degree))
              .getSolver()
              .getInverse();
      // One scatter for the fit: that of the points, in the quantity.
      double s = Arrays.stream(places).map(n::scatterAt).average().orElseThrow();
      return Leaves.worst(
          n,
          q -> {
            double[] row = basis(n.raw().applyAsDouble(q), a, b);
            double fitted = new ArrayRealVector(row).dotProduct(new ArrayRealVector(c));
            double spread = inverseR.preMultiply(new ArrayRealVector(row)).getNorm();
            return new double[] {fitted - q, Leaves.COVERAGE * s * spread};
          });
    }

    /** Chebyshev polynomials of the first kind over the range of raw. */
    private double[] basis(double raw, double a, double b) {
      double u = (2 * raw - a - b) / (b - a);
      double[] t = new double[degree + 1];
      t[0] = 1;
      if (degree > 0) t[1] = u;
      for (int i = 2; i <= degree; i++) t[i] = 2 * u * t[i - 1] - t[i - 2];
      return t;
    }
  }

  /** Straight lines from point to point; beyond the outermost nothing is known. */
  record Table() implements Model {
    @Override
    public String name() {
      return "table";
    }

    @Override
    public int fewest() {
      return 2;
    }

    @Override
    public Leaves leaves(Nominal n, double[] places) {
      double[] knots = Arrays.stream(places).sorted().distinct().toArray();
      double slack = 1e-9 * n.range().width();
      boolean covers =
          knots.length > 1
              && knots[0] <= n.range().low() + slack
              && knots[knots.length - 1] >= n.range().high() - slack;
      if (!covers) return Leaves.NOTHING_KNOWN;
      int[] at = {0};
      return Leaves.worst(
          n,
          q -> {
            while (at[0] < knots.length - 2 && q > knots[at[0] + 1]) at[0]++;
            double x0 = knots[at[0]];
            double x1 = knots[at[0] + 1];
            double r0 = n.raw().applyAsDouble(x0);
            double share = (n.raw().applyAsDouble(q) - r0) / (n.raw().applyAsDouble(x1) - r0);
            double s = Math.hypot((1 - share) * n.scatterAt(x0), share * n.scatterAt(x1));
            return new double[] {x0 + share * (x1 - x0) - q, Leaves.COVERAGE * s};
          });
    }
  }
}
