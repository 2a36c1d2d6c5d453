package nocking.analysis;

import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.fit.Curve;
import nocking.points.RawScale;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.CurrentLoop;
import nocking.view.ProbeState;
import nocking.wiring.Place;
import nocking.wiring.Thresholds;

/**
 * What a meter reads on a channel at this moment, beside what is expected there, and what it means.
 *
 * @param place where the meter is
 * @param unit in which it reads: volts, or ohms and milliamperes of the sensor itself
 * @param raw that it reads; NaN where it reads nothing
 * @param at quantity that is applied; NaN where nobody says what is
 * @param expected what is read there by the design; NaN where it says nothing
 * @param quantity that the reading stands for by the curve that is gone by, what the sensor itself
 *     gives through the stages as designed; NaN where it stands for none, and where volts are not
 *     those at the converter
 * @param state station, position or alarm that the volts stand for; empty for none
 * @param fault true where the reading can only be a fault
 */
public record LiveReading(
    Place place,
    RawUnit unit,
    double raw,
    double at,
    double expected,
    double quantity,
    String state,
    boolean fault) {
  private static final int DIGITS = 6;

  /**
   * What a reading at a place means on a channel to which so much is applied; NaN for unknown.
   *
   * @param unit volts, ohms or milliamperes
   */
  public static LiveReading of(Analysis a, Place place, RawUnit unit, double raw, double at) {
    return unit.ofSensor() ? ofSensor(a, place, unit, raw, at) : inVolts(a, place, raw, at);
  }

  private static LiveReading inVolts(Analysis a, Place place, double volts, double at) {
    Optional<ProbeState> probe = Double.isNaN(at) ? Optional.empty() : a.at(at);
    boolean converter = place.equals(Place.of(Place.Kind.SIGNAL_AT_RECEIVER));
    double expected = probe.map(p -> expected(p, place)).orElse(Double.NaN);
    if (!converter || Double.isNaN(volts)) {
      return new LiveReading(place, RawUnit.VOLTS, volts, at, expected, Double.NaN, "", false);
    }
    double quantity = quantity(a, volts);
    Thresholds limits = a.channel().wiring().plan().thresholds();
    boolean fault = limits != null && limits.fault(volts);
    String state =
        a.wiring()
            .positionAt(volts)
            .or(() -> a.channel().design().station(quantity))
            .or(() -> a.wiring().alarmAt(volts))
            .orElse("");
    return new LiveReading(place, RawUnit.VOLTS, volts, at, expected, quantity, state, fault);
  }

  private static LiveReading ofSensor(
      Analysis a, Place place, RawUnit unit, double raw, double at) {
    Optional<RawScale> scale =
        RawScale.of(unit, a.channel().design().converter(), a.design().path());
    double expected = Double.isNaN(at) ? Double.NaN : scale.map(s -> s.raw(at)).orElse(Double.NaN);
    double quantity =
        a.calibration().scaleOf(unit).map(s -> quantity(a, s.volts(raw))).orElse(Double.NaN);
    boolean fault =
        a.channel().design().sensor() instanceof CurrentLoop l
            && unit == RawUnit.MILLIAMPERES
            && l.failure(raw / 1000);
    return new LiveReading(
        place, unit, raw, at, expected, fault ? Double.NaN : quantity, "", fault);
  }

  private static double quantity(Analysis a, double volts) {
    Optional<DoubleUnaryOperator> curve = a.calibration().curve().map(Curve::function);
    return curve.map(f -> f.applyAsDouble(volts)).orElse(Double.NaN);
  }

  private static double expected(ProbeState p, Place place) {
    var nodes = p.readOut().nodes();
    return switch (place.kind()) {
      case SIGNAL_AT_RECEIVER -> p.readOut().output();
      case TEST_POINT ->
          place.node() <= nodes.size() ? nodes.get(place.node() - 1).value() : Double.NaN;
      default -> Double.NaN;
    };
  }

  /** True where something was read. */
  public boolean read() {
    return Double.isFinite(raw);
  }

  /** Volts that it reads; NaN for ohms and milliamperes. */
  public double volts() {
    return unit == RawUnit.VOLTS ? raw : Double.NaN;
  }

  /**
   * @throws QuantityException where the meter is not at the converter
   */
  public void requireConverter() {
    if (place.kind() != Place.Kind.SIGNAL_AT_RECEIVER) {
      throw new QuantityException(
          "The meter is at %s; here counts the signal at the receiver".formatted(place.title()));
    }
  }

  /**
   * The reading for a list that is kept in ohms or milliamperes of the sensor itself.
   *
   * @throws QuantityException where it is read in something else
   */
  public Value value(RawUnit wanted) {
    if (unit != wanted) {
      throw new QuantityException(
          "The meter reads %s at %s; here count %s of the sensor itself"
              .formatted(unit.title(), place.title(), wanted.title()));
    }
    return Value.typed(Numbers.trimmed(raw, DIGITS), unit.unit());
  }

  /** With the digits that the channel's converter can tell, and one more; in the place's unit. */
  public Value value(double step) {
    if (unit == RawUnit.VOLTS) {
      return Value.typed(Numbers.fixed(raw, Numbers.decimalsFor(step)), Unit.VOLT);
    }
    String said = Numbers.trimmed(raw, DIGITS);
    String own = unit == RawUnit.OHMS ? said : said + " " + unit.unit().symbol();
    return Value.typed(own, place.unit(Unit.VOLT));
  }

  /** For people: 1.4790 V = 109.7 mm, −0.3 mm off, in range. */
  public String says(Analysis a) {
    if (!read()) return "no reading";
    double step = a.channel().design().converter().step();
    String v =
        unit == RawUnit.VOLTS
            ? Numbers.fixed(raw, Numbers.decimalsFor(step)) + " V"
            : unit.amount(raw);
    String where = place.kind() == Place.Kind.SIGNAL_AT_RECEIVER ? "" : " at " + place.title();
    String off = Double.isFinite(expected) ? ", %s off".formatted(unit.signed(raw - expected)) : "";
    if (fault) return v + where + off + ", a fault";
    boolean named = !a.channel().design().stations().isEmpty();
    String is = Double.isFinite(quantity) && !named ? " = " + a.design().amount(quantity) : "";
    return v + where + is + off + (state.isEmpty() ? "" : ", " + state);
  }
}
