package nocking.fault;

import java.util.ArrayList;
import nocking.element.Element;
import nocking.element.Field;
import nocking.network.Circuit;
import nocking.prior.FaultKind;
import nocking.quantity.Span;
import nocking.wiring.Place;

/** How far a sound channel's parts and sensor may move a reading, by the nodal solver. */
final class PartWindows {
  private static final double NUDGE = 1e-3;

  private PartWindows() {}

  /**
   * Largest departure of a place at an input: the sensor inside the channel's tolerance and every
   * part at its limit, all in the same direction.
   */
  static double at(Subject subject, Place place, double x) {
    double nominal = read(subject, Fault.NONE, place, x);
    Span rated = subject.sensor().rated(subject.channel().unit());
    double tolerance = NormalBand.of(subject).tolerance();
    double up = Math.abs(read(subject, Fault.NONE, place, held(subject, x + tolerance)) - nominal);
    double down =
        Math.abs(read(subject, Fault.NONE, place, held(subject, x - tolerance)) - nominal);
    double sum = Math.max(up, down);
    for (Circuit.Resistor r :
        new ArrayList<>(FaultyPath.of(subject, Fault.NONE, rated.clamp(x)).circuit().resistors())) {
      double share = tolerance(subject, r);
      if (share == 0) continue;
      Fault nudged = Fault.ofPart(FaultKind.PART_DRIFT, r.owner(), r.name(), "", 1 + NUDGE);
      sum += Math.abs(read(subject, nudged, place, x) - nominal) / NUDGE * share;
    }
    return sum;
  }

  private static double held(Subject subject, double x) {
    return subject.sensor().known(subject.channel().unit()).map(k -> k.clamp(x)).orElse(x);
  }

  /** Stated tolerance of a resistor as a fraction; 0 where none is stated. */
  private static double tolerance(Subject subject, Circuit.Resistor r) {
    if (r.owner() > subject.stages().size() || r.name().isEmpty()) return 0;
    // Of the sensor itself only what is soldered in beside it has a field of its own.
    if (r.owner() == 0 && !FaultCatalogue.END_RESISTORS.contains(r.name())) return 0;
    Element element = r.owner() == 0 ? subject.sensor() : subject.stages().get(r.owner() - 1);
    Field f = element.field(r.name().split(" ")[0]);
    var value = element.value(f);
    return value.spread() == null ? 0 : value.spread().limitOf(value.number()) / value.number();
  }

  private static double read(Subject subject, Fault f, Place place, double x) {
    return FaultyPath.of(subject, f, x).read(place, Double.POSITIVE_INFINITY).value();
  }
}
