package nocking.view;

import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.channel.Channel;
import nocking.converter.Converter;
import nocking.element.Signal;
import nocking.path.SensorCurve;
import nocking.path.SignalPath;
import nocking.points.RawScale;
import nocking.points.RawUnit;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;

/**
 * What a receiver's table counts in: volts or codes of its converter, or ohms or milliamperes at
 * its terminals. These stand by the sensor alone as long as the channel goes by its design, so that
 * the receiver's pull-up or burden need not be known.
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

  /** The sensor, where it gives what the axis counts by itself. */
  private SensorCurve own() {
    return design
        .sensorCurve()
        .filter(s -> RawScale.own(channel.design().sensor()).filter(axis::equals).isPresent())
        .orElseThrow(
            () ->
                new QuantityException(
                    "a raw column in %s needs a sensor that gives %s; this one gives %s"
                        .formatted(
                            axis.title(),
                            (axis == RawUnit.OHMS ? Signal.RESISTANCE : Signal.CURRENT).says(),
                            channel.design().sensor().signal().says())));
  }

  private double sensed(double raw) {
    return axis.unit().toSi(raw);
  }

  private double raw(double sensed) {
    return axis.unit().fromSi(sensed);
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
      case OHMS, MILLIAMPERES -> ofSensor();
    };
  }

  private DoubleUnaryOperator ofSensor() {
    SensorCurve sensor = own();
    if (channel.calibration().byDesign()) return raw -> sensor.input(sensed(raw));
    DoubleUnaryOperator f = calibration.function().orElseThrow();
    SignalPath path = path();
    return raw -> f.applyAsDouble(path.output(sensor.input(sensed(raw))));
  }

  private SignalPath path() {
    return design
        .path()
        .orElseThrow(
            () ->
                new QuantityException(
                    "a measured curve counts in volts: %s need what makes volts of them"
                        .formatted(axis.title())));
  }

  /**
   * Raw values that belong to the ends of the working range, inside the converter's own range.
   *
   * @throws QuantityException where the whole range lies outside it
   */
  Span span() {
    Span working = channel.definition().working();
    if (axis.ofSensor()) {
      SensorCurve sensor = own();
      if (channel.calibration().byDesign()) {
        return Span.between(raw(sensor.output(working.low())), raw(sensor.output(working.high())));
      }
      SignalPath p = path();
      return Span.between(
          raw(sensor.output(p.quantity(calibration.rawAt(working.low())))),
          raw(sensor.output(p.quantity(calibration.rawAt(working.high())))));
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
      case OHMS, MILLIAMPERES ->
          design.path().map(p -> v -> raw(design.sensorCurve().orElseThrow().at(p.quantity(v))));
    };
  }
}
