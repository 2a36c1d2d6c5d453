package nocking.analysis;

import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.sensor.NtcBeta;
import nocking.sensor.NtcSteinhart;
import nocking.sensor.PlatinumRtd;
import nocking.sensor.Potentiometer;
import nocking.sensor.Sensor;
import nocking.sensor.StrainBridge;
import nocking.sensor.Thermocouple;

/**
 * How fast a kind of sensor usually follows what it is put into, with the usual way of applying it:
 * an order of magnitude to begin with, until a lag was seen.
 *
 * @param seconds time constant, above 0
 * @param creep share of a step that may come much later, as of elastic parts and membranes
 * @param source whose time it is, in words
 */
public record UsualLag(double seconds, double creep, String source) {
  /** Seconds of what a hand brings to a place: it needs 0.3 to 1 s. */
  static final double HAND = 0.5;

  private static final double CREEP = 0.03;

  /** The usual lag of a channel, by its sensor and what it is put into. */
  public static UsualLag of(Channel c) {
    return of(c.design().sensor(), c.definition().kind());
  }

  private static UsualLag of(Sensor sensor, QuantityKind kind) {
    return switch (sensor) {
      case NtcBeta _, NtcSteinhart _ ->
          new UsualLag(3, 0, "a thermistor bead in stirred water takes 1 to 3 s");
      case PlatinumRtd _ ->
          new UsualLag(10, 0, "a sheathed element in stirred water takes 5 to 20 s");
      case Thermocouple _ ->
          new UsualLag(6, 0, "a sheathed thermocouple in stirred water takes 2 to 15 s");
      case Potentiometer _ -> new UsualLag(HAND, 0, "a hand needs 0.3 to 1 s; the sensor none");
      case StrainBridge _ -> new UsualLag(0.6, CREEP, "a platform takes 0.3 to 1 s to calm");
      default -> of(kind);
    };
  }

  private static UsualLag of(QuantityKind kind) {
    return switch (kind) {
      case TEMPERATURE -> new UsualLag(10, 0, "a sheathed sensor in stirred water takes 5 to 20 s");
      case PRESSURE ->
          new UsualLag(HAND, CREEP, "a hand needs 0.3 to 1 s; the cell less than 10 ms");
      case LEVEL, VOLUME -> new UsualLag(6, 0, "a surface in a well takes 2 to 20 s to calm");
      case WEIGHT, FORCE, TORQUE -> new UsualLag(0.6, CREEP, "a platform takes 0.3 to 1 s to calm");
      case POSITION, ANGLE, SHARE ->
          new UsualLag(HAND, 0, "a hand needs 0.3 to 1 s; the sensor less than 10 ms");
      case VOLTAGE -> new UsualLag(1, 0, "a rectifier's capacitor takes about 1 s");
      case CONCENTRATION -> new UsualLag(30, CREEP, "a membrane electrode takes 20 to 60 s");
      case OTHER -> new UsualLag(5, CREEP, "nothing is known of this kind");
    };
  }
}
