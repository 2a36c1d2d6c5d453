package nocking.firmware;

import nocking.quantity.QuantityException;

/**
 * What a look-up refuses or holds beside its table.
 *
 * @param faultBelow raw codes below this are a broken wire; null for no such limit
 * @param faultAbove raw codes above this likewise; null for none
 * @param least output, in its steps, below which nothing is shown; null for none
 * @param most output above which nothing is shown; null for none
 */
public record Guards(Integer faultBelow, Integer faultAbove, Long least, Long most) {
  public static final Guards NONE = new Guards(null, null, null, null);

  public Guards {
    if (faultBelow != null && faultAbove != null && faultBelow > faultAbove) {
      throw new QuantityException(
          "every raw code would be a fault: below %d and above %d"
              .formatted(faultBelow, faultAbove));
    }
    if (least != null && most != null && least > most) {
      throw new QuantityException(
          "the least output %d is above the largest, %d".formatted(least, most));
    }
  }

  /** True for a raw code that only a broken wire gives. */
  boolean fault(int raw) {
    return faultBelow != null && raw < faultBelow || faultAbove != null && raw > faultAbove;
  }

  boolean faults() {
    return faultBelow != null || faultAbove != null;
  }

  /** The output that is shown, in its steps. */
  long shown(long output) {
    long above = least == null ? output : Math.max(output, least);
    return most == null ? above : Math.min(above, most);
  }
}
