package nocking.firmware;

import java.util.function.DoubleUnaryOperator;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;

/**
 * A line or a polynomial as one expression of integers: multiply, shift, add. The raw code is
 * counted from the middle of its range, so that t = (raw − middle)/2ʰ lies within ±1, and the
 * polynomial in t is worked out from its highest power down (Horner) with F binary places:
 *
 * <p>a ← Dₙ; a ← a·(raw − middle)/2ʰ + Dₖ for k = n − 1 … 0, with division towards zero as C99 has
 * it; the output is a/2ꟳ, half up.
 *
 * <p>What it gives is computed here for every code, so that its worst error is known and no product
 * overflows.
 *
 * @param first least raw code
 * @param last largest one
 * @param middle code from which is counted
 * @param shift h
 * @param places F
 * @param constants D₀ … Dₙ
 * @param outDecimals of a step of the output
 * @param narrow true where 32 bits with a sign hold every product
 * @param worst largest error over all codes, in the quantity, the rounding to a step included
 * @param worstAt code where it stands
 */
public record FixedPoint(
    int first,
    int last,
    int middle,
    int shift,
    int places,
    long[] constants,
    int outDecimals,
    boolean narrow,
    double worst,
    int worstAt) {
  /** Highest power that one expression is written for. */
  public static final int MOST_DEGREE = 6;

  /** Codes that are all looked at. */
  private static final int MOST_CODES = 1 << 22;

  /** Share of an output step that the arithmetic may add to the rounding. */
  private static final double ADDED = 0.02;

  /** How well a polynomial has to give the curve back, as a share of what it spans. */
  private static final double EXACT = 1e-9;

  private static final int MOST_PLACES = 40;

  /** Codes at which a curve is looked at first. */
  private static final int LOOKS = 256;

  /**
   * The expression of a curve.
   *
   * @param curve quantity for a raw code
   * @param degree 1 for a line, up to {@value #MOST_DEGREE}
   * @throws QuantityException where the curve is no such polynomial, or its products do not fit 64
   *     bits: one sentence
   */
  public static FixedPoint of(
      DoubleUnaryOperator curve, int degree, int first, int last, int outDecimals) {
    if (degree < 1 || degree > MOST_DEGREE) {
      throw new QuantityException(
          "one expression is written for a degree of 1 to %d; read %d"
              .formatted(MOST_DEGREE, degree));
    }
    if (last <= first || (long) last - first > MOST_CODES) {
      throw new QuantityException("raw codes from %d to %d are no range".formatted(first, last));
    }
    int middle = first + (last - first) / 2;
    int shift = 1;
    while ((1L << shift) < Math.max(middle - first, last - middle)) shift++;
    double scale = Math.pow(10, outDecimals);
    double[] d = powers(curve, degree, first, last, middle, shift, scale);
    // Some codes tell that it is no such polynomial; that it is one is looked at everywhere.
    int stride = Math.max(1, (last - first) / LOOKS);
    requireExact(codes(curve, first, last, stride), d, first, stride, middle, shift, scale);
    double[] truth = codes(curve, first, last, 1);
    requireExact(truth, d, first, 1, middle, shift, scale);
    // First in 32 bits, where that costs next to nothing; else with all the places that 64 hold.
    FixedPoint wide = null;
    for (int places = MOST_PLACES; places >= 0; places--) {
      FixedPoint f = with(d, truth, first, middle, shift, places, outDecimals);
      if (f == null) continue;
      if (wide == null) wide = f;
      if (f.narrow && f.worst <= wide.worst + ADDED / scale) return f;
    }
    if (wide == null) {
      throw new QuantityException(
          "the products of this polynomial do not fit 64 bits; ask for fewer decimals");
    }
    return wide;
  }

  private static double[] codes(DoubleUnaryOperator curve, int first, int last, int stride) {
    double[] y = new double[(last - first) / stride + 1];
    for (int i = 0; i < y.length; i++) y[i] = curve.applyAsDouble(first + (double) i * stride);
    return y;
  }

  /** Coefficients of the powers of t, in steps of the output, through Chebyshev's places. */
  private static double[] powers(
      DoubleUnaryOperator curve,
      int degree,
      int first,
      int last,
      int middle,
      int shift,
      double scale) {
    int n = degree + 1;
    double centre = (first + (double) last) / 2;
    double half = (last - (double) first) / 2;
    double[] x = new double[n];
    double[] y = new double[n];
    for (int i = 0; i < n; i++) {
      double raw = centre + half * Math.cos(Math.PI * (i + 0.5) / n);
      x[i] = (raw - middle) / (1L << shift);
      y[i] = curve.applyAsDouble(raw) * scale;
    }
    // Divided differences, and their product form multiplied out.
    for (int k = 1; k < n; k++) {
      for (int i = n - 1; i >= k; i--) y[i] = (y[i] - y[i - 1]) / (x[i] - x[i - k]);
    }
    double[] d = new double[n];
    for (int k = n - 1; k >= 0; k--) {
      for (int i = n - 1; i > 0; i--) d[i] = d[i - 1] - x[k] * d[i];
      d[0] = y[k] - x[k] * d[0];
    }
    return d;
  }

  private static void requireExact(
      double[] truth, double[] d, int first, int stride, int middle, int shift, double scale) {
    double most = 1;
    for (double y : truth) most = Math.max(most, Math.abs(y) * scale);
    for (int i = 0; i < truth.length; i++) {
      double raw = first + (double) i * stride;
      double t = (raw - middle) / (1L << shift);
      double y = 0;
      for (int k = d.length - 1; k >= 0; k--) y = y * t + d[k];
      double off = Math.abs(y - truth[i] * scale);
      if (off <= EXACT * most) continue;
      throw new QuantityException(
          "the curve is no polynomial of degree %d: at raw %s it is off by %s steps"
              .formatted(d.length - 1, Numbers.trimmed(raw, 5), Numbers.significant(off, 2)));
    }
  }

  /** With so many binary places; null where a product does not fit 64 bits. */
  private static FixedPoint with(
      double[] d, double[] truth, int first, int middle, int shift, int places, int outDecimals) {
    int last = first + truth.length - 1;
    long[] constants = new long[d.length];
    for (int k = 0; k < d.length; k++) {
      double c = d[k] * Math.pow(2, places);
      if (!(Math.abs(c) < 4e18)) return null;
      constants[k] = Math.round(c);
    }
    var bare =
        new FixedPoint(first, last, middle, shift, places, constants, outDecimals, false, 0, first);
    double step = Math.pow(10, -outDecimals);
    boolean narrow = true;
    double worst = -1;
    int worstAt = first;
    for (int raw = first; raw <= last; raw++) {
      long largest = bare.largest(raw);
      if (largest < 0) return null;
      narrow &= largest <= Integer.MAX_VALUE;
      long out = bare.steps(raw);
      if (Math.abs(out) > Integer.MAX_VALUE) return null;
      double off = Math.abs(out * step - truth[raw - first]);
      if (off > worst) {
        worst = off;
        worstAt = raw;
      }
    }
    return new FixedPoint(
        first, last, middle, shift, places, constants, outDecimals, narrow, worst, worstAt);
  }

  /** Largest number that occurs on the way at a code; −1 where it does not fit 64 bits. */
  private long largest(int raw) {
    long t = (long) raw - middle;
    long a = constants[constants.length - 1];
    long most = Math.abs(a);
    for (int k = constants.length - 2; k >= 0; k--) {
      long high = Math.multiplyHigh(a, t);
      long product = a * t;
      if (high != product >> 63 || product == Long.MIN_VALUE) return -1;
      a = product / (1L << shift) + constants[k];
      most = Math.max(most, Math.max(Math.abs(product), Math.abs(a)));
      if (Math.abs((double) a) > 8e18) return -1;
    }
    return Math.max(most, Math.abs(a) + half());
  }

  private long half() {
    return places == 0 ? 0 : 1L << (places - 1);
  }

  /** Whole output steps at a code, which is held within the range first. */
  public long steps(int raw) {
    long t = (long) Math.clamp(raw, first, last) - middle;
    long a = constants[constants.length - 1];
    for (int k = constants.length - 2; k >= 0; k--) a = a * t / (1L << shift) + constants[k];
    return Math.floorDiv(a + half(), 1L << places);
  }
}
