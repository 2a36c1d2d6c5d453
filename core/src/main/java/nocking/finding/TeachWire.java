package nocking.finding;

import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.quantity.Numbers;
import nocking.view.ChannelView;
import nocking.wiring.Pin;
import nocking.wiring.WirePlan;

/** A wire that teaches the sensor: held to ground it changes its end-points, on supply it dies. */
final class TeachWire implements Rule {
  /** Share of the supply above which a wire is taken to hang on it. */
  private static final double NEAR_SUPPLY = 0.8;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    WirePlan plan = e.channel().wiring().plan();
    int index = plan.indexOf(Pin.Function.TEACH);
    if (index < 0) return Stream.empty();
    Pin pin = plan.pins().get(index);
    Optional<Double> supply = e.wiring().supply();
    Finding caution =
        Finding.of(
            "teach-wire",
            Severity.CAUTION,
            WorkStep.WIRE,
            "Caution: a teach wire",
            "Never to the positive supply, not even for a moment. Held to ground for longer than its"
                + " time it moves an end-point: insulate it once the sensor is taught, and follow the"
                + " maker's instructions.");
    if (pin.measured() != null
        && supply.isPresent()
        && pin.measured().number() > NEAR_SUPPLY * supply.get()) {
      return Stream.of(
          Finding.of(
              "teach-on-supply",
              Severity.WARNING,
              WorkStep.WIRE,
              "The teach wire reads " + Numbers.engineering(pin.measured().number(), "V", 3),
              "That is near the supply of %s. Unless the datasheet says that it is pulled up inside,"
                      .formatted(Numbers.engineering(supply.get(), "V", 3))
                  + " take the power off and look for the short."),
          caution);
    }
    return Stream.of(caution);
  }
}
