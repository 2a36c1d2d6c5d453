package nocking.finding;

import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.element.Signal;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.view.ChannelView;

/**
 * The measuring current warms a resistive sensor: ΔT = I²R over its dissipation constant, with the
 * current that the circuit drives through it, whatever circuit that is.
 */
final class SelfHeating implements Rule {
  private static final double MATTERS = 0.05;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    Channel c = e.channel();
    if (e.design().path().isEmpty()
        || c.design().sensor().signal() != Signal.RESISTANCE
        || c.design().sensor().dissipationConstant().isEmpty()) {
      return Stream.empty();
    }
    Span working = c.definition().working();
    double constant = c.design().sensor().dissipationConstant().get();
    double worst = 0;
    double at = working.low();
    for (int i = 0; i <= 20; i++) {
      double x = working.at(i / 20.0);
      double kelvin = e.design().sensorWatts(x) / constant;
      if (kelvin > worst) {
        worst = kelvin;
        at = x;
      }
    }
    double tolerance = c.definition().toleranceOrNaN() * c.unit().factor();
    boolean matters = Double.isNaN(tolerance) ? worst > MATTERS : worst > 0.2 * tolerance;
    if (!matters) return Stream.empty();
    return Stream.of(
        Finding.of(
            "self-heating",
            worst > tolerance ? Severity.WARNING : Severity.ADVICE,
            WorkStep.CONDITION,
            "The sensor warms itself by %s K".formatted(Numbers.significant(worst, 2)),
            "At %s it takes %s. In still air it is more. Less current through it helps: more ohms before it, less excitation, or a pulsed one."
                .formatted(
                    e.design().amount(at),
                    Numbers.engineering(e.design().sensorWatts(at), "W", 2))));
  }
}
