package nocking.converter;

import com.fasterxml.jackson.annotation.JsonInclude;
import nocking.element.Element;
import nocking.element.Parameter;
import nocking.quantity.Numbers;
import nocking.quantity.Value;

/**
 * Converter: code = ⌊V/V_ref·2ᴺ⌋, held between 0 and 2ᴺ − 1.
 *
 * <p>Rounding down makes a code stand for a whole step of volts. Turned back into volts it is taken
 * as the middle of its step, (code + ½)·V_ref/2ᴺ, which has no systematic error; the lower edge
 * would read half a count low everywhere.
 *
 * <p>The code of a real part departs by its gain, offset and integral non-linearity errors, of
 * which a datasheet gives the limits; they count in the error budget and not in the code.
 * Oversampling by 4ⁿ adds n bits (IEEE Std 1241, noise of at least half a count assumed).
 *
 * @param bits N, whole, 4 to 24
 * @param reference V_ref, volts, above 0
 * @param inputResistance ohms to ground, above 0; null when the input draws nothing worth counting
 * @param gainError limit in percent of reading; null for none
 * @param offsetError limit in counts; null for none
 * @param nonLinearity limit of the integral non-linearity in counts; null for none
 * @param oversampling readings that make one result, whole, 1 to 256; null for 1
 * @param inputCurrent amperes that the input's own diodes take beyond its ends, above 0; null where
 *     no datasheet says it
 */
public record Converter(
    @Parameter(symbol = "N", label = "Bits", unit = "", least = 4, most = 24, whole = true)
        Value bits,
    @Parameter(symbol = "Vadc", label = "Reference", unit = "V", above = 0) Value reference,
    @Parameter(
            symbol = "Rin",
            label = "Input resistance",
            unit = "ohm",
            above = 0,
            whenEmpty = "infinite")
        Value inputResistance,
    @Parameter(symbol = "eg", label = "Gain error, ±", unit = "%", least = 0, whenEmpty = "none")
        Value gainError,
    @Parameter(
            symbol = "eo",
            label = "Offset error, ±",
            unit = "counts",
            least = 0,
            whenEmpty = "none")
        Value offsetError,
    @Parameter(
            symbol = "inl",
            label = "Non-linearity, ±",
            unit = "counts",
            least = 0,
            whenEmpty = "none")
        Value nonLinearity,
    @Parameter(
            symbol = "M",
            label = "Oversampling",
            least = 1,
            most = 256,
            whole = true,
            whenEmpty = "1")
        Value oversampling,
    @Parameter(
            symbol = "Iin",
            label = "Input current, rated",
            unit = "A",
            above = 0,
            whenEmpty = "not known")
        @JsonInclude(JsonInclude.Include.NON_NULL)
        Value inputCurrent)
    implements Element {

  public static Converter of(int bits, double reference) {
    return of(Value.of(bits), Value.of(reference), null);
  }

  /** An ideal converter. */
  public static Converter of(Value bits, Value reference, Value inputResistance) {
    return new Converter(bits, reference, inputResistance, null, null, null, null, null);
  }

  @Override
  public String title() {
    return "Converter";
  }

  @Override
  public String summary() {
    String times = oversampling == null ? "" : " × " + Numbers.trimmed(oversampling.number(), 3);
    return Numbers.trimmed(bits.number(), 3)
        + " bit"
        + times
        + ", "
        + Numbers.significant(reference.number(), 3)
        + " V";
  }

  /** Bits of a result with oversampling counted in. */
  public int effectiveBits() {
    int extra =
        oversampling == null
            ? 0
            : (int) Math.floor(Math.log(oversampling.number()) / Math.log(4) + 1e-9);
    return (int) bits.number() + extra;
  }

  /** Number of codes of a result. */
  public int codes() {
    return 1 << effectiveBits();
  }

  /** Volts of one count of a result. */
  public double step() {
    return reference.number() / codes();
  }

  /** Volts of one count of the converter itself, without oversampling. */
  public double ownStep() {
    return reference.number() / (1 << (int) bits.number());
  }

  /**
   * Limit of the converter's own error at a voltage: gain, offset and non-linearity together.
   *
   * @return volts, 0 for an ideal converter
   */
  public double errorLimit(double volts) {
    return gainLimit(volts) + (number(offsetError) + number(nonLinearity)) * ownStep();
  }

  /** Limit of the gain error at a voltage, volts. */
  public double gainLimit(double volts) {
    return number(gainError) / 100 * Math.abs(volts);
  }

  private static double number(Value v) {
    return v == null ? 0 : v.number();
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
