package nocking.bench.simulated;

import java.util.List;

/**
 * How a simulated bench stands at a moment, without any noise.
 *
 * @param seconds that have gone by
 * @param target where what is applied is being brought to
 * @param shown what the reference is at
 * @param applied what is really applied, behind the play of what moves it
 * @param sensors in the order of the scene
 * @param tight true while a clamp holds the sensor
 * @param grounded true while the teach wire is on ground
 */
public record BenchState(
    double seconds,
    double target,
    double shown,
    double applied,
    List<AtSensor> sensors,
    boolean tight,
    boolean grounded) {
  /**
   * A sensor.
   *
   * @param feels the quantity that it feels
   * @param depth millimetres that it is deeper than the reference
   */
  public record AtSensor(String tag, double feels, double depth, Fault fault) {}
}
