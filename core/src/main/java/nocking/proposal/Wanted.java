package nocking.proposal;

import nocking.parts.Assortment;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;

/**
 * What a whole conditioning has to be made from and for.
 *
 * @param parts at hand
 * @param supply volts for pull-ups, loops and amplifiers, above 0
 * @param total window for the resistance of a divider, ohms
 * @param settling seconds after which a step must be within half a count; NaN for no filter
 * @param mostCurrent amperes that a resistive sensor may carry; infinity where it does not matter
 * @param care what comes first
 */
public record Wanted(
    Assortment parts, double supply, Span total, double settling, double mostCurrent, Care care) {

  /** What the technician cares for most; what is alike in it is ranked by the rest. */
  public enum Care {
    BALANCED("balanced"),
    AFTER("error after calibration"),
    BEFORE("error before calibration"),
    SHARE("share of the converter"),
    FAULTS("broken wires told"),
    PARTS("number of parts"),
    CURRENT("current through the sensor");

    private final String title;

    Care(String title) {
      this.title = title;
    }

    public String title() {
      return title;
    }
  }

  public Wanted {
    if (!(supply > 0)) throw new QuantityException("the supply must be above 0 V");
    if (settling <= 0) throw new QuantityException("a settling time must be above 0 s");
    if (!(mostCurrent > 0)) throw new QuantityException("a current must be above 0 A");
  }

  /**
   * The window for a divider where nobody says one: whoever cares for the current may go higher.
   */
  public static Span usualTotal(Care care) {
    return new Span(10e3, care == Care.CURRENT ? 1e6 : 100e3);
  }

  /** What a resistive sensor is usually read with at most, amperes. */
  public static final double USUAL_CURRENT = 1e-3;
}
