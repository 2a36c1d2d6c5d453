package nocking.bench.run;

import java.util.List;
import java.util.stream.DoubleStream;
import java.util.stream.IntStream;
import nocking.bench.simulated.BenchServer;
import nocking.bench.simulated.Scene;
import nocking.points.RawUnit;
import nocking.quantity.Value;
import nocking.run.Conditions;
import nocking.run.Course;
import nocking.run.Instrument;
import nocking.run.Purpose;
import nocking.run.RunChannel;
import nocking.run.RunPlan;
import nocking.run.SettleRule;
import nocking.run.Unsettled;

/** Plans for the simulated bench. */
final class Plans {
  private Plans() {}

  /** All sensors of a scene, at the meters that a server offers. */
  static RunPlan of(Scene scene, BenchServer server, double... setPoints) {
    List<Instrument> meters =
        IntStream.range(0, scene.sensors().size()).mapToObj(server::meter).toList();
    return of(scene, server.reference(), meters, setPoints);
  }

  static RunPlan of(
      Scene scene, Instrument reference, List<Instrument> meters, double... setPoints) {
    double step = setPoints.length > 1 ? Math.abs(setPoints[1] - setPoints[0]) : 1;
    var channels =
        IntStream.range(0, meters.size())
            .mapToObj(
                i -> {
                  var s = scene.sensors().get(i);
                  double last = setPoints[setPoints.length - 1];
                  double rise =
                      s.volts().applyAsDouble(last) - s.volts().applyAsDouble(setPoints[0]);
                  double span = last - setPoints[0];
                  double volts = Math.abs(rise) / Math.max(1, setPoints.length - 1);
                  double lag = Math.max(1, s.lag() + scene.stimulus().lag());
                  return new RunChannel(
                      "id-" + s.tag(),
                      s.tag(),
                      RawUnit.VOLTS,
                      meters.get(i),
                      new SettleRule.Rest(Math.max(volts / 100, 0.002), lag, 0, rise / span),
                      "");
                })
            .toList();
    return new RunPlan(
        "test",
        RunPlan.Kind.POINTS,
        scene.stimulus().unit(),
        channels,
        reference,
        DoubleStream.of(setPoints).mapToObj(Value::of).toList(),
        Course.UP_DOWN,
        1,
        1,
        10,
        1,
        3600,
        step / 20,
        Unsettled.TAKE,
        Purpose.AS_FOUND,
        Conditions.NONE,
        null,
        null,
        null,
        null);
  }
}
