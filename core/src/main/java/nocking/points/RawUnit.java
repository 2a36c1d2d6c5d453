package nocking.points;

import nocking.quantity.Unit;

/** What was read at the converter's input. */
public enum RawUnit {
  VOLTS(Unit.VOLT),
  COUNTS(Unit.COUNTS);

  private final Unit unit;

  RawUnit(Unit unit) {
    this.unit = unit;
  }

  public Unit unit() {
    return unit;
  }
}
