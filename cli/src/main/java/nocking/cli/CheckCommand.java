package nocking.cli;

import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import nocking.analysis.Analysis;
import nocking.book.BookFile;
import nocking.book.exchange.CheckColumns;
import nocking.book.exchange.ColumnFile;
import nocking.book.exchange.PointColumns;
import nocking.channel.Acceptance;
import nocking.channel.Channel;
import nocking.check.CheckRow;
import nocking.check.CheckTable;
import nocking.check.CheckTable.Measured;
import nocking.check.Verdict;
import nocking.finding.Finding;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Expected against measured; exit code 1 when a line fails. */
@Command(
    name = "check",
    description = "Expected against measured at the check inputs of a channel.")
final class CheckCommand extends JsonOption {
  @Parameters(index = "0", paramLabel = "BOOK")
  Path book;

  @Parameters(index = "1", paramLabel = "CHANNEL")
  String tag;

  @Option(
      names = "--measured",
      paramLabel = "FILE",
      description =
          "Applied and measured values, named so or the first two columns; used instead of the"
              + " sheet.")
  Path measured;

  private List<String> left = List.of();

  @Override
  int run(Answer answer) {
    Channel channel;
    try (BookFile file = BookFile.openToRead(book, Clock.systemUTC())) {
      channel = ChannelFiles.find(file.read(), tag, book);
    }
    if (measured != null) channel = channel.with(new Acceptance(sheet(channel)));
    Analysis analysis = Analysis.of(channel);
    if (analysis.design().path().isEmpty()) {
      throw new QuantityException(channel.tag() + ": " + analysis.whyNoCircuit());
    }
    List<CheckRow> rows = analysis.acceptance().rows();
    answer
        .put("points", rows.stream().map(r -> object(r, analysis)).toList())
        .put("verdict", word(analysis.acceptance().verdict()));
    text(answer, analysis, rows);
    List<String> of = ofSensor(analysis);
    answer.put("says", of);
    of.forEach(l -> answer.line("%s", l));
    answer.put("notCounting", left);
    left.forEach(l -> answer.line("%s: %s", measured.getFileName(), l));
    return analysis.acceptance().verdict() == Verdict.FAIL ? NockingCli.FAIL : 0;
  }

  /** What a check of the sensor alone says of the channel. */
  private static List<String> ofSensor(Analysis a) {
    return a.findings().stream()
        .filter(f -> f.rule().equals("check-of-sensor") || f.rule().equals("check-tells-nothing"))
        .map(Finding::text)
        .toList();
  }

  private CheckTable sheet(Channel channel) {
    PointColumns columns =
        PointColumns.of(ColumnFile.read(measured), PointColumns.Order.APPLIED_FIRST);
    left = columns.notCounting();
    return CheckColumns.read(columns.counting(), channel);
  }

  private static Map<String, Object> object(CheckRow r, Analysis analysis) {
    var nodes = new ArrayList<Map<String, Object>>();
    var points = analysis.design().path().orElseThrow().points();
    for (int i = 0; i < points.size(); i++) {
      nodes.add(
          Answer.object(
              "name",
              points.get(i).name(),
              "value",
              r.expectedNodes().get(i),
              "unit",
              points.get(i).unit().symbol()));
    }
    return Answer.object(
        "applied",
        r.applied(),
        "expectedNodes",
        nodes,
        "expectedRaw",
        r.expectedCode(),
        "expectedReading",
        r.expectedReading(),
        "measured",
        r.measured(),
        "reading",
        r.reading(),
        "error",
        r.error(),
        "percentOfSpan",
        r.percentOfSpan(),
        "millivolts",
        r.millivolts(),
        "uncertainty",
        null,
        "fault",
        r.fault(),
        "verdict",
        word(r.verdict()));
  }

  /** The reading's decimals, but never less than what was applied. */
  private static String applied(double x, int decimals) {
    String fixed = Numbers.fixed(x, decimals);
    return Double.parseDouble(fixed) == x ? fixed : Numbers.trimmed(x, 9);
  }

  private static String word(Verdict v) {
    return v.name().toLowerCase(Locale.ROOT);
  }

  private static void text(Answer answer, Analysis analysis, List<CheckRow> rows) {
    int d = analysis.design().decimals();
    String unit = analysis.channel().definition().unit();
    Measured as = analysis.channel().acceptance().check().measured();
    var table = new ArrayList<List<String>>();
    table.add(
        List.of(
            "applied " + unit,
            "expected " + (as.ofSensor() ? as.unit(Unit.ONE).symbol() : "V"),
            "raw",
            "reading",
            ("measured " + as.unit(analysis.channel().unit()).symbol()).strip(),
            "error " + unit,
            "% span",
            "mV",
            "verdict"));
    for (CheckRow r : rows) {
      table.add(
          List.of(
              applied(r.applied(), d),
              as.ofSensor()
                  ? Numbers.trimmed(r.expected(as), 6)
                  : Numbers.fixed(r.expectedNodes().getLast(), 4),
              String.valueOf(r.expectedCode()),
              Numbers.fixed(r.expectedReading(), d),
              Numbers.trimmed(r.measured(), 6),
              Numbers.signed(r.error(), d + 1),
              Numbers.signed(r.percentOfSpan(), 2),
              Numbers.signed(r.millivolts(), 1),
              r.fault() ? "fault" : word(r.verdict())));
    }
    answer.table(table);
    answer.line("%s: %s", analysis.channel().tag(), word(analysis.acceptance().verdict()));
  }
}
