package nocking.prior;

import java.util.Collections;
import java.util.EnumMap;
import java.util.Map;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.wiring.Meter;

/**
 * What a bench weighs a fault by: the meter in hand and how common each kind is at this plant.
 *
 * @param weights kinds whose weight differs from the usual one, 0 … {@link #MOST}; 0 leaves a kind
 *     out
 */
public record PriorWeights(Meter meter, Map<FaultKind, Double> weights) {
  /** Greatest weight. */
  public static final double MOST = 1000;

  /** A hand-held meter and the usual weights. */
  public static final PriorWeights USUAL = new PriorWeights(Meter.HAND_HELD, Map.of());

  /**
   * @throws QuantityException when a weight is out of range; nothing can be wrong always counts
   */
  public PriorWeights {
    meter = meter == null ? Meter.HAND_HELD : meter;
    var own = new EnumMap<FaultKind, Double>(FaultKind.class);
    if (weights != null) own.putAll(weights);
    own.forEach(PriorWeights::require);
    own.entrySet().removeIf(e -> e.getValue() == e.getKey().prior());
    weights = Collections.unmodifiableMap(own);
  }

  private static void require(FaultKind kind, Double v) {
    if (v == null || !(v >= 0 && v <= MOST)) {
      throw new QuantityException(
          "the weight of '%s' must be 0 to 1000; read %s"
              .formatted(kind.title(), v == null ? "nothing" : Numbers.plain(v)));
    }
    if (kind == FaultKind.NONE && v == 0) {
      throw new QuantityException("'%s' cannot be left out".formatted(kind.title()));
    }
  }

  /** Weight of a kind against the others before anything is seen. */
  public double weight(FaultKind kind) {
    return weights.getOrDefault(kind, kind.prior());
  }

  public PriorWeights withMeter(Meter v) {
    return new PriorWeights(v, weights);
  }

  /**
   * @throws QuantityException when it is not 0 … {@link #MOST}
   */
  public PriorWeights withWeight(FaultKind kind, double v) {
    var next = new EnumMap<FaultKind, Double>(FaultKind.class);
    next.putAll(weights);
    next.put(kind, v);
    return new PriorWeights(meter, next);
  }

  public PriorWeights withUsualWeights() {
    return new PriorWeights(meter, Map.of());
  }
}
