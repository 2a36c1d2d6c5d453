package nocking.channel;

import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Value;

/**
 * What the error budget counts with beside the parts.
 *
 * @param coldest ambient temperature, °C
 * @param warmest ambient temperature, °C, not below {@code coldest}
 * @param reference expanded uncertainty of the calibration reference in the channel's unit, k = 2;
 *     null when not known
 */
public record Surroundings(Value coldest, Value warmest, Value reference) {
  /** Temperature at which tolerances hold, °C (IEC 60115-1, reference conditions of 20 °C). */
  public static final double REFERENCE_TEMPERATURE = 20;

  public static final Surroundings BENCH = new Surroundings(Value.of(15), Value.of(25), null);

  public Surroundings {
    if (!(coldest.number() <= warmest.number())) {
      throw new QuantityException(
          "the ambient range must rise: read %s … %s".formatted(coldest.typed(), warmest.typed()));
    }
    if (reference != null && !(reference.number() >= 0)) {
      throw new QuantityException("an uncertainty must be at least 0; read " + reference.typed());
    }
  }

  public Span ambient() {
    return new Span(coldest.number(), warmest.number());
  }

  /** Standard uncertainty of the reference, channel's unit; 0 when not known. */
  public double referenceStandard() {
    return reference == null ? 0 : reference.number() / 2;
  }
}
