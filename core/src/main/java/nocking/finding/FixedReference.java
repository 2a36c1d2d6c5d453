package nocking.finding;

import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.quantity.Numbers;
import nocking.view.ChannelView;

/** A ratiometric sensor is read against a reference that does not follow its supply. */
final class FixedReference implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    Optional<Double> fed = supply(e.channel());
    if (e.design().path().isEmpty() || fed.isEmpty()) return Stream.empty();
    double supply = fed.get();
    if (e.channel().wiring().plan().sharedReference()) return Stream.empty();
    double high = e.channel().definition().high().number();
    var path = e.design().path().get();
    double moved = path.quantity(1.01 * path.output(high)) - high;
    boolean same = supply == e.channel().design().converter().reference().number();
    Finding f =
        Finding.of(
            "fixed-reference",
            Severity.ADVICE,
            WorkStep.CONDITION,
            same
                ? "Is the %s supply the converter's reference?"
                    .formatted(Numbers.engineering(supply, "V", 3))
                : "Ratiometric sensor, fixed reference",
            "1 %% of the %s supply moves the reading by %s at %s. %s"
                .formatted(
                    Numbers.engineering(supply, "V", 3),
                    e.design().error(Math.abs(moved)),
                    e.design().amount(high),
                    same
                        ? "Two sources of the same number are not the same rail; where they are, say so and nothing moves."
                        : "Measure the supply, or let the converter use it."));
    Fix shared =
        new Fix(
            "They are one rail",
            c -> c.wiring(w -> w.withPlan(w.plan().withSharedReference(true))));
    return Stream.of(same ? f.with(shared) : f);
  }

  /** What the signal is a fraction of: the sensor's supply, or that of its pull-up or bridge. */
  private static Optional<Double> supply(Channel c) {
    if (c.design().sensor() == null) return Optional.empty();
    return c.design()
        .sensor()
        .ratiometricSupply()
        .or(() -> c.design().stages().stream().findFirst().flatMap(s -> s.ratiometricSupply()));
  }
}
