package nocking.bench.simulated;

import java.util.function.DoubleUnaryOperator;

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
 */
public record TrueSensor(
    String tag,
    DoubleUnaryOperator volts,
    double lag,
    double scatter,
    double hysteresis,
    double drift,
    double most) {}
