package nocking.run;

import java.util.function.DoubleFunction;
import nocking.quantity.Numbers;

/**
 * The readings of one channel as they come, and whether they have settled. What is looked at is a
 * window that moves with them; memory is that of the window, time is the same for every reading.
 *
 * <p>Slope and scatter come from the least-squares line through the window (sums are kept about its
 * first reading and made anew each time the window has passed once, so that nothing builds up).
 */
public final class Settling {
  /** Standard errors of the slope that count as movement. */
  static final double CAUTION = 2;

  /** Fewest readings of which a slope and a scatter are taken. */
  static final int FEWEST = 5;

  /** Share of the distance that is left over which need not be told apart. */
  private static final double FINE = 0.02;

  /** Seconds that are taken for the lag where a rule says nothing of it. */
  private static final double UNKNOWN_LAG = 10;

  /** Chance that a point is farther from its end than its rule allows. */
  private static final double WRONG = 0.015;

  /** What is said of readings that stop dead. */
  static final String HANGS =
      "it repeats to the last digit although it moved or scattered before, as of a meter that hangs";

  private static final double USUAL_WINDOW = 30;

  /** Usual lags from which on a movement is called a drift. */
  private static final double DRIFTS = 10;

  private static final int START = 64;
  private static final double MILLISECONDS = 1e-3;

  private final SettleRule rule;
  private double[] times = new double[START];
  private double[] values = new double[START];
  private int first;
  private int size;
  private long began = Long.MIN_VALUE;
  private double last;
  private boolean byHand;
  private int sinceSums;
  private double originT;
  private double originY;
  private double sumT;
  private double sumY;
  private double sumTT;
  private double sumTY;
  private double sumYY;
  private final DoubleFunction<String> amount;
  private final Approach approach;
  private final Scatter digits = new Scatter();

  public Settling(SettleRule rule) {
    this(rule, v -> Numbers.significant(v, 2));
  }

  /**
   * @param amount an amount of the readings in words, with its unit
   */
  Settling(SettleRule rule, DoubleFunction<String> amount) {
    this.rule = rule;
    this.amount = amount;
    approach =
        rule instanceof SettleRule.Rest r
            ? new Approach(r.lag(), r.creep(), FINE * r.within())
            : new Approach(UNKNOWN_LAG, 0, 0);
  }

  /** Where the readings were at the set point before. */
  void comesFrom(double reading) {
    approach.comesFrom(reading);
  }

  /** A lag that was seen at another set point takes the place of the usual one. */
  void learn(double lag) {
    approach.learn(lag);
  }

  /** Seconds of readings that are kept. */
  private double window() {
    return rule instanceof SettleRule.Stable s ? s.window() : USUAL_WINDOW;
  }

  /**
   * Takes a reading.
   *
   * @param at milliseconds since 1970; a reading that is not later than the one before begins anew,
   *     for a clock was set back
   * @param value finite; anything else is no reading and begins anew
   */
  public void take(long at, double value) {
    take(at, value, value);
  }

  /**
   * Takes a reading.
   *
   * @param still what it would be if the reference did not move
   */
  void take(long at, double value, double still) {
    double t = at * MILLISECONDS;
    if (!Double.isFinite(value)) {
      forget();
      return;
    }
    if (size > 0 && t <= last) forget();
    if (began == Long.MIN_VALUE) began = at;
    last = t;
    push(t, value);
    while (size > 1 && t - times[at(0)] > window() + MILLISECONDS / 2) drop();
    if (sinceSums >= size) sums();
    digits.take(value);
    approach.take(t, still);
  }

  /** Begins anew, as for another set point. */
  public void forget() {
    first = 0;
    size = 0;
    began = Long.MIN_VALUE;
    byHand = false;
    sinceSums = 0;
    digits.forget();
    approach.forget();
    sumT = sumY = sumTT = sumTY = sumYY = 0;
  }

  /** The operator says that it has settled; for a rule by hand. */
  public void sayso() {
    byHand = true;
  }

  private int at(int i) {
    return (first + i) % times.length;
  }

  private void push(double t, double y) {
    if (size == times.length) grow();
    if (size == 0) {
      originT = t;
      originY = y;
    }
    times[at(size)] = t;
    values[at(size)] = y;
    size++;
    sinceSums++;
    add(t, y, 1);
  }

  private void drop() {
    add(times[first], values[first], -1);
    first = at(1);
    size--;
  }

  private void add(double time, double value, int sign) {
    double t = time - originT;
    double y = value - originY;
    sumT += sign * t;
    sumY += sign * y;
    sumTT += sign * t * t;
    sumTY += sign * t * y;
    sumYY += sign * y * y;
  }

  private void grow() {
    double[] t = new double[2 * size];
    double[] y = new double[2 * size];
    for (int i = 0; i < size; i++) {
      t[i] = times[at(i)];
      y[i] = values[at(i)];
    }
    times = t;
    values = y;
    first = 0;
  }

  private void sums() {
    originT = times[first];
    originY = values[first];
    sumT = sumY = sumTT = sumTY = sumYY = 0;
    for (int i = 0; i < size; i++) add(times[at(i)], values[at(i)], 1);
    sinceSums = 0;
  }

  /** Readings in the window. */
  public int size() {
    return size;
  }

  /** Mean of the window; NaN while it is empty. */
  public double mean() {
    return size == 0 ? Double.NaN : originY + sumY / size;
  }

  private double spreadT() {
    return sumTT - sumT * sumT / size;
  }

  private double spreadY() {
    return Math.max(0, sumYY - sumY * sumY / size);
  }

  /** Sample standard deviation of the window; NaN below two readings. */
  public double deviation() {
    return size < 2 ? Double.NaN : Math.sqrt(spreadY() / (size - 1));
  }

  /** Movement in a second by the least-squares line; NaN below two readings. */
  public double slope() {
    return size < 2 ? Double.NaN : (sumTY - sumT * sumY / size) / spreadT();
  }

  /** Standard error of the slope; NaN below three readings. */
  public double slopeError() {
    if (size < 3) return Double.NaN;
    double b = slope();
    double left = Math.max(0, spreadY() - b * b * spreadT());
    return Math.sqrt(left / (size - 2) / spreadT());
  }

  /** True when the readings reach over the whole window. */
  private boolean full() {
    double gap = size < 2 ? 0 : (last - times[first]) / (size - 1);
    return size >= FEWEST && last - times[first] >= window() - 1.5 * gap;
  }

  /** True when all in the window are one and the same value: an instrument that no longer looks. */
  public boolean frozen() {
    return size >= FEWEST && spreadY() == 0 && allEqual();
  }

  /** True when readings that moved or scattered repeat to the last digit all at once. */
  public boolean stoppedDead() {
    return digits.frozen();
  }

  /** Where the readings are going. */
  public Outlook outlook() {
    return approach.outlook();
  }

  private boolean allEqual() {
    for (int i = 1; i < size; i++) if (values[at(i)] != values[first]) return false;
    return true;
  }

  /** True when what has come so far has settled by the rule. */
  public boolean settled() {
    return switch (rule) {
      case SettleRule.Rest r -> within(r, 0);
      case SettleRule.Stable s ->
          full()
              && deviation() <= s.deviation()
              && Math.abs(slope()) + CAUTION * slopeError() <= s.slope();
      case SettleRule.Dwell d -> size > 0 && last - began * MILLISECONDS >= d.seconds();
      case SettleRule.ByHand _ -> byHand;
    };
  }

  /** True when the mean of readings over some seconds from now on will likely be good enough. */
  private boolean within(SettleRule.Rest r, double seconds) {
    // What still moves clearly within a few readings needs no closer look.
    if (digits.frozen() || approach.strides() > 2 * r.within()) return false;
    Outlook o = approach.outlook();
    return o.known()
        && Math.abs(o.toCome(seconds / 2)) + o.leftOfSwing(seconds) <= r.within()
        && o.error() <= r.within();
  }

  /** True when readings may be averaged over some seconds from now on. */
  boolean ready(double seconds) {
    return rule instanceof SettleRule.Rest r ? within(r, seconds) : settled();
  }

  /**
   * True when a mean of readings is as near to where they come to rest as the rule asks for.
   *
   * @param still the mean, of what the readings would be if the reference did not move
   */
  boolean holds(double still) {
    return !(rule instanceof SettleRule.Rest r) || approach.chance(still, r.within()) <= WRONG;
  }

  /** True when what had settled has clearly left its limits again; noise alone does not. */
  boolean moves(double seconds) {
    if (rule instanceof SettleRule.Rest r) return !within(r, seconds);
    return rule instanceof SettleRule.Stable s
        && full()
        && (deviation() > 2 * s.deviation()
            || Math.abs(slope()) - CAUTION * slopeError() > s.slope());
  }

  /**
   * Seconds until it will have settled, by the lag that the course so far shows; NaN while that
   * cannot be told.
   */
  public double left() {
    return switch (rule) {
      case SettleRule.Rest r -> settled() ? 0 : leftOf(r);
      case SettleRule.Stable s -> settled() ? 0 : leftOf(s);
      case SettleRule.Dwell d ->
          size == 0 ? d.seconds() : Math.max(0, d.seconds() - (last - began * MILLISECONDS));
      case SettleRule.ByHand _ -> Double.NaN;
    };
  }

  private double leftOf(SettleRule.Rest r) {
    Outlook o = approach.outlook();
    double far = Math.max(Math.abs(o.toCome()), o.error());
    return o.odd() ? Double.NaN : Math.max(0, o.lag() * Math.log(far / r.within()));
  }

  private double leftOf(SettleRule.Stable s) {
    if (!full()) return size == 0 ? s.window() : s.window() - (last - times[first]);
    // While it still bends, the error of a straight line says little about the noise at the end.
    double room = Math.max(s.slope() - CAUTION * slopeError(), s.slope() / 2);
    return Math.max(0, approach.outlook().lag() * Math.log(Math.abs(slope()) / room));
  }

  /** Time constant in seconds that the course so far shows; NaN while none can be told. */
  public double lag() {
    return approach.outlook().lag();
  }

  /** Why it has not settled, in words; empty when it has. */
  public String why() {
    if (settled()) return "";
    return switch (rule) {
      case SettleRule.Rest r -> why(r);
      case SettleRule.Stable s -> why(s);
      case SettleRule.Dwell _ -> "the wait is not over";
      case SettleRule.ByHand _ -> "the operator has not said so";
    };
  }

  /** What it does, and what helps. */
  private String why(SettleRule.Rest r) {
    Outlook o = approach.outlook();
    if (digits.frozen()) return HANGS;
    if (!o.known()) return "too few readings yet";
    if (o.swing() > r.within()) {
      return "it swings by ±%s in %s s; a mean over whole periods helps"
          .formatted(amount.apply(o.swing()), Numbers.significant(o.period(), 2));
    }
    // What the reference does is taken off here, too.
    Trace.Recent recent = approach.recent(USUAL_WINDOW);
    double sways = Math.sqrt(2) * recent.deviation();
    if (o.odd() && sways > r.within()) {
      return "it goes up and down or jumps, by ±%s in the last %s s"
          .formatted(amount.apply(sways), Numbers.significant(recent.seconds(), 2));
    }
    if (Math.abs(o.toCome()) > r.within()) {
      return o.lag() < DRIFTS * r.lag()
          ? "it still moves: %s to come, with a lag of %s s"
              .formatted(amount.apply(Math.abs(o.toCome())), Numbers.significant(o.lag(), 2))
          : "it drifts by %s a minute".formatted(amount.apply(60 * Math.abs(recent.slope())));
    }
    if (o.noise() > r.within()) {
      return "it scatters by %s, more than the ±%s that it has to come to; more readings help"
          .formatted(amount.apply(o.noise()), amount.apply(r.within()));
    }
    return "where it comes to is known to ±%s only; more readings help"
        .formatted(amount.apply(2 * o.error()));
  }

  private String why(SettleRule.Stable s) {
    if (!full()) return "the window is not full yet";
    if (Math.abs(slope()) > s.slope()) return "it still moves";
    if (deviation() > s.deviation()) return "it scatters too much";
    return "noise hides the slope; a longer window would tell it";
  }
}
