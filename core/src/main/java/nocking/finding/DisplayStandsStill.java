package nocking.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.quantity.Span;
import nocking.table.DisplayLimits;
import nocking.view.ChannelView;

/** The display stops at a limit inside the working range: the reading looks alive and is wrong. */
final class DisplayStandsStill implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    DisplayLimits limits = e.channel().receiver().limits();
    if (limits == null) return Stream.empty();
    Span working = e.channel().definition().working();
    List<String> ends = new ArrayList<>();
    if (limits.low() != null && limits.low().number() > working.low()) {
      ends.add("below " + e.design().amount(limits.low().number()));
    }
    if (limits.high() != null && limits.high().number() < working.high()) {
      ends.add("above " + e.design().amount(limits.high().number()));
    }
    if (ends.isEmpty()) return Stream.empty();
    return Stream.of(
        Finding.of(
            "display-limit",
            Severity.WARNING,
            WorkStep.CONDITION,
            "The display stands still " + String.join(" and ", ends),
            "The working range is %s … %s; beyond the limit the reading looks alive and is wrong."
                .formatted(e.design().reading(working.low()), e.design().amount(working.high()))));
  }
}
