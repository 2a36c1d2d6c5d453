package nocking.finding;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import nocking.channel.WorkStep;
import nocking.fault.PairExpectation;
import nocking.fault.PinExpectation;
import nocking.quantity.Numbers;
import nocking.quantity.Sentence;
import nocking.quantity.Value;
import nocking.view.ChannelView;
import nocking.wiring.PairReading;
import nocking.wiring.Pin;
import nocking.wiring.WirePlan;

/** What the meter showed at the pins is not what the path asks for. */
final class WireReadings implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    WirePlan plan = e.channel().wiring().plan();
    boolean measured =
        !plan.pairs().isEmpty()
            || plan.pins().stream().anyMatch(p -> p.measured() != null || p.continuity() != null);
    if (!measured) return Stream.empty();
    var list = new ArrayList<Finding>();
    for (int i = 0; i < plan.pins().size(); i++) {
      Pin p = plan.pins().get(i);
      if (p.continuity() != null && p.continuity().number() > p.mostContinuity()) {
        list.add(continuity(p).at(i));
      }
    }
    for (PairExpectation pair : e.wiring().pairs()) {
      plan.pair(pair.first(), pair.second())
          .filter(v -> !pair.holds(v.number()))
          .ifPresent(v -> list.add(pair(plan, pair, v)));
    }
    List<PinExpectation> pins = e.wiring().pins();
    for (PinExpectation p : pins) {
      if (p.pin() < 0 || p.window() == null) continue;
      Value v = plan.pins().get(p.pin()).measured();
      if (v == null || p.window().contains(v.number())) continue;
      list.add(reversed(p, v) ? polarity(p, v) : pin(e, p, v));
    }
    return list.stream();
  }

  private static Finding pair(WirePlan plan, PairExpectation pair, Value v) {
    String pins =
        "%s to %s"
            .formatted(
                plan.pins().get(pair.first()).function().title(),
                plan.pins().get(pair.second()).function().title());
    boolean shorted = v.number() < PairExpectation.SHORT;
    String seen = v.number() >= PairReading.OPEN ? "open" : Numbers.engineering(v.number(), "Ω", 3);
    return Finding.of(
            "pins-before-power",
            shorted ? Severity.STOP : Severity.WARNING,
            WorkStep.WIRE,
            "%s reads %s before power".formatted(Sentence.capital(pins), seen),
            "It must read %s, %s. Do not switch on before it does."
                .formatted(pair.says(), pair.windowSays()))
        .at(pair.first());
  }

  private static Finding continuity(Pin p) {
    double ohms = p.continuity().number();
    boolean open = ohms >= PairReading.OPEN;
    return Finding.of(
        "continuity",
        Severity.WARNING,
        WorkStep.WIRE,
        open
            ? "The %s wire has no continuity".formatted(p.function().title())
            : "The %s wire has %s"
                .formatted(p.function().title(), Numbers.engineering(ohms, "Ω", 2)),
        "From end to end it may have at most %s. Wiggle the connector while you measure; re-crimp it."
            .formatted(Numbers.engineering(p.mostContinuity(), "Ω", 2)));
  }

  /** The supply's own volts with the wrong sign: the meter sees the pins swapped. */
  private static boolean reversed(PinExpectation p, Value v) {
    return p.name().equals(Pin.Function.SUPPLY.title())
        && Math.abs(v.number() + p.atRest()) < 0.1 * p.atRest();
  }

  private static Finding polarity(PinExpectation p, Value v) {
    return Finding.of(
            "polarity",
            Severity.STOP,
            WorkStep.WIRE,
            "Supply and ground are swapped",
            "The supply pin reads %s and must read %s. Switch off before anything else: many sensors do not survive it."
                .formatted(
                    Numbers.engineering(v.number(), "V", 3),
                    Numbers.engineering(p.atRest(), "V", 3)))
        .at(p.pin());
  }

  private static Finding pin(ChannelView e, PinExpectation p, Value v) {
    double off = v.number() - p.atRest();
    boolean ground = p.name().equals(Pin.Function.GROUND.title());
    String headline =
        "%s is %s %s at the receiver"
            .formatted(
                Sentence.capital(p.name()),
                Numbers.engineering(Math.abs(off), "V", 2),
                off < 0 ? "low" : "high");
    String detail =
        ground
            ? "Sensor and receiver stand on different grounds: every signal is off by the same %s. Measure at both ends and join the grounds at one point."
                .formatted(Numbers.engineering(Math.abs(off), "V", 2))
            : "It reads %s and must read %s ± %s. Diagnose weighs what would explain it."
                .formatted(
                    Numbers.engineering(v.number(), "V", 4),
                    Numbers.engineering(p.atRest(), "V", 4),
                    Numbers.engineering(p.window().width() / 2, "V", 2));
    return Finding.of(
            ground ? "ground-offset" : "pin-reading",
            Severity.WARNING,
            WorkStep.WIRE,
            headline,
            detail)
        .at(p.pin());
  }
}
