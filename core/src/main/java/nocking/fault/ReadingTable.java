package nocking.fault;

import java.util.function.DoubleUnaryOperator;
import nocking.converter.Converter;

/**
 * What a receiver shows over the converter's range, worked out once: diagnosis asks for it a
 * hundred thousand times. Straight lines stand only where they agree with the receiver's own
 * equation to a small part of what one count is worth.
 */
final class ReadingTable {
  private static final int STEPS = 1024;
  private static final double OF_A_COUNT = 0.02;

  private final double step;
  private final double[] shown;
  private final boolean[] straight;

  private ReadingTable(double step, double[] shown, boolean[] straight) {
    this.step = step;
    this.shown = shown;
    this.straight = straight;
  }

  static ReadingTable of(DoubleUnaryOperator reading, Converter converter) {
    double step = converter.reference().number() / STEPS;
    double[] shown = new double[STEPS + 1];
    for (int i = 0; i <= STEPS; i++) shown[i] = reading.applyAsDouble(i * step);
    var straight = new boolean[STEPS];
    for (int i = 0; i < STEPS; i++) {
      double count = Math.abs(shown[i + 1] - shown[i]) / step * converter.step();
      double middle = reading.applyAsDouble((i + 0.5) * step);
      straight[i] = Math.abs(middle - (shown[i] + shown[i + 1]) / 2) <= OF_A_COUNT * count;
    }
    return new ReadingTable(step, shown, straight);
  }

  /** The reading; NaN where it has to be worked out. */
  double at(double volts) {
    double place = volts / step;
    if (!(place >= 0 && place < STEPS)) return Double.NaN;
    int i = (int) place;
    return straight[i] ? shown[i] + (shown[i + 1] - shown[i]) * (place - i) : Double.NaN;
  }
}
