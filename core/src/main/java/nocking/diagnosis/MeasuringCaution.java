package nocking.diagnosis;

import java.util.ArrayList;
import java.util.List;
import nocking.channel.Channel;
import nocking.channel.Hazard;
import nocking.points.RawUnit;
import nocking.stage.BridgeRectifier;
import nocking.wiring.Place;

/** What to mind before a measurement that is proposed on a channel. */
public final class MeasuringCaution {
  private MeasuringCaution() {}

  /**
   * Cautions for a place, in one line; local codes and the maker's instructions come first.
   *
   * @param place where it is measured; null where that is not settled
   */
  public static String of(Channel c, Place place) {
    if (place != null && place.equals(Place.DISPLAY)) return hazards(c);
    boolean live = place == null || place.live();
    String hands = live ? "Live: one probe at a time, use the ground post. " : "";
    String off = place == null ? "" : before(place);
    return hands + (off.isEmpty() ? "" : off + " ") + hazards(c);
  }

  /** What has to be off, or away, before something is read; empty where nothing has. */
  public static String before(RawUnit raw) {
    return switch (raw) {
      case VOLTS, COUNTS -> "";
      case OHMS -> before(Place.of(Place.Kind.OHMS_AT_SENSOR));
      case MILLIAMPERES -> before(Place.of(Place.Kind.LOOP_CURRENT));
    };
  }

  /** What has to be off, or away, before a meter goes to a place; empty where nothing has. */
  public static String before(Place place) {
    return switch (place.kind()) {
      case OHMS_AT_SENSOR ->
          "Ohms: unplug the sensor first. Beside a pull-up or a supply that is on, an ohmmeter reads"
              + " the circuit, and may be harmed.";
      case OHMS_AT_RECEIVER ->
          "Ohms: unplug the cable at the receiver first; leads and contacts are in what is read."
              + " Beside a supply that is on, an ohmmeter may be harmed.";
      case LOOP_CURRENT ->
          "Loop current: switch the loop's supply off before a wire is opened for the meter. What"
              + " watches the loop takes that for a failure: tell whom it concerns.";
      default -> "";
    };
  }

  private static String hazards(Channel c) {
    var all = new ArrayList<String>();
    List<Hazard> hazards = c.definition().hazards();
    if (hazards.contains(Hazard.MAINS)) {
      all.add(
          "Mains: everything behind a bare divider may be live. Licensed work under local codes.");
    }
    if (c.design().stages().stream().anyMatch(BridgeRectifier.class::isInstance)) {
      all.add("Stored charge: measure that the capacitor is empty before you touch.");
    }
    if (hazards.contains(Hazard.SAFETY_SIGNAL)) {
      all.add("A machine acts on this signal: disconnect nothing without the competent person.");
    }
    if (hazards.contains(Hazard.PRESSURE)) {
      all.add("Pressure: bleed the line before you open a fitting.");
    }
    if (hazards.contains(Hazard.MOVING)) {
      all.add("Moving parts: lock the machine out before you reach in.");
    }
    if (hazards.contains(Hazard.HEAT)) all.add("Mind hot surfaces and wet hands.");
    return all.isEmpty()
        ? "Local codes and the maker's instructions come first."
        : String.join(" ", all);
  }
}
