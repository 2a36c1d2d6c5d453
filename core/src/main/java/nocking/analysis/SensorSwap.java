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
import nocking.sensor.Sensor;

/**
 * What would happen if another sensor were fitted and everything else stayed: the voltages of every
 * node, and what the present calibration would read.
 *
 * @param problem why nothing can be said; empty when the rows stand
 */
public record SensorSwap(List<Row> rows, String problem) {

  /**
   * One input.
   *
   * @param where at rest, start, middle, end
   * @param applied channel's unit
   * @param before volts at the converter with the present sensor
   * @param after volts at the converter with the new one
   * @param reading of the new one by the present calibration
   * @param nodes every test point before and after, and the code, in words
   * @param clipped true when a stage or the converter stands at its end with the new one
   */
  public record Row(
      String where,
      double applied,
      double before,
      double after,
      double reading,
      boolean clipped,
      String nodes) {
    public double error() {
      return reading - applied;
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
    add(rows, "full scale", d.working().high(), before, after, reads);
    return new SensorSwap(rows, "");
  }

  private static void add(
      List<Row> rows,
      String where,
      double x,
      SignalPath before,
      SignalPath after,
      DoubleUnaryOperator reads) {
    double volts = after.at(x).output();
    double reference = after.converter().reference().number();
    double seen = Math.clamp(volts, 0, reference);
    boolean clipped = after.at(x).clipped() || seen != volts;
    rows.add(
        new Row(
            where,
            x,
            before.at(x).output(),
            volts,
            reads.applyAsDouble(seen),
            clipped,
            nodes(before.at(x), after.at(x))));
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

  /** In words: {@code at rest the new one reads 3.1 kPa low; at full scale 40 kPa high}. */
  public String says(String unit) {
    if (rows.isEmpty()) return problem;
    Row rest = rows.getFirst();
    Row full = rows.getLast();
    return "%s the new one reads %s; at full scale %s"
        .formatted(rest.where, says(rest, unit), says(full, unit));
  }

  private static String says(Row r, String unit) {
    if (Double.isNaN(r.reading)) return "nothing";
    String amount = (Numbers.significant(Math.abs(r.error()), 2) + " " + unit).strip();
    if (Math.abs(r.error()) < 1e-9 * Math.max(1, Math.abs(r.applied))) return "the same";
    return amount + (r.error() > 0 ? " high" : " low");
  }
}
