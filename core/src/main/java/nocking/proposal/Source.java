package nocking.proposal;

import nocking.channel.Channel;
import nocking.element.Measurand;
import nocking.element.Signal;
import nocking.path.SensorCurve;
import nocking.quantity.Span;
import nocking.sensor.Sensor;

/**
 * A sensor at both ends of the working range, as a circuit sees it.
 *
 * @param low its unloaded output at the start of the range, V, Ω or A
 * @param high at the end
 * @param seriesLow ohms before its terminal at the start; 0 for a stiff one
 * @param seriesHigh at the end
 */
record Source(Signal signal, double low, double high, double seriesLow, double seriesHigh) {

  static Source of(Channel channel) {
    Sensor sensor = channel.design().sensor();
    var curve =
        SensorCurve.of(new Measurand(channel.definition().kind().symbol(), channel.unit()), sensor);
    Span w = channel.definition().working();
    return new Source(
        sensor.signal(),
        curve.at(w.low()),
        curve.at(w.high()),
        curve.sourceAt(w.low()),
        curve.sourceAt(w.high()));
  }

  boolean stiff() {
    return seriesLow == 0 && seriesHigh == 0;
  }

  double least() {
    return Math.min(low, high);
  }

  double most() {
    return Math.max(low, high);
  }
}
