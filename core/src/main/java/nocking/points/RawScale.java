package nocking.points;

import java.util.Optional;
import nocking.converter.Converter;
import nocking.path.SignalPath;
import nocking.sensor.Sensor;

/**
 * What readings in a unit stand for at the converter. Volts and counts are read there; ohms and
 * milliamperes are the sensor's own, and the stages bring them there <em>as designed</em>: what its
 * resistors and its reference really are, such readings do not tell.
 */
public sealed interface RawScale {

  /** Volts at the converter for a reading; NaN where there are none. */
  double volts(double raw);

  /** What is read where so much is applied, by the design. */
  double raw(double quantity);

  /**
   * The scale of a channel's readings.
   *
   * @param path empty while the design makes no sense
   * @return empty for ohms and milliamperes of a sensor that gives something else, or while nothing
   *     is known of what follows it
   */
  static Optional<RawScale> of(RawUnit unit, Converter converter, Optional<SignalPath> path) {
    return switch (unit) {
      case VOLTS -> Optional.of(new AtConverter(false, converter, path));
      case COUNTS -> Optional.of(new AtConverter(true, converter, path));
      case OHMS, MILLIAMPERES ->
          path.filter(p -> p.points().getFirst().unit().dimension().equals(unit.unit().dimension()))
              .map(p -> new OfSensor(unit, p));
    };
  }

  /**
   * In what a sensor can be read by itself; empty for one that gives a voltage.
   *
   * @param sensor null for none
   */
  static Optional<RawUnit> own(Sensor sensor) {
    if (sensor == null) return Optional.empty();
    return switch (sensor.signal()) {
      case RESISTANCE -> Optional.of(RawUnit.OHMS);
      case CURRENT -> Optional.of(RawUnit.MILLIAMPERES);
      case VOLTAGE, ALTERNATING -> Optional.empty();
    };
  }

  /** Read at the converter's input. */
  record AtConverter(boolean counts, Converter converter, Optional<SignalPath> path)
      implements RawScale {
    @Override
    public double volts(double raw) {
      return counts ? converter.volts(raw) : raw;
    }

    @Override
    public double raw(double quantity) {
      double volts = path.map(p -> p.output(quantity)).orElse(Double.NaN);
      if (!counts || Double.isNaN(volts)) return volts;
      return converter.code(volts);
    }
  }

  /** Read at the sensor, which is unplugged or whose loop the meter is in. */
  record OfSensor(RawUnit unit, SignalPath path) implements RawScale {
    @Override
    public double volts(double raw) {
      return path.outputOf(unit.unit().toSi(raw));
    }

    @Override
    public double raw(double quantity) {
      return unit.unit().fromSi(path.relation(0, quantity));
    }
  }
}
