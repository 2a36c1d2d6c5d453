package nocking.finding;

import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.quantity.Numbers;

/** A ratiometric sensor is read against a reference that does not follow its supply. */
final class FixedReference implements Rule {

  @Override
  public Stream<Finding> examine(Evidence e) {
    if (e.path().isEmpty() || e.channel().sensor().ratiometricSupply().isEmpty()) {
      return Stream.empty();
    }
    double supply = e.channel().sensor().ratiometricSupply().get();
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
}
