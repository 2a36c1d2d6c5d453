package nocking.analysis;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.channel.Channel;
import nocking.channel.Definition;
import nocking.fit.Curve;
import nocking.path.PathState;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.sensor.Sensor;

/**
 * What would happen if another sensor were fitted and everything else stayed: the voltages of every
 * node, and what the present calibration would read.
 *
 * @param problem why nothing can be said; empty when the rows stand
 */
public record SensorSwap(List<Row> rows, String problem) {

  private static final String FULL = "full scale";
  private static final String INSIDE = "worst inside";
  private static final String BELOW = "below the range";
  private static final String ABOVE = "above the range";

  /** Share of the range that is looked at beside either end. */
  private static final double BEYOND = 0.25;

  /** So many times what it departs inside the range is worth a word beside it. */
  private static final double CLEARLY = 3;

  private static final int PLACES = 50;

  /**
   * One input.
   *
   * @param where at rest, start, middle, end, and where it departs farther inside and beside the
   *     range
   * @param applied channel's unit
   * @param before volts at the converter with the present sensor
   * @param after volts at the converter with the new one
   * @param reading of the new one by the present calibration
   * @param nodes every test point before and after, and the code, in words
   * @param present reading of the present one
   * @param clipped true when a stage or the converter stands at its end with the new one
   */
  public record Row(
      String where,
      double applied,
      double before,
      double after,
      double reading,
      double present,
      boolean clipped,
      String nodes) {
    public double error() {
      return reading - applied;
    }

    /** By how much it reads otherwise than the present one, without sign. */
    double departs() {
      return Math.abs(reading - present);
    }
  }

  /** Compares the present sensor of a channel with another in its unit. */
  public static SensorSwap of(Channel channel, Sensor other) {
    Analysis now = Analysis.of(channel);
    Analysis then = Analysis.of(channel.design(d -> d.withSensor(other)));
    Optional<Curve> curve = now.calibration().curve();
    if (now.design().path().isEmpty() || curve.isEmpty()) {
      return new SensorSwap(List.of(), "there is no calibration yet to compare with");
    }
    if (then.design().path().isEmpty()) {
      return new SensorSwap(
          List.of(), then.design().problem().orElse("the new sensor has no path"));
    }
    DoubleUnaryOperator reads = now.receiver().believed().orElseGet(() -> curve.get().function());
    Definition d = channel.definition();
    var rows = new ArrayList<Row>();
    SignalPath before = now.design().path().get();
    SignalPath after = then.design().path().get();
    add(rows, "at rest", channel.design().rest(), before, after, reads);
    if (channel.design().rest() != d.working().low()) {
      add(rows, "start", d.working().low(), before, after, reads);
    }
    add(rows, "middle", d.working().middle(), before, after, reads);
    add(rows, FULL, d.working().high(), before, after, reads);
    worst(rows, INSIDE, d.working(), before, after, reads);
    Span w = d.working();
    double more = BEYOND * w.width();
    worst(rows, BELOW, new Span(w.low() - more, w.low()), before, after, reads);
    worst(rows, ABOVE, new Span(w.high(), w.high() + more), before, after, reads);
    return new SensorSwap(rows, "");
  }

  /**
   * The place in a span where the new one departs from what the present one reads the farthest, if
   * it does so more than at the places before.
   */
  private static void worst(
      List<Row> rows,
      String where,
      Span span,
      SignalPath before,
      SignalPath after,
      DoubleUnaryOperator reads) {
    double known =
        rows.stream()
            .filter(r -> !r.where.equals(BELOW))
            .mapToDouble(Row::departs)
            .filter(Double::isFinite)
            .max()
            .orElse(0);
    // A straight line that goes on is farther off beside the range: that is no news.
    double most = where.equals(INSIDE) ? known : CLEARLY * known;
    Row worst = null;
    for (int i = 0; i <= PLACES; i++) {
      Row row;
      try {
        row = row(where, span.at((double) i / PLACES), before, after, reads);
      } catch (QuantityException e) {
        // One of the two has no value there.
        continue;
      }
      if (row.departs() > most + 1e-9 * Math.max(1, Math.abs(row.applied()))) {
        most = row.departs();
        worst = row;
      }
    }
    if (worst != null) rows.add(worst);
  }

  private static void add(
      List<Row> rows,
      String where,
      double x,
      SignalPath before,
      SignalPath after,
      DoubleUnaryOperator reads) {
    rows.add(row(where, x, before, after, reads));
  }

  private static Row row(
      String where, double x, SignalPath before, SignalPath after, DoubleUnaryOperator reads) {
    double volts = after.at(x).output();
    double reference = after.converter().reference().number();
    double seen = Math.clamp(volts, 0, reference);
    boolean clipped = after.at(x).clipped() || seen != volts;
    double sees = Math.clamp(before.at(x).output(), 0, reference);
    return new Row(
        where,
        x,
        before.at(x).output(),
        volts,
        reads.applyAsDouble(seen),
        reads.applyAsDouble(sees),
        clipped,
        nodes(before.at(x), after.at(x)));
  }

  private static String nodes(PathState before, PathState after) {
    var words = new ArrayList<String>();
    for (int i = 0; i < before.nodes().size(); i++) {
      PathState.Node was = before.nodes().get(i);
      PathState.Node is = after.nodes().get(i);
      words.add(
          "%s %s → %s"
              .formatted(
                  was.point().name(),
                  Numbers.engineering(was.value(), was.point().unit().symbol(), 4),
                  Numbers.engineering(is.value(), is.point().unit().symbol(), 4)));
    }
    words.add("code %d → %d".formatted(before.code(), after.code()));
    return String.join(", ", words);
  }

  /** The row at the high end of the working range. */
  public Row fullScale() {
    return rows.stream().filter(r -> r.where.equals(FULL)).findFirst().orElseThrow();
  }

  /** In words: {@code at rest the new one reads 3.1 kPa low; at full scale 40 kPa high}. */
  public String says(String unit) {
    if (rows.isEmpty()) return problem;
    Row rest = rows.getFirst();
    var words = new ArrayList<String>();
    words.add("%s the new one reads %s".formatted(rest.where, says(rest, unit)));
    for (Row r : rows) {
      if (r.where.equals(FULL)) words.add("at full scale " + says(r, unit));
      boolean scanned = r.where.equals(INSIDE) || r.where.equals(BELOW) || r.where.equals(ABOVE);
      if (scanned)
        words.add("%s, at %s, %s".formatted(r.where, amount(r.applied, unit), beside(r, unit)));
    }
    return String.join("; ", words);
  }

  private static String amount(double v, String unit) {
    return (Numbers.significant(v, 3) + " " + unit).strip();
  }

  /** Against what the present one reads there, which beside the range need not be right. */
  private static String beside(Row r, String unit) {
    if (Double.isNaN(r.reading) || Double.isNaN(r.present)) return "nothing certain";
    double off = r.reading - r.present;
    return "%s %s than the present one"
        .formatted(amount(Math.abs(off), unit), off > 0 ? "more" : "less");
  }

  private static String says(Row r, String unit) {
    if (Double.isNaN(r.reading)) return "nothing";
    if (Math.abs(r.error()) < 1e-9 * Math.max(1, Math.abs(r.applied))) return "the same";
    String amount = (Numbers.significant(Math.abs(r.error()), 2) + " " + unit).strip();
    return amount + (r.error() > 0 ? " high" : " low");
  }
}
