package nocking.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import nocking.algebra.Notation;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.finding.Finding;
import nocking.path.DerivationStep;
import nocking.path.GeneratedEquation;
import nocking.path.LinearForm;
import nocking.path.PathState;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityParser;
import nocking.view.ProbeState;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Evaluates a channel's path and derives its transfer equation. */
@Command(name = "path", description = "Evaluate a channel's path and derive its transfer equation.")
final class PathCommand extends JsonOption {
  @Parameters(index = "0", paramLabel = "CHANNEL.json")
  Path file;

  @Option(names = "--at", arity = "1..*", paramLabel = "X", description = "Inputs to evaluate.")
  List<String> at = List.of();

  @Option(
      names = "--equation",
      paramLabel = "FORM",
      description = "Print the solved equation only: ${COMPLETION-CANDIDATES}.")
  Form form;

  /** Forms of the equation. */
  enum Form {
    text,
    latex,
    c,
    python,
    sheet
  }

  @Override
  int run(Answer answer) {
    Channel channel = ChannelFiles.channel(file);
    Analysis analysis = Analysis.of(channel);
    SignalPath path = ChannelFiles.required(analysis, analysis.design().path());
    if (form != null) answer.line(equation(channel, path).replace("%", "%%"));
    else text(answer, analysis, path);
    json(answer, analysis, path);
    return 0;
  }

  private String equation(Channel channel, SignalPath path) {
    Notation notation = Notation.valueOf(form.name().toUpperCase(Locale.ROOT));
    return GeneratedEquation.write(
            notation,
            GeneratedEquation.identifier(channel.tag()) + "_quantity",
            "Vout",
            path.quantitySymbol(),
            path.inverse(),
            path.constantsOf(path.inverse()))
        .stripTrailing();
  }

  private void text(Answer answer, Analysis analysis, SignalPath path) {
    for (DerivationStep s : path.derivation()) {
      answer.line(
          "(%d)  %s = %s    [%s]",
          s.number(), Notation.TEXT.write(s.left()), Notation.TEXT.write(s.right()), s.caption());
    }
    path.linear()
        .ifPresent(
            f ->
                answer.line(
                    "%s    pivot %s at %s = %s V",
                    path.numbers(5).orElseThrow(),
                    Numbers.trimmed(f.pivot(), 6),
                    f.pivotName(),
                    Numbers.trimmed(f.pivotVolts(), 5)));
    var rows = new ArrayList<List<String>>();
    for (String x : at) {
      ProbeState s = analysis.at(input(x, analysis)).orElseThrow();
      var row = new ArrayList<>(List.of(analysis.design().reading(s.readOut().quantity())));
      for (PathState.Node n : s.readOut().nodes()) {
        row.add(
            n.point().name() + " " + Numbers.engineering(n.value(), n.point().unit().symbol(), 6));
      }
      row.add("raw " + s.readOut().code());
      row.add(
          "reads "
              + Numbers.fixed(s.reading(), analysis.design().decimals() + 1)
              + (s.extrapolated() ? ", extrapolated" : ""));
      rows.add(row);
    }
    answer.table(rows);
    for (Finding f : analysis.findings()) {
      answer.line("%s: %s", f.severity().name().toLowerCase(Locale.ROOT), f.text());
    }
  }

  private void json(Answer answer, Analysis analysis, SignalPath path) {
    answer
        .put(
            "equation",
            Answer.object(
                "forward",
                "Vout = " + Notation.TEXT.write(path.forward()),
                "inverse",
                path.quantitySymbol() + " = " + Notation.TEXT.write(path.inverse())))
        .put("linear", path.linear().map(PathCommand::linear).orElse(null));
    var points = new ArrayList<Map<String, Object>>();
    for (String x : at) {
      double input = input(x, analysis);
      path.require(input);
      points.add(point(analysis.at(input).orElseThrow()));
    }
    answer.put("points", points).put("findings", findings(analysis));
  }

  private static double input(String typed, Analysis analysis) {
    return QuantityParser.value(typed, analysis.channel().unit());
  }

  private static Map<String, Object> linear(LinearForm f) {
    return Answer.object("slope", f.slope(), "intercept", f.intercept(), "pivot", f.pivot());
  }

  private static Map<String, Object> point(ProbeState s) {
    var nodes =
        s.readOut().nodes().stream()
            .map(
                n ->
                    Answer.object(
                        "name",
                        n.point().name(),
                        "value",
                        n.value(),
                        "unit",
                        n.point().unit().symbol()))
            .toList();
    return Answer.object(
        "quantity",
        s.readOut().quantity(),
        "nodes",
        nodes,
        "raw",
        s.readOut().code(),
        "reading",
        s.reading(),
        "extrapolated",
        s.extrapolated(),
        "sensitivity",
        s.readOut().sensitivity());
  }

  /** Findings as objects. */
  static List<Map<String, Object>> findings(Analysis analysis) {
    return analysis.findings().stream()
        .map(
            f ->
                Answer.object(
                    "rule",
                    f.rule(),
                    "severity",
                    f.severity().name().toLowerCase(Locale.ROOT),
                    "headline",
                    f.headline(),
                    "detail",
                    f.detail(),
                    "stage",
                    f.step().name().toLowerCase(Locale.ROOT)))
        .toList();
  }
}
