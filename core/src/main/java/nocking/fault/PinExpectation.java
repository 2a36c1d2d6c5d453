package nocking.fault;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import nocking.path.ReadOut;
import nocking.path.SignalPath;
import nocking.quantity.Span;
import nocking.quantity.Unit;

/**
 * Volts that a pin or test point must read.
 *
 * @param name pin function or test point
 * @param pin index in the wire plan; −1 for a test point behind the connector
 * @param atRest NaN when it is not known
 */
public record PinExpectation(String name, int pin, double atRest, double atLow, double atHigh) {

  /**
   * Expectations of every pin, then of every test point behind the sensor's own.
   *
   * @param supply volts; empty when it is not known
   * @param rest quantity at rest, channel's unit
   */
  public static List<PinExpectation> of(
      WirePlan plan, SignalPath path, Optional<Double> supply, Span working, double rest) {
    ReadOut atRest = path.at(rest);
    ReadOut low = path.at(working.low());
    ReadOut high = path.at(working.high());
    double feed = supply.orElse(Double.NaN);
    int signal = firstVoltage(atRest);
    var list = new ArrayList<PinExpectation>();
    for (int i = 0; i < plan.pins().size(); i++) {
      list.add(
          switch (plan.pins().get(i).function()) {
            case SUPPLY -> new PinExpectation("supply", i, feed, feed, feed);
            case GROUND -> new PinExpectation("ground", i, 0, 0, 0);
            case SIGNAL -> node("signal", i, signal, atRest, low, high);
          });
    }
    for (int n = signal + 1; n < atRest.nodes().size(); n++) {
      list.add(node(atRest.nodes().get(n).point().name(), -1, n, atRest, low, high));
    }
    return list;
  }

  /** A resistive or current sensor shows its voltage only behind its pull-up or burden. */
  private static int firstVoltage(ReadOut read) {
    for (int i = 0; i < read.nodes().size(); i++) {
      if (read.nodes().get(i).point().unit().equals(Unit.VOLT)) return i;
    }
    throw new IllegalStateException("a path ends in a voltage");
  }

  private static PinExpectation node(
      String name, int pin, int node, ReadOut rest, ReadOut low, ReadOut high) {
    return new PinExpectation(
        name,
        pin,
        rest.nodes().get(node).value(),
        low.nodes().get(node).value(),
        high.nodes().get(node).value());
  }
}
