package nocking.fit;

import org.hipparchus.exception.MathRuntimeException;
import org.hipparchus.linear.Array2DRowRealMatrix;
import org.hipparchus.linear.ArrayRealVector;
import org.hipparchus.linear.QRDecomposition;

/** Least squares on columns of very different size: each is brought to length 1 first. */
final class Columns {
  private static final double SINGULAR = 1e-14;

  private Columns() {}

  /**
   * Least squares of y on columns, none of which has to stand for a constant.
   *
   * @param weights above 0
   * @return null where the columns cannot be told apart
   */
  static double[] solve(double[] y, double[] weights, double[]... columns) {
    int n = columns.length;
    double[][] rows = new double[y.length][n];
    double[] left = new double[y.length];
    for (int i = 0; i < y.length; i++) {
      double root = Math.sqrt(weights[i]);
      for (int k = 0; k < n; k++) rows[i][k] = root * columns[k][i];
      left[i] = root * y[i];
    }
    return solve(rows, left);
  }

  /**
   * @param rows one row a point, at least as many as columns; scaled in place
   * @return null where the columns cannot be told apart
   */
  static double[] solve(double[][] rows, double[] y) {
    double[] scale = scale(rows);
    try {
      double[] x =
          new QRDecomposition(new Array2DRowRealMatrix(rows, false), SINGULAR)
              .getSolver()
              .solve(new ArrayRealVector(y, false))
              .toArray();
      for (int k = 0; k < x.length; k++) x[k] /= scale[k];
      return x;
    } catch (MathRuntimeException e) {
      return null;
    }
  }

  /** Brings the columns to length 1; what each was. */
  static double[] scale(double[][] rows) {
    int n = rows[0].length;
    double[] scale = new double[n];
    for (double[] row : rows) for (int k = 0; k < n; k++) scale[k] = Math.hypot(scale[k], row[k]);
    for (int k = 0; k < n; k++) if (scale[k] == 0) scale[k] = 1;
    for (double[] row : rows) for (int k = 0; k < n; k++) row[k] /= scale[k];
    return scale;
  }
}
