package nocking.finding;

import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.view.ChannelView;

/** The usual cautions of what the channel touches, beside the work that they concern. */
final class Cautions implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    return e.channel().definition().hazards().stream()
        .map(
            h ->
                Finding.of(
                    "caution",
                    Severity.CAUTION,
                    WorkStep.WIRE,
                    "Caution: " + h.title(),
                    h.caution()));
  }
}
