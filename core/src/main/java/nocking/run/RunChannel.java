package nocking.run;

import nocking.points.RawUnit;
import nocking.quantity.QuantityException;

/**
 * A channel that is read in a run.
 *
 * @param channel id of the channel in its book
 * @param tag for people
 * @param raw in which its readings are kept
 * @param meter what reads it
 * @param settle when its readings have settled; limits are in {@code raw}
 * @param place depth or port of its sensor, as the operator says it; empty where nothing was said
 */
public record RunChannel(
    String channel, String tag, RawUnit raw, Instrument meter, SettleRule settle, String place) {
  public RunChannel {
    if (channel == null || channel.isBlank()) {
      throw new QuantityException("a run needs channels; one has no name");
    }
    tag = tag == null || tag.isBlank() ? channel : tag;
    if (raw == null || raw == RawUnit.OHMS) {
      throw new QuantityException("%s is read in volts or counts".formatted(tag));
    }
    if (meter == null) throw new QuantityException("%s has no meter".formatted(tag));
    if (settle == null) throw new QuantityException("%s has no rule to settle by".formatted(tag));
    place = place == null ? "" : place.strip();
  }
}
