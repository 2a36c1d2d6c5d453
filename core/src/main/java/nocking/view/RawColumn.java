package nocking.view;

import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.channel.Channel;
import nocking.converter.Converter;
import nocking.element.Signal;
import nocking.path.SensorCurve;
import nocking.path.SignalPath;
import nocking.points.RawUnit;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;

/**
 * What a receiver's table counts in: volts or codes of its converter, or ohms at its terminals.
 * Ohms stand by the sensor alone as long as the channel goes by its design, so that the receiver's
 * pull-up need not be known.
 */
final class RawColumn {
  private final Channel channel;
  private final DesignView design;
  private final CalibrationView calibration;
  private final RawUnit axis;

  RawColumn(Channel channel, DesignView design, CalibrationView calibration, RawUnit axis) {
    this.channel = channel;
    this.design = design;
    this.calibration = calibration;
    this.axis = axis;
  }

  private Converter converter() {
    return channel.design().converter();
  }

  /** The sensor, where it is a resistance. */
  private SensorCurve resistance() {
    return design
        .sensorCurve()
        .filter(s -> channel.design().sensor().signal() == Signal.RESISTANCE)
        .orElseThrow(
            () ->
                new QuantityException(
                    "a raw column in ohms needs a sensor that is a resistance; this one gives "
                        + channel.design().sensor().signal().says()));
  }

  /**
   * The quantity for a raw value.
   *
   * @throws QuantityException where there is none for any
   */
  DoubleUnaryOperator curve() {
    return switch (axis) {
      case VOLTS -> calibration.function().orElseThrow();
      case COUNTS -> {
        DoubleUnaryOperator f = calibration.function().orElseThrow();
        yield code -> f.applyAsDouble(converter().volts(code));
      }
      case OHMS -> ofOhms();
      case MILLIAMPERES -> throw inMilliamperes();
    };
  }

  private static QuantityException inMilliamperes() {
    return new QuantityException("a raw column is in volts, counts or ohms");
  }

  private DoubleUnaryOperator ofOhms() {
    SensorCurve sensor = resistance();
    if (channel.calibration().byDesign()) return sensor::input;
    DoubleUnaryOperator f = calibration.function().orElseThrow();
    SignalPath path = path();
    return ohms -> f.applyAsDouble(path.output(sensor.input(ohms)));
  }

  private SignalPath path() {
    return design
        .path()
        .orElseThrow(
            () ->
                new QuantityException(
                    "a measured curve counts in volts: ohms need the pull-up that made them"));
  }

  /**
   * Raw values that belong to the ends of the working range, inside the converter's own range.
   *
   * @throws QuantityException where the whole range lies outside it
   */
  Span span() {
    Span working = channel.definition().working();
    if (axis == RawUnit.OHMS) {
      SensorCurve sensor = resistance();
      if (channel.calibration().byDesign()) {
        return Span.between(sensor.output(working.low()), sensor.output(working.high()));
      }
      SignalPath p = path();
      return Span.between(
          sensor.output(p.quantity(calibration.rawAt(working.low()))),
          sensor.output(p.quantity(calibration.rawAt(working.high()))));
    }
    Span volts = Span.between(calibration.rawAt(working.low()), calibration.rawAt(working.high()));
    Span range = new Span(0, converter().reference().number());
    Span inside = Span.between(range.clamp(volts.low()), range.clamp(volts.high()));
    if (inside.width() == 0) {
      throw new QuantityException("the working range lies outside the converter's range");
    }
    return axis == RawUnit.VOLTS
        ? inside
        : new Span(converter().code(inside.low()), converter().code(inside.high()));
  }

  /** The raw value of volts at the converter; empty where the path that makes them is not known. */
  Optional<DoubleUnaryOperator> ofVolts() {
    return switch (axis) {
      case VOLTS -> Optional.of(v -> v);
      case COUNTS -> Optional.of(v -> converter().code(v));
      case OHMS ->
          design.path().map(p -> v -> design.sensorCurve().orElseThrow().at(p.quantity(v)));
      case MILLIAMPERES -> Optional.empty();
    };
  }
}
