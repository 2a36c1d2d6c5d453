package nocking.channel;

import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/**
 * What a sensor bears beyond its range, as its datasheet says.
 *
 * @param proof largest quantity after which it still measures as before, channel's unit; null where
 *     the datasheet says nothing
 * @param burst quantity at which it may break open, above {@code proof}; null where the datasheet
 *     says nothing
 */
public record Overload(Value proof, Value burst) {
  public Overload {
    if (proof == null && burst == null) {
      throw new QuantityException("an overload limit needs the proof or the burst value");
    }
    if (proof != null && burst != null && !(proof.number() < burst.number())) {
      throw new QuantityException(
          "a sensor bursts above what it bears: read %s and %s"
              .formatted(proof.typed(), burst.typed()));
    }
  }
}
