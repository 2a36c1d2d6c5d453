package nocking.app.desk;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import nocking.points.RawUnit;
import nocking.procedure.Stations;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Act;
import nocking.run.Conditions;
import nocking.run.Course;
import nocking.run.Instrument;
import nocking.run.Purpose;
import nocking.run.RunChannel;
import nocking.run.RunPlan;
import nocking.run.RunProgress;
import nocking.run.RunSnapshot;
import nocking.run.SettleRule;
import nocking.run.Sweep;
import nocking.run.Unsettled;
import org.junit.jupiter.api.Test;

/** It calls when something is to be done or is done, and not in between. */
class RunBeepTest {
  private static RunPlan lever() {
    return new RunPlan(
        "lever",
        RunPlan.Kind.PROCEDURE,
        "",
        List.of(
            new RunChannel(
                "a",
                "A",
                RawUnit.VOLTS,
                Instrument.of("meter", Instrument.Language.SCPI, "127.0.0.1:1", "READ?", Unit.VOLT),
                new SettleRule.Dwell(1),
                "")),
        Instrument.byHand("eye", Unit.ONE),
        List.of(),
        Course.UP,
        1,
        1,
        2,
        1,
        60,
        0.2,
        Unsettled.TAKE,
        Purpose.DEVELOPMENT,
        Conditions.NONE,
        new Stations(List.of("up", "down"), Value.of(0.1)),
        null,
        null,
        null);
  }

  @Test
  void itCallsForHandsAndForWhatIsTaken() {
    var calls = new AtomicInteger();
    var beep = new RunBeep(calls::incrementAndGet);
    var progress = new RunProgress(lever());
    beep.hear(RunSnapshot.of(progress, ""));
    assertThat(calls).as("it is off").hasValue(0);
    beep.on(true);
    beep.hear(RunSnapshot.of(progress, ""));
    assertThat(calls).as("it has called for the hands already").hasValue(0);
    progress.take(new Act(0, Act.Kind.READY, ""));
    for (int s = 1; s <= 4; s++) {
      progress.take(new Sweep(1000L * s, 0, 1, List.of(1.0 + 0.001 * s)));
      beep.hear(RunSnapshot.of(progress, ""));
    }
    // The point is taken and hands are needed again: one call for both.
    assertThat(progress.points()).hasSize(1);
    assertThat(calls).hasValue(1);
    beep.hear(RunSnapshot.of(progress, "the meter does not answer"));
    beep.hear(RunSnapshot.of(progress, "the meter does not answer"));
    assertThat(calls).hasValue(2);
  }
}
