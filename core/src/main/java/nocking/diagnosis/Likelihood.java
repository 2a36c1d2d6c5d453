package nocking.diagnosis;

/**
 * How well a hypothesis agrees with what was seen, at each of its degrees.
 *
 * @param log natural logarithm of the likelihood, up to a constant that all hypotheses share
 * @param misfit sum of the squared differences in standard deviations
 */
record Likelihood(double[] log, double[] misfit) {

  /** Index of the likeliest degree. */
  int best() {
    int b = 0;
    for (int i = 1; i < log.length; i++) if (log[i] > log[b]) b = i;
    return b;
  }

  /** How many degrees share the likelihood: one over the sum of the squared shares. */
  double spread() {
    double sum = 0;
    double squares = 0;
    for (double v : log) {
      double w = Math.exp(v - log[best()]);
      sum += w;
      squares += w * w;
    }
    return sum * sum / squares;
  }

  /** So many degrees at equal steps of the cumulated likelihood. */
  double[] quantiles(double[] degrees, int count) {
    double top = log[best()];
    double sum = 0;
    for (double v : log) sum += Math.exp(v - top);
    var list = new double[count];
    double below = 0;
    int next = 0;
    for (int i = 0; i < degrees.length && next < count; i++) {
      below += Math.exp(log[i] - top) / sum;
      while (next < count && below >= (next + 0.5) / count - 1e-12) list[next++] = degrees[i];
    }
    while (next < count) list[next++] = degrees[degrees.length - 1];
    return list;
  }
}
