package nocking.diagnosis;

/**
 * Readings that are independent but for departures which they have in common, such as that of the
 * sensor and that of the supply, each standard normal.
 *
 * <p>Covariance D + Σ s·sᵀ by the matrix determinant lemma and Woodbury's identity: the small
 * matrix I + SᵀD⁻¹S by Cholesky's factors.
 */
final class JointResidual {
  private final int common;
  private final double[] cross;

  /** Lower triangle of I + SᵀD⁻¹S, row by row. */
  private final double[] products;

  private double squares;
  private double log;

  JointResidual(int common) {
    this.common = common;
    cross = new double[common];
    products = new double[common * (common + 1) / 2];
    for (int a = 0, k = 0; a < common; a++) {
      k += a;
      products[k++] = 1;
    }
  }

  /**
   * Adds a reading.
   *
   * @param off from its prediction, in the reading's unit
   * @param sigma its own standard uncertainty
   * @param departures what one standard deviation of each common departure makes of it; one that is
   *     not a number counts as none
   */
  void add(double off, double sigma, double... departures) {
    double r = Math.clamp(off / sigma, -ReadingModel.FAR, ReadingModel.FAR);
    squares += r * r;
    log -= Math.log(sigma);
    for (int a = 0, k = 0; a < common; a++) {
      double s = share(departures[a], sigma);
      cross[a] += r * s;
      for (int b = 0; b <= a; b++) products[k++] += s * share(departures[b], sigma);
    }
  }

  private static double share(double departure, double sigma) {
    return Double.isNaN(departure) ? 0 : departure / sigma;
  }

  /** Adds a reading of which no more than its density is known. */
  void addDensity(double logDensity) {
    log += logDensity;
  }

  /** Adds a reading that there cannot be. */
  void addImpossible(double logDensity) {
    log += logDensity;
    squares -= 2 * logDensity;
  }

  /**
   * What is left when the departures have taken up what they can.
   *
   * @param log logarithm of the density, the departures integrated over
   * @param misfit sum of the squared differences in standard deviations
   * @param departures the likeliest, in standard deviations
   * @param halfLog half the logarithm of the determinant of the small matrix: how much narrower the
   *     readings make the departures
   */
  record Settled(double log, double misfit, double[] departures, double halfLog) {}

  Settled settled() {
    var l = new double[common][common];
    var y = new double[common];
    double half = 0;
    double explained = 0;
    for (int a = 0, k = 0; a < common; a++) {
      for (int b = 0; b <= a; b++, k++) {
        double sum = products[k];
        for (int c = 0; c < b; c++) sum -= l[a][c] * l[b][c];
        l[a][b] = a == b ? Math.sqrt(sum) : sum / l[b][b];
      }
      double right = cross[a];
      for (int c = 0; c < a; c++) right -= l[a][c] * y[c];
      y[a] = right / l[a][a];
      explained += y[a] * y[a];
      half += Math.log(l[a][a]);
    }
    double misfit = Math.max(0, squares - explained);
    for (int a = common - 1; a >= 0; a--) {
      for (int c = a + 1; c < common; c++) y[a] -= l[c][a] * y[c];
      y[a] /= l[a][a];
    }
    return new Settled(log - half - 0.5 * misfit, misfit, y, half);
  }
}
