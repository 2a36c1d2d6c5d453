package nocking.fault;

import java.util.ArrayList;
import java.util.List;
import nocking.element.Signal;
import nocking.network.Circuit;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.sensor.AcVoltage;
import nocking.sensor.CurrentLoop;
import nocking.sensor.Potentiometer;
import nocking.sensor.Sensor;
import nocking.sensor.StrainBridge;
import nocking.wiring.PairReading;
import nocking.wiring.Pin;
import nocking.wiring.Pin.Function;

/**
 * Resistance between two pins that the meter must show before power, receiver unplugged, sensor at
 * rest.
 *
 * @param first index in the wire plan
 * @param second index in the wire plan
 * @param ohms nominal; NaN where the datasheet says nothing and only a short would be wrong
 * @param window what is good; open ended upwards where only a short would be wrong
 */
public record PairExpectation(int first, int second, String name, double ohms, Span window) {
  /** Less than this between the supply pins of anything is a short. */
  public static final double SHORT = 50;

  private static final double TRACK_WITHIN = 0.2;
  private static final double ELEMENT_WITHIN = 0.02;
  private static final double TEST_CURRENT = 1e-4;

  /** Every pair of the plan's wires, in its order. */
  public static List<PairExpectation> of(Subject subject) {
    List<Pin> pins = subject.channel().wiring().plan().pins();
    var list = new ArrayList<PairExpectation>();
    for (int i = 0; i < pins.size(); i++) {
      for (int j = i + 1; j < pins.size(); j++) {
        list.add(pair(subject, i, j, pins.get(i).function(), pins.get(j).function()));
      }
    }
    return List.copyOf(list);
  }

  private static PairExpectation pair(Subject s, int i, int j, Function a, Function b) {
    String name = "%d–%d".formatted(i + 1, j + 1);
    double ohms = a == b ? 0 : ohms(s, a, b);
    if (Double.isNaN(ohms)) {
      return new PairExpectation(i, j, name, ohms, new Span(SHORT, Double.MAX_VALUE));
    }
    double off = ohms * within(s) + 0.5;
    return new PairExpectation(i, j, name, ohms, new Span(Math.max(0, ohms - off), ohms + off));
  }

  /** A resistive sensor's own window counts what the quantity at rest may be off. */
  private static double within(Subject s) {
    Sensor sensor = s.sensor();
    if (sensor instanceof Potentiometer) return TRACK_WITHIN;
    if (sensor instanceof StrainBridge) return ELEMENT_WITHIN;
    double rest = s.channel().design().rest();
    double tolerance = NormalBand.of(s).tolerance();
    double r = s.output(sensor, rest);
    double moved =
        Math.max(
            Math.abs(s.output(sensor, rest + tolerance) - r),
            Math.abs(s.output(sensor, rest - tolerance) - r));
    return ELEMENT_WITHIN + moved / r;
  }

  /** Ohms between two pins of the sensor and its cable; NaN where electronics stand between. */
  private static double ohms(Subject s, Function a, Function b) {
    double rest = s.channel().design().rest();
    var c = new Circuit();
    switch (s.sensor()) {
      case Potentiometer p -> {
        // What sits at the receiver is not measured on the unplugged sensor.
        boolean own = p.resistors() == Potentiometer.EndSide.SENSOR;
        double above = p.trackAbove(rest) + (own ? p.topOhms() : 0);
        double below = p.trackBelow(rest) + (own ? p.bottomOhms() : 0);
        link(c, Function.SUPPLY, Function.SIGNAL, above);
        link(c, Function.SIGNAL, Function.GROUND, below);
      }
      case StrainBridge bridge -> {
        double r = Math.max(bridge.sourceResistance().number(), 1);
        link(c, Function.SUPPLY, Function.SIGNAL, r);
        link(c, Function.SIGNAL, Function.GROUND, r);
        link(c, Function.SUPPLY, Function.GROUND, 2 * r);
      }
      case CurrentLoop l -> {
        return Double.NaN;
      }
      case AcVoltage ac -> {
        return Double.NaN;
      }
      default -> {
        if (s.sensor().signal() != Signal.RESISTANCE) return Double.NaN;
        double ohms = s.output(s.sensor(), rest);
        Function far =
            s.channel().wiring().plan().indexOf(Function.GROUND) >= 0
                ? Function.GROUND
                : Function.SUPPLY;
        link(c, Function.SIGNAL, far, ohms);
      }
    }
    if (!c.has(a.name()) || !c.has(b.name())) return Double.NaN;
    double v =
        c.source(b.name(), Circuit.GROUND, 0)
            .current(Circuit.GROUND, a.name(), TEST_CURRENT)
            .operatingPoint(new Span(0, 0))
            .volts(a.name(), b.name());
    return v / TEST_CURRENT;
  }

  private static void link(Circuit c, Function a, Function b, double ohms) {
    c.resistor(a.name(), b.name(), Math.max(ohms, 1e-3));
  }

  /** What must be seen, in words: a value, or no short. */
  public String says() {
    return Double.isNaN(ohms) ? "no short" : Numbers.engineering(ohms, "Ω", 3);
  }

  /** The window in words. */
  public String windowSays() {
    return Double.isNaN(ohms)
        ? "above " + Numbers.compact(SHORT, "Ω", 2)
        : Numbers.compact(window.low(), "Ω", 3) + " … " + Numbers.compact(window.high(), "Ω", 3);
  }

  /** True when a measured resistance is good. */
  public boolean holds(double measured) {
    return window.contains(measured) || Double.isNaN(ohms) && measured >= PairReading.OPEN;
  }
}
