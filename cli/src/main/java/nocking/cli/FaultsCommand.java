package nocking.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.fault.FaultMatrix;
import nocking.fault.FaultRow;
import nocking.fault.FaultyPath;
import nocking.fault.Harm;
import nocking.fault.ThresholdProposal;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.report.PdfPages;
import nocking.report.wiring.FaultCardPage;
import nocking.wiring.Place;
import nocking.wiring.Thresholds;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Every single fault of a channel and the thresholds that tell it. */
@Command(name = "faults", description = "What every single fault of a channel would look like.")
final class FaultsCommand extends JsonOption {
  @Parameters(index = "0", paramLabel = "CHANNEL.json")
  Path file;

  @Option(
      names = "--cards",
      paramLabel = "BOOK.json",
      description = "Sensor cards that may have been taken instead, from an exported book.")
  Path cards;

  @Option(
      names = "--card",
      paramLabel = "FILE.pdf|.html",
      description = "Write the faults as one page for the lid of the cabinet.")
  Path card;

  @Option(names = "--force", description = "Replace an existing file.")
  boolean force;

  /** The page in the form that the name's ending says. */
  private void write(Answer answer, Analysis analysis) {
    String name = card.getFileName().toString().toLowerCase(Locale.ROOT);
    if (!name.endsWith(".pdf") && !name.endsWith(".html")) {
      throw new QuantityException("--card takes a name ending in .pdf or .html; read " + card);
    }
    String page = FaultCardPage.html(analysis).orElseThrow();
    if (name.endsWith(".html")) write(card, page, force);
    else write(Map.of(card, PdfPages.of(page)), force);
    answer.put("card", card.toString());
  }

  @Override
  int run(Answer answer) {
    Channel channel = ChannelFiles.channel(file);
    Analysis analysis = analysis(channel, cards);
    FaultMatrix matrix = ChannelFiles.required(analysis, analysis.wiring().faults());
    if (card != null) write(answer, analysis);
    text(answer, analysis, matrix);
    json(answer, matrix);
    return 0;
  }

  static Analysis analysis(Channel channel, Path cards) {
    List<SensorCard> known = cards == null ? List.of() : ChannelFiles.book(cards).cards();
    return Analysis.of(channel, known);
  }

  private static String volts(double v) {
    return Math.abs(v) < 5e-7 ? "0 V" : Numbers.engineering(v, "V", 4);
  }

  private static void text(Answer answer, Analysis analysis, FaultMatrix matrix) {
    Span band = matrix.band().volts();
    answer.line(
        "Normal: %s … %s at the converter over %s … %s",
        volts(band.low()),
        volts(band.high()),
        analysis.design().amount(analysis.channel().definition().low().number()),
        analysis.design().amount(analysis.channel().definition().high().number()));
    answer.line(
        "Thresholds: %s",
        matrix
            .thresholds()
            .thresholds()
            .map(Thresholds::says)
            .orElse("none would tell a broken wire from a good reading"));
    var rows = new ArrayList<List<String>>();
    for (FaultRow r : matrix.rows()) {
      String shows =
          r.floating()
              ? "anything"
              : Double.isNaN(r.shownLow())
                  ? "nothing"
                  : analysis.design().reading(r.shownLow())
                      + " … "
                      + analysis.design().reading(r.shownHigh());
      rows.add(
          List.of(
              r.fault().says(),
              r.floating() ? "floats" : volts(r.volts().low()) + " … " + volts(r.volts().high()),
              shows,
              (r.harm().any() ? r.harm().says() + "; " : "")
                  + r.verdict().title()
                  + (r.note().isEmpty() ? "" : "; " + r.note())));
    }
    answer.table(rows);
  }

  private static void json(Answer answer, FaultMatrix matrix) {
    answer.put("faults", matrix.rows().stream().map(r -> row(r, matrix.places())).toList());
    answer.put("normalBand", span(matrix.band().volts()));
    ThresholdProposal p = matrix.thresholds();
    Thresholds t = p.thresholds().orElse(null);
    answer.put(
        "thresholds",
        Answer.object(
            "low",
            t == null || t.low() == null ? null : t.low().number(),
            "high",
            t == null || t.high() == null ? null : t.high().number(),
            "untold",
            p.hidden().stream().map(r -> r.fault().says()).toList()));
  }

  private static Map<String, Object> span(Span s) {
    return Answer.object("low", s.low(), "high", s.high());
  }

  private static Map<String, Object> row(FaultRow r, List<Place> places) {
    var nodes = new ArrayList<Map<String, Object>>();
    for (int i = 0; i < places.size(); i++) {
      FaultyPath.Reading at = r.atRest().get(i);
      boolean number = !at.floats() && !Double.isNaN(at.value());
      nodes.add(
          Answer.object(
              "name",
              places.get(i).key(),
              "value",
              number ? at.value() : null,
              "floats",
              at.floats()));
    }
    return Answer.object(
        "name",
        r.fault().says(),
        "low",
        r.volts().low(),
        "high",
        r.volts().high(),
        "floating",
        r.floating(),
        "shownLow",
        number(r.shownLow()),
        "shownHigh",
        number(r.shownHigh()),
        "worstError",
        number(r.worst()),
        "verdict",
        r.verdict().name().toLowerCase(Locale.ROOT),
        "confusedWith",
        r.confusedWith(),
        "harm",
        harm(r.harm()),
        "note",
        r.note(),
        "code",
        r.code(),
        "nodesAtRest",
        nodes);
  }

  /** Null for none. */
  private static Object harm(Harm h) {
    if (!h.any()) return null;
    return Answer.object(
        "inputVolts",
        h.pin().map(Harm.Pin::volts).orElse(null),
        "inputAmperes",
        h.pin().map(p -> number(p.amperes())).orElse(null),
        "ratingUnknown",
        h.pin().map(p -> p.rated().isEmpty()).orElse(null),
        "part",
        h.part().map(Harm.Part::what).orElse(null),
        "partVolts",
        h.part().map(Harm.Part::volts).orElse(null),
        "partWatts",
        h.part().map(Harm.Part::watts).orElse(null),
        "touchVolts",
        h.touch().orElse(null));
  }

  private static Double number(double v) {
    return Double.isFinite(v) ? v : null;
  }
}
