package nocking.wiring;

import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/**
 * Something that was seen on the channel while a fault was looked for.
 *
 * @param at quantity at the sensor, channel's unit; null when it is not known
 * @param value in the place's unit
 * @param until the other end where the reading jumps between two; null for a steady one
 */
public record Seen(Place place, Value at, Value value, Value until) {
  public Seen {
    if (place == null || value == null) {
      throw new QuantityException("what was seen needs its place and its value");
    }
  }

  /** A steady reading. */
  public Seen(Place place, Value at, Value value) {
    this(place, at, value, null);
  }

  public boolean jumping() {
    return until != null;
  }
}
