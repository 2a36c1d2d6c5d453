package nocking.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import nocking.analysis.SensorSwap;
import nocking.channel.Channel;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Sentence;
import nocking.sensor.Sensor;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** What another sensor would do under a calibration that stays. */
@Command(
    name = "swap",
    description = {
      "Say what another sensor would give, and what the present calibration would read:",
      "  nocking swap BL-P1.json --sensor ratiometric points=0kPa:10%%,100kPa:90%% supply=5V"
    })
final class SwapCommand extends JsonOption {
  @Parameters(index = "0", paramLabel = "CHANNEL.json")
  Path file;

  @Option(
      names = "--sensor",
      arity = "1..*",
      required = true,
      paramLabel = "MODEL key=value",
      description = "The other sensor, as for the command sensor; in the channel's unit.")
  List<String> sensor;

  @Override
  int run(Answer answer) {
    Channel channel = ChannelFiles.channel(file);
    Sensor other =
        new SensorArguments(
                sensor.getFirst(), sensor.subList(1, sensor.size()), channel.definition().unit())
            .sensor();
    SensorSwap swap = SensorSwap.of(channel, other);
    if (swap.rows().isEmpty()) {
      throw new QuantityException("%s: %s".formatted(channel.tag(), swap.problem()));
    }
    String unit = channel.definition().unit();
    var rows = new ArrayList<List<String>>();
    rows.add(List.of("", unit, "now V", "then V", "would read", "error", ""));
    for (SensorSwap.Row r : swap.rows()) {
      rows.add(
          List.of(
              r.where(),
              Numbers.trimmed(r.applied(), 6),
              Numbers.fixed(r.before(), 4),
              Numbers.fixed(r.after(), 4),
              Numbers.trimmed(r.reading(), 6),
              Numbers.signed(r.error(), 4),
              r.clipped() ? "at its end" : ""));
    }
    answer.table(rows);
    answer.line("%s.", Sentence.capital(swap.says(unit)));
    answer
        .put("rows", swap.rows().stream().map(SwapCommand::object).toList())
        .put("says", swap.says(unit));
    return 0;
  }

  private static Map<String, Object> object(SensorSwap.Row r) {
    return Answer.object(
        "where",
        r.where(),
        "applied",
        r.applied(),
        "before",
        r.before(),
        "after",
        r.after(),
        "reading",
        r.reading(),
        "error",
        r.error(),
        "clipped",
        r.clipped());
  }
}
