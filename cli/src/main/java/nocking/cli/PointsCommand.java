package nocking.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import nocking.analysis.Analysis;
import nocking.analysis.RunDraft;
import nocking.channel.Channel;
import nocking.channel.RunJson;
import nocking.placement.Leaves;
import nocking.placement.Model;
import nocking.placement.Nominal;
import nocking.placement.Places;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.RunPlan;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Where reference points belong; exit code 1 when none are enough. */
@Command(
    name = "points",
    description = "The fewest reference points for a model, where they belong and what they leave.")
final class PointsCommand extends JsonOption {
  /** Steps into which a range is cut: round numbers for most ranges. */
  private static final int STEPS = 50;

  @Parameters(index = "0", paramLabel = "CHANNEL.json")
  Path file;

  @Option(
      names = "--model",
      paramLabel = "M",
      defaultValue = "line",
      description = "What will be fitted: line, poly:2 … poly:9 or table.")
  String model;

  @Option(
      names = "--count",
      paramLabel = "N",
      description = "So many points instead of the fewest.")
  Integer count;

  @Option(
      names = "--take",
      paramLabel = "PLAN.json",
      description = "Print this plan of a run with the best places as its set points.")
  Path take;

  @Override
  int run(Answer answer) {
    Channel channel = ChannelFiles.channel(file);
    Analysis a = Analysis.of(channel);
    Nominal n = ChannelFiles.required(a, RunDraft.nominal(a));
    Model m = Model.named(model);
    double tolerance = RunDraft.tolerance(a);
    if (count != null && (count < m.fewest() || count > Places.MOST)) {
      throw new QuantityException(
          "read --count %d, expected %d … %d for %s"
              .formatted(count, m.fewest(), Places.MOST, m.name()));
    }
    Places best =
        count == null ? Places.fewest(n, m, tolerance, STEPS) : Places.best(n, m, count, STEPS);
    if (take != null) return taken(best, channel);
    int have = best.at().size();
    Places equal = Places.equalSteps(n, m, have);
    Places more = Places.best(n, m, Math.min(have + 1, Places.MOST), STEPS);
    boolean enough = best.leaves().worst() <= tolerance;
    String unit = channel.definition().unit();
    answer
        .put("model", m.name())
        .put("points", best.at())
        .put("leaves", object(best.leaves()))
        .put("equalSteps", Answer.object("points", equal.at(), "leaves", object(equal.leaves())))
        .put("oneMore", Answer.object("points", more.at(), "leaves", object(more.leaves())))
        .put("tolerance", tolerance)
        .put("enough", enough);
    answer.line(
        "%d point%s for %s: %s %s", have, have == 1 ? "" : "s", m.name(), list(best, a), unit);
    var rows = new ArrayList<List<String>>();
    rows.add(List.of("", "misfit", "95 % band", "at most", "at"));
    rows.add(row("best places", best.leaves(), a));
    rows.add(row("equal steps", equal.leaves(), a));
    rows.add(row("one more", more.leaves(), a));
    answer.table(rows);
    answer.line(
        enough
            ? "The tolerance of %s is held."
            : "The tolerance of %s is not held; another model or a smaller range would.",
        a.design().error(tolerance));
    return enough ? 0 : NockingCli.FAIL;
  }

  /** What is to be read twice stands there once, and the course is gone twice. */
  private int taken(Places best, Channel channel) {
    RunPlan plan = RunJson.readPlanFile(ChannelFiles.text(take), take.getFileName().toString());
    Unit unit = Unit.of(plan.unit());
    if (plan.procedure() != null || !unit.dimension().equals(channel.unit().dimension())) {
      throw new QuantityException(
          "%s has no set points in a unit of %s"
              .formatted(take.getFileName(), channel.unit().symbol()));
    }
    List<Value> at =
        best.at().stream()
            .distinct()
            .map(x -> channel.unit().convert(x, unit))
            .map(x -> Value.of(Double.parseDouble(Numbers.trimmed(x, 6))))
            .toList();
    int repeats =
        best.at().stream().mapToInt(x -> Collections.frequency(best.at(), x)).max().orElse(1);
    spec.commandLine()
        .getOut()
        .print(RunJson.planFile(plan.withSetPoints(at).withRepeats(repeats)));
    spec.commandLine().getOut().flush();
    return 0;
  }

  private static Object object(Leaves l) {
    return Answer.object("misfit", l.misfit(), "band", l.band(), "worst", l.worst(), "at", l.at());
  }

  private static String list(Places p, Analysis a) {
    return String.join(", ", p.at().stream().map(x -> Numbers.trimmed(x, 5)).toList());
  }

  private static List<String> row(String name, Leaves l, Analysis a) {
    return List.of(
        name,
        a.design().error(l.misfit()),
        a.design().error(l.band()),
        a.design().error(l.worst()),
        Numbers.trimmed(l.at(), 5));
  }
}
