package nocking.demo;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import java.util.stream.IntStream;
import nocking.band.BandPlan;
import nocking.band.BandPosition;
import nocking.band.SwitchPoint;
import nocking.channel.Adopted;
import nocking.channel.Channel;
import nocking.channel.Hazard;
import nocking.channel.QuantityKind;
import nocking.check.CheckPoint;
import nocking.check.CheckTable;
import nocking.converter.Converter;
import nocking.element.Measurand;
import nocking.element.Signal;
import nocking.path.SensorCurve;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.CurrentLoop;
import nocking.sensor.NtcSteinhart;
import nocking.sensor.Potentiometer;
import nocking.sensor.SteppedSensor;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.stage.InputPull;
import nocking.stage.PullUp;
import nocking.stage.SeriesResistor;
import nocking.stage.Shunt;
import nocking.table.BenchPairs;
import nocking.table.Placement;
import nocking.table.TableGoal;
import nocking.table.TableSpec;
import nocking.table.TypedCell;
import nocking.wiring.Observation;
import nocking.wiring.Pin;
import nocking.wiring.Place;
import nocking.wiring.WirePlan;

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

  /** The thermistor of the raceway between the rows of its datasheet. */
  private static SensorCurve probe() {
    return SensorCurve.of(
        new Measurand("T", Unit.CELSIUS),
        NtcSteinhart.through(
            List.of(TablePoint.of(0, 32650), TablePoint.of(25, 10000), TablePoint.of(100, 680))));
  }

  /** The thermistor of the raceway as its datasheet lists it, −10 °C to 40 °C. */
  static TableSensor thermistor() {
    SensorCurve curve = probe();
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
    Channel c =
        Channel.blank("hatchery-rw-t1", "RW-T1")
            .define(
                d ->
                    d.withName("Raceway water")
                        .withRange(ZERO, Value.of(25))
                        .withTolerance(Value.of(0.4))
                        .withRest(Value.of(12)))
            .design(
                d ->
                    d.withSensor(thermistor())
                        .withStages(List.of(new PullUp(volts("3.3"), ohms("18k ±0.1%"))))
                        .withConverter(Converter.of(12, 3.3)))
            .wiring(
                w ->
                    w.withPlan(
                        WirePlan.of(
                                null,
                                List.of(
                                    Hatchery.wire(Pin.Function.GROUND, "black", "2", "J1-2", 9),
                                    Hatchery.wire(Pin.Function.SIGNAL, "white", "3", "J1-3", 9)))
                            .withSharedReference(true)))
            .calibration(
                k ->
                    k.withPoints(
                            new Bench(seed)
                                .points(
                                    new double[] {0, 5, 10, 15, 20, 25}, 3, truth, 0.0004, 0.05, 2))
                        .withAdopted(Adopted.DESIGN))
            .receiver(
                r -> r.withBench(datasheet()).withTable(controller()).withTyping(nineTyped()));
    return Hatchery.withLimits(c);
  }

  /** Ohms of the 32 rows of the thermistor's datasheet, every other degree. */
  static BenchPairs datasheet() {
    SensorCurve curve = probe();
    List<Double> celsius = IntStream.range(0, 32).mapToObj(i -> -20.0 + 2 * i).toList();
    List<Double> ohms =
        celsius.stream()
            .map(t -> Double.parseDouble(Numbers.significant(curve.output(t), 4)))
            .toList();
    return new BenchPairs("datasheet", RawUnit.OHMS, ohms, celsius);
  }

  /** What the raceway's controller wants: 16 cells of ohms, falling, in tenths of a degree. */
  private static TableSpec controller() {
    return new TableSpec(16, RawUnit.OHMS, true, 0, 1)
        .with(TableGoal.USUAL.withPlacement(Placement.OPTIMAL).withBench(true));
  }

  /** Nine of the sixteen cells are in the controller: what the table has there, worked out once. */
  private static List<TypedCell> nineTyped() {
    double[][] cells = {
      {97060, -20.0},
      {79667, -16.6},
      {64015, -12.7},
      {51431, -8.7},
      {41343, -4.6},
      {33595, -0.6},
      {27303, 3.5},
      {22181, 7.7},
      {18125, 11.9}
    };
    return Arrays.stream(cells).map(c -> new TypedCell(c[0], c[1], true, null, null)).toList();
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
    Channel c =
        Channel.blank("hatchery-hd-l1", "HD-L1")
            .define(
                d ->
                    d.withName("Header tank level")
                        .withKind(QuantityKind.LEVEL)
                        .withUnit("m")
                        .withRange(ZERO, Value.of(4))
                        .withTolerance(Value.of(0.03)))
            .design(
                d ->
                    d.withSensor(loop)
                        .withStages(List.of(burden))
                        .withConverter(Converter.of(12, 3.3)))
            .wiring(
                w ->
                    w.withPlan(
                        WirePlan.of(
                            volts("24 V"),
                            List.of(
                                Hatchery.wire(Pin.Function.SUPPLY, "brown", "1", "J3-1", 25),
                                Hatchery.wire(Pin.Function.SIGNAL, "blue", "3", "J3-3", 25)))))
            .calibration(k -> k.withAdopted(Adopted.DESIGN))
            .acceptance(a -> a.withCheck(new CheckTable(CheckTable.Measured.VOLTS, checks)));
    return Hatchery.withLimits(c);
  }

  /**
   * Flow diverter: a selector with five stations on a 10-bit input. The rod leaves some slack, so
   * that every station settles a little lower on the way down.
   */
  static Channel diverter(long seed) {
    var names = List.of("drain", "raceway 1", "raceway 2", "raceway 3", "bypass");
    double[] centres = {1.2, 1.6, 2.0, 2.4, 2.8};
    var bench = new Bench(seed);
    var positions = new ArrayList<BandPosition>();
    var stations = new ArrayList<SteppedSensor.Position>();
    for (int i = 0; i < centres.length; i++) {
      double v = centres[i];
      stations.add(new SteppedSensor.Position(names.get(i), Value.of(v)));
      positions.add(
          new BandPosition(
              names.get(i),
              Value.of(v),
              null,
              i == 0 ? List.of() : bench.settles(v + 0.012, 0.004, 3),
              i == centres.length - 1 ? List.of() : bench.settles(v - 0.018, 0.004, 3)));
    }
    Channel c =
        Channel.blank("hatchery-fd-s1", "FD-S1")
            .define(
                d ->
                    d.withName("Flow diverter")
                        .withKind(QuantityKind.OTHER)
                        .withUnit("")
                        .withRange(Value.of(1), Value.of(5))
                        .withTolerance(Value.of(0.3))
                        .withHazards(List.of(Hazard.MOVING)))
            .design(
                d ->
                    d.withSensor(new SteppedSensor(stations, ZERO))
                        .withStages(List.of(InputPull.toGround(ohms("100k"))))
                        .withConverter(Converter.of(10, 5)))
            .wiring(
                w ->
                    w.withPlan(Hatchery.wires(volts("5 V"), "J11", 14, "brown", "blue", "black"))
                        .withBands(
                            BandPlan.EMPTY
                                .withPositions(positions)
                                .withDwell(Value.of(0.5))
                                .withLever(Value.of(60), Value.of(100))))
            .calibration(k -> k.withAdopted(Adopted.DESIGN));
    return Hatchery.withLimits(c);
  }

  /**
   * Sluice gate: a potentiometer that runs backwards, with its end stops short of the track. Water
   * has found its way into the connector; what was seen of that is written down, and not yet
   * explained.
   */
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
        .design(
            d ->
                d.withSensor(wiper)
                    .withStages(List.of(new SeriesResistor(ohms("1k"))))
                    .withConverter(Converter.of(Value.of(12), volts("5 V"), ohms("470k"))))
        .wiring(
            w ->
                w.withBands(
                        BandPlan.EMPTY.withSwitches(
                            List.of(
                                new SwitchPoint(
                                    "closed contact",
                                    Value.of(2),
                                    Value.of(2),
                                    Value.of(2.6),
                                    Value.of(1.4),
                                    false))))
                    .withObservations(
                        List.of(
                            new Observation(Place.DISPLAY, ZERO, Value.of(2.7)),
                            new Observation(
                                Place.of(Place.Kind.SIGNAL_AT_RECEIVER), ZERO, volts("4.464 V"))))
                    .withPlan(
                        WirePlan.of(
                                null,
                                List.of(
                                    Hatchery.wire(Pin.Function.SUPPLY, "red", "1", "J5-1", 18),
                                    Hatchery.wire(Pin.Function.GROUND, "black", "2", "J5-2", 18),
                                    Hatchery.wire(Pin.Function.SIGNAL, "yellow", "3", "J5-3", 18)))
                            .withSharedReference(true)))
        .calibration(k -> k.withAdopted(Adopted.DESIGN));
  }
}
