package nocking.view;

/**
 * Where an alarm band begins or ends, as the receiver comes to it.
 *
 * @param band index of the band
 * @param upper true for its upper end
 * @param quantity the end, channel's unit
 * @param volts at the converter there; NaN outside what the sensor is known for
 * @param code of those volts
 * @param reached true where neither a stage nor the converter stands at its end there
 * @param spread how far the alarm may come early or late with any parts inside their tolerances,
 *     not calibrated, channel's unit; NaN where it is not known
 * @param calibrated the same after a calibration at both ends of the working range
 */
public record AlarmEdge(
    int band,
    boolean upper,
    double quantity,
    double volts,
    int code,
    boolean reached,
    double spread,
    double calibrated) {}
