package nocking.run;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import nocking.points.RawUnit;
import nocking.quantity.Unit;
import nocking.run.Instrument.Language;
import org.junit.jupiter.api.Test;

/** What was read by a plan whose unit or certificate was wrong. */
class RecountTest {
  private static final SettleRule REST = new SettleRule.Dwell(1);

  private static Instrument meter(Unit unit, Corrections certificate) {
    return Instrument.of("Meter", Language.SCPI, "meter:1", "READ?", unit)
        .withCorrections(certificate);
  }

  private static RunPlan plan(Instrument reference, Instrument meter) {
    RunChannel c = new RunChannel("c", "CH-1", RawUnit.VOLTS, meter, REST, "");
    return new RunPlan(
        "R",
        RunPlan.Kind.POINTS,
        "°C",
        List.of(c),
        reference,
        List.of(v(10), v(20)),
        Course.AS_GIVEN,
        1,
        7,
        4,
        1,
        60,
        0.5,
        Unsettled.SKIP,
        Purpose.AS_FOUND,
        Conditions.NONE,
        null,
        null,
        null,
        null);
  }

  /** A certificate that says of every reading the same thing: so much too high, or so much more. */
  private static Corrections line(double gain, double offset, double from, double to) {
    return new Corrections(
        List.of(
            new Corrections.Row(gain * from + offset, from),
            new Corrections.Row(gain * to + offset, to)));
  }

  /**
   * What an instrument shows is the same, whatever it is taken for: 200 seeded instruments with
   * gain and offset, whose readings are worked out here by hand.
   */
  @Test
  void whatWasShownIsCountedAnew() {
    var random = new Random(27);
    for (int i = 0; i < 200; i++) {
      double offset = random.nextGaussian() / 50;
      double volts = 0.5 + 3 * random.nextDouble();
      double celsius = 5 + 30 * random.nextDouble();
      double colder = random.nextGaussian() / 2;
      // It shows volts, was taken for millivolts, and reads a little high as is known since.
      double shown = volts + offset;
      double warmer = celsius + colder;
      RunPlan was =
          plan(meter(Unit.of("°F"), Corrections.NONE), meter(Unit.of("mV"), Corrections.NONE));
      RunPlan is =
          plan(
              meter(Unit.of("°C"), line(1, colder, 0, 50)),
              meter(Unit.VOLT, line(1, offset, 0, 5)));
      double asFahrenheit = (warmer - 32) / 1.8;
      List<Double> kept = List.of(shown / 1000, shown / 1000 + 1e-6);
      var arrival = new RunPoint.Arrival(2e-6, 1e-6, 4.0);
      var p =
          new RunPoint(
              1,
              0,
              asFahrenheit,
              List.of(kept),
              RunPoint.How.SETTLED,
              "",
              null,
              List.of(arrival),
              5.0,
              null,
              null);
      RunPoint counted = new Recount(was, is).of(p);
      assertThat(counted.applied()).isCloseTo(celsius, within(1e-9));
      assertThat(counted.readings().getFirst().getFirst()).isCloseTo(volts, within(1e-9));
      assertThat(counted.mean(0)).isCloseTo(volts + 0.5e-3, within(1e-9));
      RunPoint.Arrival a = counted.arrival(0).orElseThrow();
      assertThat(a.toCome()).isCloseTo(2e-3, within(1e-9));
      assertThat(a.uncertainty()).isCloseTo(1e-3, within(1e-9));
      assertThat(a.lag()).isEqualTo(4.0);
      assertThat(counted.supply()).isEqualTo(5.0);
    }
  }

  /** A place that nobody read is where it was said to be, in whatever unit nobody read it. */
  @Test
  void whatNobodyReadStaysAsItIs() {
    RunPlan was = plan(meter(Unit.of("°F"), Corrections.NONE), meter(Unit.VOLT, Corrections.NONE));
    RunPlan is = plan(meter(Unit.of("°C"), Corrections.NONE), meter(Unit.VOLT, Corrections.NONE));
    var skipped = new RunPoint(1, 0, 10, List.of(List.of()), RunPoint.How.SKIPPED, "no water");
    assertThat(new Recount(was, is).of(skipped)).isEqualTo(skipped);
  }

  /** Where it stands afterwards is where a run stands whose points were always so. */
  @Test
  void aRunGoesOnAsIfItHadAlwaysBeenSo() {
    RunPlan was =
        plan(meter(Unit.of("°C"), Corrections.NONE), meter(Unit.of("mV"), Corrections.NONE));
    RunPlan is = plan(meter(Unit.of("°C"), Corrections.NONE), meter(Unit.VOLT, Corrections.NONE));
    var entries = new ArrayList<RunEntry>();
    entries.add(new Act(0, Act.Kind.BEGIN, ""));
    entries.add(point(0, 0.001));
    entries.add(new PlanCorrection(2, is, "unit"));
    entries.add(new Act(3, Act.Kind.BEGIN, ""));
    RunProgress corrected = RunProgress.after(was, entries);
    RunProgress always =
        RunProgress.after(
            is,
            List.of(new Act(0, Act.Kind.BEGIN, ""), point(0, 1), new Act(3, Act.Kind.BEGIN, "")));
    assertThat(corrected.plan()).isEqualTo(is);
    assertThat(corrected.points()).isEqualTo(always.points());
    assertThat(corrected.next()).isEqualTo(always.next()).isEqualTo(1);
    assertThat(corrected.phase()).isEqualTo(always.phase());
  }

  private static RunPoint point(int target, double volts) {
    return new RunPoint(1, target, 10, List.of(List.of(volts)), RunPoint.How.SETTLED, "");
  }
}
