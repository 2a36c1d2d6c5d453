package nocking.view;

/**
 * Where an alarm band begins or ends, as the receiver comes to it by what it takes its volts for.
 *
 * @param band index of the band
 * @param upper true for its upper end
 * @param quantity the end, channel's unit
 * @param volts at the converter that the receiver takes for it; NaN where none are
 * @param code of those volts
 * @param truly the quantity by this channel's own curve at those volts; another than {@code
 *     quantity} under a receiver that goes by a curve of its own; NaN where it is not known
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
    double truly,
    boolean reached,
    double spread,
    double calibrated) {

  /** An end that the receiver does not come to, whatever the quantity does. */
  static AlarmEdge outOfReach(int band, boolean upper, double quantity, double volts, int code) {
    return new AlarmEdge(
        band, upper, quantity, volts, code, Double.NaN, false, Double.NaN, Double.NaN);
  }
}
