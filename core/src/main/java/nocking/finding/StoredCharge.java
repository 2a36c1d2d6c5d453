package nocking.finding;

import java.util.List;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.stage.BridgeRectifier;
import nocking.stage.Stage;
import nocking.view.ChannelView;

/** A smoothing capacitor keeps a dangerous voltage after switching off. */
final class StoredCharge implements Rule {
  /** Direct voltage that is safe to touch under dry conditions, volts (IEC 60364-4-41, SELV). */
  private static final double SAFE = 60;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    if (e.design().path().isEmpty()) return Stream.empty();
    Channel c = e.channel();
    List<Stage> stages = c.design().stages();
    for (int i = 0; i < stages.size(); i++) {
      if (stages.get(i) instanceof BridgeRectifier r) {
        double high = c.definition().high().number();
        double volts = e.design().path().get().at(high).nodes().get(i + 1).value();
        if (volts > SAFE) return Stream.of(finding(e, e.design().path().get(), i, r, volts));
      }
    }
    return Stream.empty();
  }

  private static Finding finding(
      ChannelView e, SignalPath path, int stage, BridgeRectifier r, double volts) {
    double high = e.channel().definition().high().number();
    double top = path.at(high).nodes().get(stage).value() - 2 * r.drop().number();
    double amperes = (top - volts) / r.outputResistance();
    String time =
        amperes <= 0
            ? "Nothing discharges it: fit a bleeder."
            : "Through what is connected it takes %s to fall to %s V; measure before you touch."
                .formatted(
                    Numbers.engineering(r.dischargeTime(volts, SAFE, volts / amperes), "s", 2),
                    Numbers.trimmed(SAFE, 3));
    return Finding.of(
            "stored-charge",
            Severity.CAUTION,
            WorkStep.CONDITION,
            "Caution: stored charge",
            "The capacitor holds %s. %s".formatted(Numbers.engineering(volts, "V", 3), time))
        .at(stage);
  }
}
