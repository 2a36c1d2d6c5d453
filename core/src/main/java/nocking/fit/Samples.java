package nocking.fit;

import java.util.Arrays;
import nocking.quantity.Numbers;
import nocking.quantity.Span;

/**
 * Pairs of raw value and true quantity, in the order of the points.
 *
 * @param raw raw values, any one unit
 * @param quantity applied quantity, same length
 * @param weights above 0, same length; what counts is their ratio
 */
public record Samples(double[] raw, double[] quantity, double[] weights) {
  /** Values up to which squares and their sums are numbers. */
  private static final double LARGEST = 1e140;

  public Samples {
    if (raw.length != quantity.length || raw.length != weights.length) {
      throw new IllegalArgumentException("raw, quantity and weights differ in length");
    }
    for (double w : weights) {
      if (!(w > 0) || Double.isInfinite(w)) {
        throw new FitException("a weight must be above 0; read " + Numbers.plain(w));
      }
    }
    weights = levelled(weights);
    raw = unsigned(raw);
  }

  /** There is one zero: −0 is no other place. */
  private static double[] unsigned(double[] raw) {
    boolean any = false;
    for (double v : raw) any |= v == 0 && Double.compare(v, 0) < 0;
    return any ? Arrays.stream(raw).map(v -> v + 0.0).toArray() : raw;
  }

  /** Points that all count the same. */
  public Samples(double[] raw, double[] quantity) {
    this(raw, quantity, ones(raw.length));
  }

  private static double[] ones(int n) {
    double[] w = new double[n];
    Arrays.fill(w, 1);
    return w;
  }

  /** Weights with a mean of 1: what is weighed stays in the unit of the quantity. */
  private static double[] levelled(double[] w) {
    double mean = Arrays.stream(w).average().orElse(1);
    return mean == 1 ? w : Arrays.stream(w).map(v -> v / mean).toArray();
  }

  public int size() {
    return raw.length;
  }

  public Span rawSpan() {
    return new Span(Arrays.stream(raw).min().orElseThrow(), Arrays.stream(raw).max().orElseThrow());
  }

  /** What the applied quantities span. */
  public Span quantitySpan() {
    return new Span(
        Arrays.stream(quantity).min().orElseThrow(), Arrays.stream(quantity).max().orElseThrow());
  }

  /** How many different raw values there are. */
  int places() {
    return (int) Arrays.stream(raw).distinct().count();
  }

  /** The samples without one. */
  public Samples without(int index) {
    return new Samples(drop(raw, index), drop(quantity, index), drop(weights, index));
  }

  private static double[] drop(double[] a, int index) {
    double[] b = new double[a.length - 1];
    System.arraycopy(a, 0, b, 0, index);
    System.arraycopy(a, index + 1, b, index, b.length - index);
    return b;
  }

  /**
   * @throws FitException when there are too few points or too few different raw values
   */
  void require(int points, String model) {
    if (size() < points) {
      throw new FitException(
          "%s needs at least %d points; there %s %d"
              .formatted(model, points, size() == 1 ? "is" : "are", size()));
    }
    for (int i = 0; i < size(); i++) {
      double worst = Math.max(Math.abs(raw[i]), Math.abs(quantity[i]));
      if (!(worst <= LARGEST)) {
        throw new FitException(
            "%s: raw %s with %s is more than can be squared"
                .formatted(model, Numbers.plain(raw[i]), Numbers.plain(quantity[i])));
      }
    }
    if (points > 1 && rawSpan().width() == 0) {
      throw new FitException(
          "%s needs two different raw values; all %d are %s"
              .formatted(model, size(), Numbers.plain(raw[0])));
    }
    if (points > 2 && places() < points) {
      throw new FitException(
          "%s needs %d different raw values; there are %d".formatted(model, points, places()));
    }
  }

  /**
   * @throws FitException when a raw value is not above 0
   */
  void requirePositive(String model) {
    double least = rawSpan().low();
    if (!(least > 0)) {
      throw new FitException(
          "%s needs raw values above 0; the least is %s".formatted(model, Numbers.plain(least)));
    }
  }
}
