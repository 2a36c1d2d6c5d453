package nocking.band;

import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/**
 * A switch on the same mechanism as an analogue sensor.
 *
 * @param at where it must change, channel's unit
 * @param window how far from there it may change, channel's unit, above 0
 * @param up where it was seen to change on the way up; null when not tried
 * @param down where it was seen to change on the way down; null when not tried
 * @param activeLow true where the input reads low above the place and high below it, as with a
 *     contact to ground that closes there; false for the other way round
 */
public record SwitchPoint(
    String name, Value at, Value window, Value up, Value down, Boolean activeLow) {
  public SwitchPoint withName(String v) {
    return new SwitchPoint(v, at, window, up, down, activeLow);
  }

  public SwitchPoint withAt(Value v) {
    return new SwitchPoint(name, v, window, up, down, activeLow);
  }

  public SwitchPoint withWindow(Value v) {
    return new SwitchPoint(name, at, v, up, down, activeLow);
  }

  /** With where it was seen to change; null where it was not tried. */
  public SwitchPoint withSeen(Value upwards, Value downwards) {
    return new SwitchPoint(name, at, window, upwards, downwards, activeLow);
  }

  public SwitchPoint withActiveLow(boolean v) {
    return new SwitchPoint(name, at, window, up, down, v);
  }

  /** Words for the levels of its input, and for the stretch where it may be either. */
  public static final String HIGH = "high";

  public static final String LOW = "low";
  public static final String EITHER = "either";

  /** The level that its input must have at a reading: high, low, or either inside the window. */
  public String levelAt(double reading) {
    if (Double.isNaN(reading)) return EITHER;
    if (Math.abs(reading - at.number()) <= window.number()) return EITHER;
    return reading > at.number() != activeLow ? HIGH : LOW;
  }

  /** The same switch with where it was seen to change. */
  public SwitchPoint withObservations(Value onTheWayUp, Value onTheWayDown) {
    return new SwitchPoint(name, at, window, onTheWayUp, onTheWayDown, activeLow);
  }

  public SwitchPoint {
    if (activeLow == null) activeLow = false;
    if (name == null || name.isBlank()) throw new QuantityException("a switch needs a name");
    if (at == null || window == null) {
      throw new QuantityException("switch " + name + " needs its place and its window");
    }
    if (!(window.number() > 0)) {
      throw new QuantityException(
          "switch %s: a window must be above 0; read %s".formatted(name, window.typed()));
    }
  }
}
