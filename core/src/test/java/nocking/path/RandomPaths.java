package nocking.path;

import static nocking.Channels.v;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.LongStream;
import nocking.converter.Converter;
import nocking.network.Circuit;
import nocking.quantity.Value;
import nocking.sensor.LinearSensor;
import nocking.sensor.RatiometricSensor;
import nocking.sensor.Sensor;
import nocking.sensor.TwoPointSensor;
import nocking.stage.DifferenceAmp;
import nocking.stage.Divider;
import nocking.stage.NonInvertingAmp;
import nocking.stage.Stage;

/** Random compositions of elements; the same seed gives the same path. */
record RandomPaths(Sensor sensor, List<Stage> stages, Converter converter) {
  private static final double RAIL = 1e9;

  static LongStream seeds() {
    return LongStream.range(0, 200);
  }

  static RandomPaths of(long seed) {
    Random r = new Random(seed);
    var stages = new ArrayList<Stage>();
    int n = r.nextInt(5);
    for (int i = 0; i < n; i++) stages.add(stage(r));
    Value input = r.nextBoolean() ? null : ohms(r);
    return new RandomPaths(sensor(r), stages, new Converter(v(12), v(3.3), input));
  }

  private static Value ohms(Random r) {
    return v(Math.pow(10, 2 + 4 * r.nextDouble()));
  }

  private static Sensor sensor(Random r) {
    Value source = r.nextBoolean() ? v(0) : ohms(r);
    double low = r.nextBoolean() ? 0 : -50 + 100 * r.nextDouble();
    double high = low + 1 + 100 * r.nextDouble();
    return switch (r.nextInt(3)) {
      case 0 ->
          new LinearSensor(
              v(r.nextDouble()), v(low), v(0.001 + 0.05 * r.nextDouble()), v(low), v(high), source);
      case 1 ->
          new TwoPointSensor(v(low), v(4 + r.nextDouble()), v(high), v(r.nextDouble()), source);
      default ->
          new RatiometricSensor(
              v(low), v(10 * r.nextDouble()), v(high), v(60 + 35 * r.nextDouble()), v(5), source);
    };
  }

  private static Stage stage(Random r) {
    return switch (r.nextInt(3)) {
      case 0 -> new Divider(ohms(r), ohms(r));
      case 1 ->
          new NonInvertingAmp(
              ohms(r), ohms(r), v(r.nextBoolean() ? 0 : r.nextDouble()), v(-RAIL), v(RAIL));
      default ->
          new DifferenceAmp(
              ohms(r), ohms(r), v(r.nextDouble()), v(3 * r.nextDouble()), v(-RAIL), v(RAIL));
    };
  }

  SignalPath path() {
    return SignalPath.of("x", sensor, stages, converter);
  }

  /** The same path as a circuit, with the sensor as a source behind its resistance. */
  Circuit circuit(double x) {
    double open = SignalPath.of("x", sensor, List.of(), Converter.of(12, 3.3)).output(x);
    var c = new Circuit().source("emf", Circuit.GROUND, open);
    double rs = sensor.sourceResistance().number();
    if (rs > 0) c.resistor("emf", "TP1", rs);
    else c.source("TP1", Circuit.GROUND, open);
    for (int i = 0; i < stages.size(); i++) {
      stages.get(i).build(c, "TP" + (i + 1), "TP" + (i + 2));
    }
    if (converter.inputResistance() != null) {
      c.resistor("TP" + (stages.size() + 1), Circuit.GROUND, converter.inputResistance().number());
    }
    return c;
  }
}
