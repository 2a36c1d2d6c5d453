package nocking.finding;

import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.quantity.Sentence;
import nocking.view.ChannelView;
import nocking.view.Trouble;

/** What all rules find in one channel. */
public final class Findings {
  private static final List<Finding> NONE = List.of();

  private Findings() {}

  /** The findings, the gravest first; a rule that fails does not take the others with it. */
  public static List<Finding> of(ChannelView channel) {
    List<Finding> found =
        Rule.ALL.stream().flatMap(rule -> examine(rule, channel).stream()).toList();
    Stream<Finding> trouble =
        channel.workings().troubles().stream().limit(1).map(Findings::notWorkedOut);
    return Stream.concat(found.stream(), trouble)
        .sorted(Comparator.comparing(Finding::severity))
        .toList();
  }

  private static List<Finding> examine(Rule rule, ChannelView channel) {
    return channel
        .workings()
        .guarded("one of the findings", () -> rule.examine(channel).toList(), NONE);
  }

  private static Finding notWorkedOut(Trouble trouble) {
    return new Finding(
        "not-worked-out",
        Severity.WARNING,
        Sentence.capital(trouble.says()),
        "Everything else of this channel stands. Look for a number that is far from the others.",
        WorkStep.DEFINE,
        -1,
        Optional.empty());
  }
}
