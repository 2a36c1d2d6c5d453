package nocking.path;

import static nocking.Channels.v;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.LongStream;
import nocking.converter.Converter;
import nocking.element.Measurand;
import nocking.element.Signal;
import nocking.network.Circuit;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.AcVoltage;
import nocking.sensor.BipolarSensor;
import nocking.sensor.CurrentLoop;
import nocking.sensor.FormulaSensor;
import nocking.sensor.LinearSensor;
import nocking.sensor.NtcBeta;
import nocking.sensor.NtcSteinhart;
import nocking.sensor.PlatinumRtd;
import nocking.sensor.Potentiometer;
import nocking.sensor.Potentiometer.EndSide;
import nocking.sensor.RatiometricSensor;
import nocking.sensor.Sensor;
import nocking.sensor.StrainBridge;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;
import nocking.sensor.Thermocouple;
import nocking.sensor.ThermocoupleType;
import nocking.sensor.TwoPointSensor;
import nocking.stage.BridgeRectifier;
import nocking.stage.Clamp;
import nocking.stage.DifferenceAmp;
import nocking.stage.Divider;
import nocking.stage.Follower;
import nocking.stage.FourResistorAmp;
import nocking.stage.InputPull;
import nocking.stage.InstrumentationAmp;
import nocking.stage.InvertingAmp;
import nocking.stage.InvertingSummer;
import nocking.stage.NonInvertingAmp;
import nocking.stage.OffsetAdder;
import nocking.stage.PullDown;
import nocking.stage.PullUp;
import nocking.stage.RcFilter;
import nocking.stage.ReferenceBlend;
import nocking.stage.Sensed;
import nocking.stage.SeriesResistor;
import nocking.stage.Shunt;
import nocking.stage.Stage;
import nocking.stage.WheatstoneBridge;

/** Random compositions of elements; the same seed gives the same path. */
record RandomPaths(Sensor sensor, List<Stage> stages, Converter converter) {
  private static final double RAIL = 1e9;
  static final Unit UNIT = Unit.of("°C");
  static final Measurand X = new Measurand("x", UNIT);

  static LongStream seeds() {
    return LongStream.range(0, 400);
  }

  static RandomPaths of(long seed) {
    Random r = new Random(seed);
    Sensor sensor = sensor(r);
    var stages = new ArrayList<Stage>();
    first(r, sensor.signal(), stages);
    int n = r.nextInt(5);
    for (int i = 0; i < n; i++) stages.add(stage(r));
    Value input = r.nextBoolean() ? null : ohms(r);
    return new RandomPaths(sensor, stages, Converter.of(v(12), v(3.3), input));
  }

  private static Value ohms(Random r) {
    return v(Math.pow(10, 2 + 4 * r.nextDouble()));
  }

  private static Value volts(Random r) {
    return v(0.5 + 3 * r.nextDouble());
  }

  private static Sensor sensor(Random r) {
    Value source = r.nextBoolean() ? v(0) : ohms(r);
    double low = r.nextBoolean() ? 0 : -50 + 100 * r.nextDouble();
    double high = low + 1 + 100 * r.nextDouble();
    Value ends = r.nextBoolean() ? v(0) : v(20 * r.nextDouble());
    return switch (r.nextInt(14)) {
      case 0 ->
          new LinearSensor(
              v(r.nextDouble()), v(low), v(0.001 + 0.05 * r.nextDouble()), v(low), v(high), source);
      case 1 ->
          new TwoPointSensor(v(low), v(4 + r.nextDouble()), v(high), v(r.nextDouble()), source);
      case 2 ->
          new RatiometricSensor(
              v(low), v(10 * r.nextDouble()), v(high), v(60 + 35 * r.nextDouble()), v(5), source);
      case 3 -> table(r, low, high, source);
      case 4 -> NtcBeta.of(ohms(r).number(), 25, 3000 + 1500 * r.nextDouble());
      case 5 ->
          NtcSteinhart.through(
              List.of(
                  TablePoint.of(0, 32000 + 1000 * r.nextDouble()),
                  TablePoint.of(25, 10e3),
                  TablePoint.of(100, 670 + 20 * r.nextDouble())));
      case 6 ->
          new PlatinumRtd(
              v(100 + 900 * r.nextDouble()),
              PlatinumRtd.ToleranceClass.A,
              r.nextBoolean() ? PlatinumRtd.Wires.TWO : PlatinumRtd.Wires.THREE,
              v(2 * r.nextDouble()),
              null);
      case 7 ->
          new Thermocouple(ThermocoupleType.values()[r.nextInt(8)], v(40 * r.nextDouble()), source);
      case 8 -> new CurrentLoop(v(low), v(high), v(0.004), v(0.02));
      case 9 ->
          new Potentiometer(
                  v(low), v(high), v(0.05 + 0.05 * r.nextDouble()), v(0.9), v(5), v(5e3), ends)
              .between(
                  r.nextBoolean() ? v(100 + 900 * r.nextDouble()) : null,
                  r.nextBoolean() ? v(100 + 900 * r.nextDouble()) : null,
                  r.nextBoolean() ? EndSide.SENSOR : EndSide.RECEIVER);
      case 10 -> new StrainBridge(v(high + 60), v(2), v(0.1 * r.nextDouble()), v(5), v(350));
      case 11 -> new BipolarSensor(v(2.5), v(0.01 + 0.02 * r.nextDouble()), v(60), source);
      default ->
          new FormulaSensor(
              "0.4 + 1.7*sqrt(x + 60)/10 + 0.001*x", Signal.VOLTAGE, v(-50), v(100), source);
    };
  }

  private static Sensor table(Random r, double low, double high, Value source) {
    var rows = new ArrayList<TablePoint>();
    double x = low;
    double y = 0.2;
    while (x < high) {
      rows.add(TablePoint.of(x, y));
      x += (high - low) * (0.05 + 0.2 * r.nextDouble());
      y += 0.05 + r.nextDouble();
    }
    rows.add(TablePoint.of(x, y));
    var how =
        r.nextBoolean()
            ? TableSensor.Interpolation.LINEAR
            : TableSensor.Interpolation.MONOTONE_CUBIC;
    return new TableSensor(rows, how, Signal.VOLTAGE, source);
  }

  /** What a resistance or a current needs before anything else. */
  private static void first(Random r, Signal signal, List<Stage> stages) {
    switch (signal) {
      case VOLTAGE -> {}
      case CURRENT -> stages.add(new Shunt(v(50 + 200 * r.nextDouble()), null, null, null));
      case ALTERNATING ->
          stages.add(
              new BridgeRectifier(v(0.7), v(10e-6), v(50), r.nextBoolean() ? null : ohms(r)));
      case RESISTANCE ->
          stages.add(
              switch (r.nextInt(3)) {
                case 0 -> new PullUp(v(3.3), ohms(r));
                case 1 -> new PullDown(v(3.3), ohms(r));
                default ->
                    new WheatstoneBridge(
                        WheatstoneBridge.Arms.QUARTER, v(3.3), ohms(r), ohms(r), ohms(r));
              });
    }
  }

  private static Stage stage(Random r) {
    Value low = v(-RAIL);
    Value high = v(RAIL);
    return switch (r.nextInt(14)) {
      case 0 -> new Divider(ohms(r), ohms(r));
      case 1 ->
          new NonInvertingAmp(ohms(r), ohms(r), v(r.nextBoolean() ? 0 : r.nextDouble()), low, high);
      case 2 -> new DifferenceAmp(ohms(r), ohms(r), volts(r), volts(r), low, high);
      case 3 ->
          new FourResistorAmp(ohms(r), ohms(r), ohms(r), ohms(r), volts(r), volts(r), low, high);
      case 4 -> new InvertingAmp(ohms(r), ohms(r), volts(r), low, high);
      case 5 -> new InvertingSummer(ohms(r), ohms(r), ohms(r), volts(r), low, high);
      case 6 -> new InstrumentationAmp(v(1), v(50e3), ohms(r), volts(r), volts(r), low, high);
      case 7 -> new Follower(low, high);
      case 8 ->
          new ReferenceBlend(
              v(5), ohms(r), v(r.nextDouble()), ohms(r), v(0.05 + 0.9 * r.nextDouble()));
      case 9 -> new OffsetAdder(ohms(r), ohms(r), v(r.nextBoolean() ? 0 : 5));
      case 10 -> new RcFilter(ohms(r), v(100e-9));
      case 11 -> new SeriesResistor(ohms(r));
      case 12 -> new InputPull(ohms(r), v(r.nextBoolean() ? 0 : 3.3));
      default -> new Clamp(ohms(r), low, high);
    };
  }

  SignalPath path() {
    return SignalPath.of(X, sensor, stages, converter);
  }

  /** Inputs at which the sensor is used: inside its rated range, away from a table's corner. */
  Span range() {
    Span rated = sensor.rated(UNIT);
    return new Span(rated.at(0.01), rated.at(0.99));
  }

  /** The same path as a circuit, with a voltage sensor as a source behind its resistance. */
  Circuit circuit(double x) {
    double open = SensorCurve.of(X, sensor).at(x);
    var c = new Circuit();
    if (sensor.signal() == Signal.VOLTAGE || sensor.signal() == Signal.ALTERNATING) {
      c.source("emf", Circuit.GROUND, open);
      double rs = resistance(x);
      if (rs > 0) c.resistor("emf", "TP1", rs);
      else c.source("TP1", "emf", 0);
    }
    for (int i = 0; i < stages.size(); i++) {
      stages.get(i).build(c, "TP" + (i + 1), "TP" + (i + 2), Sensed.of(sensor.signal(), open));
    }
    if (converter.inputResistance() != null) {
      c.resistor("TP" + (stages.size() + 1), Circuit.GROUND, converter.inputResistance().number());
    }
    return c;
  }

  private double resistance(double x) {
    if (sensor instanceof Potentiometer p) {
      double k =
          p.start().number()
              + (p.end().number() - p.start().number())
                  * (x - p.from().number())
                  / (p.to().number() - p.from().number());
      double below = p.bottomOhms() + p.ends().number() + k * p.track().number();
      double above = p.topOhms() + p.ends().number() + (1 - k) * p.track().number();
      return below * above / (below + above);
    }
    if (sensor instanceof AcVoltage) return 0;
    return sensor.fields().stream()
        .filter(f -> f.symbol().equals("Rs"))
        .findFirst()
        .map(f -> sensor.value(f).number())
        .orElse(0.0);
  }
}
