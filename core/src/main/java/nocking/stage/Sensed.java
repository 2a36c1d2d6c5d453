package nocking.stage;

import nocking.element.Signal;
import nocking.network.Circuit;

/** A resistive or current sensor as the stage that builds it in sees it. */
public interface Sensed {
  /** Ohms or amperes. */
  double value();

  /** Puts the sensor between two nodes; a current flows from the first to the second. */
  void between(Circuit circuit, String from, String to);

  /** The sensor by itself, without wires. */
  static Sensed of(Signal signal, double value) {
    return new Sensed() {
      @Override
      public double value() {
        return value;
      }

      @Override
      public void between(Circuit circuit, String from, String to) {
        if (signal == Signal.CURRENT) circuit.current(from, to, value);
        else circuit.resistor(from, to, value);
      }
    };
  }
}
