package nocking.finding;

import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.fault.Backwards;
import nocking.view.ChannelView;

/**
 * The signal falls as the quantity rises although the sensor could be wired the other way round.
 */
final class BackwardsSignal implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    Channel c = e.channel();
    return e.design().path().flatMap(p -> Backwards.of(c, p)).stream()
        .map(
            b ->
                Finding.of(
                        "backwards",
                        Severity.ADVICE,
                        WorkStep.WIRE,
                        "The signal falls as the quantity rises",
                        "Swap supply and ground at the sensor, or keep the negative slope: "
                            + b.changes())
                    .with(new Fix("Rewire it", b::rewired)));
  }
}
