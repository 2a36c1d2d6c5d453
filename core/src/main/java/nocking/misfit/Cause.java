package nocking.misfit;

import java.util.Optional;
import java.util.function.UnaryOperator;
import nocking.channel.Channel;

/**
 * One thing that may have made points and design disagree.
 *
 * @param says what it is, with its numbers, as it stands behind "It would agree with"
 * @param worst largest departure that is left, channel's unit; NaN where a value is missing
 * @param fits true when every point is left inside tolerance and noise
 * @param logWeight logarithm of prior weight times likelihood
 * @param points indices of the points that it concerns; all of them where it is empty
 * @param remedy what would mend it; empty where nothing in the document is to be mended
 * @param label what the remedy changes
 */
public record Cause(
    Kind kind,
    String says,
    double worst,
    boolean fits,
    double logWeight,
    int[] points,
    Optional<UnaryOperator<Channel>> remedy,
    String label) {

  /** What sort of thing it is. */
  public enum Kind {
    READING_SLIP,
    APPLIED_SLIP,
    APPLIED_UNIT,
    ATMOSPHERE,
    ORDER,
    EXCHANGED,
    MIRRORED,
    RAW_UNIT,
    SENSOR_UNIT,
    CONSTANT,
    SWAPPED_PARTS,
    OTHER_LOOP,
    LOAD,
    OFFSET,
    GAIN,
    CARD
  }
}
