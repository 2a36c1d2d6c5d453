package nocking.fit;

import java.util.Arrays;
import nocking.quantity.Numbers;
import nocking.quantity.Span;

/**
 * Pairs of raw value and true quantity, in the order of the points.
 *
 * @param raw raw values, any one unit
 * @param quantity applied quantity, same length
 */
public record Samples(double[] raw, double[] quantity) {

  public Samples {
    if (raw.length != quantity.length) {
      throw new IllegalArgumentException("raw and quantity differ in length");
    }
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

  /** The samples without one. */
  public Samples without(int index) {
    return new Samples(drop(raw, index), drop(quantity, index));
  }

  private static double[] drop(double[] a, int index) {
    double[] b = new double[a.length - 1];
    System.arraycopy(a, 0, b, 0, index);
    System.arraycopy(a, index + 1, b, index, b.length - index);
    return b;
  }

  /**
   * @throws FitException when there are too few points or all raw values are equal
   */
  void require(int points, String model) {
    if (size() < points) {
      throw new FitException(
          "%s needs at least %d points; there %s %d"
              .formatted(model, points, size() == 1 ? "is" : "are", size()));
    }
    if (points > 1 && rawSpan().width() == 0) {
      throw new FitException(
          "%s needs two different raw values; all %d are %s"
              .formatted(model, size(), Numbers.plain(raw[0])));
    }
  }
}
