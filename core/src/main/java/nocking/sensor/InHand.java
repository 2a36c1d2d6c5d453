package nocking.sensor;

import nocking.element.Signal;

/** What a technician has in hand, as a list of sensors is grouped by. */
public enum InHand {
  VOLTS("Volts"),
  SHARE("Share of the supply"),
  RESISTANCE("Resistance"),
  CURRENT("Current"),
  POSITIONS("Positions"),
  ALTERNATING("Alternating voltage");

  private final String title;

  InHand(String title) {
    this.title = title;
  }

  public String title() {
    return title;
  }

  public static InHand of(Sensor s) {
    if (!s.stations().isEmpty()) return POSITIONS;
    if (s.signal() == Signal.RESISTANCE) return RESISTANCE;
    if (s.signal() == Signal.CURRENT) return CURRENT;
    if (s.signal() == Signal.ALTERNATING) return ALTERNATING;
    return s.ratiometricSupply().isPresent() || s instanceof StrainBridge ? SHARE : VOLTS;
  }
}
