package nocking.network;

/**
 * Gaussian elimination with scaled partial pivoting. Circuits of a channel have some twenty
 * unknowns and the fault matrix solves thousands of them, so that a general library's checks and
 * copies would cost more than the work.
 */
final class Elimination {
  private static final double SINGULAR = 1e-14;

  private Elimination() {}

  /**
   * @param m n rows of n coefficients and the right-hand side; used up
   * @return the unknowns; null when the matrix is singular to working precision
   */
  static double[] solve(double[][] m) {
    int n = m.length;
    var scale = new double[n];
    for (int i = 0; i < n; i++) {
      for (int j = 0; j < n; j++) scale[i] = Math.max(scale[i], Math.abs(m[i][j]));
      if (scale[i] == 0) return null;
    }
    for (int k = 0; k < n; k++) {
      int best = k;
      for (int i = k + 1; i < n; i++) {
        if (Math.abs(m[i][k]) / scale[i] > Math.abs(m[best][k]) / scale[best]) best = i;
      }
      if (Math.abs(m[best][k]) <= SINGULAR * scale[best]) return null;
      swap(m, scale, k, best);
      double[] pivot = m[k];
      for (int i = k + 1; i < n; i++) {
        double[] row = m[i];
        if (row[k] == 0) continue;
        double factor = row[k] / pivot[k];
        for (int j = k + 1; j <= n; j++) row[j] -= factor * pivot[j];
      }
    }
    var x = new double[n];
    for (int i = n - 1; i >= 0; i--) {
      double sum = m[i][n];
      for (int j = i + 1; j < n; j++) sum -= m[i][j] * x[j];
      x[i] = sum / m[i][i];
    }
    return x;
  }

  private static void swap(double[][] m, double[] scale, int a, int b) {
    double[] row = m[a];
    m[a] = m[b];
    m[b] = row;
    double s = scale[a];
    scale[a] = scale[b];
    scale[b] = s;
  }
}
