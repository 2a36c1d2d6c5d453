package nocking.wiring;

import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/**
 * One wire of the channel.
 *
 * @param function what it carries
 * @param wire colour as the technician names it
 * @param position at the sensor's connector, for example {@code A1}; empty where there is none
 * @param terminal where it ends at the receiver
 * @param length of the wire in metres, at least 0; null when not known
 * @param measured volts at rest against ground; null until it is entered
 * @param continuity ohms from end to end before power; null until it is entered
 */
public record Pin(
    Function function,
    String wire,
    String position,
    String terminal,
    Value length,
    Value measured,
    Value continuity) {
  /** What a wire carries. */
  public enum Function {
    SUPPLY("supply"),
    GROUND("ground"),
    SIGNAL("signal"),
    /** Held to ground for a stated time it teaches the sensor an end-point. */
    TEACH("teach");

    private final String title;

    Function(String title) {
      this.title = title;
    }

    public String title() {
      return title;
    }
  }

  public Pin {
    position = position == null ? "" : position;
    if (length != null && length.number() < 0) {
      throw new QuantityException("a length must be at least 0 m; read " + length.typed());
    }
  }

  /** A wire of which only its colour and its terminal are known. */
  public static Pin of(Function function, String wire, String terminal) {
    return new Pin(function, wire, "", terminal, null, null, null);
  }

  public Pin withWire(String v) {
    return new Pin(function, v, position, terminal, length, measured, continuity);
  }

  public Pin withPosition(String v) {
    return new Pin(function, wire, v, terminal, length, measured, continuity);
  }

  public Pin withTerminal(String v) {
    return new Pin(function, wire, position, v, length, measured, continuity);
  }

  public Pin withLength(Value v) {
    return new Pin(function, wire, position, terminal, v, measured, continuity);
  }

  public Pin withMeasured(Value v) {
    return new Pin(function, wire, position, terminal, length, v, continuity);
  }

  public Pin withContinuity(Value v) {
    return new Pin(function, wire, position, terminal, length, measured, v);
  }

  /**
   * Most ohms of a sound wire from end to end: half an ohm for two contacts and the meter's leads,
   * and copper of 0.14 mm² (IEC 60228, 0.0172 Ω·mm²/m) over its length; 10 m where that is not
   * known.
   */
  public double mostContinuity() {
    double metres = length == null ? 10 : length.number();
    return 0.5 + 0.0172 / 0.14 * metres;
  }
}
