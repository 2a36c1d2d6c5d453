package nocking.demo;

import java.util.List;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.IntStream;
import nocking.channel.Adopted;
import nocking.channel.Channel;
import nocking.channel.Hazard;
import nocking.channel.QuantityKind;
import nocking.check.CheckPoint;
import nocking.check.CheckSheet;
import nocking.converter.Converter;
import nocking.element.Measurand;
import nocking.element.Signal;
import nocking.fault.Pin;
import nocking.fault.WirePlan;
import nocking.path.SensorCurve;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.CurrentLoop;
import nocking.sensor.NtcSteinhart;
import nocking.sensor.Potentiometer;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.stage.PullUp;
import nocking.stage.SeriesResistor;
import nocking.stage.Shunt;
import nocking.table.TableSpec;

/** The channels of raceways, header tank and sluice. */
final class WaterSide {
  private static final Value ZERO = Value.of(0);

  private WaterSide() {}

  private static Value ohms(String text) {
    return Value.typed(text, Unit.OHM);
  }

  private static Value volts(String text) {
    return Value.typed(text, Unit.VOLT);
  }

  /** The thermistor of the raceway as its datasheet lists it, −10 °C to 40 °C. */
  static TableSensor thermistor() {
    var curve =
        SensorCurve.of(
            new Measurand("T", Unit.CELSIUS),
            NtcSteinhart.through(
                List.of(
                    TablePoint.of(0, 32650), TablePoint.of(25, 10000), TablePoint.of(100, 680))));
    List<TablePoint> rows =
        IntStream.rangeClosed(-2, 8)
            .map(i -> 5 * i)
            .mapToObj(
                t -> TablePoint.of(t, Double.parseDouble(Numbers.significant(curve.output(t), 4))))
            .toList();
    return new TableSensor(rows, TableSensor.Interpolation.MONOTONE_CUBIC, Signal.RESISTANCE, ZERO);
  }

  /** Raceway water: the datasheet typed in, a pull-up from the converter's own supply. */
  static Channel raceway(long seed) {
    DoubleUnaryOperator truth =
        t -> {
          double ohms = 10020 * Math.exp(3858 * (1 / (t + 273.15) - 1 / 298.15));
          return 3.3 * ohms / (ohms + 18.02e3);
        };
    return Channel.blank("hatchery-rw-t1", "RW-T1")
        .define(
            d ->
                d.withName("Raceway water")
                    .withRange(ZERO, Value.of(25))
                    .withTolerance(Value.of(0.4))
                    .withRest(Value.of(12)))
        .withSensor(thermistor())
        .withStages(List.of(new PullUp(volts("3.3"), ohms("18k ±0.1%"))))
        .withConverter(Converter.of(12, 3.3))
        .withWiring(
            new WirePlan(
                null,
                List.of(
                    new Pin(Pin.Function.GROUND, "black", "J1-2", null),
                    new Pin(Pin.Function.SIGNAL, "white", "J1-3", null))))
        .withPoints(
            new Bench(seed).points(new double[] {0, 5, 10, 15, 20, 25}, 3, truth, 0.0004, 0.05, 2))
        .withAdopted(Adopted.DESIGN)
        .withTable(new TableSpec(16, RawUnit.VOLTS, true, 4, 2));
  }

  /** Header tank level on a two-wire loop with its burden and its supply budget. */
  static Channel headerTank(long seed) {
    var loop =
        new CurrentLoop(
            ZERO, Value.of(4), Value.typed("4 mA", Unit.AMPERE), Value.typed("20 mA", Unit.AMPERE));
    var burden = new Shunt(ohms("150 ±0.1% 25ppm"), volts("24 V"), volts("10 V"), ohms("8"));
    var bench = new Bench(seed);
    DoubleUnaryOperator truth = x -> 149.9 * (0.00402 + 0.003996 * x);
    var checks =
        IntStream.of(0, 1, 2, 3, 4)
            .mapToObj(x -> new CheckPoint(Value.of(x), bench.volts(truth.applyAsDouble(x), 0.0004)))
            .toList();
    return Channel.blank("hatchery-hd-l1", "HD-L1")
        .define(
            d ->
                d.withName("Header tank level")
                    .withKind(QuantityKind.LEVEL)
                    .withUnit("m")
                    .withRange(ZERO, Value.of(4))
                    .withTolerance(Value.of(0.03)))
        .withSensor(loop)
        .withStages(List.of(burden))
        .withConverter(Converter.of(12, 3.3))
        .withWiring(
            new WirePlan(
                volts("24 V"),
                List.of(
                    new Pin(Pin.Function.SUPPLY, "brown", "J3-1", null),
                    new Pin(Pin.Function.SIGNAL, "blue", "J3-3", null))))
        .withAdopted(Adopted.DESIGN)
        .withCheck(new CheckSheet(CheckSheet.Measured.VOLTS, checks));
  }

  /** Sluice gate: a potentiometer that runs backwards, with its end stops short of the track. */
  static Channel sluice() {
    var wiper =
        new Potentiometer(
            ZERO,
            Value.of(100),
            Value.typed("92%", Unit.ONE),
            Value.typed("8%", Unit.ONE),
            volts("5 V"),
            ohms("5k"),
            ohms("20"));
    return Channel.blank("hatchery-sg-p1", "SG-P1")
        .define(
            d ->
                d.withName("Sluice gate")
                    .withKind(QuantityKind.SHARE)
                    .withUnit("%")
                    .withRange(ZERO, Value.of(100))
                    .withTolerance(Value.of(2))
                    .withHazards(List.of(Hazard.MOVING)))
        .withSensor(wiper)
        .withStages(List.of(new SeriesResistor(ohms("1k"))))
        .withConverter(Converter.of(Value.of(12), volts("5 V"), ohms("470k")))
        .withWiring(
            new WirePlan(
                null,
                List.of(
                    new Pin(Pin.Function.SUPPLY, "red", "J5-1", null),
                    new Pin(Pin.Function.GROUND, "black", "J5-2", null),
                    new Pin(Pin.Function.SIGNAL, "yellow", "J5-3", null))))
        .withAdopted(Adopted.DESIGN);
  }
}
