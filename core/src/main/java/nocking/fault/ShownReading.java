package nocking.fault;

import nocking.channel.Channel;
import nocking.prior.FaultKind;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.sensor.Sensor;

/** What the receiver shows for volts, with what may be wrong in its numbers. */
final class ShownReading {
  private ShownReading() {}

  /** The number on the display: what is wrong by itself, one after the other. */
  static double shown(Subject subject, Faults faults, double volts) {
    double shown =
        faults
            .of(FaultKind.SWAPPED_SYMBOLS)
            .map(f -> swapped(subject, f, volts))
            .orElseGet(() -> subject.reading(volts));
    for (Fault f : faults.list()) shown = altered(subject, f, shown);
    return shown;
  }

  private static double swapped(Subject subject, Fault fault, double volts) {
    String[] two = fault.part().split("/");
    return subject.swapped(two[0], two[1], volts);
  }

  private static double altered(Subject subject, Fault fault, double sound) {
    Channel c = subject.channel();
    return switch (fault.kind()) {
      case DECIMAL -> sound * fault.severity();
      case WRONG_UNIT -> inUnit(c.unit(), fault.unit(), sound, fault.severity() > 0);
      case GAUGE_ABSOLUTE -> sound + fault.severity() * atmosphere(c);
      case RMS_PEAK -> sound * fault.severity();
      case REVERSED -> {
        Span w = c.definition().working();
        yield w.low() + w.high() - sound;
      }
      case OTHER_CURVE, COLD_JUNCTION -> subject.quantity(fault.other(), sensed(subject, sound));
      case SENSOR_PREFIX ->
          subject.quantity(c.design().sensor(), sensed(subject, sound) * fault.severity());
      default -> sound;
    };
  }

  /** Output that the sensor must give for the receiver to show what it shows. */
  private static double sensed(Subject subject, double reading) {
    Sensor s = subject.sensor();
    return subject.output(s, reading);
  }

  /** The number that stands on the display when it is meant in another unit. */
  private static double inUnit(Unit own, Unit other, double v, boolean shownInOther) {
    return shownInOther ? own.convert(v, other) : other.convert(v, own);
  }

  private static double atmosphere(Channel c) {
    return Unit.of("kPa").convert(c.design().surroundings().atmosphere().number(), c.unit());
  }
}
