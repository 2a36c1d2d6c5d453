package nocking.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityParser;
import nocking.quantity.Span;
import nocking.tolerance.Budget;
import nocking.tolerance.BudgetPoint;
import nocking.tolerance.ErrorModel;
import nocking.tolerance.Errors;
import nocking.tolerance.MonteCarlo;
import nocking.tolerance.Sampled;
import nocking.tolerance.Share;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Error budget of a channel. */
@Command(
    name = "tolerance",
    description = {
      "Error budget of a channel, before and after a two-point calibration.",
      "Tolerances stand with the values, for example {\"value\": 5100, \"typed\": \"5k1\","
          + " \"spread\": {\"limit\": 1, \"relative\": true, \"temperatureCoefficient\": 50,"
          + " \"distribution\": \"rectangular\"}}."
    })
final class ToleranceCommand extends JsonOption {
  @Parameters(index = "0", paramLabel = "CHANNEL.json")
  Path file;

  @Option(
      names = "--at",
      arity = "1..*",
      paramLabel = "X",
      description = "Inputs; five over the range.")
  List<String> at = List.of();

  @Option(names = "--draws", paramLabel = "N", description = "Monte Carlo draws, ${DEFAULT-VALUE}.")
  int draws = MonteCarlo.DRAWS;

  @Option(names = "--seed", paramLabel = "S", description = "Seed of the draws, ${DEFAULT-VALUE}.")
  long seed = 1;

  @Override
  int run(Answer answer) {
    Channel channel = ChannelFiles.channel(file);
    Analysis analysis = Analysis.of(channel);
    ErrorModel model = ChannelFiles.required(analysis, analysis.design().errorModel());
    double[] inputs = inputs(channel);
    for (double x : inputs) model.path().require(x);
    List<BudgetPoint> budget = Budget.at(model, inputs);
    List<MonteCarlo.Result> drawn =
        MonteCarlo.run(model, inputs, draws, seed, p -> {}, () -> false);
    var points = new ArrayList<Map<String, Object>>();
    var rows = new ArrayList<List<String>>();
    rows.add(List.of("at", "", "worst case", "u (1 s)", "95 % of the draws", "what matters most"));
    for (int i = 0; i < inputs.length; i++) {
      BudgetPoint b = budget.get(i);
      MonteCarlo.Result r = drawn.get(i);
      Map<String, Object> point = object(b.before(), r.before());
      var whole = Answer.object("quantity", b.quantity());
      whole.putAll(point);
      whole.put("before", point);
      whole.put("after", object(b.after(), r.after()));
      points.add(whole);
      rows.add(row(analysis.design().reading(b.quantity()), "before", b.before(), r.before()));
      rows.add(row("", "after", b.after(), r.after()));
    }
    answer.put("points", points).put("draws", draws).put("seed", seed);
    answer.table(rows);
    answer.line(
        "Errors in %s. After: with a calibration at both ends of the working range.",
        channel.definition().unit());
    return 0;
  }

  private double[] inputs(Channel channel) {
    if (!at.isEmpty()) {
      return at.stream().mapToDouble(x -> QuantityParser.value(x, channel.unit())).toArray();
    }
    Span w = channel.definition().working();
    return new double[] {w.low(), w.at(0.25), w.middle(), w.at(0.75), w.high()};
  }

  private static Map<String, Object> object(Errors e, Sampled s) {
    return Answer.object(
        "worstCase",
        e.worstCase(),
        "rss",
        e.standard(),
        "monteCarlo",
        Answer.object("mean", s.mean(), "sd", s.sd(), "low", s.low(), "high", s.high()),
        "ranking",
        e.ranking().stream()
            .map(r -> Answer.object("parameter", r.name(), "share", r.share()))
            .toList());
  }

  private static List<String> row(String at, String when, Errors e, Sampled s) {
    String first =
        e.ranking().stream()
            .limit(3)
            .map(ToleranceCommand::share)
            .reduce((a, b) -> a + ", " + b)
            .orElse("–");
    return List.of(
        at,
        when,
        "±" + Numbers.significant(e.worstCase(), 3),
        Numbers.significant(e.standard(), 3),
        Numbers.significant(s.low(), 3) + " … " + Numbers.significant(s.high(), 3),
        first);
  }

  private static String share(Share s) {
    return "%s %s %%".formatted(s.name(), Numbers.fixed(100 * s.share(), 0));
  }
}
