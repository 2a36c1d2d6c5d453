package nocking.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nocking.analysis.Analysis;
import nocking.analysis.Jobs;
import nocking.analysis.RunDraft;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.procedure.MechanicalTrim;
import nocking.quantity.Unit;
import nocking.run.Instrument;
import nocking.run.RunChannel;
import nocking.run.RunPlan;
import nocking.run.SettleRule;
import org.junit.jupiter.api.Test;

/** What a run on a channel of the hatchery would usually be. */
class RunDraftTest {
  private static final Instrument METER =
      Instrument.of("M", Instrument.Language.SCPI, "127.0.0.1:1", "READ?", Unit.VOLT);

  private final Book book = Hatchery.book(Hatchery.SEED);

  private Analysis of(String tag) {
    return Analysis.of(book.byTag(tag).orElseThrow());
  }

  private static SettleRule.Rest rule(RunChannel c) {
    return (SettleRule.Rest) c.settle();
  }

  private static double sensitivity(Analysis a, String unit) {
    return rule(RunDraft.channel(a, METER, Unit.of(unit))).sensitivity();
  }

  /** The sump's level sensor at 4 to 20 mA over 149.9 Ω: 16 mA over its 4 m and what follows it. */
  @Test
  void aReferenceIsFollowedInTheUnitOfThePlan() {
    Analysis tank = of("HD-L1");
    double perMetre = sensitivity(tank, "m");
    assertThat(perMetre).isCloseTo(0.6, within(0.01));
    assertThat(sensitivity(tank, "mm")).isCloseTo(perMetre / 1000, within(1e-9));
    Analysis water = of("RW-T1");
    assertThat(sensitivity(water, "°C")).isNegative();
    assertThat(sensitivity(water, "°F")).isCloseTo(sensitivity(water, "°C") / 1.8, within(1e-9));
    assertThat(sensitivity(water, "K")).isCloseTo(sensitivity(water, "°C"), within(1e-12));
  }

  /** What the reference says is taken off only where it is what the sensor measures. */
  @Test
  void aReferenceOfAnotherQuantityIsNotFollowed() {
    assertThat(sensitivity(of("RW-T1"), "m")).isZero();
    Analysis gate = of("SG-P1");
    Channel c = gate.channel();
    Instrument ref = Instrument.byHand("Protractor", c.unit());
    RunPlan points = RunDraft.plan(List.of(gate), ref, List.of(METER));
    assertThat(rule(points.channels().getFirst()).sensitivity()).isNotZero();
    MechanicalTrim trim =
        Jobs.of(gate).stream()
            .filter(MechanicalTrim.class::isInstance)
            .map(MechanicalTrim.class::cast)
            .findFirst()
            .orElseThrow();
    RunPlan turned = Jobs.plan(points, trim, c);
    assertThat(turned.unit()).isEqualTo("°");
    assertThat(rule(turned.channels().getFirst()).sensitivity()).isZero();
  }

  /** Near enough everywhere in the working range, also where the curve is flattest. */
  @Test
  void whatMayBeLeftIsAFifthOfTheToleranceWhereTheCurveIsFlattest() {
    for (Channel c : book.channels()) {
      Analysis a = Analysis.of(c);
      if (a.design().path().isEmpty()) continue;
      double within = rule(RunDraft.channel(a, METER, c.unit())).within();
      double half = c.design().converter().step() / 2;
      var w = c.definition().working();
      for (int i = 1; i < 200; i++) {
        double x = w.at(i / 200.0);
        double h = w.width() / 400;
        var path = a.design().path().orElseThrow();
        double slope = Math.abs(path.output(x + h) - path.output(x - h)) / (2 * h);
        double left = 0.2 * RunDraft.tolerance(a) * slope;
        // A stretch that is flat beside the rest is what no nearness mends.
        if (left < 0.06 * 0.2 * RunDraft.tolerance(a) * steepest(a)) continue;
        assertThat(within)
            .as("%s at %s", c.tag(), x)
            .isLessThanOrEqualTo(Math.max(1.1 * left, half));
      }
    }
  }

  private static double steepest(Analysis a) {
    var w = a.channel().definition().working();
    var path = a.design().path().orElseThrow();
    double most = 0;
    for (int i = 0; i < 200; i++) {
      double one = path.output(w.at((i + 1) / 200.0)) - path.output(w.at(i / 200.0));
      most = Math.max(most, Math.abs(one) * 200 / w.width());
    }
    return most;
  }
}
