package nocking.run;

import java.math.BigDecimal;
import java.math.MathContext;
import java.util.Arrays;

/**
 * The newest readings of a channel, by themselves: how they scatter, in which digits they come, and
 * whether the instrument still looks.
 */
final class Scatter {
  private static final int RECENT = 32;

  /** Median of the absolute value of what is normal with a standard deviation of 1. */
  private static final double NORMAL_MEDIAN = 0.6745;

  /** Readings in a row that are the same to the last digit before that is odd. */
  private static final int REPEATS = 5;

  /** Digits by which a reading moves or scatters that does not repeat by chance. */
  private static final double STRIDE = 5;

  private static final double CHANCE = 1e-4;

  /** Significant digits behind which a number has been worked out and was not read. */
  private static final MathContext READ = new MathContext(10);

  private final double[] recent = new double[RECENT];
  private int seen;
  private int decimals = Integer.MIN_VALUE;
  private double coarse;
  private boolean frozen;

  void take(double y) {
    frozen &= seen > 0 && y == last();
    recent[seen % RECENT] = y;
    seen++;
    if (y != 0) {
      int scale = BigDecimal.valueOf(y).round(READ).stripTrailingZeros().scale();
      decimals = Math.max(decimals, scale);
    }
    digits();
    frozen |= stopsDead();
  }

  /** Begins another approach; in which digits the readings come is still known. */
  void forget() {
    seen = 0;
    frozen = false;
  }

  int seen() {
    return seen;
  }

  double last() {
    return recent[(seen + RECENT - 1) % RECENT];
  }

  /** Readings that are looked at. */
  int size() {
    return Math.min(seen, RECENT);
  }

  /** How much the newest reading but some differs from the one before it. */
  private double change(int back) {
    return recent[(seen - 1 - back) % RECENT] - recent[(seen - 2 - back) % RECENT];
  }

  /**
   * Step in which the readings come: that of their last digit, or a larger one of which all their
   * changes are multiples.
   */
  double digit() {
    return Math.max(coarse, decimals == Integer.MIN_VALUE ? 0 : Math.pow(10, -decimals));
  }

  /** Looks whether all changes are multiples of the smallest one: then that is the digit. */
  private void digits() {
    double least = Double.POSITIVE_INFINITY;
    for (int i = 0; i < size() - 1; i++) {
      double d = Math.abs(change(i));
      if (d > 0) least = Math.min(least, d);
    }
    if (!Double.isFinite(least)) return;
    int multiples = 0;
    for (int i = 0; i < size() - 1; i++) {
      double d = Math.abs(change(i)) / least;
      if (Math.abs(d - Math.rint(d)) > 0.05) {
        coarse = 0;
        return;
      }
      if (d > 0) multiples++;
    }
    // Three changes that are multiples by chance: less than one in a thousand.
    if (multiples >= 3) coarse = least;
  }

  /** True where most readings repeat the one before. */
  boolean coarse() {
    int repeats = 0;
    for (int i = 0; i < size() - 1; i++) if (change(i) == 0) repeats++;
    return 2 * repeats > size();
  }

  /**
   * Standard deviation of one reading, from second differences: a course hardly counts in them, and
   * in their median a jump does not. At least that of the digits.
   */
  double noise() {
    int n = size() - 2;
    double[] second = new double[n];
    double sum = 0;
    boolean repeats = false;
    for (int i = 0; i < n; i++) {
      second[i] = Math.abs(change(i) - change(i + 1));
      sum += second[i] * second[i];
      repeats |= change(i) == 0;
    }
    Arrays.sort(second);
    double all = Math.sqrt(sum / (6.0 * n));
    double typical = second[n / 2] / (NORMAL_MEDIAN * Math.sqrt(6));
    double sigma = Math.min(all, 1.15 * typical);
    return repeats ? Math.max(sigma, digit() / Math.sqrt(12)) : sigma;
  }

  /**
   * True when the readings repeat to the last digit although they were just moving or scattering by
   * several digits each: an instrument that no longer looks. One that comes to rest slows down
   * first; one with coarse digits has always repeated.
   */
  boolean frozen() {
    return frozen;
  }

  /** By how much the mean of the newest readings is from that of as many before, less its noise. */
  double strides(int few) {
    double now = 0;
    double before = 0;
    for (int i = 1; i <= few; i++) {
      now += recent[(seen - i) % RECENT];
      before += recent[(seen - few - i) % RECENT];
    }
    return Math.abs(now - before) / few - 4 * noise() / Math.sqrt(few);
  }

  private boolean stopsDead() {
    int n = size();
    int run = 0;
    while (run < n - 1 && change(run) == 0) run++;
    if (run < REPEATS || n - run < 3) return false;
    double after = Math.abs(change(run));
    double before = Math.abs(change(run + 1));
    double stride = STRIDE * digit();
    boolean turned = change(run) * change(run + 1) < 0;
    // One that slows down ever more steeply is at rest; one that does so once was caught by chance.
    boolean steep = before > 8 * after && (n - run < 4 || Math.abs(change(run + 2)) > 3 * before);
    if (after >= stride && before >= stride && (turned || !steep)) return true;
    int changes = n - 1 - run;
    int same = 0;
    int turns = 0;
    for (int i = run; i < n - 1; i++) {
      if (change(i) == 0) same++;
      if (i > run && change(i) * change(i - 1) < 0) turns++;
    }
    boolean scattered = changes >= 8 && 4 * turns >= changes;
    return scattered && Math.pow((same + 1.0) / (changes + 2), run) < CHANCE;
  }
}
