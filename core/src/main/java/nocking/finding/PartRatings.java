package nocking.finding;

import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.element.Element;
import nocking.parts.PartSize;
import nocking.parts.PartString;
import nocking.path.PathCircuit.Stress;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.view.ChannelView;

/**
 * A resistor takes more power or voltage than a single part is rated for. A value typed as {@code
 * 4*180k} or as a sum is a string of parts, of which each takes its share.
 */
final class PartRatings implements Rule {
  @Override
  public Stream<Finding> examine(ChannelView e) {
    Span working = e.channel().definition().working();
    Stress power = null;
    Stress voltage = null;
    double hottest = 0;
    double highest = 0;
    for (double x : new double[] {working.low(), working.high()}) {
      for (Stress s : e.design().stresses(x)) {
        double share =
            PartString.largestShare(
                e.channel().design().elements().get(s.element()).value(s.field()));
        double watts = s.watts() * share / e.channel().design().surroundings().partPower().number();
        double volts =
            s.volts() * share / e.channel().design().surroundings().partVoltage().number();
        if (watts > hottest) {
          hottest = watts;
          power = s;
        }
        if (volts > highest) {
          highest = volts;
          voltage = s;
        }
      }
    }
    return Stream.concat(
        hottest > 1 ? Stream.of(power(e, power)) : Stream.empty(),
        highest > 1 ? Stream.of(voltage(e, voltage)) : Stream.empty());
  }

  private static Finding power(ChannelView e, Stress s) {
    double share =
        PartString.largestShare(e.channel().design().elements().get(s.element()).value(s.field()));
    double rated = e.channel().design().surroundings().partPower().number();
    return Finding.of(
            "part-power",
            Severity.WARNING,
            WorkStep.CONDITION,
            "%s dissipates %s of %s"
                .formatted(
                    s.field().symbol(),
                    Numbers.engineering(s.watts() * share, "W", 2),
                    Numbers.compact(rated, "W", 2)),
            "A resistor at its limit drifts and fails early. Use several in series or parallel, or a larger one: at 60 %% of its rating %s."
                .formatted(PartSize.saysWatts(s.watts() * share)))
        .at(s.element() - 1);
  }

  private static Finding voltage(ChannelView e, Stress s) {
    double share =
        PartString.largestShare(e.channel().design().elements().get(s.element()).value(s.field()));
    double rated = e.channel().design().surroundings().partVoltage().number();
    int parts = (int) Math.ceil(s.volts() / (0.6 * rated));
    return Finding.of(
            "part-voltage",
            Severity.STOP,
            WorkStep.CONDITION,
            "%s across a part rated %s"
                .formatted(
                    Numbers.engineering(s.volts() * share, "V", 3), Numbers.compact(rated, "V", 3)),
            "%s takes the working voltage of one part even where its power is small. A string of %d equal parts keeps 60 %% of the rating."
                .formatted(s.field().symbol(), parts))
        .at(s.element() - 1)
        .with(
            new Fix(
                "Make it a string of " + parts,
                c -> {
                  var stage = c.design().stages().get(s.element() - 1);
                  Value old = stage.value(s.field());
                  Value string =
                      new Value(
                          old.number(),
                          "%d*%s".formatted(parts, Numbers.plain(old.number() / parts)),
                          old.spread());
                  return c.design(
                      d -> d.withStage(s.element() - 1, Element.with(stage, s.field(), string)));
                }));
  }
}
