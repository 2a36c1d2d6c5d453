package nocking.cli;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.TreeSet;
import java.util.stream.IntStream;
import nocking.book.exchange.ColumnException;
import nocking.book.exchange.ColumnFile;
import nocking.fit.Samples;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;

/**
 * Raw value and quantity from a column file: named columns, else an applied column and the mean of
 * the readings beside it.
 *
 * @param raw name or number of the raw column; null for the usual one
 * @param quantity name or number of the quantity's; null for the usual one
 */
record FitColumns(ColumnFile file, String raw, String quantity) {
  private static final List<String> UNCERTAINTY = List.of("u", "sigma", "uncertainty");

  FitColumns {
    if (file.rows().isEmpty()) {
      throw new ColumnException(file.source() + " has no rows of numbers under its header");
    }
    if (file.header().size() < 2) {
      throw new ColumnException(file.source() + " has one column, expected raw and quantity");
    }
  }

  int quantityColumn() {
    return quantity != null ? file.column(quantity) : raw != null && file.column(raw) == 0 ? 1 : 0;
  }

  int rawColumn() {
    return raw != null ? file.column(raw) : quantityColumn() == 0 ? 1 : 0;
  }

  /** Unit of the quantity; the plain number where the file states none. */
  Unit unit() {
    return file.unit(quantityColumn()).orElse(Unit.ONE);
  }

  /**
   * @param weighting {@code equal}; {@code sigma}, 1/u² from a column u or from the scatter of the
   *     readings in a row; {@code relative}, 1/y²
   */
  Samples samples(String weighting) {
    double[] x = several() ? means() : file.numbers(rawColumn());
    double[] y = file.numbers(quantityColumn());
    return switch (weighting.toLowerCase(Locale.ROOT)) {
      case "equal" -> new Samples(x, y);
      case "relative" -> new Samples(x, y, relative(y));
      case "sigma" -> new Samples(x, y, uncertain());
      default ->
          throw new QuantityException(
              "read --weights '%s', expected equal, sigma or relative".formatted(weighting));
    };
  }

  private boolean several() {
    return raw == null && quantity == null && readings().size() > 1;
  }

  /** Columns of readings: all beside the quantity that are no uncertainty. */
  private List<Integer> readings() {
    int u = uncertaintyColumn();
    return IntStream.range(0, file.header().size())
        .filter(c -> c != quantityColumn() && c != u)
        .boxed()
        .toList();
  }

  private int uncertaintyColumn() {
    for (int c = 0; c < file.header().size(); c++) {
      // A capital U is a voltage.
      if (UNCERTAINTY.contains(file.header().get(c))) return c;
    }
    return -1;
  }

  private double[] relative(double[] y) {
    double[] w = new double[y.length];
    for (int i = 0; i < w.length; i++) {
      if (y[i] == 0) {
        throw new ColumnException(
            "%s, row %d: a quantity of 0 has no relative weight"
                .formatted(file.source(), file.rows().get(i).line()));
      }
      w[i] = 1 / (y[i] * y[i]);
    }
    return w;
  }

  private double[] uncertain() {
    int column = uncertaintyColumn();
    double[] w = new double[file.rows().size()];
    for (int i = 0; i < w.length; i++) {
      ColumnFile.Row row = file.rows().get(i);
      double u = column >= 0 ? file.number(row, column) : ofMean(row);
      if (!(u > 0)) {
        throw new ColumnException(
            "%s, row %d: read an uncertainty of %s, expected more than 0"
                .formatted(file.source(), row.line(), u));
      }
      w[i] = 1 / (u * u);
    }
    return w;
  }

  /** s/√n of the readings of a row. */
  private double ofMean(ColumnFile.Row row) {
    List<Double> v = values(row);
    if (v.size() < 2) {
      throw new ColumnException(
          ("%s, row %d: weights by uncertainty need a column 'u' or several readings in the row;"
                  + " there %s %d")
              .formatted(file.source(), row.line(), v.size() == 1 ? "is" : "are", v.size()));
    }
    double mean = v.stream().mapToDouble(d -> d).average().orElseThrow();
    double squares = v.stream().mapToDouble(d -> (d - mean) * (d - mean)).sum();
    return Math.sqrt(squares / (v.size() - 1) / v.size());
  }

  /** Of several reading columns the mean of each row; a cell may be empty where one is not. */
  private double[] means() {
    var units = new TreeSet<String>();
    for (int c : readings()) units.add(file.unit(c).map(Unit::symbol).orElse(""));
    if (units.size() > 1) {
      throw new ColumnException(
          "%s: the columns beside '%s' have different units (%s); say which is the raw value with --x"
              .formatted(file.source(), file.header().getFirst(), String.join(", ", units)));
    }
    return file.rows().stream()
        .mapToDouble(
            r ->
                values(r).stream()
                    .mapToDouble(d -> d)
                    .average()
                    .orElseGet(() -> file.number(r, readings().getFirst())))
        .toArray();
  }

  private List<Double> values(ColumnFile.Row row) {
    var list = new ArrayList<Double>();
    for (int c : readings()) {
      if (c < row.cells().size() && row.cells().get(c).isBlank()) continue;
      list.add(file.number(row, c));
    }
    return list;
  }
}
