package nocking.element;

import nocking.quantity.Unit;

/** What a node of the path carries. */
public enum Signal implements Titled {
  /** Direct voltage, volts. */
  VOLTAGE("a voltage", Unit.VOLT),
  /** Resistance of a sensor, ohms. */
  RESISTANCE("a resistance", Unit.OHM),
  /** Loop current, amperes. */
  CURRENT("a current", Unit.AMPERE),
  /** Peak of an alternating voltage, volts. */
  ALTERNATING("an alternating voltage", Unit.VOLT);

  private final String says;
  private final Unit unit;

  Signal(String says, Unit unit) {
    this.says = says;
    this.unit = unit;
  }

  @Override
  public String title() {
    return says.replaceFirst("an? ", "");
  }

  public String says() {
    return says;
  }

  public Unit unit() {
    return unit;
  }
}
