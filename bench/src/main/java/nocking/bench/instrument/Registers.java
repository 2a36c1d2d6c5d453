package nocking.bench.instrument;

import java.util.Locale;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import nocking.quantity.QuantityException;

/**
 * Where a number stands in the registers of a device, and how: {@code input 0 float}, {@code
 * holding 16 int16 /10}. Registers are counted from 0, as they are on the line (MODBUS Application
 * Protocol V1.1b3, 4.4); of two words the higher comes first, unless it says {@code swapped}.
 *
 * @param input true for input registers (function 4), false for holding registers (function 3)
 * @param first 0 … 65 535
 * @param divisor by which what stands there is divided, other than 0
 */
record Registers(boolean input, int first, Form form, boolean swapped, double divisor) {
  private static final Pattern WORDS =
      Pattern.compile(
          "(input|holding)\\s+(\\d{1,5})\\s+(int16|uint16|int32|uint32|float)(\\s+swapped)?"
              + "(?:\\s*/\\s*([0-9.eE+-]+))?");

  /** How a number is written into words. */
  enum Form {
    INT16(1),
    UINT16(1),
    INT32(2),
    UINT32(2),
    /** IEEE 754, 32 bits. */
    FLOAT(2);

    private final int words;

    Form(int words) {
      this.words = words;
    }
  }

  /**
   * @throws QuantityException saying what was read and what was expected
   */
  static Registers parse(String text) {
    Matcher m = WORDS.matcher(text.strip().toLowerCase(Locale.ROOT));
    if (!m.matches()) throw odd(text);
    int first = Integer.parseInt(m.group(2));
    double divisor = 1;
    try {
      if (m.group(5) != null) divisor = Double.parseDouble(m.group(5));
    } catch (NumberFormatException e) {
      throw odd(text);
    }
    Form form = Form.valueOf(m.group(3).toUpperCase(Locale.ROOT));
    boolean there = first + form.words <= 65_536;
    if (!there || divisor == 0 || !Double.isFinite(divisor)) throw odd(text);
    return new Registers(m.group(1).equals("input"), first, form, m.group(4) != null, divisor);
  }

  private static QuantityException odd(String text) {
    return new QuantityException(
        "read '%s', expected registers such as input 0 float or holding 16 int16 /10"
            .formatted(text));
  }

  /** How many words the number takes. */
  int words() {
    return form.words;
  }

  /** The number that stands in its words, each 0 … 65 535. */
  double decode(int[] words) {
    int high = words[swapped ? words.length - 1 : 0];
    int low = words[swapped ? 0 : words.length - 1];
    int both = high << 16 | low;
    double v =
        switch (form) {
          case INT16 -> (short) words[0];
          case UINT16 -> words[0];
          case INT32 -> both;
          case UINT32 -> Integer.toUnsignedLong(both);
          case FLOAT -> Float.intBitsToFloat(both);
        };
    return v / divisor;
  }

  /**
   * The words of a number, rounded to what they can hold.
   *
   * @throws QuantityException where they cannot hold it
   */
  int[] encode(double value) {
    double v = value * divisor;
    long whole = Math.round(v);
    boolean fits =
        switch (form) {
          case INT16 -> whole == (short) whole;
          case UINT16 -> whole >= 0 && whole <= 0xFFFF;
          case INT32 -> whole == (int) whole;
          case UINT32 -> whole >= 0 && whole <= 0xFFFF_FFFFL;
          case FLOAT -> Math.abs(v) <= Float.MAX_VALUE;
        };
    if (!fits || !Double.isFinite(v)) {
      throw new QuantityException(
          "%s does not fit into %s".formatted(value, form.name().toLowerCase(Locale.ROOT)));
    }
    int bits = form == Form.FLOAT ? Float.floatToIntBits((float) v) : (int) whole;
    if (form.words == 1) return new int[] {bits & 0xFFFF};
    int high = bits >>> 16;
    int low = bits & 0xFFFF;
    return swapped ? new int[] {low, high} : new int[] {high, low};
  }
}
