package nocking.run;

import com.fasterxml.jackson.annotation.JsonCreator;
import com.fasterxml.jackson.annotation.JsonInclude;
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
 * @param expected what its readings are held against; null where they are held against nothing
 */
public record RunChannel(
    String channel,
    String tag,
    RawUnit raw,
    Instrument meter,
    SettleRule settle,
    String place,
    @JsonInclude(JsonInclude.Include.NON_NULL) Expectation expected) {
  @JsonCreator
  public RunChannel {
    if (channel == null || channel.isBlank()) {
      throw new QuantityException("a run needs channels; one has no name");
    }
    tag = tag == null || tag.isBlank() ? channel : tag;
    if (raw == null) {
      throw new QuantityException(
          "%s has no raw unit; it is volts, counts, ohms or milliamperes".formatted(tag));
    }
    if (meter == null) throw new QuantityException("%s has no meter".formatted(tag));
    if (settle == null) throw new QuantityException("%s has no rule to settle by".formatted(tag));
    place = place == null ? "" : place.strip();
  }

  /** One whose readings are held against nothing. */
  public RunChannel(
      String channel, String tag, RawUnit raw, Instrument meter, SettleRule settle, String place) {
    this(channel, tag, raw, meter, settle, place, null);
  }

  public RunChannel withSettle(SettleRule v) {
    return new RunChannel(channel, tag, raw, meter, v, place, expected);
  }

  public RunChannel withPlace(String v) {
    return new RunChannel(channel, tag, raw, meter, settle, v, expected);
  }

  public RunChannel withExpected(Expectation v) {
    return new RunChannel(channel, tag, raw, meter, settle, place, v);
  }

  /** The same readings of a channel that is found in a book. */
  public RunChannel withChannel(String id, String name) {
    return new RunChannel(id, name, raw, meter, settle, place, expected);
  }
}
