package nocking.finding;

import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.element.Element;
import nocking.path.LinearForm;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.Value;
import nocking.stage.DifferenceAmp;
import nocking.stage.Stage;
import nocking.view.ChannelView;

/** The pivot is not at the input that was asked for. */
final class PivotMissed implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    Value wanted = e.channel().definition().pivot();
    if (wanted == null || e.design().path().isEmpty()) return Stream.empty();
    SignalPath path = e.design().path().get();
    return path.linear().stream()
        .filter(f -> Math.abs(f.pivot() - wanted.number()) > path.countsWorth(f.pivot()))
        .map(f -> missed(e, path, f, wanted));
  }

  private static Finding missed(ChannelView e, SignalPath path, LinearForm form, Value wanted) {
    String unit = e.channel().definition().unit();
    Finding f =
        Finding.of(
            "pivot",
            Severity.WARNING,
            WorkStep.CONDITION,
            "Pivot sits at %s, not %s %s"
                .formatted(Numbers.trimmed(form.pivot(), 5), wanted.typed(), unit),
            "The output equals %s (%s) there. A constant may have been changed in one place only."
                .formatted(form.pivotName(), Numbers.engineering(form.pivotVolts(), "V", 4)));
    return offset(e.channel(), path, wanted.number()).map(f::with).orElse(f);
  }

  /** The offset of the last difference amplifier that puts the pivot where it is wanted. */
  private static Optional<Fix> offset(Channel channel, SignalPath path, double wanted) {
    for (int i = channel.design().stages().size() - 1; i >= 0; i--) {
      if (channel.design().stages().get(i) instanceof DifferenceAmp amp) {
        int index = i;
        Value volts =
            Value.of(
                Double.parseDouble(Numbers.significant(path.at(wanted).nodes().get(i).value(), 9)));
        Stage moved = Element.with(amp, amp.field("Vc"), amp.offset().to(volts));
        return Optional.of(
            new Fix(
                "Set the offset to " + Numbers.engineering(volts.number(), "V", 4),
                c -> c.design(d -> d.withStage(index, moved))));
      }
    }
    return Optional.empty();
  }
}
