package nocking.table;

import java.util.Arrays;
import nocking.fit.Samples;
import nocking.quantity.QuantityException;

/**
 * A table as a receiver holds it: whole raw steps, whole output steps, straight lines between them,
 * looked up with the receiver's own arithmetic.
 *
 * <p>An integer receiver gives out₀ + ⌊((out₁ − out₀)·(raw − raw₀) + ⌊d/2⌋)/d⌋ with d = raw₁ −
 * raw₀: the nearest whole step, half up. A receiver with floating point gives the line itself.
 *
 * @param rawDecimals decimals of a raw step
 * @param outDecimals decimals of an output step
 * @param raw steps, rising
 * @param out steps, same length
 * @param rounded true for an integer receiver
 */
public record StepTable(int rawDecimals, int outDecimals, int[] raw, long[] out, boolean rounded) {

  public StepTable {
    if (raw.length < 2 || raw.length != out.length) {
      throw new QuantityException("a table needs at least two cells");
    }
    for (int i = 1; i < raw.length; i++) {
      if (raw[i] <= raw[i - 1]) {
        throw new QuantityException(
            "cells %d and %d both have the raw value %s; ask for fewer cells or more raw decimals"
                .formatted(i, i + 1, raw[i]));
      }
    }
  }

  public int count() {
    return raw.length;
  }

  /** Size of an output step, in the quantity. */
  public double step() {
    return Math.pow(10, -outDecimals);
  }

  /** Size of the steps to which a reading is rounded; 0 for a receiver with floating point. */
  public double rounding() {
    return rounded ? step() : 0;
  }

  /** Raw value of a cell. */
  public double rawOf(int cell) {
    return raw[cell] / Math.pow(10, rawDecimals);
  }

  /** Output of a cell, in the quantity. */
  public double outOf(int cell) {
    return out[cell] / Math.pow(10, outDecimals);
  }

  /** First cell of the line on which a raw step lies; the end lines go on beyond the ends. */
  public int line(int at) {
    int i = Arrays.binarySearch(raw, at);
    int low = i >= 0 ? i : -i - 2;
    return Math.clamp(low, 0, raw.length - 2);
  }

  /**
   * Whole output steps at a raw step, by the arithmetic of integers; beyond the ends it extends.
   */
  public long whole(int at) {
    return whole(line(at), at);
  }

  private long whole(int i, int at) {
    long d = (long) raw[i + 1] - raw[i];
    long product = (out[i + 1] - out[i]) * ((long) at - raw[i]);
    return out[i] + Math.floorDiv(product + d / 2, d);
  }

  /** The quantity that is read at a raw step. */
  public double read(int at) {
    return rounded ? whole(at) * step() : line((double) at);
  }

  /** The quantity on the straight line at a raw value in steps, beyond the ends by their slopes. */
  public double line(double at) {
    return line(line((int) Math.floor(Math.clamp(at, raw[0], raw[raw.length - 1]))), at);
  }

  private double line(int i, double at) {
    double share = (at - raw[i]) / ((double) raw[i + 1] - raw[i]);
    return (out[i] + (out[i + 1] - out[i]) * share) / Math.pow(10, outDecimals);
  }

  /** What it leaves at every raw step between its ends that has a true value: the worst of each. */
  public TableError against(Truth truth) {
    var errors = new TableError.Collector();
    RawAxis axis = truth.axis();
    int line = 0;
    for (int i = 0; i < axis.size(); i++) {
      if (!truth.known(i)) continue;
      int at = axis.first() + i;
      while (line < raw.length - 2 && raw[line + 1] <= at) line++;
      double read = rounded ? whole(line, at) * step() : line(line, at);
      double below = read - truth.most()[i];
      double above = read - truth.least()[i];
      errors.add(axis.at(at), Math.abs(below) > Math.abs(above) ? below : above);
    }
    return errors.result();
  }

  /** Cells that stand where nothing is known of the truth. */
  public int beyond(Truth truth) {
    return (int) Arrays.stream(raw).filter(r -> !truth.axis().has(r)).count();
  }

  /** What it leaves at each of the pairs, in their order. */
  public TableError against(Samples pairs) {
    var errors = new TableError.Collector();
    double scale = Math.pow(10, rawDecimals);
    for (int i = 0; i < pairs.size(); i++) {
      double at = pairs.raw()[i];
      errors.add(at, read((int) Math.rint(at * scale)) - pairs.quantity()[i]);
    }
    return errors.result();
  }

  /** Comparisons of a search by halves, the most that a look-up takes. */
  public int lookUpSteps() {
    return 32 - Integer.numberOfLeadingZeros(raw.length - 2);
  }
}
