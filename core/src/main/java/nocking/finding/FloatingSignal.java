package nocking.finding;

import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.fault.FaultMatrix;
import nocking.fault.FaultRow;
import nocking.prior.FaultKind;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.StrainBridge;
import nocking.stage.InputPull;
import nocking.view.ChannelView;

/** With its signal wire off nothing holds the input, so that the display shows anything. */
final class FloatingSignal implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    return e.wiring().brokenWires().stream().flatMap(m -> floats(e, m).stream());
  }

  private static Optional<Finding> floats(ChannelView e, FaultMatrix matrix) {
    Optional<FaultRow> open =
        matrix.rows().stream()
            .filter(r -> r.fault().kind() == FaultKind.SIGNAL_OPEN && r.floating())
            .findFirst();
    if (open.isEmpty()) return Optional.empty();
    FaultRow row = open.get();
    String shows =
        Double.isNaN(row.shownLow())
            ? "anything"
            : "anything from %s to %s"
                .formatted(e.design().amount(row.shownLow()), e.design().amount(row.shownHigh()));
    String detail =
        "With the signal wire off nothing holds the input: the display may show %s and follow every hand that comes near."
            .formatted(shows);
    boolean differential = e.channel().design().sensor() instanceof StrainBridge;
    Finding f =
        Finding.of(
            "floating-signal",
            differential || matrix.pull().isEmpty() ? Severity.ADVICE : Severity.WARNING,
            WorkStep.WIRE,
            "A broken signal wire floats",
            detail);
    Optional<Double> pull = matrix.pull();
    if (differential || pull.isEmpty()) return Optional.of(f);
    String ohms = Numbers.compact(pull.get(), "Ω", 3);
    return Optional.of(
        f.with(
            new Fix(
                "Fit a pull-down of %s".formatted(ohms),
                c -> held(c, matrix.pullAt(), pull.get()))));
  }

  private static Channel held(Channel c, int stage, double ohms) {
    Value value = Value.typed(Numbers.compact(ohms, "Ω", 3), Unit.OHM);
    return c.design(d -> d.insertStage(stage, InputPull.toGround(value)));
  }
}
