package nocking.cli;

import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import nocking.analysis.Analysis;
import nocking.book.BookException;
import nocking.book.BookFile;
import nocking.book.exchange.ColumnFile;
import nocking.channel.Adopted;
import nocking.channel.Channel;
import nocking.channel.DocumentException;
import nocking.fit.Coefficient;
import nocking.fit.Curve;
import nocking.fit.Fit;
import nocking.fit.FitException;
import nocking.fit.FitModel;
import nocking.fit.Judgement;
import nocking.fit.Recommendation;
import nocking.fit.Samples;
import nocking.points.RawScale;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import picocli.CommandLine.Command;
import picocli.CommandLine.Option;
import picocli.CommandLine.Parameters;

/** Fits models of the quantity (y) on the raw value (x). */
@Command(name = "fit", description = "Fit the quantity (y) on the raw value (x) of a column file.")
final class FitCommand extends JsonOption {
  private static final String KNOWN =
      "line, line-zero, ends, minimax, minimax:N, poly:N, exp, power, log, rational:P/Q, steinhart,"
          + " beta, pwl, pchip and nearest";

  @Parameters(
      index = "0",
      arity = "0..1",
      paramLabel = "POINTS.csv",
      description = "The points; with --book those of the channel.")
  Path file;

  @Option(
      names = "--model",
      split = ",",
      paramLabel = "M",
      description =
          "line, line-zero, ends, minimax[:N], poly:N, exp, power, log, rational:P/Q, steinhart,"
              + " beta, pwl, pchip, nearest; several may be given (default: all that serve).")
  List<String> models = List.of();

  @Option(names = "--x", paramLabel = "COL", description = "Column of the raw value.")
  String x;

  @Option(names = "--y", paramLabel = "COL", description = "Column of the quantity.")
  String y;

  @Option(
      names = "--weights",
      paramLabel = "W",
      defaultValue = "equal",
      description =
          "equal; sigma, by a column u or the scatter of a row's readings; relative to the"
              + " quantity.")
  String weights;

  @Option(names = "--tolerance", paramLabel = "T", description = "Maximum permissible error.")
  String tolerance;

  @Option(
      names = "--channel",
      paramLabel = "CHANNEL.json",
      description =
          "Judge its design equation, too; raw in volts, in its counts, or in ohms or mA of its"
              + " sensor.")
  Path channel;

  @Option(names = "--book", paramLabel = "FILE", description = "Fit a channel of a bench book.")
  Path book;

  @Option(names = "--of", paramLabel = "TAG", description = "The channel of the book.")
  String tag;

  @Option(
      names = "--adopt",
      description =
          "Let the channel of the book go by the one model that is given, or that is recommended.")
  boolean adopt;

  @Override
  int run(Answer answer) {
    List<FitModel> wanted = wanted();
    if (book != null) return ofBook(answer, wanted);
    if (adopt || tag != null) throw new QuantityException("--adopt and --of need --book");
    if (file == null) throw new QuantityException("a file of points is missing, or --book");
    var columns = FitColumns.of(ColumnFile.read(file), x, y);
    Optional<Analysis> design =
        Optional.ofNullable(channel).map(c -> Analysis.of(ChannelFiles.channel(c)));
    Samples samples = samples(columns, design);
    Unit unit = design.map(a -> a.channel().unit()).orElse(columns.unit());
    Value limit = limit(unit, samples, design);
    List<Fit> fits = new ArrayList<>();
    design
        .map(a -> ChannelFiles.required(a, a.design().equation()))
        .ifPresent(e -> fits.add(Judgement.asItIs(Adopted.DESIGN_MODEL, e, samples)));
    fits.addAll(fits(wanted, samples));
    said(answer, fits, samples, limit, unit);
    answer.put("notCounting", columns.notCounting());
    columns.notCounting().forEach(l -> answer.line("%s: %s", file.getFileName(), l));
    if (limit != null && limit.needsMeaning(Unit.ONE)) {
      answer.line("Within %s, that is %s.", limit.typed(), Numbers.trimmed(limit.number(), 6));
    }
    return 0;
  }

  private static Optional<Recommendation> said(
      Answer answer, List<Fit> fits, Samples samples, Value limit, Unit unit) {
    Optional<Recommendation> best =
        Recommendation.of(
            fits,
            samples,
            limit == null ? Double.NaN : limit.number(),
            unit.equals(Unit.ONE) ? "" : unit.difference().symbol());
    answer
        .put("tolerance", limit == null ? null : limit.number())
        .put("models", fits.stream().map(FitCommand::object).toList())
        .put("recommended", best.map(Recommendation::model).orElse(null))
        .put("holds", best.map(Recommendation::holds).orElse(null))
        .put("reason", best.map(Recommendation::reason).orElse(null));
    text(answer, fits, best);
    return best;
  }

  /** The points of a channel in its book, its design equation among the models. */
  private int ofBook(Answer answer, List<FitModel> wanted) {
    if (tag == null) throw new QuantityException("--book needs --of TAG");
    if (file != null || channel != null || x != null || y != null) {
      throw new QuantityException("--book fits the points of its channel, and no file beside them");
    }
    if (!Files.exists(book)) throw new DocumentException(book + " does not exist");
    if (!adopt) {
      try (BookFile opened = BookFile.openToRead(book, Clock.systemUTC())) {
        judged(answer, wanted, Analysis.of(ChannelFiles.find(opened.read(), tag, book)));
        return 0;
      }
    }
    try (BookFile opened = BookFile.open(book, Clock.systemUTC())) {
      if (!opened.writable()) {
        throw new BookException(
            BookException.Cause.OUTSIDE, book + " cannot be changed: " + opened.readOnlyBecause());
      }
      Channel c = ChannelFiles.find(opened.read(), tag, book);
      if (c.journal().locked()) {
        throw new DocumentException("%s is locked; unlock it first".formatted(c.tag()));
      }
      Analysis a = Analysis.of(c);
      Optional<Recommendation> best = judged(answer, wanted, a);
      String model =
          models.size() == 1
              ? wanted.getFirst().key()
              : best.map(Recommendation::model)
                  .orElseThrow(
                      () -> new QuantityException("no model is recommended; --model names one"));
      Channel after = a.calibration().adopting(model);
      if (!after.equals(c)) opened.save(after, "adopt " + model);
      answer.put("adopted", model).line("%s goes by %s now.", c.tag(), model);
      return 0;
    }
  }

  private Optional<Recommendation> judged(Answer answer, List<FitModel> wanted, Analysis a) {
    Samples samples = a.calibration().samples();
    if (samples.size() == 0) {
      throw new QuantityException("%s has no points that count".formatted(a.channel().tag()));
    }
    List<Fit> fits = new ArrayList<>();
    if (models.isEmpty()) {
      a.design()
          .equation()
          .ifPresent(e -> fits.add(Judgement.asItIs(Adopted.DESIGN_MODEL, e, samples)));
    }
    fits.addAll(fits(wanted, samples));
    Unit unit = a.channel().unit();
    Value limit = limit(unit, samples, Optional.of(a));
    return said(answer, fits, samples, limit, unit);
  }

  /** The points, in the units of the channel where one is given. */
  private Samples samples(FitColumns columns, Optional<Analysis> design) {
    Samples s = columns.samples(weights);
    if (design.isEmpty()) return s;
    var c = design.get().channel();
    Unit stated = columns.file().unit(columns.rawColumn()).orElse(Unit.VOLT);
    RawUnit raw = RawUnit.of(stated);
    RawScale scale =
        RawScale.of(raw, c.design().converter(), design.get().design().path())
            .orElseThrow(
                () ->
                    new QuantityException(
                        "%s is in %s, and the sensor of %s gives nothing of the kind"
                            .formatted(columns.file().source(), raw.title(), c.tag())));
    Unit from = columns.file().unit(columns.quantityColumn()).orElse(c.unit());
    double[] volts = s.raw().clone();
    double[] quantity = s.quantity().clone();
    for (int i = 0; i < volts.length; i++) {
      volts[i] = scale.volts(stated.convert(volts[i], raw.unit()));
      quantity[i] = from.convert(quantity[i], c.unit());
    }
    return new Samples(volts, quantity, s.weights());
  }

  /** The tolerance in the unit of the quantity; a percentage is one of what the points span. */
  private Value limit(Unit unit, Samples samples, Optional<Analysis> design) {
    if (tolerance == null) {
      double own = design.map(a -> a.channel().definition().toleranceOrNaN()).orElse(Double.NaN);
      return Double.isNaN(own) ? null : Value.of(own);
    }
    try {
      return Value.tolerance(tolerance, unit.difference(), samples.quantitySpan().width());
    } catch (QuantityException e) {
      throw new QuantityException("--tolerance: " + e.getMessage());
    }
  }

  private List<FitModel> wanted() {
    if (models.isEmpty()) return FitModel.all();
    return models.stream()
        .map(
            key ->
                FitModel.of(key.strip())
                    .orElseThrow(
                        () ->
                            new QuantityException(
                                "'%s' is no model; known are %s".formatted(key, KNOWN))))
        .toList();
  }

  /** All models that the points allow; those that were asked for and refused say why. */
  private List<Fit> fits(List<FitModel> models, Samples samples) {
    var fits = new ArrayList<Fit>();
    FitException refused = null;
    for (FitModel m : models) {
      try {
        fits.add(m.fit(samples));
      } catch (FitException e) {
        refused = e;
      }
    }
    boolean asked = !this.models.isEmpty();
    if (refused != null && (fits.isEmpty() || asked)) throw refused;
    return fits;
  }

  private static Map<String, Object> object(Fit f) {
    return Answer.object(
        "model",
        f.model(),
        "title",
        f.curve().title(),
        "coefficients",
        coefficients(f.inRaw()),
        "goesBy",
        coefficients(f.coefficients()),
        "covariance",
        f.covariance(),
        "worstError",
        f.worstError(),
        "worstAt",
        f.worstAt(),
        "rms",
        f.rms(),
        "residualSd",
        f.residualSd(),
        "rSquared",
        f.rSquared(),
        "looWorst",
        f.leaveOneOut(),
        "looWorstAt",
        f.unseenAt(),
        "aicc",
        f.aicc(),
        "monotone",
        f.monotone(),
        "outside",
        FitModel.of(f.model()).map(FitModel::outside).orElse(null));
  }

  private static List<Map<String, Object>> coefficients(List<Coefficient> list) {
    return list.stream()
        .map(
            c ->
                Answer.object(
                    "name", c.name(), "value", c.value(), "standardError", c.standardError()))
        .toList();
  }

  private static void text(Answer answer, List<Fit> fits, Optional<Recommendation> best) {
    var rows = new ArrayList<List<String>>();
    rows.add(List.of("model", "worst", "at", "rms", "unseen", "", "constants"));
    for (Fit f : fits) {
      rows.add(
          List.of(
              f.model(),
              Numbers.significant(f.worstError(), 3),
              Numbers.trimmed(f.worstAt(), 5),
              Numbers.significant(f.rms(), 3),
              Double.isNaN(f.leaveOneOut()) ? "–" : Numbers.significant(f.leaveOneOut(), 3),
              f.monotone() ? "" : "turns back",
              f.inRaw().size() > 8
                  ? f.inRaw().size() / 2 + " points"
                  : f.inRaw().stream()
                      .map(FitCommand::coefficient)
                      .collect(Collectors.joining("  "))));
    }
    answer.table(rows);
    scaled(answer, fits);
    best.ifPresent(r -> answer.line(r.reason()));
  }

  /** The form that loses no digits, where a single model was asked for. */
  private static void scaled(Answer answer, List<Fit> fits) {
    if (fits.size() != 1) return;
    Fit f = fits.getFirst();
    Curve c = f.curve();
    if (c.points().isEmpty()) return;
    answer.line(
        "With t = (x − Vm)/Vh: %s",
        f.coefficients().stream()
            .map(k -> k.name() + " = " + Numbers.plain(k.value()))
            .collect(Collectors.joining("  ")));
  }

  private static String coefficient(Coefficient c) {
    String error =
        Double.isNaN(c.standardError()) ? "" : " ± " + Numbers.significant(c.standardError(), 2);
    return c.name() + " = " + Numbers.trimmed(c.value(), 10) + error;
  }
}
