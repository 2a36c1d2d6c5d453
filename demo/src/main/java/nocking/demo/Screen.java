package nocking.demo;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.IntStream;
import nocking.channel.Adopted;
import nocking.channel.Channel;
import nocking.channel.Hazard;
import nocking.channel.QuantityKind;
import nocking.converter.Converter;
import nocking.element.Signal;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.table.BenchPairs;
import nocking.table.ReceiverShape;
import nocking.table.TableGoal;
import nocking.table.TableSpec;

/** The drum screen: an inductive angle sensor that is curved, and 900 readings taken at a bench. */
final class Screen {
  private static final int READINGS = 900;

  /** Where the slide of the bench ended, degrees. */
  private static final double REACHED = 88.6;

  /** Half of what lies between the ways up and down there, in codes. */
  private static final double LAG = 0.25;

  private Screen() {}

  /** Volts at the converter as the sensor really gives them. */
  static double volts(double angle) {
    return 0.35 + 2.6 * angle / 90 + 0.03 * Math.sin(2 * Math.PI * angle / 100 + 0.9);
  }

  /** Codes from end to end and back, angles read to a hundredth of a degree. */
  static BenchPairs readings(long seed) {
    var random = new Random(seed);
    Converter converter = Converter.of(12, 3.3);
    var raw = new ArrayList<Double>();
    var truth = new ArrayList<Double>();
    for (int i = 0; i < READINGS; i++) {
      boolean down = i >= READINGS / 2;
      int k = down ? READINGS - 1 - i : i;
      double angle = REACHED * k / (READINGS / 2.0 - 1);
      double lag = angle > 40 && angle < 55 ? (down ? LAG : -LAG) : 0;
      double code = volts(angle) / converter.step() + lag + 0.15 * random.nextGaussian();
      raw.add(Math.rint(code));
      truth.add(Double.parseDouble(Numbers.fixed(angle, 2)));
    }
    return new BenchPairs("drum screen, up and down", RawUnit.COUNTS, raw, truth);
  }

  static Channel angle(long seed) {
    List<TablePoint> rows =
        IntStream.rangeClosed(0, 9)
            .map(i -> 10 * i)
            .mapToObj(a -> TablePoint.of(a, Double.parseDouble(Numbers.fixed(volts(a), 3))))
            .toList();
    ReceiverShape firmware =
        Shelf.shapes().stream()
            .filter(s -> s.name().equals("Screen firmware"))
            .findFirst()
            .orElseThrow();
    TableSpec spec = firmware.spec();
    TableGoal goal = spec.goal().withTolerance("1.5 LSB").withBench(true);
    Channel c =
        Channel.blank("hatchery-sc-a1", "SC-A1")
            .define(
                d ->
                    d.withName("Drum screen angle")
                        .withKind(QuantityKind.ANGLE)
                        .withUnit("°")
                        .withRange(Value.of(0), Value.of(90))
                        .withTolerance(Value.of(0.5))
                        .withHazards(List.of(Hazard.MOVING)))
            .design(
                d ->
                    d.withSensor(
                            new TableSensor(
                                rows,
                                TableSensor.Interpolation.MONOTONE_CUBIC,
                                Signal.VOLTAGE,
                                Value.of(0)))
                        .withConverter(Converter.of(12, 3.3)))
            .wiring(
                w ->
                    w.withPlan(
                        Hatchery.wires(
                            Value.typed("5 V", Unit.VOLT), "J6", 6, "brown", "blue", "black")))
            .calibration(k -> k.withAdopted(Adopted.DESIGN))
            .receiver(r -> r.withBench(readings(seed)).withTable(spec.with(goal)));
    return Hatchery.withLimits(c);
  }
}
