package nocking.finding;

import java.util.stream.Stream;
import nocking.band.Alarms;
import nocking.band.BandPlan;
import nocking.band.BandPosition;
import nocking.band.BandProblem;
import nocking.band.Positions;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.quantity.Sentence;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.view.ChannelView;

/** Positions, alarms or switches that contradict each other, or use too little of the travel. */
final class BandsContradict implements Rule {

  @Override
  public Stream<Finding> examine(ChannelView e) {
    Channel c = e.channel();
    BandPlan plan = c.wiring().bands();
    if (plan.isEmpty()) return Stream.empty();
    Span range = new Span(0, c.design().converter().reference().number());
    Positions positions = Positions.of(plan, range);
    return Stream.of(
            positions.problems().stream().map(p -> position(p, positions, plan)),
            Alarms.problems(plan, c.unit()).stream()
                .map(p -> finding("alarm-bands", "Alarm bands contradict", Severity.WARNING, p)),
            Alarms.switches(plan, c.definition().working(), c.unit()).stream()
                .map(p -> finding("switch-place", "Switch is out of place", Severity.WARNING, p)))
        .flatMap(s -> s);
  }

  private static Finding position(BandProblem p, Positions positions, BandPlan plan) {
    if (p.kind() == BandProblem.Kind.TRAVEL) {
      return finding("band-travel", "Use more of the travel", Severity.ADVICE, p);
    }
    if (p.kind() == BandProblem.Kind.SLACK) {
      return finding("band-slack", "Slack of stations is not known", Severity.ADVICE, p);
    }
    Finding f = finding("bands", "Positions contradict", Severity.WARNING, p);
    boolean typed = plan.positions().stream().anyMatch(b -> b.half() != null);
    boolean windows = p.kind() == BandProblem.Kind.OVERLAP || p.kind() == BandProblem.Kind.GAP;
    if (!typed || !windows || !(positions.suggested() > 0)) return f;
    return f.with(
        new Fix(
            "Use the suggested windows",
            c ->
                c.wiring(
                    w ->
                        w.withBands(
                            c.wiring()
                                .bands()
                                .withPositions(
                                    c.wiring().bands().positions().stream()
                                        .map(
                                            b ->
                                                b.withHalf(null)
                                                    .withCentre(centre(b, positions, c)))
                                        .toList())))));
  }

  private static Value centre(BandPosition b, Positions positions, Channel c) {
    int i = c.wiring().bands().positions().indexOf(b);
    Positions.Window w = positions.windows().get(i);
    return w.observed() == 0 ? b.centre() : Value.of(Math.rint(w.mean() * 1e4) / 1e4);
  }

  private static Finding finding(String rule, String headline, Severity severity, BandProblem p) {
    String text = p.text();
    return Finding.of(rule, severity, WorkStep.WIRE, headline, Sentence.capital(text) + ".")
        .at(p.index());
  }
}
