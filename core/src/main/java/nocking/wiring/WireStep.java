package nocking.wiring;

import java.util.List;

/**
 * One step of wiring a sensor.
 *
 * @param phase when it is done
 * @param text what to do
 * @param why the reason, where the order matters; empty for none
 */
public record WireStep(Phase phase, String text, String why) {

  /** The phases in their order. */
  public enum Phase {
    MAKE("Make the lead"),
    BEFORE("Check before power"),
    AFTER("Check after power, at rest"),
    NORMAL("Normal, no fault");

    private final String title;

    Phase(String title) {
      this.title = title;
    }

    public String title() {
      return title;
    }
  }

  /** The steps in their order. */
  public static final List<WireStep> ALL =
      List.of(
          step(
              Phase.MAKE, "Note the colours and positions in the plan before anything is cut.", ""),
          step(
              Phase.MAKE,
              "Slide the seal on the wire, then strip and crimp.",
              "It cannot be put on afterwards."),
          step(
              Phase.MAKE,
              "Strip to the terminal's length; the insulation ends inside its rear wings.",
              "Too long and bare wire stands out, too short and the crimp holds insulation."),
          step(
              Phase.MAKE,
              "Crimp, then pull by hand.",
              "A crimp that slips now is an open wire in a year."),
          step(
              Phase.MAKE,
              "Insert until it clicks, pull back lightly, close the secondary lock.",
              "A terminal that is not latched backs out when the plug is mated."),
          step(
              Phase.MAKE,
              "Have one spare terminal and seal; breakout leads are for the bench, not for service.",
              ""),
          step(
              Phase.BEFORE,
              "Continuity of every wire from pin to terminal, the plug wiggled meanwhile.",
              "A broken crimp often shows only when it is moved."),
          step(
              Phase.BEFORE,
              "Resistance between each pair of pins, receiver unplugged; no short from supply to"
                  + " ground.",
              "A short found with the meter costs nothing, one found by the supply may."),
          step(
              Phase.AFTER,
              "Ground first, then signal, supply last.",
              "A signal without its ground may carry the whole supply."),
          step(
              Phase.AFTER,
              "Sensor at rest: read supply, ground offset and signal against the plan.",
              ""),
          step(
              Phase.AFTER,
              "Ground of the sensor against the ground of the receiver at two places.",
              "The same few tens of millivolts everywhere are one ground at fault, not every"
                  + " signal."),
          step(
              Phase.AFTER,
              "Swap nothing while power is on; one probe at a time on live points.",
              "A slipped probe shorts two pins."),
          step(Phase.NORMAL, "A short spike when a live plug goes in.", ""),
          step(Phase.NORMAL, "A full-scale output well under the supply.", ""),
          step(Phase.NORMAL, "A resting output of a few hundred millivolts.", ""));

  private static WireStep step(Phase phase, String text, String why) {
    return new WireStep(phase, text, why);
  }
}
