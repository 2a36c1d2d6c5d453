package nocking.points;

import java.util.Locale;
import nocking.quantity.Unit;

/** What is read at the converter's input, or by a receiver that has a pull-up of its own. */
public enum RawUnit {
  VOLTS(Unit.VOLT),
  COUNTS(Unit.COUNTS),
  OHMS(Unit.OHM);

  private final Unit unit;

  RawUnit(Unit unit) {
    this.unit = unit;
  }

  /** In words: {@code volts}. */
  public String title() {
    return name().toLowerCase(Locale.ROOT);
  }

  public Unit unit() {
    return unit;
  }
}
