package nocking.diagnosis;

import nocking.wiring.Place;

/**
 * Something that was seen.
 *
 * @param at quantity at the sensor, channel's unit; NaN when it is not known
 * @param value in the place's unit; for resistances {@code PairReading.OPEN} stands for open
 * @param step what one of its last digit is worth, at least 0; 0 where it is as exact as the meter
 * @param jump how far it jumps to either side of the value; 0 for a steady reading
 */
public record MeasuredValue(Place place, double at, double value, double step, double jump) {

  /** A steady reading. */
  public MeasuredValue(Place place, double at, double value, double step) {
    this(place, at, value, step, 0);
  }

  /** A reading with all the digits that the meter gives. */
  public static MeasuredValue of(Place place, double at, double value) {
    return new MeasuredValue(place, at, value, 0);
  }

  public boolean jumps() {
    return jump > 0;
  }

  public boolean inputKnown() {
    return !Double.isNaN(at);
  }
}
