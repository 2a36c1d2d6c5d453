package nocking;

import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.converter.Converter;
import nocking.points.PointSet;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.LinearSensor;
import nocking.sensor.RatiometricSensor;
import nocking.stage.DifferenceAmp;
import nocking.stage.Divider;

/** Sound channels that the tests start from. */
public final class Channels {
  private Channels() {}

  public static Value v(double number) {
    return Value.of(number);
  }

  /** Blower manifold: 0–60 kPa gauge, 8…92 % of 5 V for 0–100 kPa, 5.1 kΩ over 10 kΩ. */
  public static Channel blower() {
    return Channel.blank("bl", "BL-P1")
        .define(
            d ->
                d.withName("Blower manifold")
                    .withKind(QuantityKind.PRESSURE)
                    .withUnit("kPa")
                    .withRange(v(0), v(60))
                    .withTolerance(v(0.5)))
        .design(
            d ->
                d.withSensor(new RatiometricSensor(v(0), v(8), v(100), v(92), v(5), v(0)))
                    .withStages(List.of(new Divider(Value.typed("5k1", Unit.OHM), v(10e3))))
                    .withConverter(Converter.of(12, 3.3)));
  }

  /** Incubator: 20 mV/°C, 350 mV at 0 °C, ×13.5 about 530 mV onto 1.65 V. */
  public static Channel incubator() {
    return Channel.blank("in", "IN-T2")
        .define(d -> d.withRange(v(4), v(14)).withTolerance(v(0.1)).withPivot(v(9)))
        .design(
            d ->
                d.withSensor(new LinearSensor(v(0.35), v(0), v(0.02), v(0), v(25), v(0)))
                    .withStages(
                        List.of(
                            new DifferenceAmp(v(135e3), v(10e3), v(0.53), v(1.65), v(0), v(3.3))))
                    .withConverter(Converter.of(12, 3.3)));
  }

  /** Points at these inputs with readings that a function of the input gives. */
  public static PointSet points(double[] applied, DoubleUnaryOperator volts) {
    var list = new ArrayList<ReferencePoint>();
    for (double x : applied) list.add(ReferencePoint.of(v(x), v(volts.applyAsDouble(x))));
    return new PointSet(RawUnit.VOLTS, list);
  }
}
