package nocking.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.stream.IntStream;
import nocking.algebra.Notation;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.finding.Finding;
import nocking.path.DerivationStep;
import nocking.path.GeneratedEquation;
import nocking.path.LinearForm;
import nocking.path.PathState;
import nocking.path.SignalPath;
import nocking.path.TestPoint;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Span;
import nocking.view.Belief;
import nocking.view.ProbeState;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Evaluates a channel's path and derives its transfer equation. */
@Command(name = "path", description = "Evaluate a channel's path and derive its transfer equation.")
final class PathCommand extends JsonOption {
  private static final int STEPS = 10;

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

  @Option(
      names = "--csv",
      description =
          "Print a table to be filled in at the bench; ten steps where --at is not given.")
  boolean csv;

  @Override
  int run(Answer answer) {
    Channel channel = ChannelFiles.channel(file);
    Analysis analysis = Analysis.of(channel);
    SignalPath path = ChannelFiles.required(analysis, analysis.design().path());
    if (csv) {
      if (json || form != null) {
        throw new QuantityException("--csv goes with neither --json nor --equation");
      }
      table(answer, analysis, path);
      return 0;
    }
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
      if (differs(s))
        row.add("shows " + Numbers.fixed(s.display(), analysis.design().decimals() + 1));
      rows.add(row);
    }
    answer.table(rows);
    for (Finding f : analysis.findings()) {
      answer.line("%s: %s", f.severity().name().toLowerCase(Locale.ROOT), f.text());
    }
  }

  /** Input, every test point, counts, reading, error, and what is filled in at the bench. */
  private void table(Answer answer, Analysis analysis, SignalPath path) {
    String unit = analysis.channel().definition().unit();
    var head = new ArrayList<>(List.of("input"));
    var units = new ArrayList<>(List.of(unit));
    for (TestPoint p : path.points()) {
      head.add(p.name());
      units.add(p.unit().symbol());
    }
    head.addAll(List.of("raw", "reading", "error", "measured", "shown"));
    units.addAll(List.of("counts", unit, unit, "V", unit));
    answer.line("%s", String.join(",", head));
    answer.line("%s", String.join(",", units));
    for (double x : inputs(analysis)) {
      path.require(x);
      ProbeState s = analysis.at(x).orElseThrow();
      var row = new ArrayList<>(List.of(Numbers.plain(x)));
      for (PathState.Node n : s.readOut().nodes()) row.add(Numbers.significant(n.value(), 9));
      row.add(String.valueOf(s.readOut().code()));
      row.add(Numbers.significant(s.reading(), 9));
      row.add(Numbers.significant(s.reading() - x, 4));
      row.addAll(List.of("", ""));
      answer.line("%s", String.join(",", row));
    }
  }

  private double[] inputs(Analysis analysis) {
    if (!at.isEmpty()) return at.stream().mapToDouble(x -> input(x, analysis)).toArray();
    Span w = analysis.channel().definition().working();
    return IntStream.rangeClosed(0, STEPS).mapToDouble(i -> w.at((double) i / STEPS)).toArray();
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
    answer
        .put("points", points)
        .put("belief", analysis.receiver().belief().map(PathCommand::belief).orElse(null))
        .put("findings", findings(analysis));
  }

  /** True where the receiver shows something else than the channel's curve reads. */
  private static boolean differs(ProbeState s) {
    return Double.compare(s.display(), s.reading()) != 0;
  }

  private static double input(String typed, Analysis analysis) {
    return QuantityParser.value(typed, analysis.channel().unit());
  }

  private static Map<String, Object> linear(LinearForm f) {
    return Answer.object("slope", f.slope(), "intercept", f.intercept(), "pivot", f.pivot());
  }

  private static Map<String, Object> belief(Belief b) {
    return Answer.object(
        "gain", b.gain(), "offset", b.offset(), "worst", b.worst(), "worstAt", b.worstAt());
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
        "display",
        s.display(),
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
