package nocking.diagnosis;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import nocking.channel.Channel;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.wiring.Observation;
import nocking.wiring.PairReading;
import nocking.wiring.Pin;
import nocking.wiring.Place;

/** Between what is written down and what the engine counts with. */
public final class Diagnosis {
  private static final Pattern DECIMALS = Pattern.compile("[-+]?[0-9]*\\.?([0-9]*)");

  private Diagnosis() {}

  /**
   * Inputs at which a channel can be looked at: the working and the sensor's rated range with a
   * tenth beyond, but not where the sensor has no value at all.
   */
  public static Span inputs(Channel c) {
    Span w = c.definition().working();
    Span r = c.design().sensor().rated(c.unit());
    double low = Math.min(w.low(), r.low());
    double high = Math.max(w.high(), r.high());
    double more = 0.1 * (high - low);
    Span wide = new Span(low - more, high + more);
    return c.design()
        .sensor()
        .known(c.unit())
        .map(k -> new Span(Math.max(k.low(), wide.low()), Math.min(k.high(), wide.high())))
        .orElse(wide);
  }

  /**
   * Refuses an input at which nothing can have been seen.
   *
   * @throws QuantityException naming the input and the range
   */
  public static void requireInput(Channel c, Observation s) {
    if (s.at() == null || inputs(c).contains(s.at().number())) return;
    Span range = inputs(c);
    throw new QuantityException(
        "the input reads %s, expected %s … %s %s"
            .formatted(
                s.at().typed(),
                Numbers.trimmed(range.low(), 5),
                Numbers.trimmed(range.high(), 5),
                c.unit().symbol())
            .strip());
  }

  /**
   * What the meter showed at the pins at rest, as far as it is not among what was seen already. The
   * ground of the wire plan is the sensor's, read against the receiver's.
   */
  public static List<Observation> ofPins(Channel c) {
    Value rest =
        c.definition().rest() == null ? Value.of(c.design().rest()) : c.definition().rest();
    var list = new ArrayList<Observation>();
    for (Pin p : c.wiring().plan().pins()) {
      if (p.measured() == null) continue;
      placeOf(p.function())
          .map(k -> new Observation(Place.of(k), rest, p.measured()))
          .filter(s -> !c.wiring().seen().contains(s))
          .ifPresent(list::add);
    }
    return list;
  }

  /** A teach wire says nothing of the path. */
  private static Optional<Place.Kind> placeOf(Pin.Function function) {
    return switch (function) {
      case SUPPLY -> Optional.of(Place.Kind.SUPPLY_AT_RECEIVER);
      case GROUND -> Optional.of(Place.Kind.GROUND_AT_SENSOR);
      case SIGNAL -> Optional.of(Place.Kind.SIGNAL_AT_RECEIVER);
      case TEACH -> Optional.empty();
    };
  }

  /** What was seen as an observation; the digits that were typed say how exact a display is. */
  public static MeasuredValue observed(Observation s) {
    double at = s.at() == null ? Double.NaN : s.at().number();
    double step = s.place().equals(Place.DISPLAY) ? lastDigit(s.value().typed()) : 0;
    if (!s.jumping()) return new MeasuredValue(s.place(), at, s.value().number(), step);
    double a = s.value().number();
    double b = s.until().number();
    return new MeasuredValue(s.place(), at, (a + b) / 2, step, Math.abs(b - a) / 2);
  }

  private static double lastDigit(String typed) {
    Matcher m = DECIMALS.matcher(typed.strip());
    return m.lookingAt() ? Math.pow(10, -m.group(1).length()) : 0;
  }

  /** By how much a reading of a sound channel may be off: its tolerance, else 1 % of its range. */
  public static double tolerance(Channel c) {
    double stated = c.definition().toleranceOrNaN();
    return Double.isNaN(stated) ? 0.01 * c.definition().working().width() : stated;
  }

  /** A reading of a place with its unit. */
  public static String reading(Place place, double value, Unit quantity) {
    if (Double.isNaN(value)) return "floats";
    Unit unit = place.unit(quantity);
    if (unit.equals(Unit.OHM) && value >= PairReading.OPEN) return "open";
    if (place.equals(Place.DISPLAY)) {
      return (Numbers.trimmed(value, 4) + " " + unit.symbol()).strip();
    }
    return Math.abs(value) < 5e-5 && unit.equals(Unit.VOLT)
        ? "0 V"
        : Numbers.engineering(value, unit.symbol(), 4);
  }
}
