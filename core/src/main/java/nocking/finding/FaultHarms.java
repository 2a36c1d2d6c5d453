package nocking.finding;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.fault.Harm;
import nocking.fault.Harmful;
import nocking.parts.PreferredSeries;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.stage.Clamp;
import nocking.view.ChannelView;

/**
 * A single fault would put more on the converter's input, on a part or on a hand than they take.
 * What hangs on a rating that nobody gave, with a current that inputs usually take, stands in the
 * fault matrix and is no finding.
 */
final class FaultHarms implements Rule {
  /** Volts that a clamp leaves beyond the ends of an input. */
  private static final double CLAMPED = 0.3;

  private static final double LEAST = 1e3;
  private static final double MOST = 1e6;

  /** Share of its rating that a part is used to. */
  private static final double SHARE = 0.6;

  @Override
  public Stream<Finding> examine(ChannelView e) {
    List<Harmful> harms = e.wiring().harms().stream().filter(h -> h.harm().certain()).toList();
    if (harms.isEmpty()) return Stream.empty();
    Harmful worst = harms.getFirst();
    String others =
        harms.size() == 1
            ? ""
            : " %d other fault%s %s harm, too."
                .formatted(
                    harms.size() - 1,
                    harms.size() == 2 ? "" : "s",
                    harms.size() == 2 ? "does" : "do");
    boolean people = worst.harm().touch().isPresent();
    Finding f =
        Finding.of(
            "fault-harm",
            // What one fault would do is nothing that is wrong now, unless somebody touches it.
            people ? Severity.WARNING : Severity.ADVICE,
            WorkStep.WIRE,
            people ? "One fault makes it dangerous to touch" : "One fault does damage",
            "%s: %s.%s %s"
                .formatted(
                    worst.fault().line(), worst.harm().says(), others, defence(e, worst.harm())));
    return Stream.of(clamp(e, harms).map(f::with).orElse(f));
  }

  private static String defence(ChannelView e, Harm h) {
    if (h.touch().isPresent()) {
      return "Isolation or parts in series, so that no single one passes it on; licensed work under"
          + " local codes.";
    }
    if (h.pin().isPresent()) {
      return "A clamp behind a resistor holds the input; parts in series keep one short from passing"
          + " all on.";
    }
    return "A fuse, a larger part or parts in series.";
  }

  /** A clamp in front of the converter, where it holds and costs next to nothing. */
  private static Optional<Fix> clamp(ChannelView e, List<Harmful> harms) {
    Channel c = e.channel();
    double high = c.design().converter().reference().number() + CLAMPED;
    double ohms = LEAST;
    for (Harmful h : harms) {
      if (h.harm().pin().isEmpty()) continue;
      Harm.Pin pin = h.harm().pin().get();
      double beyond = pin.volts() < 0 ? -CLAMPED - pin.volts() : pin.volts() - high;
      double rated = pin.rated().orElse(Harm.USUAL_CURRENT);
      double power = SHARE * c.design().surroundings().partPower().number();
      // As if nothing else held the current back.
      ohms = Math.max(ohms, Math.max(beyond / rated, beyond * beyond / power));
      if (beyond > SHARE * c.design().surroundings().partVoltage().number())
        return Optional.empty();
    }
    boolean pins = harms.stream().anyMatch(h -> h.harm().pin().isPresent());
    if (!pins || ohms > MOST || c.design().converter().inputResistance() != null) {
      return Optional.empty();
    }
    double chosen = PreferredSeries.E12.between(ohms, 10 * ohms)[0];
    var stage =
        new Clamp(
            Value.typed(Numbers.compact(chosen, "Ω", 3), Unit.OHM),
            Value.of(-CLAMPED),
            Value.of(Double.parseDouble(Numbers.fixed(high, 3))));
    return Optional.of(
        new Fix(
            "Clamp the input behind " + Numbers.compact(chosen, "Ω", 3),
            ch -> ch.design(d -> d.insertStage(d.stages().size(), stage))));
  }
}
