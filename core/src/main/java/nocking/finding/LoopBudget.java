package nocking.finding;

import java.util.ArrayList;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.element.Element;
import nocking.parts.PreferredSeries;
import nocking.quantity.Numbers;
import nocking.quantity.Value;
import nocking.sensor.CurrentLoop;
import nocking.stage.Shunt;
import nocking.view.ChannelView;

/** The loop's supply does not reach, or the signal of a failure cannot be told from a value. */
final class LoopBudget implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    if (e.design().path().isEmpty()
        || !(e.channel().design().sensor() instanceof CurrentLoop loop)
        || e.channel().design().stages().isEmpty()
        || !(e.channel().design().stages().getFirst() instanceof Shunt shunt)) {
      return Stream.empty();
    }
    var list = new ArrayList<Finding>();
    budget(loop, shunt, list);
    failure(e, loop, shunt, list);
    return list.stream();
  }

  private static void budget(CurrentLoop loop, Shunt shunt, ArrayList<Finding> list) {
    if (shunt.transmitter() == null) return;
    double most = Math.max(loop.most(), CurrentLoop.FAILURE_HIGH);
    shunt
        .leftForTransmitter(most)
        .filter(left -> left < shunt.transmitter().number())
        .ifPresent(
            left ->
                list.add(
                    Finding.of(
                            "loop-budget",
                            Severity.STOP,
                            WorkStep.CONDITION,
                            "The loop leaves %s for the transmitter"
                                .formatted(Numbers.engineering(left, "V", 3)),
                            "At %s mA the burden and the leads take the rest of %s; it needs %s. Use a smaller burden or a higher supply."
                                .formatted(
                                    Numbers.trimmed(1000 * most, 3),
                                    Numbers.compact(shunt.loopSupply().number(), "V", 3),
                                    Numbers.compact(shunt.transmitter().number(), "V", 3)))
                        .at(0)));
  }

  private static void failure(
      ChannelView e, CurrentLoop loop, Shunt shunt, ArrayList<Finding> list) {
    if (Math.abs(loop.least() - 0.004) > 1e-6) return;
    double reference = e.channel().design().converter().reference().number();
    double atEnd = e.design().path().get().output(loop.quantity(loop.most()));
    double atFailure = e.design().path().get().output(loop.quantity(CurrentLoop.FAILURE_HIGH));
    boolean alone = e.channel().design().stages().size() == 1;
    boolean hidden = atFailure > reference - e.channel().design().converter().step();
    if (!alone || atEnd > reference || !hidden) return;
    double smaller = shunt.burden().number() * reference / atFailure;
    double[] usual = PreferredSeries.E24.between(smaller / 2, smaller);
    Value burden = Value.of(usual[usual.length - 1]);
    list.add(
        Finding.of(
                "loop-failure",
                Severity.ADVICE,
                WorkStep.CONDITION,
                "A failure signal looks like full scale",
                "At 21 mA (NAMUR NE 43) the input would see %s of %s; the code stands at its end."
                    .formatted(
                        Numbers.engineering(atFailure, "V", 3), Numbers.compact(reference, "V", 3)))
            .at(0)
            .with(
                new Fix(
                    "Lower the burden to " + Numbers.compact(burden.number(), "Ω", 3),
                    c ->
                        c.design(
                            d ->
                                d.withStage(
                                    0,
                                    Element.with(
                                        shunt, shunt.field("Rb"), shunt.burden().to(burden)))))));
  }
}
