package nocking.diagnosis;

import java.util.List;
import nocking.fault.Fault;
import nocking.wiring.Place;

/**
 * The single measurement that tells the leading explanations apart best.
 *
 * @param at input that it is to be made at, channel's unit
 * @param information expected, in bits
 * @param predictions what the leading explanations would show there, the likeliest first
 */
public record NextMeasurement(
    Place place, double at, double information, List<Prediction> predictions) {

  /**
   * @param value in the place's unit; NaN where nothing holds it
   * @param uncertainty standard
   */
  public record Prediction(Fault fault, double value, double uncertainty) {}
}
