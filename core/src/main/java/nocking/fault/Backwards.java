package nocking.fault;

import java.util.Optional;
import nocking.channel.Channel;
import nocking.element.Element;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.Potentiometer;

/**
 * A signal that runs backwards and may be turned by swapping supply and ground at the sensor.
 *
 * @param low volts at the converter at the low end of the range, as wired
 * @param high volts at the high end
 * @param adopted true when a measured model is adopted, which rewiring would make stale
 * @param thresholds true when fault thresholds are settled, which must be looked at again
 */
public record Backwards(double low, double high, boolean adopted, boolean thresholds) {

  /** Empty where the signal rises, or where the sensor cannot be wired the other way. */
  public static Optional<Backwards> of(Channel c, SignalPath path) {
    if (!(c.design().sensor() instanceof Potentiometer)) return Optional.empty();
    Span w = c.definition().working();
    double low = path.output(w.low());
    double high = path.output(w.high());
    if (high >= low) return Optional.empty();
    boolean measured = !c.calibration().byDesign();
    return Optional.of(new Backwards(low, high, measured, c.wiring().plan().thresholds() != null));
  }

  /** The channel with the sensor's supply and ground swapped; its adopted design follows. */
  public Channel rewired(Channel c) {
    var p = (Potentiometer) c.design().sensor();
    Potentiometer begun = Element.with(p, p.field("ka"), other(p.start()));
    Potentiometer turned = Element.with(begun, p.field("kb"), other(p.end()));
    return c.design(d -> d.withSensor(turned));
  }

  private static Value other(Value wiper) {
    double k = 1 - wiper.number();
    return new Value(k, Numbers.trimmed(100 * k, 6) + "%", wiper.spread());
  }

  /** What is different downstream after rewiring. */
  public String changes() {
    String volts =
        "rewired it goes from %s to %s instead of %s to %s"
            .formatted(volts(high), volts(low), volts(low), volts(high));
    String model =
        adopted ? "; the adopted model no longer holds" : "; the equation follows by itself";
    String limits = thresholds ? ", and the fault thresholds must be looked at again" : "";
    return volts + model + limits + ". The reading is the same either way.";
  }

  private static String volts(double v) {
    return Numbers.fixed(v, 2) + " " + Unit.VOLT.symbol();
  }
}
