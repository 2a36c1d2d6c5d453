package nocking.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import nocking.analysis.Analysis;
import nocking.book.exchange.ColumnFile;
import nocking.book.exchange.ObservationCsv;
import nocking.channel.Channel;
import nocking.diagnosis.Diagnosis;
import nocking.diagnosis.Diagnostician;
import nocking.diagnosis.Explanation;
import nocking.diagnosis.FaultPair;
import nocking.diagnosis.MeasuredValue;
import nocking.diagnosis.MeasuringCaution;
import nocking.diagnosis.NextMeasurement;
import nocking.diagnosis.Ranking;
import nocking.diagnosis.TwoFaults;
import nocking.fault.Fault;
import nocking.fault.FaultMatrix;
import nocking.fault.Subject;
import nocking.prior.PriorWeights;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityParser;
import nocking.quantity.Unit;
import nocking.wiring.Meter;
import nocking.wiring.Place;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Which fault explains what was seen. */
@Command(
    name = "diagnose",
    description = {
      "Rank the faults that explain what was seen, and say what to measure next.",
      "FILE.csv has the columns place, at and value. Places: display, supply-receiver,"
          + " supply-sensor, ground, sensor, receiver, sensor-ohms, receiver-ohms, loop, TP2 …"
    })
final class DiagnoseCommand extends JsonOption {
  @Parameters(index = "0", paramLabel = "CHANNEL.json")
  Path file;

  @Option(names = "--seen", required = true, paramLabel = "FILE", description = "What was seen.")
  Path seen;

  @Option(
      names = "--cards",
      paramLabel = "BOOK.json",
      description = {
        "An exported book: sensor cards that may have been taken instead,",
        "the meter and the weights of faults."
      })
  Path cards;

  @Option(names = "--percent", paramLabel = "P", description = "Meter, ±%% of reading (0.5).")
  Double percent;

  @Option(names = "--digits", paramLabel = "D", description = "Meter, ± last digits (2).")
  Double digits;

  @Option(names = "--counts", paramLabel = "N", description = "Meter's counts (6000).")
  Integer counts;

  @Option(names = "--meter-ohms", paramLabel = "R", description = "Meter's input (10M).")
  String meterOhms;

  @Override
  int run(Answer answer) {
    Channel channel = ChannelFiles.channel(file);
    Analysis analysis = FaultsCommand.analysis(channel, cards);
    Subject subject = ChannelFiles.required(analysis, analysis.wiring().subject());
    List<Place> places = FaultMatrix.places(subject);
    List<MeasuredValue> observations =
        ObservationCsv.read(
                ColumnFile.read(seen),
                places,
                channel.unit(),
                s -> Diagnosis.requireInput(channel, s))
            .stream()
            .map(Diagnosis::observed)
            .toList();
    PriorWeights bench =
        cards == null ? PriorWeights.USUAL : ChannelFiles.book(cards).priorWeights();
    var engine = Diagnostician.of(subject, bench.withMeter(meter(bench.meter())));
    Ranking ranking = engine.rank(observations);
    NextMeasurement next = engine.next(ranking).orElse(null);
    List<Explanation> leading = ranking.leading(8);
    boolean sound = ranking.nothingWrong(Diagnosis.tolerance(channel));
    TwoFaults two = engine.twoAtOnce(ranking);
    text(answer, analysis, ranking, two, leading, engine, sound ? null : next);
    answer
        .put("explanations", leading.stream().map(e -> explanation(e, ranking, engine)).toList())
        .put("noneFits", ranking.noneFits())
        .put("somethingElse", ranking.somethingElse())
        .put("twoFaults", twoFaults(two))
        .put("nothingWrong", sound)
        .put("nextMeasurement", next == null ? null : next(next, channel));
    return ranking.unexplained() ? NockingCli.FAIL : 0;
  }

  /** The bench's meter, but for what was said on the command line. */
  private Meter meter(Meter bench) {
    return new Meter(
        percent == null ? bench.percent() : percent,
        digits == null ? bench.digits() : digits,
        counts == null ? bench.counts() : counts,
        meterOhms == null ? bench.inputResistance() : QuantityParser.value(meterOhms, Unit.OHM));
  }

  private static Map<String, Object> explanation(
      Explanation e, Ranking ranking, Diagnostician engine) {
    return Answer.object(
        "name",
        e.says(),
        "probability",
        e.probability(),
        "expected",
        e.expected().stream().map(v -> Double.isFinite(v) ? v : null).toList(),
        "observed",
        ranking.observations().stream().map(MeasuredValue::value).toList(),
        "fits",
        e.fits(),
        "notToldFrom",
        engine.indistinguishable(e, ranking).stream().map(o -> o.fault().says()).toList());
  }

  /** The pair or the common fault that two at once would be; null where nothing can be said. */
  private static Map<String, Object> twoFaults(TwoFaults two) {
    if (two.says().isEmpty()) return null;
    return Answer.object(
        "pair",
        two.pair().map(p -> List.of(p.first().says(), p.second().says())).orElse(null),
        "probability",
        two.pair().map(FaultPair::probability).orElse(null),
        "common",
        two.common().map(Fault::name).orElse(null),
        "beside",
        two.common().map(c -> two.beside(c).stream().map(Fault::name).toList()).orElse(List.of()));
  }

  private static Map<String, Object> next(NextMeasurement n, Channel c) {
    return Answer.object(
        "place",
        n.place().key(),
        "at",
        n.at(),
        "information",
        n.information(),
        "caution",
        MeasuringCaution.of(c, n.place()),
        "expected",
        n.predictions().stream()
            .limit(6)
            .map(p -> Answer.object("name", p.fault().says(), "value", p.value()))
            .toList());
  }

  private static void text(
      Answer answer,
      Analysis analysis,
      Ranking ranking,
      TwoFaults two,
      List<Explanation> leading,
      Diagnostician engine,
      NextMeasurement next) {
    if (ranking.noneFits()) {
      answer.line(
          "None of these faults explains what was seen by itself. %s The nearest are listed.",
          two.says()
              .orElse("No two of them stand out either: a reading may be written down wrong."));
    } else if (ranking.somethingElse()) {
      answer.line(
          "Something that is not on this list is likelier than anything on it. %s The nearest are listed.",
          two.says().orElse("No two faults at once stand out either."));
    } else if (ranking.nothingWrong(Diagnosis.tolerance(analysis.channel()))) {
      answer.line("Nothing seen so far is wrong: it is all within tolerance.");
    }
    var rows = new ArrayList<List<String>>();
    for (Explanation e : leading) {
      rows.add(
          List.of(
              e.line(),
              Numbers.fixed(100 * e.probability(), 1) + " %",
              e.fits() || !e.listed() ? "" : "does not fit"));
    }
    answer.table(rows);
    if (ranking.nothingWrong(Diagnosis.tolerance(analysis.channel()))) return;
    List<String> alike =
        engine.indistinguishable(ranking.best(), ranking).stream()
            .map(e -> e.fault().says())
            .toList();
    if (!alike.isEmpty()) {
      answer.line("No measurement here tells the first from: %s", String.join("; ", alike));
    }
    if (next == null) {
      answer.line("Nothing that can be measured here says more.");
      return;
    }
    answer.line(
        "Measure next: %s at %s",
        analysis.channel().wiring().plan().title(next.place()),
        analysis.design().amount(next.at()));
    answer.line("Caution: %s", MeasuringCaution.of(analysis.channel(), next.place()));
    var expected = new ArrayList<List<String>>();
    for (NextMeasurement.Prediction p : next.predictions().stream().limit(4).toList()) {
      expected.add(
          List.of(
              "  " + p.fault().line(),
              Diagnosis.reading(next.place(), p.value(), analysis.channel().unit())));
    }
    answer.table(expected);
  }
}
