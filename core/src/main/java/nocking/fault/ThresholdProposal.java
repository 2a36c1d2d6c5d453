package nocking.fault;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import nocking.quantity.Numbers;
import nocking.quantity.Value;
import nocking.wiring.Thresholds;

/**
 * Where the limits between good readings and broken wires should lie.
 *
 * @param thresholds half way between the normal band and the nearest fault; empty where neither
 *     side can be told
 * @param low room between the low threshold and the normal band, volts; NaN without one
 * @param high room between the normal band and the high threshold, volts; NaN without one
 * @param hidden broken wires that no threshold tells
 */
public record ThresholdProposal(
    Optional<Thresholds> thresholds, double low, double high, List<FaultRow> hidden) {

  static ThresholdProposal of(NormalBand band, List<FaultRow> broken) {
    double below = Double.NEGATIVE_INFINITY;
    double above = Double.POSITIVE_INFINITY;
    var hidden = new ArrayList<FaultRow>();
    for (FaultRow r : broken) {
      if (r.verdict() != FaultRow.Verdict.TOLD) {
        hidden.add(r);
        continue;
      }
      if (!Double.isNaN(r.below())) below = Math.max(below, Math.max(0, r.below()));
      if (!Double.isNaN(r.above())) above = Math.min(above, Math.min(band.reference(), r.above()));
    }
    double lowest = Double.isFinite(below) ? (below + band.volts().low()) / 2 : Double.NaN;
    double highest = Double.isFinite(above) ? (above + band.volts().high()) / 2 : Double.NaN;
    if (band.limits().isPresent()) {
      lowest = band.limits().get().low();
      highest = band.limits().get().high();
    }
    // What a standard gives is kept to the millivolt; half way between is a round number.
    double share = band.limits().isPresent() ? 0.005 : 0.1;
    Value low = rounded(lowest, below, band.volts().low(), share);
    Value high = rounded(highest, band.volts().high(), above, share);
    boolean crossed = low != null && high != null && low.number() >= high.number();
    boolean none = crossed || low == null && high == null;
    return new ThresholdProposal(
        none ? Optional.empty() : Optional.of(new Thresholds(low, high)),
        low == null ? Double.NaN : band.volts().low() - low.number(),
        high == null ? Double.NaN : high.number() - band.volts().high(),
        List.copyOf(hidden));
  }

  /** The fewest decimals with which the value stays well inside its room. */
  private static Value rounded(double v, double from, double to, double share) {
    if (Double.isNaN(v)) return null;
    double room = Double.isFinite(from) && Double.isFinite(to) ? to - from : Math.abs(v);
    for (int decimals = 1; decimals < 6; decimals++) {
      double rounded = Double.parseDouble(Numbers.fixed(v, decimals));
      if (Math.abs(rounded - v) <= share * room) return Value.of(rounded);
    }
    return Value.of(v);
  }
}
