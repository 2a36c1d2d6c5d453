package nocking.analysis;

import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.fit.Curve;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.view.ProbeState;
import nocking.wiring.Place;
import nocking.wiring.Thresholds;

/**
 * What a meter reads on a channel at this moment, beside what is expected there, and what it means.
 *
 * @param place where the meter is
 * @param volts that it reads; NaN where it reads none
 * @param at quantity that is applied; NaN where nobody says what is
 * @param expected volts there by the design; NaN where it says nothing
 * @param quantity that the volts stand for by the curve that is gone by; NaN where they stand for
 *     none, and where the meter is not at the converter
 * @param state station, position or alarm that the volts stand for; empty for none
 * @param fault true where the volts can only be a fault
 */
public record LiveReading(
    Place place,
    double volts,
    double at,
    double expected,
    double quantity,
    String state,
    boolean fault) {

  /** What volts at a place mean on a channel to which so much is applied; NaN for unknown. */
  public static LiveReading of(Analysis a, Place place, double volts, double at) {
    Optional<ProbeState> probe = Double.isNaN(at) ? Optional.empty() : a.at(at);
    boolean converter = place.equals(Place.of(Place.Kind.SIGNAL_AT_RECEIVER));
    double expected = probe.map(p -> expected(p, place)).orElse(Double.NaN);
    if (!converter || Double.isNaN(volts)) {
      return new LiveReading(place, volts, at, expected, Double.NaN, "", false);
    }
    Optional<DoubleUnaryOperator> curve = a.calibration().curve().map(Curve::function);
    double quantity = curve.map(f -> f.applyAsDouble(volts)).orElse(Double.NaN);
    Thresholds limits = a.channel().wiring().plan().thresholds();
    boolean fault = limits != null && limits.fault(volts);
    String state =
        a.wiring()
            .positionAt(volts)
            .or(() -> a.channel().design().station(quantity))
            .or(() -> a.wiring().alarmAt(volts))
            .orElse("");
    return new LiveReading(place, volts, at, expected, quantity, state, fault);
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
    return Double.isFinite(volts);
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

  /** Volts with the digits that the channel's converter can tell, and one more. */
  public Value value(double step) {
    return Value.typed(Numbers.fixed(volts, Numbers.decimalsFor(step)), Unit.VOLT);
  }

  /** For people: 1.4790 V = 109.7 mm, −0.3 mm off, in range. */
  public String says(Analysis a) {
    double step = a.channel().design().converter().step();
    String v = Numbers.fixed(volts, Numbers.decimalsFor(step)) + " V";
    if (!read()) return "no reading";
    String where = place.kind() == Place.Kind.SIGNAL_AT_RECEIVER ? "" : " at " + place.title();
    String off =
        Double.isFinite(expected)
            ? ", %s mV off".formatted(Numbers.signed(1000 * (volts - expected), 1))
            : "";
    if (fault) return v + where + off + ", a fault";
    boolean named = !a.channel().design().stations().isEmpty();
    String is = Double.isFinite(quantity) && !named ? " = " + a.design().amount(quantity) : "";
    return v + where + is + off + (state.isEmpty() ? "" : ", " + state);
  }
}
