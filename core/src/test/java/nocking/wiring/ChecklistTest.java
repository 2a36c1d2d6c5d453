package nocking.wiring;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import nocking.quantity.QuantityException;
import nocking.wiring.Checklist.Tick;
import nocking.wiring.WireStep.Phase;
import org.junit.jupiter.api.Test;

/** What of the wiring has been done, by whom and when. */
class ChecklistTest {
  private static final WireStep CRIMP = Checklist.EMPTY.steps(Phase.MAKE).get(3);

  @Test
  void aStepIsDoneOnceAndMayBeOpenAgain() {
    Checklist done =
        Checklist.EMPTY
            .with(new Tick(CRIMP.text(), "2026-03-01T10:00", "KS", ""))
            .with(new Tick(CRIMP.text(), "2026-03-01T10:05", "KS", "held"));
    assertThat(done.done()).hasSize(1);
    assertThat(done.tick(CRIMP).orElseThrow().measured()).isEqualTo("held");
    assertThat(done.ticked()).isEqualTo(1);
    assertThat(done.open(CRIMP)).isEqualTo(Checklist.EMPTY);
  }

  /** What is only normal is nothing to be done. */
  @Test
  void whatIsNormalIsNotToBeDone() {
    assertThat(Checklist.EMPTY.todo())
        .hasSize(12)
        .noneMatch(s -> s.phase() == Phase.NORMAL)
        .extracting(WireStep::phase)
        .isSorted();
  }

  @Test
  void ownLinesStandBehindTheShippedOnesOfTheirPhase() {
    Checklist own = Checklist.EMPTY.plus(Phase.BEFORE, " Drip loop below the gland. ");
    WireStep added = own.steps(Phase.BEFORE).getLast();
    assertThat(added.text()).isEqualTo("Drip loop below the gland.");
    assertThat(own.todo()).hasSize(13);
    Checklist ticked = own.with(new Tick(added.text(), "2026-03-01T10:00", "", ""));
    assertThat(ticked.without(added)).isEqualTo(Checklist.EMPTY);
    assertThat(ticked.without(CRIMP)).as("a shipped step stays").isEqualTo(ticked);
    assertThatThrownBy(() -> own.plus(Phase.MAKE, "Drip loop below the gland."))
        .isInstanceOf(QuantityException.class)
        .hasMessageContaining("is there already");
    assertThatThrownBy(() -> own.plus(Phase.MAKE, "  ")).hasMessage("a step needs its words");
    assertThatThrownBy(() -> new Tick(" ", "", "", "")).hasMessage("a tick needs its step");
    assertThatThrownBy(() -> new Checklist(List.of(added, added), List.of()))
        .hasMessage("the step 'Drip loop below the gland.' is there already");
    assertThatThrownBy(
            () -> new Checklist(List.of(new WireStep(Phase.NORMAL, "Warm", "")), List.of()))
        .hasMessage("the step 'Warm' is nothing to be done");
    assertThat(new Checklist(null, null)).isEqualTo(new Checklist(List.of(), List.of()));
  }
}
