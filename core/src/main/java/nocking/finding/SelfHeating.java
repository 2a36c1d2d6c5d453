package nocking.finding;

import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.element.Signal;
import nocking.path.PathState;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.stage.PullDown;
import nocking.stage.PullUp;
import nocking.view.ChannelView;

/** The measuring current warms a resistive sensor: ΔT = V²/R over its dissipation constant. */
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
      double kelvin = watts(e, x) / constant;
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
            "At %s it takes %s. In still air it is more. A larger pull-up or a pulsed supply helps."
                .formatted(e.design().amount(at), Numbers.engineering(watts(e, at), "W", 2))));
  }

  /** Power in the sensor; known for a pull-up or pull-down right behind it. */
  private static double watts(ChannelView e, double x) {
    Channel c = e.channel();
    if (c.design().stages().isEmpty()) return 0;
    PathState read = e.design().path().get().at(x);
    double ohms = read.nodes().get(0).value();
    double node = read.nodes().get(1).value();
    return switch (c.design().stages().getFirst()) {
      case PullUp _ -> node * node / ohms;
      case PullDown p -> Math.pow(p.supply().number() - node, 2) / ohms;
      default -> 0;
    };
  }
}
