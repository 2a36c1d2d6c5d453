package nocking.fault;

import nocking.quantity.Value;

/**
 * One wire of the channel.
 *
 * @param function what it carries
 * @param wire colour as the technician names it
 * @param terminal where it ends at the receiver
 * @param measured volts at rest against ground; null until it is entered
 */
public record Pin(Function function, String wire, String terminal, Value measured) {
  /** Functions of a three-wire voltage sensor. */
  public enum Function {
    SUPPLY,
    GROUND,
    SIGNAL
  }

  public Pin withWire(String v) {
    return new Pin(function, v, terminal, measured);
  }

  public Pin withTerminal(String v) {
    return new Pin(function, wire, v, measured);
  }

  public Pin withMeasured(Value v) {
    return new Pin(function, wire, terminal, v);
  }
}
