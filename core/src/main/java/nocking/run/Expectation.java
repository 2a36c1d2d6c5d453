package nocking.run;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonInclude;
import java.util.List;
import nocking.quantity.QuantityException;

/**
 * What a channel reads in a run while it is sound, for readings to be held against: a table of what
 * is applied and what is read there, straight between its rows.
 *
 * @param at what is applied, in the unit of the plan, rising; none where nothing is known of it
 * @param raw what is read there, in the raw unit of the channel; as many
 * @param allowance by how much a sound channel that was never calibrated may be off, in the raw
 *     unit, above 0
 * @param low below it a reading can only be a fault; null where there is no such limit
 * @param high above it a reading can only be a fault; null where there is no such limit
 * @param share of what is expected by which it may be off, where that is less than the allowance:
 *     for readings over decades; null where the allowance holds everywhere
 * @param shapeUnknown true where only the way is known in which it moves, not how far: of a vessel
 *     whose shape is what the pours are to tell; null where what is read is known
 */
public record Expectation(
    List<Double> at,
    List<Double> raw,
    double allowance,
    Double low,
    Double high,
    @JsonInclude(JsonInclude.Include.NON_NULL) Double share,
    @JsonInclude(JsonInclude.Include.NON_NULL) Boolean shapeUnknown) {
  private static final int MOST_ROWS = 1000;

  @JsonCreator
  public Expectation {
    at = at == null ? List.of() : List.copyOf(at);
    raw = raw == null ? List.of() : List.copyOf(raw);
    if (at.size() != raw.size() || at.size() == 1 || at.size() > MOST_ROWS) {
      throw new QuantityException(
          "what is expected has %d places and %d readings; it is as many of both, 2 … %d or none"
              .formatted(at.size(), raw.size(), MOST_ROWS));
    }
    for (int i = 0; i < at.size(); i++) {
      if (!Double.isFinite(at.get(i)) || !Double.isFinite(raw.get(i))) {
        throw new QuantityException("row %d of what is expected is no number".formatted(i + 1));
      }
      if (i > 0 && !(at.get(i) > at.get(i - 1))) {
        throw new QuantityException(
            "what is expected must rise in what is applied; %s stands behind %s"
                .formatted(at.get(i), at.get(i - 1)));
      }
    }
    if (!(allowance > 0) || Double.isInfinite(allowance)) {
      throw new QuantityException(
          "by how much a reading may be off from what is expected reads %s, expected more than 0"
              .formatted(allowance));
    }
    if (low != null && high != null && !(low < high)) {
      throw new QuantityException(
          "the limits of a reading must rise: read %s … %s".formatted(low, high));
    }
    if (share != null && !(share > 0 && share < 1)) {
      throw new QuantityException(
          "the share by which a reading may be off reads %s, expected between 0 and 1"
              .formatted(share));
    }
  }

  /** One with the same allowance everywhere. */
  public Expectation(List<Double> at, List<Double> raw, double allowance, Double low, Double high) {
    this(at, raw, allowance, low, high, null, null);
  }

  /** Of this only the limits, and the way in which it moves. */
  public Expectation ofUnknownShape() {
    return new Expectation(at, raw, allowance, low, high, share, true);
  }

  /** True where what is read is known, and not only the way in which it moves. */
  boolean known() {
    return shapeUnknown == null || !shapeUnknown;
  }

  /** What is read where so much is applied; NaN where nothing is known of it. */
  public double at(double applied) {
    int n = at.size();
    if (n == 0 || !(applied >= at.getFirst() && applied <= at.getLast())) return Double.NaN;
    int i = 1;
    while (i < n - 1 && applied > at.get(i)) i++;
    double share = (applied - at.get(i - 1)) / (at.get(i) - at.get(i - 1));
    return raw.get(i - 1) + share * (raw.get(i) - raw.get(i - 1));
  }

  /** By how much a sound channel may be off where so much is applied. */
  public double allowance(double applied) {
    double expects = share == null ? Double.NaN : Math.abs(share * at(applied));
    return expects < allowance ? expects : allowance;
  }

  /** True for a reading that only a fault gives. */
  public boolean fault(double reading) {
    return (low != null && reading < low) || (high != null && reading > high);
  }
}
