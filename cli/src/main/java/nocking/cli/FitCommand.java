package nocking.cli;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.stream.IntStream;
import nocking.book.exchange.ColumnException;
import nocking.book.exchange.ColumnFile;
import nocking.fit.Coefficient;
import nocking.fit.Fit;
import nocking.fit.FitException;
import nocking.fit.FitModel;
import nocking.fit.Recommendation;
import nocking.fit.Samples;
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
  private static final List<String> LATER =
      List.of(
          "minimax",
          "poly",
          "exp",
          "power",
          "log",
          "rational",
          "steinhart",
          "beta",
          "pwl",
          "pchip",
          "nearest");

  @Parameters(index = "0", paramLabel = "POINTS.csv")
  Path file;

  @Option(
      names = "--model",
      split = ",",
      paramLabel = "M",
      description = "line, line-zero, ends; several may be given (default: all).")
  List<String> models = List.of();

  @Option(names = "--x", paramLabel = "COL", description = "Column of the raw value.")
  String x;

  @Option(names = "--y", paramLabel = "COL", description = "Column of the quantity.")
  String y;

  @Option(names = "--weights", paramLabel = "W", description = "equal", defaultValue = "equal")
  String weights;

  @Option(names = "--tolerance", paramLabel = "T", description = "Maximum permissible error.")
  String tolerance;

  @Override
  int run(Answer answer) {
    if (!weights.equals("equal")) throw new NotAvailableException("the weighting " + weights);
    List<FitModel> wanted = wanted();
    ColumnFile columns = ColumnFile.read(file);
    Samples samples = samples(columns);
    Value limit = limit(columns, samples);
    List<Fit> fits = fits(wanted, samples);
    Optional<Recommendation> best =
        Recommendation.of(fits, limit == null ? Double.NaN : limit.number(), "");
    answer
        .put("tolerance", limit == null ? null : limit.number())
        .put("models", fits.stream().map(FitCommand::object).toList())
        .put("recommended", best.map(Recommendation::model).orElse(null))
        .put("reason", best.map(Recommendation::reason).orElse(null));
    text(answer, fits, best);
    if (limit != null && limit.needsMeaning(Unit.ONE)) {
      answer.line("Within %s, that is %s.", limit.typed(), Numbers.trimmed(limit.number(), 6));
    }
    return 0;
  }

  /** The tolerance in the unit of the quantity; a percentage is one of what the points span. */
  private Value limit(ColumnFile f, Samples samples) {
    if (tolerance == null) return null;
    Unit unit = f.unit(quantityColumn(f)).orElse(Unit.ONE).difference();
    try {
      return Value.tolerance(tolerance, unit, samples.quantitySpan().width());
    } catch (QuantityException e) {
      throw new QuantityException("--tolerance: " + e.getMessage());
    }
  }

  private List<FitModel> wanted() {
    if (models.isEmpty()) return FitModel.all();
    var list = new ArrayList<FitModel>();
    for (String key : models) {
      String stem = key.contains(":") ? key.substring(0, key.indexOf(':')) : key;
      if (LATER.contains(stem)) throw new NotAvailableException("the model " + key);
      list.add(
          FitModel.all().stream()
              .filter(m -> m.key().equals(key))
              .findFirst()
              .orElseThrow(
                  () ->
                      new QuantityException(
                          "'%s' is no model; known are line, line-zero, ends".formatted(key))));
    }
    return list;
  }

  /** Named columns, else an applied column as y and the mean of the others as x. */
  private Samples samples(ColumnFile f) {
    if (f.rows().isEmpty()) {
      throw new ColumnException(f.source() + " has no rows of numbers under its header");
    }
    int quantity = quantityColumn(f);
    int raw = x != null ? f.column(x) : quantity == 0 ? 1 : 0;
    if (f.header().size() < 2) {
      throw new ColumnException(f.source() + " has one column, expected raw and quantity");
    }
    if (x == null && y == null && f.header().size() > 2) return new Samples(means(f), f.numbers(0));
    return new Samples(f.numbers(raw), f.numbers(quantity));
  }

  private int quantityColumn(ColumnFile f) {
    return y != null ? f.column(y) : x != null && f.column(x) == 0 ? 1 : 0;
  }

  /** Of several reading columns the mean of each row; a cell may be empty where one is not. */
  private static double[] means(ColumnFile f) {
    var units = new TreeSet<String>();
    for (int c = 1; c < f.header().size(); c++) {
      units.add(f.unit(c).map(Unit::symbol).orElse(""));
    }
    if (units.size() > 1) {
      throw new ColumnException(
          "%s: the columns beside '%s' have different units (%s); say which is the raw value with --x"
              .formatted(f.source(), f.header().getFirst(), String.join(", ", units)));
    }
    double[] means = new double[f.rows().size()];
    for (int i = 0; i < means.length; i++) {
      double sum = 0;
      int n = 0;
      for (int c = 1; c < f.header().size(); c++) {
        if (c < f.rows().get(i).cells().size() && f.rows().get(i).cells().get(c).isBlank())
          continue;
        sum += f.number(f.rows().get(i), c);
        n++;
      }
      means[i] = n == 0 ? f.number(f.rows().get(i), 1) : sum / n;
    }
    return means;
  }

  /** All models that the points allow; a single one that is refused says why. */
  private static List<Fit> fits(List<FitModel> models, Samples samples) {
    var fits = new ArrayList<Fit>();
    FitException refused = null;
    for (FitModel m : models) {
      try {
        fits.add(m.fit(samples));
      } catch (FitException e) {
        refused = e;
      }
    }
    if (refused != null && (fits.isEmpty() || models.size() == 1)) throw refused;
    return fits;
  }

  private static Map<String, Object> object(Fit f) {
    return Answer.object(
        "model",
        f.model(),
        "coefficients",
        f.coefficients().stream()
            .map(
                c ->
                    Answer.object(
                        "name", c.name(), "value", c.value(), "standardError", c.standardError()))
            .toList(),
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
        "aicc",
        f.aicc(),
        "monotone",
        f.monotone());
  }

  private static void text(Answer answer, List<Fit> fits, Optional<Recommendation> best) {
    var rows = new ArrayList<List<String>>();
    rows.add(List.of("model", "worst", "at", "rms", "unseen", "coefficients"));
    for (Fit f : fits) {
      List<String> constants =
          IntStream.range(0, f.coefficients().size())
              .mapToObj(i -> coefficient(f.coefficients().get(i)))
              .toList();
      rows.add(
          List.of(
              f.model(),
              Numbers.significant(f.worstError(), 3),
              Numbers.trimmed(f.worstAt(), 5),
              Numbers.significant(f.rms(), 3),
              Numbers.significant(f.leaveOneOut(), 3),
              String.join("  ", constants)));
    }
    answer.table(rows);
    best.ifPresent(r -> answer.line(r.reason()));
  }

  private static String coefficient(Coefficient c) {
    String error =
        Double.isNaN(c.standardError()) ? "" : " ± " + Numbers.significant(c.standardError(), 2);
    return c.name() + " = " + Numbers.trimmed(c.value(), 8) + error;
  }
}
