package nocking.band;

import static nocking.Channels.v;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import org.junit.jupiter.api.Test;

/** What a new line of a plan begins with, and what cannot be a line. */
class BandPlanTest {
  private static final Span WORKING = new Span(0, 50);

  @Test
  void positionsBeginInsideTheRangeAndFollowOneAnother() {
    BandPlan plan = BandPlan.EMPTY.plusPosition(3.3).plusPosition(3.3);
    assertThat(plan.positions())
        .extracting(BandPosition::name)
        .containsExactly("position 1", "position 2");
    double first = plan.positions().getFirst().centre().number();
    assertThat(first).isCloseTo(0.66, within(1e-12));
    assertThat(plan.positions().getLast().centre().number()).isCloseTo(first + 0.5, within(1e-12));
    assertThat(plan.isEmpty()).isFalse();
  }

  /** A tenth of a millivolt is less than any window, and what a hand can type. */
  @Test
  void stationsAreTakenWhereThePathBringsThem() {
    BandPlan plan =
        BandPlan.EMPTY.plusPosition(5).withStations(List.of("drain", "fill"), x -> x / 3);
    assertThat(plan.positions()).extracting(BandPosition::name).containsExactly("drain", "fill");
    assertThat(plan.positions().getFirst().centre().number()).isEqualTo(0.3333);
    assertThat(plan.positions().getLast().centre().number()).isEqualTo(0.6667);
  }

  /** Three bands without gap or overlap, and a fourth that begins where the third ends. */
  @Test
  void alarmsBeginAsThreeThatMeet() {
    BandPlan plan = BandPlan.EMPTY.plusAlarm(WORKING);
    assertThat(plan.alarms())
        .extracting(AlarmBand::name)
        .containsExactly("low", "in range", "high");
    for (int i = 1; i < 3; i++) {
      assertThat(plan.alarms().get(i).from()).isEqualTo(plan.alarms().get(i - 1).to());
    }
    assertThat(plan.alarms().getFirst().from()).isNull();
    assertThat(plan.alarms().getLast().to()).isNull();
    AlarmBand ended = new AlarmBand("high", v(40), v(45));
    BandPlan four =
        plan.withAlarms(List.of(plan.alarms().get(0), plan.alarms().get(1), ended))
            .plusAlarm(WORKING);
    assertThat(four.alarms().getLast().from()).isEqualTo(v(45));
    assertThat(four.alarms().getLast().name()).isEqualTo("band 4");
  }

  @Test
  void anAlarmSaysItsEnds() {
    assertThat(new AlarmBand("a", null, v(5)).says(x -> "" + x, " V")).isEqualTo("below 5.0 V");
    assertThat(new AlarmBand("a", v(5), null).says(x -> "" + x, " V")).isEqualTo("above 5.0 V");
    assertThat(new AlarmBand("a", v(1), v(5)).says(x -> "" + x, " V")).isEqualTo("1.0 … 5.0 V");
    assertThat(new AlarmBand("a", null, null).says(x -> "" + x, " V")).isEmpty();
  }

  @Test
  void oneLineIsChangedOrTakenOutAndTheOthersStay() {
    BandPlan plan =
        BandPlan.EMPTY.plusPosition(5).plusPosition(5).plusAlarm(WORKING).plusSwitch(WORKING);
    BandPlan changed =
        plan.with(1, BandPosition.of("fill", v(3)))
            .with(2, new AlarmBand("over", v(40), null))
            .with(0, plan.switches().getFirst().withName("closed"));
    assertThat(changed.positions().getFirst()).isEqualTo(plan.positions().getFirst());
    assertThat(changed.positions().getLast().name()).isEqualTo("fill");
    assertThat(changed.alarms().subList(0, 2)).isEqualTo(plan.alarms().subList(0, 2));
    assertThat(changed.switches()).extracting(SwitchPoint::name).containsExactly("closed");
    BandPlan less = changed.withoutPosition(0).withoutAlarm(0).withoutSwitch(0);
    assertThat(less.positions()).extracting(BandPosition::name).containsExactly("fill");
    assertThat(less.alarms()).extracting(AlarmBand::name).containsExactly("in range", "over");
    assertThat(less.switches()).isEmpty();
  }

  @Test
  void aSwitchKeepsWhatIsNotChanged() {
    BandPlan plan = BandPlan.EMPTY.plusSwitch(WORKING).plusSwitch(WORKING);
    SwitchPoint s = plan.switches().getLast();
    assertThat(s).isEqualTo(new SwitchPoint("contact 2", v(0), v(1), null, null, false));
    SwitchPoint seen =
        s.withObservations(v(1.2), null).withName("closed").withAt(v(2)).withWindow(v(3));
    assertThat(seen).isEqualTo(new SwitchPoint("closed", v(2), v(3), v(1.2), null, false));
    assertThatThrownBy(() -> s.withName(" ")).isInstanceOf(QuantityException.class);
    assertThatThrownBy(() -> s.withAt(null)).hasMessageContaining("its place and its window");
    assertThatThrownBy(() -> s.withWindow(v(0))).hasMessageContaining("must be above 0; read 0");
  }

  @Test
  void whatCannotBeIsRefusedByName() {
    BandPlan plan = BandPlan.EMPTY;
    assertThatThrownBy(() -> plan.withDwell(v(-1))).hasMessageContaining("dwell");
    assertThatThrownBy(() -> plan.withHysteresis(v(-1))).hasMessageContaining("hysteresis");
    assertThatThrownBy(() -> plan.withLever(v(0), null)).hasMessageContaining("lever");
    assertThatThrownBy(() -> plan.withLever(null, v(361))).hasMessageContaining("turn");
    assertThat(plan.withLever(v(60), v(360)).turn()).isEqualTo(v(360));
  }
}
