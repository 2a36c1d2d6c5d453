package nocking.misfit;

import java.util.Arrays;
import java.util.Optional;
import java.util.function.DoubleFunction;
import java.util.function.DoubleUnaryOperator;
import java.util.function.UnaryOperator;
import nocking.channel.Channel;
import nocking.path.SignalPath;
import nocking.points.RawUnit;
import nocking.quantity.Span;

/** Holds what a cause would make of points and design against one another. */
final class Trials {
  private static final int LOOKS = 100;

  /** Share of the working range that points usually cover. */
  private static final double USUALLY_COVERED = 0.4;

  private static final int CLOSER = 36;
  private static final double GOLDEN = (Math.sqrt(5) - 1) / 2;
  private static final double LOG_NONE_PRIOR = Math.log(0.2);

  private final Channel channel;
  private final SignalPath path;
  private final Readings readings;
  private final double reference;

  Trials(Channel channel, SignalPath path, Readings readings) {
    this.channel = channel;
    this.path = path;
    this.readings = readings;
    reference = channel.design().converter().reference().number();
  }

  /** Departures of the points as they are from the design as it is, channel's unit. */
  double[] design() {
    return against(readings.applied(), readings.volts());
  }

  /** Departures of other points from the design as it is. */
  double[] against(double[] applied, double[] volts) {
    return departures(applied, volts, x -> path.at(x).output(), readings.slope());
  }

  /** Departures of the points as they are from another design. */
  double[] against(DoubleUnaryOperator volts) {
    return departures(readings.applied(), readings.volts(), volts, slopes(volts));
  }

  /** Volts per one of the quantity by another design, which is what its departures are worth. */
  private double[] slopes(DoubleUnaryOperator volts) {
    Span w = channel.definition().working();
    double step = 1e-4 * w.width();
    double mean =
        Math.abs(volts.applyAsDouble(w.high()) - volts.applyAsDouble(w.low())) / w.width();
    double[] slopes = new double[readings.size()];
    for (int i = 0; i < slopes.length; i++) {
      double x = w.clamp(readings.applied()[i]);
      double from = Math.max(w.low(), x - step);
      double to = Math.min(w.high(), x + step);
      double own = Math.abs(volts.applyAsDouble(to) - volts.applyAsDouble(from)) / (to - from);
      slopes[i] = own > 0.05 * mean ? own : mean;
    }
    return slopes;
  }

  private double[] departures(
      double[] applied, double[] volts, DoubleUnaryOperator design, double[] slope) {
    double[] left = new double[applied.length];
    for (int i = 0; i < left.length; i++) {
      double v = design.applyAsDouble(applied[i]);
      // A converter tells nothing apart beyond its ends; a meter does.
      left[i] = (volts[i] - v) / slope[i];
      boolean bothOver = volts[i] >= reference && v >= reference;
      boolean bothUnder = volts[i] <= 0 && v <= 0;
      if (counts() && (bothOver || bothUnder)) left[i] = 0;
    }
    return left;
  }

  private boolean counts() {
    return channel.calibration().points().raw() == RawUnit.COUNTS;
  }

  /** Logarithm of the likelihood of departures, each divided by what it may be. */
  double log(double[] left) {
    double sum = 0;
    for (int i = 0; i < left.length; i++) {
      double z = left[i] / (readings.limit()[i] / 2);
      if (Double.isNaN(z)) return Double.NEGATIVE_INFINITY;
      sum -= 0.5 * z * z;
    }
    return sum;
  }

  private boolean fits(double[] left) {
    for (int i = 0; i < left.length; i++) {
      if (!(Math.abs(left[i]) <= readings.limit()[i])) return false;
    }
    return true;
  }

  private static double worst(double[] left) {
    double worst = 0;
    for (double l : left) worst = Math.max(worst, Math.abs(l));
    return worst;
  }

  /** Weight of what is none of the causes: every departure is as likely over half of the range. */
  double logNone() {
    Span w = channel.definition().working();
    double sum = LOG_NONE_PRIOR;
    for (double limit : readings.limit()) {
      sum += Math.log(Math.min(1, limit / 2 * Math.sqrt(2 * Math.PI) / w.width()));
    }
    return sum;
  }

  Cause cause(
      Cause.Kind kind,
      String says,
      double prior,
      double[] left,
      int[] points,
      UnaryOperator<Channel> remedy,
      String label) {
    return cause(kind, says, prior, readings.applied(), left, points, remedy, label);
  }

  /**
   * A cause with what it leaves.
   *
   * @param applied what would then have been applied; points are taken over the whole range, not in
   *     a hundredth of it
   */
  Cause cause(
      Cause.Kind kind,
      String says,
      double prior,
      double[] applied,
      double[] left,
      int[] points,
      UnaryOperator<Channel> remedy,
      String label) {
    double width = channel.definition().working().width();
    double covered =
        applied.length < 2
            ? 1
            : (Arrays.stream(applied).max().orElseThrow()
                    - Arrays.stream(applied).min().orElseThrow())
                / width;
    double usual = Math.clamp(covered / USUALLY_COVERED, 1e-6, 1);
    return new Cause(
        kind,
        says,
        worst(left),
        fits(left),
        Math.log(prior * usual) + log(left),
        points,
        Optional.ofNullable(remedy),
        label);
  }

  /**
   * The best of a free number with the share of its range that does as well.
   *
   * @param at where it is best, in the scale of the search
   * @param occam logarithm of the share of the range under the likelihood's peak
   */
  record Best(double at, double[] left, double occam) {}

  /** Searches a free number between two ends, evenly and then about the best place. */
  Best search(double from, double to, DoubleFunction<double[]> departures) {
    double best = from;
    double top = Double.NEGATIVE_INFINITY;
    for (int i = 0; i <= LOOKS; i++) {
      double s = from + (to - from) * i / LOOKS;
      double l = soft(departures.apply(s));
      if (l > top) {
        top = l;
        best = s;
      }
    }
    double step = (to - from) / LOOKS;
    double low = Math.max(from, best - step);
    double high = Math.min(to, best + step);
    for (int i = 0; i < CLOSER; i++) {
      double a = high - GOLDEN * (high - low);
      double b = low + GOLDEN * (high - low);
      if (soft(departures.apply(a)) > soft(departures.apply(b))) high = b;
      else low = a;
    }
    double at = (low + high) / 2;
    double[] left = departures.apply(at);
    double peak = log(left);
    double width = halfWidth(at, peak, departures, from, to);
    return new Best(at, left, Math.log(Math.min(1, 2.5 * width / (to - from))));
  }

  /** Far from the best every likelihood is 0: there the sum of the departures leads the way. */
  private double soft(double[] left) {
    double sum = 0;
    for (int i = 0; i < left.length; i++) {
      double z = left[i] / readings.limit()[i];
      if (Double.isNaN(z)) return Double.NEGATIVE_INFINITY;
      sum -= Math.log1p(z * z);
    }
    return sum;
  }

  /** Distance over which the logarithm of the likelihood falls by one half. */
  private double halfWidth(
      double at, double peak, DoubleFunction<double[]> departures, double from, double to) {
    double width = (to - from) * 1e-9;
    while (width < to - from) {
      double up = log(departures.apply(Math.min(to, at + width)));
      double down = log(departures.apply(Math.max(from, at - width)));
      if (up < peak - 0.5 || down < peak - 0.5) break;
      width *= 2;
    }
    return width;
  }
}
