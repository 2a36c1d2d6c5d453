package nocking.run;

import java.util.Arrays;
import java.util.TreeSet;

/**
 * A stretch of a trace against every course that comes to rest: {@code c + Σ aᵢ·e^(−t/τᵢ)} with
 * none, one or two time constants, with or without a swing.
 *
 * <p>Time constants are not chosen: each of a logarithmic row is a model of its own, linear in c
 * and a, and counts by its marginal likelihood with normal priors (Bishop, Pattern Recognition and
 * Machine Learning, 2006, eqs. 3.53, 3.54 and 3.86). What is said of the end is therefore a mixture
 * of normal distributions, one for each model.
 */
final class CourseFit {
  /** Time constants in the coarse row. */
  private static final int LAGS = 22;

  /** Steps in one of the coarse row about time constants that are looked at more finely. */
  private static final int FINER = 3;

  /** Longest time constant that is reckoned with, in seconds, whatever the usual one. */
  private static final double LONGEST = 600;

  private static final double NOTHING_MOVES = 0.1;
  private static final double ONE_LAG = 0.45;
  private static final double TWO_LAGS = 0.2;

  /** Of two lags behind one another the slower is at most so much slower. */
  private static final double NEIGHBOURS = 12;

  /** A creep is at least so much slower than what it follows. */
  private static final double CREEPS = 3;

  /** Share of the likeliest model below which one does not count. */
  private static final double NEGLIGIBLE = 1e-5;

  /** Share of a swing that is not known of its middle after one period. */
  private static final double SWING_DOUBT = 0.8;

  /** Share of what is still to come that no model tells. */
  private static final double MODEL_DOUBT = 0.07;

  private static final double TWO_SIGMA = 0.9545;

  /**
   * What is known before anything was read.
   *
   * @param lag usual time constant in seconds
   * @param spread natural logarithm of the factor by which it may be off
   * @param creep share of a step that may come much later than the rest; 0 for none
   * @param step size of the step that was made
   */
  record Prior(double lag, double spread, double creep, double step) {}

  /** A model that counts: how likely, and where it has the end. */
  private record Component(double log, double mean, double deviation) {}

  private final Trace trace;
  private final Prior prior;
  private final int from;
  private final double sigma;
  private final double period;
  private final int swings;
  private final double zero;
  private final double now;
  private final double origin;
  private final double[] lags;
  private final double[] widths;
  private final double[][] columns;
  private final double[] weights;
  private final double[] y;
  private final double[][] gram;
  private final double[] onto;
  private final double square;
  private double range;

  private Component[] components = new Component[64];
  private int size;
  private double best = Double.NEGATIVE_INFINITY;
  private int[] likeliest = {};
  private double[] solution = {};
  private double total;
  private double end;
  private double here;
  private double lagWeight;
  private double logLag;

  /**
   * @param from first block that is looked at
   * @param sigma standard deviation of one reading, above 0
   * @param period of a swing, in seconds; NaN for none
   * @param around time constants about which others are looked at more finely
   */
  CourseFit(Trace trace, Prior prior, int from, double sigma, double period, double... around) {
    this.trace = trace;
    this.prior = prior;
    this.from = from;
    this.sigma = sigma;
    this.period = period;
    swings = Double.isNaN(period) ? 0 : 2;
    zero = trace.from(from);
    int last = trace.size() - 1;
    now = trace.to(last) - zero;
    origin = trace.mean(last);
    int n = trace.size() - from;
    lags = row(now / Math.max(1, trace.readings(from) - 1), around);
    widths = widths(lags);
    weights = new double[n];
    y = new double[n];
    columns = new double[lags.length + swings + 1][n];
    fill();
    gram = new double[columns.length][columns.length];
    onto = new double[columns.length];
    double yy = 0;
    for (int i = 0; i < n; i++) yy += weights[i] * y[i] * y[i];
    square = yy;
    for (int p = 0; p < columns.length; p++) {
      onto[p] = product(columns[p], y);
      for (int q = 0; q <= p; q++) gram[p][q] = gram[q][p] = product(columns[p], columns[q]);
    }
    weigh();
  }

  private double[] row(double gap, double... around) {
    // A usual lag that is far too long must not hide a fast one.
    double shortest = Math.max(gap / 3, Math.min(prior.lag / 12, now / 8));
    double longest = Math.max(LONGEST, 12 * prior.lag);
    double cell = Math.log(longest / shortest) / (LAGS - 1);
    var all = new TreeSet<Double>();
    for (int k = 0; k < LAGS; k++) all.add(shortest * Math.exp(k * cell));
    for (double a : around) {
      for (int i = -FINER; i <= FINER; i++) all.add(a * Math.exp(i * cell / FINER));
    }
    return all.stream().mapToDouble(v -> v).toArray();
  }

  /** How much of the logarithm of all time constants each stands for. */
  private static double[] widths(double... lags) {
    int n = lags.length;
    double[] w = new double[n];
    for (int k = 0; k < n; k++) {
      double below = lags[Math.max(0, k - 1)];
      double above = lags[Math.min(n - 1, k + 1)];
      w[k] = Math.log(above / below) / (k == 0 || k == n - 1 ? 1 : 2);
    }
    return w;
  }

  private void fill() {
    for (int i = 0; i < y.length; i++) {
      int b = from + i;
      weights[i] = trace.count(b);
      y[i] = trace.mean(b) - origin;
      range = Math.max(range, Math.abs(y[i]));
      for (int k = 0; k < lags.length; k++) columns[k][i] = trace.decay(b, zero, lags[k]);
      if (swings > 0) {
        columns[lags.length][i] = trace.swing(b, zero, period, true);
        columns[lags.length + 1][i] = trace.swing(b, zero, period, false);
      }
      columns[columns.length - 1][i] = 1;
    }
    range = 2 * Math.max(range, sigma);
  }

  private double product(double[] a, double[] b) {
    double s = 0;
    for (int i = 0; i < a.length; i++) s += weights[i] * a[i] * b[i];
    return s;
  }

  private void weigh() {
    double[] usual = new double[lags.length];
    double sum = 0;
    for (int k = 0; k < lags.length; k++) {
      double d = Math.log(lags[k] / prior.lag) / prior.spread;
      // Tails are heavy: a lag far from the usual one is rare, not impossible.
      usual[k] = widths[k] * Math.pow(1 + d * d / 4, -2.5);
      sum += usual[k];
    }
    double creeping = 1 - NOTHING_MOVES - ONE_LAG - TWO_LAGS;
    double step = prior.creep * Math.max(prior.step, sigma);
    model(NOTHING_MOVES, range);
    for (int k = 0; k < lags.length; k++) {
      double likely = usual[k] / sum;
      model(ONE_LAG * likely, range, k);
      double near = 0;
      double far = 0;
      for (int l = k + 1; l < lags.length; l++) {
        if (lags[l] < NEIGHBOURS * lags[k]) near += widths[l];
        if (lags[l] > CREEPS * lags[k]) far += widths[l];
      }
      for (int l = k + 1; l < lags.length; l++) {
        boolean neighbours = lags[l] < NEIGHBOURS * lags[k];
        if (neighbours) model(TWO_LAGS * likely * widths[l] / near, range, k, l);
        boolean slow = step > 0 && lags[l] > CREEPS * lags[k];
        if (slow) model(creeping * likely * widths[l] / far, step, k, l);
      }
    }
    end /= total;
    here /= total;
  }

  /**
   * One model.
   *
   * @param likely how likely it is before anything was read
   * @param latest how large the part of the last time constant may be
   * @param which time constants
   */
  private void model(double likely, double latest, int... which) {
    int p = which.length + swings + 1;
    int[] at = new int[p];
    double[] precision = new double[p];
    for (int i = 0; i < p; i++) {
      at[i] = i < which.length ? which[i] : columns.length - p + i;
      double scale = i == which.length - 1 ? latest : range;
      precision[i] = i == p - 1 ? 0 : 1 / (scale * scale);
    }
    double inverse = 1 / (sigma * sigma);
    double[][] a = new double[p][p];
    double[] m = new double[p];
    double log = Math.log(likely) - 0.5 * square * inverse;
    for (int i = 0; i < p; i++) {
      m[i] = onto[at[i]] * inverse;
      for (int j = 0; j <= i; j++) a[i][j] = gram[at[i]][at[j]] * inverse;
      a[i][i] += precision[i];
      if (precision[i] > 0) log += 0.5 * Math.log(precision[i]);
    }
    if (!decompose(a)) return;
    for (int i = 0; i < p; i++) {
      for (int k = 0; k < i; k++) m[i] -= a[i][k] * m[k];
      m[i] /= a[i][i];
      log += 0.5 * m[i] * m[i] - Math.log(a[i][i]);
    }
    if (log > best) leads(log, at);
    double weight = Math.exp(log - best);
    if (weight < NEGLIGIBLE) return;
    for (int i = p - 1; i >= 0; i--) {
      for (int k = i + 1; k < p; k++) m[i] -= a[k][i] * m[k];
      m[i] /= a[i][i];
    }
    if (weight == 1) solution = m;
    double c = m[p - 1];
    double course = c;
    int main = 0;
    for (int i = 0; i < which.length; i++) {
      course += m[i] * Math.exp(-now / lags[which[i]]);
      if (Math.abs(m[i]) > Math.abs(m[main])) main = i;
    }
    total += weight;
    end += weight * c;
    here += weight * course;
    if (which.length > 0) {
      lagWeight += weight;
      logLag += weight * Math.log(lags[which[main]]);
    }
    if (size == components.length) components = Arrays.copyOf(components, 2 * size);
    // The constant stands last: its variance is that of the last row alone.
    components[size++] = new Component(log, c, 1 / a[p - 1][p - 1]);
  }

  private void leads(double log, int... at) {
    double fade = Math.exp(best - log);
    total *= fade;
    end *= fade;
    here *= fade;
    lagWeight *= fade;
    logLag *= fade;
    best = log;
    likeliest = at;
  }

  /** Cholesky decomposition of the lower half, in place; false for what is not positive. */
  private static boolean decompose(double[]... a) {
    for (int j = 0; j < a.length; j++) {
      double d = a[j][j];
      for (int k = 0; k < j; k++) d -= a[j][k] * a[j][k];
      if (!(d > 1e-14 * a[j][j])) return false;
      a[j][j] = Math.sqrt(d);
      for (int i = j + 1; i < a.length; i++) {
        for (int k = 0; k < j; k++) a[i][j] -= a[i][k] * a[j][k];
        a[i][j] /= a[j][j];
      }
    }
    return true;
  }

  /** Looks more finely where the row of time constants is coarser than what the readings tell. */
  CourseFit finer() {
    int own = Math.max(0, likeliest.length - swings - 1);
    if (own == 0 || total > 5) return this;
    double[] around = new double[own];
    for (int i = 0; i < own; i++) around[i] = lags[likeliest[i]];
    return new CourseFit(trace, prior, from, sigma, period, around);
  }

  /** The same with another noise. */
  CourseFit with(double noise) {
    return new CourseFit(trace, prior, from, noise, period);
  }

  /** The same about a swing. */
  CourseFit swinging(double seconds) {
    return new CourseFit(trace, prior, from, sigma, seconds).finer();
  }

  private double residual(int i) {
    double r = y[i];
    for (int p = 0; p < likeliest.length; p++) r -= solution[p] * columns[likeliest[p]][i];
    return r;
  }

  /**
   * Square of what the likeliest course leaves over, beside that of the noise: at most about 1 for
   * a fit, however few the blocks.
   */
  double misfit() {
    double sum = 0;
    for (int i = 0; i < y.length; i++) sum += weights[i] * residual(i) * residual(i);
    int free = Math.max(1, y.length - likeliest.length);
    return sum / (sigma * sigma) / free / (1 + 2 * Math.sqrt(2.0 / free));
  }

  /**
   * By how much readings in a row tell less than as many that know nothing of each other: (1 + r) /
   * (1 − r) with the correlation r of neighbours.
   */
  double correlation() {
    double cross = 0;
    double own = 0;
    for (int i = 1; i < y.length; i++) {
      cross += residual(i) * residual(i - 1);
      own += residual(i) * residual(i);
    }
    double r = own == 0 ? 0 : Math.clamp(cross / own, 0, 0.95);
    return (1 + r) / (1 - r);
  }

  /** Seconds that are looked at. */
  double length() {
    return now;
  }

  int blocks() {
    return y.length;
  }

  /** How much of what is left over a swing explains, in squares of the noise. */
  double power(double seconds) {
    double ss = 0;
    double cc = 0;
    double sc = 0;
    double ys = 0;
    double yc = 0;
    for (int i = 0; i < y.length; i++) {
      double s = trace.swing(from + i, zero, seconds, true);
      double c = trace.swing(from + i, zero, seconds, false);
      double r = weights[i] * residual(i);
      ss += weights[i] * s * s;
      cc += weights[i] * c * c;
      sc += weights[i] * s * c;
      ys += r * s;
      yc += r * c;
    }
    double det = ss * cc - sc * sc;
    if (!(det > 1e-9 * ss * cc)) return 0;
    return (ys * ys * cc - 2 * ys * yc * sc + yc * yc * ss) / det / (sigma * sigma);
  }

  private double swing() {
    if (swings == 0) return 0;
    int p = solution.length;
    return Math.hypot(solution[p - 2], solution[p - 3]);
  }

  /**
   * What no model holds: that a course is not quite as it is thought, and how long a period is,
   * which is known the better the more of them were seen.
   */
  private double doubt(double digits, double toCome) {
    double swinging = swings == 0 ? 0 : SWING_DOUBT * swing() * period / now;
    return Math.hypot(Math.hypot(digits, swinging), MODEL_DOUBT * toCome);
  }

  /**
   * @param digits what the digits of the readings leave open, as a standard deviation
   * @param few by how much more than that of many readings the uncertainty of few is
   */
  Outlook outlook(double digits, double few, boolean odd) {
    double error = Math.hypot(half() / 2 * few, doubt(digits, end - here));
    double lag = lagWeight > 0.5 * total ? Math.exp(logLag / lagWeight) : Double.NaN;
    return new Outlook(origin + here, origin + end, error, lag, sigma, swing(), period, odd);
  }

  /** Half of the interval about the end that holds it with the probability of two sigma. */
  private double half() {
    double a = 0;
    double b = 0;
    for (int i = 0; i < size; i++) {
      b = Math.max(b, Math.abs(components[i].mean - end) + 4 * components[i].deviation);
    }
    for (int round = 0; round < 14; round++) {
      double x = (a + b) / 2;
      if (outside(end, x, 1, 0) > 1 - TWO_SIGMA) a = x;
      else b = x;
    }
    return b;
  }

  /** How likely the end is farther than some distance from a reading. */
  double chance(double reading, double within, double digits, double few) {
    double value = reading - origin;
    return outside(value, within, few, doubt(digits, end - value));
  }

  private double outside(double value, double within, double times, double more) {
    double out = 0;
    for (int i = 0; i < size; i++) {
      Component c = components[i];
      double weight = Math.exp(c.log - best);
      if (weight < NEGLIGIBLE) continue;
      double e = Math.hypot(c.deviation * times, more);
      double d = c.mean - value;
      out += weight * (normal((-within - d) / e) + normal((d - within) / e));
    }
    return out / total;
  }

  /** Normal distribution function, within 1.4e-4 (Bowling et al., J. Ind. Eng. Manag. 2 (2009)). */
  private static double normal(double z) {
    return 1 / (1 + Math.exp(-z * (1.5976 + 0.07056 * z * z)));
  }
}
