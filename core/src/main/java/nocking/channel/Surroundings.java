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
 * @param partPower rated power of one resistor, watts, above 0
 * @param partVoltage rated working voltage of one resistor, volts, above 0
 * @param atmosphere ambient pressure in kPa, for gauge against absolute
 */
public record Surroundings(
    Value coldest,
    Value warmest,
    Value reference,
    Value partPower,
    Value partVoltage,
    Value atmosphere) {
  /** Temperature at which tolerances hold, °C (IEC 60115-1, reference conditions of 20 °C). */
  public static final double REFERENCE_TEMPERATURE = 20;

  /** Standard atmosphere, kPa (10th CGPM, 1954). */
  public static final double STANDARD_ATMOSPHERE = 101.325;

  /** A bench at room temperature with quarter-watt resistors for 250 V. */
  public static final Surroundings BENCH = of(Value.of(15), Value.of(25), null);

  public Surroundings {
    if (!(coldest.number() <= warmest.number())) {
      throw new QuantityException(
          "the ambient range must rise: read %s … %s".formatted(coldest.typed(), warmest.typed()));
    }
    if (!(partPower.number() > 0) || !(partVoltage.number() > 0)) {
      throw new QuantityException("the ratings of the resistors must be above 0");
    }
    if (!(atmosphere.number() > 0)) {
      throw new QuantityException("the ambient pressure must be above 0 kPa");
    }
    if (reference != null && !(reference.number() >= 0)) {
      throw new QuantityException("an uncertainty must be at least 0; read " + reference.typed());
    }
  }

  /** Ambient range and reference, with the usual ratings and pressure. */
  public static Surroundings of(Value coldest, Value warmest, Value reference) {
    return new Surroundings(
        coldest, warmest, reference, Value.of(0.25), Value.of(250), Value.of(STANDARD_ATMOSPHERE));
  }

  public Surroundings withAmbient(Value from, Value to) {
    return new Surroundings(from, to, reference, partPower, partVoltage, atmosphere);
  }

  public Surroundings withReference(Value v) {
    return new Surroundings(coldest, warmest, v, partPower, partVoltage, atmosphere);
  }

  public Surroundings withRatings(Value power, Value voltage) {
    return new Surroundings(coldest, warmest, reference, power, voltage, atmosphere);
  }

  public Surroundings withAtmosphere(Value v) {
    return new Surroundings(coldest, warmest, reference, partPower, partVoltage, v);
  }

  public Span ambient() {
    return new Span(coldest.number(), warmest.number());
  }

  /** Standard uncertainty of the reference, channel's unit; 0 when not known. */
  public double referenceStandard() {
    return reference == null ? 0 : reference.number() / 2;
  }
}
