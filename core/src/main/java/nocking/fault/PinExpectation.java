package nocking.fault;

import java.util.ArrayList;
import java.util.List;
import nocking.element.Signal;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.wiring.Pin;
import nocking.wiring.Place;

/**
 * Volts that a pin or test point must read after power.
 *
 * @param name pin function or test point
 * @param pin index in the wire plan; −1 for a test point behind the connector
 * @param atRest NaN when it is not known
 * @param window what is still good at rest; the sensor's own error inside the channel's tolerance,
 *     the parts inside theirs
 * @param alternating true where a meter must stand on alternating volts; they are RMS
 */
public record PinExpectation(
    String name,
    int pin,
    double atRest,
    double atLow,
    double atHigh,
    Span window,
    boolean alternating) {

  /** Least window: what a hand-held meter leaves open. */
  private static final double METER = 2e-3;

  /** Volts that are written as none. */
  private static final double NOTHING = 5e-7;

  /** Largest offset of a sound ground, volts. */
  private static final double GROUND_WITHIN = 20e-3;

  /** Volts; with the mark that meters have on their alternating range. */
  private String unit() {
    return alternating ? "V~" : "V";
  }

  /** What it must read at rest with its window: 4.58 V ±0.11; or that it is not stated. */
  public String atRestSays() {
    if (Double.isNaN(atRest) || window == null) return "not stated";
    double v = Math.abs(atRest) < NOTHING ? 0 : atRest;
    return Numbers.withLimit(v, window.width() / 2, unit()).replace('-', '−');
  }

  /** What it reads from the low to the high end; empty where it stays the same. */
  public String rangeSays() {
    if (Double.isNaN(atLow) || atLow == atHigh) return "";
    return Numbers.between(atLow, atHigh, unit()).replace('-', '−');
  }

  /**
   * Expectations of every pin, then of every test point behind the sensor's own.
   *
   * @param subject the channel with its circuit
   */
  public static List<PinExpectation> of(Subject subject) {
    var list = new ArrayList<PinExpectation>();
    List<Pin> pins = subject.channel().wiring().plan().pins();
    for (int i = 0; i < pins.size(); i++) {
      String name = pins.get(i).function().title();
      list.add(
          switch (pins.get(i).function()) {
            case SUPPLY -> supply(subject, name, i);
            case GROUND -> ground(subject, name, i);
            case SIGNAL -> node(subject, name, i, Place.of(Place.Kind.SIGNAL_AT_RECEIVER));
            // What holds it when nobody teaches is the sensor's own affair.
            case TEACH ->
                new PinExpectation(name, i, Double.NaN, Double.NaN, Double.NaN, null, false);
          });
    }
    for (Place p : FaultMatrix.places(subject)) {
      if (p.kind() == Place.Kind.TEST_POINT) list.add(node(subject, p.title(), -1, p));
    }
    return List.copyOf(list);
  }

  private static PinExpectation supply(Subject subject, String name, int pin) {
    double volts = subject.supply().orElse(Double.NaN);
    if (Double.isNaN(volts)) return new PinExpectation(name, pin, volts, volts, volts, null, false);
    Place place = Place.of(Place.Kind.SUPPLY_AT_RECEIVER);
    Span w = subject.channel().definition().working();
    double rest = subject.channel().design().rest();
    // Behind a resistor of the receiver's own the wire carries less than the supply.
    double at = read(subject, place, rest);
    if (Double.isNaN(at)) at = volts;
    double off = subject.supplied().share() * at + PartWindows.at(subject, place, rest);
    return new PinExpectation(
        name,
        pin,
        at,
        otherwise(read(subject, place, w.low()), at),
        otherwise(read(subject, place, w.high()), at),
        new Span(at - off, at + off),
        false);
  }

  private static double otherwise(double v, double where) {
    return Double.isNaN(v) ? where : v;
  }

  /** Half of what the tolerance is worth in volts, as far as a sound ground allows it at all. */
  private static PinExpectation ground(Subject subject, String name, int pin) {
    Span w = subject.channel().definition().working();
    Place signal = Place.of(Place.Kind.SIGNAL_AT_RECEIVER);
    double slope =
        Math.abs(read(subject, signal, w.high()) - read(subject, signal, w.low())) / w.width();
    double allowed = slope * NormalBand.of(subject).tolerance() / 2;
    Place place = Place.of(Place.Kind.GROUND_AT_SENSOR);
    double rest = subject.channel().design().rest();
    double at = otherwise(read(subject, place, rest), 0);
    double off =
        Math.clamp(allowed, METER / 2, GROUND_WITHIN) + PartWindows.at(subject, place, rest);
    return new PinExpectation(
        name,
        pin,
        at,
        otherwise(read(subject, place, w.low()), at),
        otherwise(read(subject, place, w.high()), at),
        new Span(at - off, at + off),
        false);
  }

  private static PinExpectation node(Subject subject, String name, int pin, Place place) {
    Span w = subject.channel().definition().working();
    double rest = subject.channel().design().rest();
    double at = read(subject, place, rest);
    double off = METER + 0.5e-2 * Math.abs(at) + PartWindows.at(subject, place, rest);
    Span window = Double.isNaN(at) ? null : window(subject, place, rest, off);
    return new PinExpectation(
        name,
        pin,
        at,
        read(subject, place, w.low()),
        read(subject, place, w.high()),
        window,
        place.kind() == Place.Kind.SIGNAL_AT_RECEIVER
            && subject.sensor().signal() == Signal.ALTERNATING);
  }

  /**
   * About what the supply makes of it: the one that was measured, else any inside its tolerance.
   */
  private static Span window(Subject subject, Place place, double rest, double off) {
    double nominal = subject.supply().orElse(Double.NaN);
    double measured =
        subject.channel().wiring().plan().pins().stream()
            .filter(p -> p.function() == Pin.Function.SUPPLY && p.measured() != null)
            .mapToDouble(p -> p.measured().number() / nominal)
            .findFirst()
            .orElse(Double.NaN);
    double share = Double.isNaN(nominal) ? 0 : subject.supplied().share();
    boolean sound = Math.abs(measured - 1) <= share;
    double least = sound ? measured : 1 - share;
    double most = sound ? measured : 1 + share;
    Span ends = Span.between(read(subject, place, rest, least), read(subject, place, rest, most));
    return new Span(ends.low() - off, ends.high() + off);
  }

  private static double read(Subject subject, Place place, double x) {
    return read(subject, place, x, 1);
  }

  private static double read(Subject subject, Place place, double x, double rail) {
    return FaultyPath.onRail(subject, Fault.NONE, x, rail)
        .read(place, Double.POSITIVE_INFINITY)
        .value();
  }
}
