package nocking.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import nocking.analysis.RangeChoice;
import nocking.channel.Channel;
import nocking.quantity.Ends;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Which range of a sensor does the job. */
@Command(
    name = "ranges",
    description = {
      "Say which of several ranges holds the job with the least span:",
      "  nocking ranges BL-P1.json --of 0..60 0..100 0..250kPa --percent 0.25%%"
    })
final class RangesCommand extends JsonOption {
  @Parameters(index = "0", paramLabel = "CHANNEL.json")
  Path file;

  @Option(
      names = "--of",
      arity = "1..*",
      required = true,
      paramLabel = "A..B",
      description = "Ranges that can be had.")
  List<String> of;

  @Option(
      names = "--percent",
      paramLabel = "P",
      description = "Error of every one of them in percent of its span.")
  String percent = "0.5%";

  @Override
  int run(Answer answer) {
    Channel channel = ChannelFiles.channel(file);
    var spans = new ArrayList<Span>();
    for (String range : of) {
      try {
        Ends ends = Ends.typed(range, channel.unit());
        spans.add(new Span(ends.from().number(), ends.to().number()));
      } catch (QuantityException e) {
        throw new QuantityException("--of: " + e.getMessage());
      }
    }
    double share = QuantityParser.value(percent, Unit.PERCENT);
    if (!(share >= 0)) throw new QuantityException("--percent must be at least 0; read " + percent);
    List<RangeChoice> choices = RangeChoice.of(channel, List.of(), spans, share);
    var rows = new ArrayList<List<String>>();
    String unit = channel.definition().unit();
    rows.add(List.of("range " + unit, "used", "above", "one count", "error", ""));
    for (RangeChoice c : choices) {
      rows.add(
          List.of(
              c.name(),
              share(c.used()),
              share(c.headRoom()),
              Double.isNaN(c.count()) ? "–" : Numbers.significant(c.count(), 3),
              "±" + Numbers.significant(c.error(), 3),
              c.says()));
    }
    answer.table(rows);
    answer.put("ranges", choices.stream().map(RangesCommand::object).toList());
    boolean fits = choices.stream().anyMatch(c -> c.verdict() == RangeChoice.Verdict.SMALLEST);
    return fits ? 0 : NockingCli.FAIL;
  }

  private static String share(double v) {
    return Double.isNaN(v) ? "–" : Numbers.fixed(100 * v, 1) + " %";
  }

  private static Map<String, Object> object(RangeChoice c) {
    return Answer.object(
        "low",
        c.span().low(),
        "high",
        c.span().high(),
        "used",
        c.used(),
        "headRoom",
        c.headRoom(),
        "count",
        c.count(),
        "error",
        c.error(),
        "verdict",
        c.verdict().name().toLowerCase(Locale.ROOT));
  }
}
