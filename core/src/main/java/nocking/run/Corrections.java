package nocking.run;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * What an instrument's certificate says: so much it shows where so much is true. Between the rows
 * the departure goes straight; beyond the ends the certificate says nothing, and the departure of
 * the end is taken.
 *
 * @param rows in the instrument's unit, rising in both; none for an instrument without any
 */
public record Corrections(List<Row> rows) {
  public static final Corrections NONE = new Corrections(List.of());
  private static final int MOST = 500;

  /** Share of the range of a certificate by which a set point may lie beside it. */
  private static final double BESIDE = 0.01;

  /**
   * A line of a certificate.
   *
   * @param shown what the instrument shows
   * @param truth what is true then
   */
  public record Row(double shown, double truth) {}

  public Corrections {
    rows = rows == null ? List.of() : List.copyOf(rows);
    if (rows.size() > MOST) {
      throw new QuantityException(
          "a certificate has at most %d rows, this one %d".formatted(MOST, rows.size()));
    }
    for (int i = 0; i < rows.size(); i++) {
      Row r = rows.get(i);
      if (!Double.isFinite(r.shown - r.truth)) {
        throw new QuantityException("row %d of the certificate is no number".formatted(i + 1));
      }
      if (i > 0 && !(r.shown > rows.get(i - 1).shown && r.truth > rows.get(i - 1).truth)) {
        throw new QuantityException(
            "the rows of a certificate rise in what is shown and in what is true; %s stands behind %s"
                .formatted(says(r), says(rows.get(i - 1))));
      }
    }
  }

  /**
   * Reads rows as they are typed, {@code 0.02=0; 25.05=25}: what is shown, and what is true then.
   *
   * @throws QuantityException naming what was read and what was expected
   */
  public static Corrections parse(String text, Unit unit) {
    if (text.isBlank()) return NONE;
    var rows = new ArrayList<Row>();
    for (String part : text.split("[;\\n]")) {
      if (part.isBlank()) continue;
      String[] two = part.split("=", -1);
      if (two.length != 2) {
        throw new QuantityException(
            "read '%s', expected what is shown and what is true then, such as 25.05=25"
                .formatted(part.strip()));
      }
      rows.add(
          new Row(
              Value.typed(two[0].strip(), unit).number(),
              Value.typed(two[1].strip(), unit).number()));
    }
    return new Corrections(rows);
  }

  public boolean isEmpty() {
    return rows.isEmpty();
  }

  /** What is true where so much is shown. */
  public double truth(double shown) {
    return isEmpty() ? shown : shown - departure(shown, true);
  }

  /** What is shown where so much is true. */
  public double shown(double truth) {
    return isEmpty() ? truth : truth + departure(truth, false);
  }

  /** Shown less true, straight between the rows. */
  private double departure(double at, boolean byShown) {
    int n = rows.size();
    if (n == 1 || at <= x(0, byShown)) return off(0);
    if (at >= x(n - 1, byShown)) return off(n - 1);
    int i = 1;
    while (at > x(i, byShown)) i++;
    double share = (at - x(i - 1, byShown)) / (x(i, byShown) - x(i - 1, byShown));
    return off(i - 1) + share * (off(i) - off(i - 1));
  }

  private double x(int i, boolean shown) {
    return shown ? rows.get(i).shown : rows.get(i).truth;
  }

  private double off(int i) {
    return rows.get(i).shown - rows.get(i).truth;
  }

  /** True where the certificate says something of a true value; one row holds everywhere. */
  public boolean covers(double truth) {
    if (rows.size() < 2) return true;
    double from = rows.getFirst().truth;
    double to = rows.getLast().truth;
    double slack = BESIDE * (to - from);
    return truth >= from - slack && truth <= to + slack;
  }

  /** As it would be typed. */
  public String typed() {
    return rows.stream().map(Corrections::says).collect(Collectors.joining("; "));
  }

  private static String says(Row r) {
    return Numbers.plain(r.shown) + "=" + Numbers.plain(r.truth);
  }

  /** For people: by the certificate, 0.02 … 0.11 °C less than is shown. */
  public String says(String unit) {
    if (isEmpty()) return "";
    double least = Double.POSITIVE_INFINITY;
    double most = Double.NEGATIVE_INFINITY;
    for (int i = 0; i < rows.size(); i++) {
      least = Math.min(least, -off(i));
      most = Math.max(most, -off(i));
    }
    String between =
        least == most
            ? Numbers.signed(least, digits(least, most))
            : Numbers.signed(least, digits(least, most))
                + " … "
                + Numbers.signed(most, digits(least, most));
    return "corrected by its certificate, %s %s".formatted(between, unit).strip();
  }

  private static int digits(double least, double most) {
    double size = Math.max(Math.abs(least), Math.abs(most));
    return size == 0 ? 0 : Numbers.decimalsFor(size / 10);
  }
}
