package nocking.bench.simulated;

import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.points.RawUnit;

/**
 * A sensor with its conditioning as it really is, not as its datasheet has it.
 *
 * @param tag of the channel that it stands for
 * @param volts at the converter for the quantity at the sensor
 * @param lag time constant in seconds, at least 0.05
 * @param scatter standard deviation of one reading, in volts
 * @param hysteresis half of what lies between up and down, in the quantity
 * @param drift volts in an hour
 * @param most volts that its output can give
 * @param own what it gives by itself; empty for a voltage
 */
public record TrueSensor(
    String tag,
    DoubleUnaryOperator volts,
    double lag,
    double scatter,
    double hysteresis,
    double drift,
    double most,
    Optional<Own> own) {

  /**
   * What a sensor gives before its conditioning.
   *
   * @param unit ohms or milliamperes, in which the function does not count: it gives Ω or A
   * @param ofVolts ohms or amperes for the volts that its conditioning makes of them
   */
  public record Own(RawUnit unit, DoubleUnaryOperator ofVolts) {}

  /** One that gives a voltage. */
  public TrueSensor(
      String tag,
      DoubleUnaryOperator volts,
      double lag,
      double scatter,
      double hysteresis,
      double drift,
      double most) {
    this(tag, volts, lag, scatter, hysteresis, drift, most, Optional.empty());
  }

  TrueSensor withOwn(RawUnit unit, DoubleUnaryOperator ofVolts) {
    var gives = Optional.of(new Own(unit, ofVolts));
    return new TrueSensor(tag, volts, lag, scatter, hysteresis, drift, most, gives);
  }
}
