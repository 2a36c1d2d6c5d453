package nocking.wiring;

import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Unit;

/**
 * The meter in hand.
 *
 * @param percent limit of error in percent of the reading, at least 0
 * @param digits limit of error in units of the last digit, at least 0
 * @param counts counts of its display, for example 6 000; at least 100
 * @param inputResistance of a voltage range, ohms, above 0
 */
public record Meter(double percent, double digits, int counts, double inputResistance) {
  /** A hand-held meter of 6 000 counts, ±(0.5 % + 2 digits), 10 MΩ. */
  public static final Meter HAND_HELD = new Meter(0.5, 2, 6000, 10e6);

  private static final double MOST_COUNTS = 1e8;

  public Meter {
    if (!(percent >= 0) || !(digits >= 0)) {
      throw new QuantityException("a meter's accuracy must be at least 0");
    }
    if (counts < 100) {
      throw new QuantityException("a meter has at least 100 counts; read " + counts);
    }
    if (!(inputResistance > 0)) {
      throw new QuantityException("a meter's input resistance must be above 0");
    }
  }

  /**
   * The meter with another accuracy, as datasheets write it: {@code 0.5 % + 2}, with or without
   * {@code digits} behind it.
   *
   * @throws QuantityException naming what was read and what was expected
   */
  public Meter withAccuracy(String typed) {
    String[] both = typed.replace("digits", "").split("\\+");
    if (both.length != 2 || !both[0].contains("%")) {
      throw new QuantityException("read '" + typed + "', expected for example 0.5 % + 2");
    }
    double limit = QuantityParser.value(both[0].replace("%", "").strip(), Unit.ONE);
    double last = QuantityParser.value(both[1].strip(), Unit.ONE);
    return new Meter(limit, last, counts, inputResistance);
  }

  /** The accuracy as {@link #withAccuracy} reads it. */
  public String accuracy() {
    return Numbers.trimmed(percent, 4) + " % + " + Numbers.trimmed(digits, 4);
  }

  /**
   * The meter with another number of counts.
   *
   * @throws QuantityException naming what was read and what was expected
   */
  public Meter withCounts(String typed) {
    double v = QuantityParser.value(typed.replace(" ", ""), Unit.ONE);
    if (v != Math.rint(v) || v > MOST_COUNTS) {
      throw new QuantityException("read '" + typed + "', expected a whole number of counts");
    }
    return new Meter(percent, digits, (int) v, inputResistance);
  }

  /**
   * The meter with another input resistance, typed in ohms: {@code 10M}.
   *
   * @throws QuantityException naming what was read and what was expected
   */
  public Meter withInputResistance(String typed) {
    return new Meter(percent, digits, counts, QuantityParser.value(typed, Unit.OHM));
  }

  /**
   * Standard uncertainty of a reading: a third of the limit of error and a rectangular last digit.
   *
   * @param value in V, Ω or A
   */
  public double uncertainty(double value, Place place) {
    double step = resolution(value, place);
    double limit = percent / 100 * Math.abs(value) + digits * step;
    return Math.hypot(limit / 3, step / Math.sqrt(12));
  }

  /** What one count is worth on the smallest range of 1-2-5 or 6-60-600 that holds the value. */
  public double resolution(double value, Place place) {
    double least =
        switch (place.kind()) {
          case OHMS_AT_SENSOR, OHMS_AT_RECEIVER -> 600;
          case LOOP_CURRENT -> 0.06;
          default -> 0.6;
        };
    double range = least;
    while (Math.abs(value) > range && range < 1e9) range *= 10;
    return range / counts;
  }

  /** A reading as the meter shows it. */
  public double shown(double value, Place place) {
    double step = resolution(value, place);
    return Math.rint(value / step) * step;
  }
}
