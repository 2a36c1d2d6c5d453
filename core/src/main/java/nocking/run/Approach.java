package nocking.run;

/**
 * Works out from a course of readings where it comes to rest, and how well that is known ({@link
 * CourseFit}): the uncertainty of the end holds what is not known of the time constant, so that a
 * slope that may be the beginning of a long creep leaves the end open until it bends.
 *
 * <p>A swing that repeats is fitted along. A head of the course that fits nothing of this (hands
 * that moved twice, a heater that was still on) is left aside; where nothing fits, what is left
 * over counts as noise, with its correlation. Memory and time do not grow with the readings.
 */
final class Approach {
  /** Fewest readings of which something is said. */
  static final int FEWEST = 5;

  /** Natural logarithm of the factor by which a usual lag may be off (one standard deviation). */
  private static final double USUAL_SPREAD = 0.8;

  /** The same of a lag that was seen. */
  private static final double SEEN_SPREAD = 0.2;

  /** Square of what a fit leaves over, beside its noise, above which it fits badly. */
  private static final double MISFIT = 2;

  /** Square of what a swing explains, beside the noise, that does not come by chance. */
  private static final double CLEAR = 25;

  /** Periods of a swing that have to be seen before it is taken for one. */
  private static final double PERIODS = 3;

  /** What is farther away than so many times the noise tells nothing of the end any more. */
  private static final double FAR = 40;

  /** Blocks that are looked at however far away they are, to tell a lag from. */
  private static final int LEAST = 16;

  /** Heads of the course that are left aside where the whole of it fits badly. */
  private static final double[] HEADS = {0, 0.25, 0.5, 0.7};

  /** Usual lags that what remains of a course has to be long when its head is left aside. */
  private static final double LONG = 3;

  /** One part in so many more readings, and what they tell is worked out anew. */
  private static final int AGAIN = 50;

  private final Trace trace = new Trace();
  private final Scatter scatter = new Scatter();
  private final double creep;
  private final double fine;
  private double lag;
  private double spread = USUAL_SPREAD;
  private double low;
  private double high;
  private double from = Double.NaN;
  private int looked;
  private CourseFit fit;
  private Outlook outlook = Outlook.NONE;

  /**
   * @param lag usual time constant in seconds, above 0
   * @param creep share of a step that may come much later than the rest; 0 for none
   * @param fine what need not be told apart, in the raw unit; 0 where that is not known
   */
  Approach(double lag, double creep, double fine) {
    this.lag = lag;
    this.creep = creep;
    this.fine = fine;
    forget();
  }

  /** A lag that was seen takes the place of the usual one. */
  void learn(double seen) {
    lag = seen;
    spread = SEEN_SPREAD;
  }

  /** Where the readings came from. */
  void comesFrom(double reading) {
    from = reading;
  }

  /** Begins another approach, from where the last one was. */
  void forget() {
    if (trace.size() > 0) from = trace.mean(trace.size() - 1);
    trace.forget();
    scatter.forget();
    low = Double.POSITIVE_INFINITY;
    high = Double.NEGATIVE_INFINITY;
    looked = 0;
    fit = null;
    outlook = Outlook.NONE;
  }

  void take(double t, double y) {
    scatter.take(y);
    trace.take(t, y);
    low = Math.min(low, y);
    high = Math.max(high, y);
  }

  /** What the newest readings do, over some seconds at most; of two readings or more. */
  Trace.Recent recent(double seconds) {
    return trace.recent(seconds);
  }

  /** By how much the last few readings moved beyond what they scatter; 0 for too few. */
  double strides() {
    return scatter.seen() < FEWEST ? 0 : scatter.strides(2);
  }

  /** How likely where it comes to rest is farther than some distance from a value. */
  double chance(double value, double within) {
    outlook();
    return fit == null ? 1 : fit.chance(value, within, digits(), few());
  }

  /** What the readings so far tell. */
  Outlook outlook() {
    int seen = scatter.seen();
    boolean old = seen > looked + seen / AGAIN || (looked == 0 && seen > 0);
    if (seen >= FEWEST && old) {
      looked = seen;
      outlook = look();
    }
    return outlook;
  }

  private double noise() {
    double least = 1e-7 * Math.max(high - low, 1e-3 * Math.abs(high));
    return Math.max(scatter.noise(), Math.max(least, Float.MIN_NORMAL));
  }

  /** Readings that repeat do not tell where between two digits they are. */
  private double digits() {
    return scatter.coarse() ? scatter.digit() / Math.sqrt(12) : 0;
  }

  /** A noise that is known of few readings only. */
  private double few() {
    return 1 + 2.0 / Math.max(1, scatter.size() - 3);
  }

  private double step() {
    double range = high - low;
    return Double.isNaN(from) ? range : Math.max(range, Math.abs(scatter.last() - from));
  }

  private Outlook look() {
    double sigma = noise();
    var prior = new CourseFit.Prior(lag, spread, creep, step());
    int head = head(FAR * Math.max(sigma, fine));
    double length = trace.to(trace.size() - 1) - trace.from(head);
    CourseFit best = null;
    for (double share : HEADS) {
      int begin = trace.at(trace.from(head) + share * length);
      double rest = trace.to(trace.size() - 1) - trace.from(begin);
      if (best != null && (trace.size() - begin < FEWEST || rest < LONG * lag)) break;
      CourseFit now = about(new CourseFit(trace, prior, begin, sigma, Double.NaN).finer());
      // What leaves more aside has to be clearly better.
      if (best == null || now.misfit() < 0.7 * best.misfit()) best = now;
      if (best.misfit() <= MISFIT) break;
    }
    boolean misfits = best.misfit() > MISFIT;
    fit = misfits ? best.with(sigma * Math.sqrt(best.misfit() * best.correlation())) : best;
    // Of what was left aside nobody knows why it was so.
    boolean odd = misfits || fit.length() < 0.9 * length;
    return fit.outlook(digits(), few(), odd);
  }

  /** The first block behind all that are farther from the last one than some distance. */
  private int head(double far) {
    int last = trace.size() - 1;
    int i = last;
    while (i > 0 && Math.abs(trace.mean(i - 1) - trace.mean(last)) <= far) i--;
    return Math.max(0, Math.min(i, trace.size() - LEAST));
  }

  /** About a swing, where what is left over swings. */
  private static CourseFit about(CourseFit fit) {
    if (fit.misfit() <= MISFIT) return fit;
    double period = period(fit);
    if (Double.isNaN(period)) return fit;
    CourseFit swinging = fit.swinging(period);
    return swinging.misfit() < fit.misfit() ? swinging : fit;
  }

  private static double period(CourseFit fit) {
    double length = fit.length();
    double shortest = 3 * length / Math.max(1, fit.blocks() - 1);
    double longest = length / PERIODS;
    if (!(longest > shortest)) return Double.NaN;
    int tries = (int) Math.ceil(4 * length / shortest);
    double best = 0;
    double at = Double.NaN;
    for (int k = 0; k <= tries; k++) {
      double t = 1 / (1 / longest + k * (1 / shortest - 1 / longest) / tries);
      double power = fit.power(t);
      if (power > best) {
        best = power;
        at = t;
      }
    }
    if (best <= CLEAR) return Double.NaN;
    for (double step = 0.5 * at * at / length; step > 1e-4 * at; step /= 2) {
      double up = fit.power(at + step);
      double down = fit.power(at - step);
      if (up > best || down > best) at += up > down ? step : -step;
      best = Math.max(best, Math.max(up, down));
    }
    return at;
  }
}
