package nocking.fit;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.stream.IntStream;

/**
 * A fit that a minority of wrong points cannot pull along, and the points that do not go with it.
 *
 * <p>Least trimmed squares: of many curves through as few points as determine them, the one whose
 * better half of squared errors sums up least, then least squares of those that go with it: P. J.
 * Rousseeuw and A. M. Leroy, "Robust Regression and Outlier Detection" (1987), chapters 1 and 5. A
 * point is called out of line where it is further off than {@link #FAR} times the scatter of the
 * others, and its neighbours are not off to the same side: a curve that the model cannot follow
 * makes no point wrong.
 *
 * @param outliers indices of the points that do not go with the others, rising
 * @param without the model fitted to the others
 * @param times how many times the scatter of the others the furthest of them is off
 */
public record SecondOpinion(List<Integer> outliers, Fit without, double times) {
  /** Which few points are tried: the same points give the same answer. */
  private static final long SEED = 1984;

  /** Standard deviations from which on a point does not go with the others. */
  private static final double FAR = 5;

  /** The median of |N(0, 1)| is the inverse of this. */
  private static final double NORMAL = 1.4826;

  /** Curves that are tried: with a quarter of the points wrong one of them is sound. */
  private static final int TRIES = 400;

  /** Most points that are wrong and still told from the others. */
  private static final double MOST = 0.35;

  /** Where more do not go with the others it is another question than that of single points. */
  private static final int NAMED = 50;

  /** Points beyond the constants from which on a half of them says something. */
  private static final int ENOUGH = 5;

  /** Points of a set that the tries look at. */
  private static final int LOOKED = 500;

  /** Share of a point's error that its neighbours may have, to the same side. */
  private static final double SHARED = 0.25;

  /** Share of the quantity's span below which errors are those of the arithmetic. */
  private static final double NOTHING = 1e-9;

  /** True where the points are enough to tell which of them do not go with the others. */
  public static boolean canTell(FitModel model, Samples samples) {
    return samples.size() >= model.fewestPoints() + ENOUGH;
  }

  /**
   * @param model whose constants few points determine: a line or a polynomial
   * @return empty where all points go together, where they are too few to tell, or where so many do
   *     not go with the others that nobody knows which are wrong
   */
  public static Optional<SecondOpinion> of(FitModel model, Samples samples) {
    int n = samples.size();
    int p = model.fewestPoints();
    if (!canTell(model, samples)) return Optional.empty();
    double[] errors = sound(model, samples, p);
    if (errors.length == 0) return Optional.empty();
    double[] absolute = Arrays.stream(errors).map(Math::abs).toArray();
    // For few points the median of what was trimmed is too small: Rousseeuw and Leroy, eq. 1.3, ch.
    // 5.
    double scale = NORMAL * (1 + 5.0 / (n - p)) * median(absolute);
    double least = NOTHING * samples.quantitySpan().width();
    double limit = Math.max(FAR * scale, least);
    List<Integer> out = IntStream.range(0, n).filter(i -> absolute[i] > limit).boxed().toList();
    boolean some = !out.isEmpty() && out.size() <= Math.min(NAMED, MOST * n);
    if (!some || n - out.size() < p + ENOUGH - 1) return Optional.empty();
    return judged(model, samples, out);
  }

  /** The others fitted anew: what stands out of them is what counts. */
  private static Optional<SecondOpinion> judged(
      FitModel model, Samples samples, List<Integer> out) {
    var wrong = new HashSet<>(out);
    int[] kept = IntStream.range(0, samples.size()).filter(i -> !wrong.contains(i)).toArray();
    Samples rest = at(samples, kept);
    try {
      Fit fit = model.fit(rest);
      double sd = Math.max(fit.residualSd(), NOTHING * samples.quantitySpan().width());
      var far = new ArrayList<Integer>();
      double times = 0;
      for (int i : out) {
        double off = Math.abs(fit.curve().quantity(samples.raw()[i]) - samples.quantity()[i]) / sd;
        if (!(off > FAR)) continue;
        far.add(i);
        times = Math.max(times, off);
      }
      // Where some of them go with the others after all, the others are not yet known.
      if (far.size() != out.size()) {
        return far.isEmpty() ? Optional.empty() : judged(model, samples, far);
      }
      // What its neighbours share with it is the curve's fault, and not the point's.
      if (!far.stream().allMatch(i -> alone(i, fit, samples, far))) return Optional.empty();
      return Optional.of(new SecondOpinion(List.copyOf(far), fit, times));
    } catch (FitException e) {
      return Optional.empty();
    }
  }

  /** True for a point that stands out of the sound ones beside it, too. */
  private static boolean alone(int point, Fit fit, Samples s, List<Integer> far) {
    var f = fit.curve().function();
    double own = Math.abs(f.applyAsDouble(s.raw()[point]) - s.quantity()[point]);
    int below = -1;
    int above = -1;
    for (int i = 0; i < s.size(); i++) {
      if (i == point || s.raw()[i] == s.raw()[point]) continue;
      boolean lower = s.raw()[i] < s.raw()[point];
      if (lower && (below < 0 || s.raw()[i] > s.raw()[below])) below = i;
      if (!lower && (above < 0 || s.raw()[i] < s.raw()[above])) above = i;
    }
    for (int beside : new int[] {below, above}) {
      if (beside < 0) continue;
      double e = f.applyAsDouble(s.raw()[beside]) - s.quantity()[beside];
      boolean same =
          Math.signum(e) == Math.signum(f.applyAsDouble(s.raw()[point]) - s.quantity()[point]);
      if (same && Math.abs(e) > SHARED * own || far.contains(beside)) return false;
    }
    return true;
  }

  /** Errors of all points by the curve that trims best; empty where none was found. */
  private static double[] sound(FitModel model, Samples samples, int p) {
    int n = samples.size();
    var random = new Random(SEED);
    int[] looked =
        n <= LOOKED
            ? IntStream.range(0, n).toArray()
            : random.ints(0, n).distinct().limit(LOOKED).toArray();
    int half = (looked.length + p + 1) / 2;
    double[] best = {};
    double least = Double.POSITIVE_INFINITY;
    for (int k = 0; k < TRIES; k++) {
      int[] few = random.ints(0, n).distinct().limit(p).toArray();
      double[] squares;
      Curve curve;
      try {
        curve = model.curve(model.estimate(at(samples, few)).coefficients());
        var f = curve.function();
        squares =
            Arrays.stream(looked)
                .mapToDouble(i -> f.applyAsDouble(samples.raw()[i]) - samples.quantity()[i])
                .map(e -> e * e)
                .toArray();
      } catch (FitException e) {
        // Points at one place determine no curve.
        continue;
      }
      Arrays.sort(squares);
      double sum = 0;
      for (int i = 0; i < half; i++) sum += squares[i];
      if (!(sum < least)) continue;
      least = sum;
      var f = curve.function();
      best = new double[n];
      for (int i = 0; i < n; i++) {
        best[i] = f.applyAsDouble(samples.raw()[i]) - samples.quantity()[i];
      }
    }
    return best;
  }

  private static Samples at(Samples s, int[] which) {
    return new Samples(
        Arrays.stream(which).mapToDouble(i -> s.raw()[i]).toArray(),
        Arrays.stream(which).mapToDouble(i -> s.quantity()[i]).toArray());
  }

  private static double median(double[] values) {
    double[] v = values.clone();
    Arrays.sort(v);
    return v.length % 2 == 1 ? v[v.length / 2] : (v[v.length / 2 - 1] + v[v.length / 2]) / 2;
  }
}
