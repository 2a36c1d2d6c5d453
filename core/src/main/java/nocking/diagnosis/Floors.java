package nocking.diagnosis;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import nocking.fault.Fault;
import nocking.fault.FaultyPath;
import nocking.fault.Subject;
import nocking.quantity.Span;
import nocking.wiring.Place;

/**
 * What a place may read off by itself, standard, in the place's unit: leads, leakage, thermal
 * voltages. A few millivolts where nothing was expected are nothing.
 */
final class Floors {
  private static final double OF_SPAN = 3e-3;
  private static final double LEAST_VOLTS = 2e-5;
  private static final double MOST_VOLTS = 2e-3;
  private static final double SUPPLY_VOLTS = 5e-3;
  private static final double GROUND_VOLTS = 1e-3;
  private static final double LEAD_OHMS = 0.3;
  private static final double AMPERES = 5e-6;

  private final Map<Place, Double> floors = new HashMap<>();

  Floors(Subject subject, List<Place> places, double meter) {
    Span w = subject.channel().definition().working();
    FaultyPath[] sound = {
      FaultyPath.of(subject, Fault.NONE, w.low()),
      FaultyPath.of(subject, Fault.NONE, w.middle()),
      FaultyPath.of(subject, Fault.NONE, w.high())
    };
    for (Place p : places) {
      floors.put(
          p,
          switch (p.kind()) {
            case DISPLAY -> 0.0;
            case SUPPLY_AT_RECEIVER, SUPPLY_AT_SENSOR, SUPPLY_AT_JOINT -> SUPPLY_VOLTS;
            case GROUND_AT_SENSOR, GROUND_AT_JOINT -> GROUND_VOLTS;
            case REFERENCE_WIPER -> LEAST_VOLTS;
            case OHMS_AT_SENSOR, OHMS_AT_RECEIVER -> LEAD_OHMS;
            case LOOP_CURRENT -> AMPERES;
            case SIGNAL_AT_SENSOR, SIGNAL_AT_RECEIVER, SIGNAL_AT_JOINT, TEST_POINT ->
                ofSignal(sound, p, meter);
          });
    }
  }

  /** A share of what the signal spans there, so that a bridge's microvolts still count. */
  private static double ofSignal(FaultyPath[] sound, Place place, double meter) {
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (FaultyPath path : sound) {
      double v = path.read(place, meter).value();
      if (Double.isNaN(v)) continue;
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
    double span = high > low ? high - low : 0;
    return Math.clamp(OF_SPAN * span, LEAST_VOLTS, MOST_VOLTS);
  }

  double of(Place place) {
    return floors.getOrDefault(place, 0.0);
  }
}
