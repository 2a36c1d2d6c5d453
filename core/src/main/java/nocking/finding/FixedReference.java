package nocking.finding;

import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.quantity.Numbers;

/** A ratiometric sensor is read against a reference that does not follow its supply. */
final class FixedReference implements Rule {

  @Override
  public Stream<Finding> examine(Evidence e) {
    Optional<Double> fed = supply(e.channel());
    if (e.path().isEmpty() || fed.isEmpty()) return Stream.empty();
    double supply = fed.get();
    if (supply == e.channel().converter().reference().number()) return Stream.empty();
    double high = e.channel().definition().high().number();
    var path = e.path().get();
    double moved = path.quantity(1.01 * path.output(high)) - high;
    return Stream.of(
        Finding.of(
            "fixed-reference",
            Severity.ADVICE,
            WorkStep.CONDITION,
            "Ratiometric sensor, fixed reference",
            "1 %% of the %s supply moves the reading by %s at %s. Measure the supply, or let the converter use it."
                .formatted(
                    Numbers.engineering(supply, "V", 3),
                    e.error(Math.abs(moved)),
                    e.amount(high))));
  }

  /** What the signal is a fraction of: the sensor's supply, or that of its pull-up or bridge. */
  private static Optional<Double> supply(Channel c) {
    if (c.sensor() == null) return Optional.empty();
    return c.sensor()
        .ratiometricSupply()
        .or(() -> c.stages().stream().findFirst().flatMap(s -> s.ratiometricSupply()));
  }
}
