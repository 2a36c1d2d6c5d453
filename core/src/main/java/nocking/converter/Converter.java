package nocking.converter;

import nocking.element.Element;
import nocking.element.Parameter;
import nocking.quantity.Numbers;
import nocking.quantity.Value;

/**
 * Ideal converter: code = ⌊V/V_ref·2ᴺ⌋, held between 0 and 2ᴺ − 1.
 *
 * <p>Rounding down makes a code stand for a whole step of volts. Turned back into volts it is taken
 * as the middle of its step, (code + ½)·V_ref/2ᴺ, which has no systematic error; the lower edge
 * would read half a count low everywhere.
 *
 * @param bits N, whole, 4 to 24
 * @param reference V_ref, volts, above 0
 * @param inputResistance ohms to ground, above 0; null when the input draws nothing worth counting
 */
public record Converter(
    @Parameter(symbol = "N", label = "Bits", unit = "", least = 4, most = 24, whole = true)
        Value bits,
    @Parameter(symbol = "Vadc", label = "Reference", unit = "V", above = 0) Value reference,
    @Parameter(symbol = "Rin", label = "Input resistance", unit = "ohm", above = 0, optional = true)
        Value inputResistance)
    implements Element {

  public static Converter of(int bits, double reference) {
    return new Converter(Value.of(bits), Value.of(reference), null);
  }

  @Override
  public String title() {
    return "Converter";
  }

  @Override
  public String summary() {
    return Numbers.trimmed(bits.number(), 3)
        + " bit, "
        + Numbers.significant(reference.number(), 3)
        + " V";
  }

  /** Number of codes, 2ᴺ. */
  public int codes() {
    return 1 << (int) bits.number();
  }

  /** Volts of one count. */
  public double step() {
    return reference.number() / codes();
  }

  /** Code for a voltage; outside the range the end code. */
  public int code(double volts) {
    double code = Math.floor(volts / reference.number() * codes());
    return (int) Math.clamp(code, 0, codes() - 1.0);
  }

  /** Volts in the middle of a code's step. */
  public double volts(double code) {
    return (code + 0.5) * step();
  }
}
