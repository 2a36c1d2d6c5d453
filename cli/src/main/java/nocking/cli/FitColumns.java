package nocking.cli;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import nocking.book.exchange.ColumnException;
import nocking.book.exchange.ColumnFile;
import nocking.book.exchange.PointColumns;
import nocking.book.exchange.PointColumns.Order;
import nocking.fit.Samples;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;

/**
 * Raw value and quantity from the points of a column file that count: named columns, else what was
 * applied and the mean of the readings beside it.
 *
 * @param raw name or number of the raw column; null for the usual one
 * @param quantity name or number of the quantity's; null for the usual one
 * @param notCounting what of the file is not gone by, a sentence each
 */
record FitColumns(PointColumns columns, String raw, String quantity, List<String> notCounting) {

  static FitColumns of(ColumnFile file, String raw, String quantity) {
    PointColumns all = PointColumns.of(file, Order.APPLIED_FIRST);
    var said = new ArrayList<>(all.notCounting());
    boolean asked = raw != null || quantity != null;
    if (!asked && !all.unused().isEmpty()) {
      said.add("not looked at: " + String.join(", ", all.unused()));
    }
    return new FitColumns(all.counting(), raw, quantity, said);
  }

  ColumnFile file() {
    return columns.file();
  }

  int quantityColumn() {
    if (quantity != null) return file().column(quantity);
    boolean taken = raw != null && file().column(raw) == columns.applied();
    return taken ? columns.readings().getFirst() : columns.applied();
  }

  int rawColumn() {
    if (raw != null) return file().column(raw);
    int first = columns.readings().getFirst();
    return quantityColumn() == first ? columns.applied() : first;
  }

  /** Unit of the quantity; the plain number where the file states none. */
  Unit unit() {
    return file().unit(quantityColumn()).orElse(Unit.ONE);
  }

  /**
   * @param weighting {@code equal}; {@code sigma}, 1/u² from a column u or from the scatter of the
   *     readings in a row; {@code relative}, 1/y²
   */
  Samples samples(String weighting) {
    double[] x = several() ? columns.means() : file().numbers(rawColumn());
    double[] y = file().numbers(quantityColumn());
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
    return raw == null && quantity == null && columns.readings().size() > 1;
  }

  private double[] relative(double[] y) {
    double[] w = new double[y.length];
    for (int i = 0; i < w.length; i++) {
      if (y[i] == 0) {
        throw new ColumnException(
            "%s, row %d: a quantity of 0 has no relative weight"
                .formatted(file().source(), file().rows().get(i).line()));
      }
      w[i] = 1 / (y[i] * y[i]);
    }
    return w;
  }

  private double[] uncertain() {
    int column = columns.uncertainty();
    double[] w = new double[file().rows().size()];
    for (int i = 0; i < w.length; i++) {
      ColumnFile.Row row = file().rows().get(i);
      double u = column >= 0 ? file().number(row, column) : ofMean(row);
      if (!(u > 0)) {
        throw new ColumnException(
            "%s, row %d: read an uncertainty of %s, expected more than 0"
                .formatted(file().source(), row.line(), u));
      }
      w[i] = 1 / (u * u);
    }
    return w;
  }

  /** s/√n of the readings of a row. */
  private double ofMean(ColumnFile.Row row) {
    List<Double> v = columns.values(row);
    if (v.size() < 2) {
      throw new ColumnException(
          ("%s, row %d: weights by uncertainty need a column 'u' or several readings in the row;"
                  + " there %s %d")
              .formatted(file().source(), row.line(), v.size() == 1 ? "is" : "are", v.size()));
    }
    double mean = v.stream().mapToDouble(d -> d).average().orElseThrow();
    double squares = v.stream().mapToDouble(d -> (d - mean) * (d - mean)).sum();
    return Math.sqrt(squares / (v.size() - 1) / v.size());
  }
}
