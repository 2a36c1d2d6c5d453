package nocking.finding;

import java.util.stream.Stream;
import nocking.channel.Overload;
import nocking.channel.WorkStep;
import nocking.quantity.Value;
import nocking.view.ChannelView;

/** The working range goes beyond what the sensor bears, or to where it may break open. */
final class BeyondOverload implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    Overload limits = e.channel().design().overload();
    if (limits == null) return Stream.empty();
    double top = e.channel().definition().working().high();
    if (limits.burst() != null && top >= limits.burst().number()) {
      return Stream.of(
          found(
              e,
              limits.burst(),
              "The working range reaches the burst limit",
              "it may break open there"));
    }
    if (limits.proof() != null && top > limits.proof().number()) {
      return Stream.of(
          found(
              e,
              limits.proof(),
              "The working range goes beyond the overload limit",
              "above it the sensor need not measure as before"));
    }
    return Stream.empty();
  }

  private static Finding found(ChannelView e, Value limit, String headline, String why) {
    return Finding.of(
        "beyond-overload",
        Severity.STOP,
        WorkStep.DEFINE,
        headline,
        "The range ends at %s, the datasheet says %s; %s."
            .formatted(
                e.design().amount(e.channel().definition().working().high()),
                e.design().amount(limit.number()),
                why));
  }
}
