package nocking.finding;

import java.util.ArrayList;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.Hazard;
import nocking.channel.WorkStep;
import nocking.element.Element;
import nocking.element.Signal;
import nocking.path.PathState;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.sensor.AcVoltage;
import nocking.view.ChannelView;

/**
 * Mains or another dangerous voltage (above 50 V AC or 120 V DC, the limits of IEC 60364-4-41)
 * without isolation or without its caution.
 */
final class MainsIsolation implements Rule {
  private static final double DANGEROUS_AC = 50;
  private static final double DANGEROUS_DC = 120;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    Channel c = e.channel();
    if (c.design().sensor() == null) return Stream.empty();
    double highest = c.definition().high().number();
    boolean mains =
        c.design().sensor() instanceof AcVoltage
            && c.unit().dimension().equals(Unit.VOLT.dimension())
            && c.unit().toSi(highest) > DANGEROUS_AC;
    double direct =
        e.design().path().stream()
            .flatMap(p -> p.at(highest).nodes().stream())
            .filter(n -> n.point().unit().equals(Unit.VOLT))
            .mapToDouble(PathState.Node::value)
            .map(Math::abs)
            .max()
            .orElse(0);
    var list = new ArrayList<Finding>();
    if ((mains || direct > DANGEROUS_DC) && !c.definition().hazards().contains(Hazard.MAINS)) {
      list.add(
          Finding.of(
                  "mains-unmarked",
                  Severity.WARNING,
                  WorkStep.DEFINE,
                  "Dangerous voltage without its caution",
                  "This channel reaches %s. Mark it, so that the caution stands beside the work and on paper."
                      .formatted(
                          Numbers.engineering(Math.max(direct, mains ? highest : 0), "V", 3)))
              .with(
                  new Fix(
                      "Mark as mains",
                      ch ->
                          ch.define(
                              d -> {
                                var hazards = new ArrayList<>(d.hazards());
                                hazards.add(Hazard.MAINS);
                                return d.withHazards(hazards);
                              }))));
    }
    if (mains
        && c.design().sensor() instanceof AcVoltage ac
        && ac.signal() == Signal.ALTERNATING
        && ac.isolation() == AcVoltage.Isolation.NONE) {
      list.add(
          Finding.of(
                  "mains-bare",
                  Severity.STOP,
                  WorkStep.DEFINE,
                  "Mains without isolation",
                  "A bare divider gives no isolation: everything behind it may be live, the laptop's USB too. Use an isolated sensor or a transformer; licensed work under local codes.")
              .with(
                  new Fix(
                      "There is a transformer",
                      ch ->
                          ch.design(
                              d ->
                                  d.withSensor(
                                      Element.choose(
                                          ch.design().sensor(),
                                          "isolation",
                                          AcVoltage.Isolation.ISOLATED))))));
    }
    return list.stream();
  }
}
