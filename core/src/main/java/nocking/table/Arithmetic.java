package nocking.table;

import nocking.quantity.QuantityException;

/**
 * How a receiver looks up.
 *
 * @param whole true for integers alone, rounded half up; false for the straight lines themselves
 * @param fullScale output at the upper end of the working range, where outputs count from 0 at the
 *     lower one; 0 for outputs in the quantity
 * @param rawBits width of the raw codes, 2 to 31
 * @param outBits width of the outputs, 2 to 32, with a sign
 * @param outside what it gives beyond the ends
 */
public record Arithmetic(boolean whole, int fullScale, int rawBits, int outBits, Outside outside) {
  public static final Arithmetic LINES = new Arithmetic(false, 0, 16, 32, Outside.EXTEND);

  private static final int MOST_COUNTS = 1_000_000_000;

  public Arithmetic {
    require("full scale", fullScale, 0, MOST_COUNTS);
    require("raw bits", rawBits, 2, 31);
    require("output bits", outBits, 2, 32);
  }

  private static void require(String what, int value, int least, int most) {
    if (value < least || value > most) {
      throw new QuantityException(
          "%s must be %d to %d; read %d".formatted(what, least, most, value));
    }
  }

  public Arithmetic withWhole(boolean v) {
    return new Arithmetic(v, fullScale, rawBits, outBits, outside);
  }

  public Arithmetic withFullScale(int v) {
    return new Arithmetic(whole, v, rawBits, outBits, outside);
  }

  public Arithmetic withRawBits(int v) {
    return new Arithmetic(whole, fullScale, v, outBits, outside);
  }

  public Arithmetic withOutBits(int v) {
    return new Arithmetic(whole, fullScale, rawBits, v, outside);
  }

  public Arithmetic withOutside(Outside v) {
    return new Arithmetic(whole, fullScale, rawBits, outBits, v);
  }
}
