package nocking.diagnosis;

import nocking.fault.Fault;
import nocking.fault.Faults;
import nocking.fault.Subject;
import nocking.prior.FaultKind;
import nocking.quantity.Span;
import nocking.wiring.Meter;
import nocking.wiring.Place;

/**
 * How a predicted voltage, resistance or current is read: what the display makes of it, and by how
 * much meter, leads, rounding and jumping may put the reading off.
 */
final class ReadingModel {
  /** So many standard deviations off is as wrong as any more, and still a number. */
  static final double FAR = 1e6;

  /** Share of the range by which a display lies outside before nothing exact is said of it. */
  private static final double OUTSIDE = 0.05;

  /** Ohms, from a short to open, are equally likely in every decade. */
  private static final double OHM_DECADES = Math.log(1e9);

  private static final double SLIP_DECADES = Math.log(1e6);

  /** Numbers are no larger than this, so that they can be squared. */
  private static final double LARGEST = 1e150;

  private static final double WIDEST_AMPERES = 0.025;

  /** What a number on the display counts against a fault under which there is none. */
  static final double NO_DISPLAY = -50;

  private final Subject subject;
  private final Meter meter;
  private final Floors floors;
  private final double count;

  ReadingModel(Subject subject, Meter meter, Floors floors) {
    this.subject = subject;
    this.meter = meter;
    this.floors = floors;
    count = subject.path().countsWorth(subject.channel().definition().working().middle());
  }

  /** What the display says for volts, which the converter holds between its ends. */
  double display(Fault f, double volts) {
    return display(Faults.of(f), volts);
  }

  /** The same under all of some faults. */
  double display(Faults faults, double volts) {
    var converter = subject.channel().design().converter();
    double half = converter.step() / 2;
    return subject.shown(
        faults, Math.clamp(volts, half, Math.max(half, converter.reference().number() - half)));
  }

  /** Standard uncertainty of what was seen, its rounding and its jumping counted in. */
  double sigma(MeasuredValue o, double value) {
    return Math.hypot(
        sigma(o.place(), value), Math.hypot(o.step() / Math.sqrt(12), o.jump() / Math.sqrt(3)));
  }

  /** Standard uncertainty of one reading by itself, never less than the floor of its place. */
  double sigma(Place place, double value) {
    if (!place.equals(Place.DISPLAY)) {
      return Math.hypot(meter.uncertainty(value, place), floors.of(place));
    }
    Span w = subject.channel().definition().working();
    double least = Math.max(count, 1e-4 * w.width());
    // A number far outside the range comes of a slip and is off by its share, not by a count.
    return Math.hypot(least / 2, 1e-3 * Math.max(0, Math.abs(value) - w.width()));
  }

  /**
   * A prediction as it is read, with what one standard deviation of the sensor and one of the
   * supply make of it.
   */
  double[] shown(Column.Prediction p, Place place, Fault f) {
    return shown(p, place, Faults.of(f));
  }

  /** The same under all of some faults. */
  double[] shown(Column.Prediction p, Place place, Faults f) {
    if (!place.equals(Place.DISPLAY)) {
      return new double[] {p.value(), p.slope(), p.railSlope()};
    }
    double shown = display(f, p.value());
    double beside = display(f, p.value() + p.slope());
    double fedMore = display(f, p.value() + p.railSlope());
    return new double[] {
      shown, Double.isNaN(beside) ? 0 : beside - shown, Double.isNaN(fedMore) ? 0 : fedMore - shown
    };
  }

  /**
   * Standard uncertainty of a display outside its range: some receivers hold the end, some go on,
   * some by another slope. All that counts is that it is outside on the same side.
   */
  double beyond(MeasuredValue o, double predicted) {
    double seen = o.value();
    Span w = subject.channel().definition().working();
    double outside = OUTSIDE * w.width();
    boolean high = predicted > w.high() + outside && seen > w.high() + outside / 2;
    boolean low = predicted < w.low() - outside && seen < w.low() - outside / 2;
    if (!high && !low) return 0;
    double end = high ? w.high() : w.low();
    return Math.max(Math.abs(predicted - end), Math.abs(seen - end));
  }

  /** Standard uncertainty of a reading, of a display outside its range with what that leaves. */
  double wide(MeasuredValue o, double predicted) {
    double own = sigma(o, predicted);
    return o.place().equals(Place.DISPLAY) ? Math.hypot(own, beyond(o, predicted)) : own;
  }

  /** True for a slip of the number itself, which is exact whatever its size. */
  static boolean slips(FaultKind kind) {
    return switch (kind) {
      case DECIMAL, WRONG_UNIT, GAUGE_ABSOLUTE, RMS_PEAK -> true;
      default -> false;
    };
  }

  /** A floating input: anything between its ends is equally likely. */
  double floatingLog(MeasuredValue o, Span volts, Faults faults) {
    double width = volts.width();
    if (o.place().equals(Place.DISPLAY)) {
      double a = display(faults, volts.low());
      double b = display(faults, volts.high());
      width =
          Double.isNaN(a - b) ? subject.channel().definition().working().width() : Math.abs(a - b);
    }
    return -Math.log(Math.max(width, 1e-9)) + 0.5 * Math.log(2 * Math.PI);
  }

  /** A reading that may be anything that its place can show. */
  double anyLog(MeasuredValue o) {
    double width =
        switch (o.place().kind()) {
          case DISPLAY -> {
            // A slip takes a number to any size: far outside every decade is as likely.
            Span w = subject.channel().definition().working();
            yield Math.max(
                3 * w.width(), SLIP_DECADES * Math.min(LARGEST, Math.abs(o.value() - w.middle())));
          }
          case OHMS_AT_SENSOR, OHMS_AT_RECEIVER -> Math.max(1, Math.abs(o.value())) * OHM_DECADES;
          case LOOP_CURRENT -> WIDEST_AMPERES;
          default -> subject.widestVolts();
        };
    return -Math.log(width) + 0.5 * Math.log(2 * Math.PI);
  }
}
