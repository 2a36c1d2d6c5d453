package nocking.analysis;

import java.util.ArrayList;
import java.util.List;
import nocking.channel.Channel;
import nocking.path.SensorCurve;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.sensor.Sensor;

/**
 * What follows from the sensor of a channel, in words and numbers.
 *
 * @param used share of the sensor's rated range that the working range takes, 0 to 1
 */
public record SensorFacts(double used, List<Fact> facts) {
  /** A number is taken for the same along the range where it differs by less than this. */
  private static final double SAME = 0.02;

  /** Error that a sensor of no special kind is thought to have, of its rated range. */
  private static final double USUAL_ERROR = 0.005;

  /**
   * One line.
   *
   * @param value with unit and the digits it deserves
   */
  public record Fact(String what, String value) {}

  /** The facts of a channel; none while the sensor is undefined or its numbers make no sense. */
  public static SensorFacts of(Analysis a) {
    return a.design()
        .sensorCurve()
        .map(curve -> of(a, curve))
        .orElseGet(() -> new SensorFacts(0, List.of()));
  }

  private static SensorFacts of(Analysis a, SensorCurve curve) {
    Channel c = a.channel();
    Sensor sensor = c.design().sensor();
    Span working = c.definition().working();
    Span rated = sensor.rated(c.unit());
    double used = Math.min(1, working.overlap(rated) / rated.width());
    String out = curve.outputUnit().symbol();
    var list = new ArrayList<Fact>();
    list.add(
        new Fact(
            "Sensitivity in the middle",
            "%s per %s"
                .formatted(
                    Numbers.engineering(curve.slopeAt(working.middle()), out, 4),
                    c.definition().unit())));
    list.add(
        new Fact(
            "Output over the job",
            "%s … %s"
                .formatted(
                    Numbers.engineering(curve.at(working.low()), out, 4),
                    Numbers.engineering(curve.at(working.high()), out, 4))));
    list.add(
        new Fact(
            "Rated range",
            a.design()
                .rated()
                .map(
                    r ->
                        "%s … %s, %s %% used"
                            .formatted(
                                a.design().amount(r.low()),
                                a.design().amount(r.high()),
                                Numbers.fixed(100 * used, 0)))
                .orElse("not said yet")));
    list.add(
        new Fact(
            "One count of the converter",
            a.design()
                .path()
                .map(p -> count(a, p, working))
                .orElse("– (no path to the converter yet)")));
    a.design()
        .rated()
        .ifPresent(
            r ->
                list.add(
                    new Fact(
                        "Error of 0.5 % of the rated range",
                        "±" + a.design().error(USUAL_ERROR * r.width()))));
    if (sensor.classTolerance(working.middle(), c.unit()) > 0) {
      list.add(
          new Fact(
              "Class limit over the job",
              "±%s … ±%s"
                  .formatted(
                      a.design().error(sensor.classTolerance(working.low(), c.unit())),
                      a.design().error(sensor.classTolerance(working.high(), c.unit())))));
    } else if (c.definition().gauge() != null) {
      list.add(new Fact("The same as the other kind", otherKind(a, c)));
    }
    return new SensorFacts(used, List.copyOf(list));
  }

  /** Along a curve one count is worth more at one end than at the other. */
  private static String count(Analysis a, SignalPath p, Span working) {
    double low = p.countsWorth(working.low());
    double high = p.countsWorth(working.high());
    boolean same = Math.abs(low / high - 1) < SAME;
    return same ? a.design().error(low) : a.design().error(low) + " … " + a.design().error(high);
  }

  /** The working range in absolute pressure where the channel is gauge, and the other way round. */
  private static String otherKind(Analysis a, Channel c) {
    double atmosphere =
        Unit.of("kPa").convert(c.design().surroundings().atmosphere().number(), c.unit());
    double sign = c.definition().gauge() ? 1 : -1;
    Span w = c.definition().working();
    return "%s … %s %s"
        .formatted(
            a.design().reading(w.low() + sign * atmosphere),
            a.design().amount(w.high() + sign * atmosphere),
            c.definition().gauge() ? "absolute" : "gauge");
  }
}
