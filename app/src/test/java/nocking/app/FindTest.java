package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import java.util.concurrent.TimeUnit;
import javafx.scene.input.KeyCode;
import nocking.app.control.DropDown;
import nocking.channel.SensorCard;
import nocking.channel.WorkStep;
import nocking.element.Signal;
import nocking.quantity.Unit;
import nocking.stage.Follower;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** A few letters lead to a part of the path, to a stage that is wanted, or to a plain word. */
@Timeout(value = 60, unit = TimeUnit.SECONDS, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
class FindTest extends WindowTest {

  @Test
  void partsAndStagesAreFoundByTheirNames() {
    openDemo("BL-P1", WorkStep.WIRE);
    hands.press(KeyCode.CONTROL, KeyCode.K).type("divider stage").press(KeyCode.ENTER);
    settled();
    assertThat(desk.step()).isEqualTo(WorkStep.CONDITION);
    hands.press(KeyCode.CONTROL, KeyCode.K).type("insert follower").press(KeyCode.ENTER);
    settled();
    assertThat(channel().design().stages().getLast()).isInstanceOf(Follower.class);
    hands.press(KeyCode.CONTROL, KeyCode.K).type("turnip");
    settled();
    assertThat(text("finder-nothing")).isEqualTo("Nothing here is called 'turnip'.");
  }

  @Test
  void aSensorCardOpensWhereItIsComparedWithTheSensorInUse() {
    openDemo("BL-P1", WorkStep.CHECK);
    SensorCard card =
        desk.book().cards().stream()
            .filter(c -> Unit.of(c.unit()).dimension().equals(channel().unit().dimension()))
            .findFirst()
            .orElseThrow();
    var before = channel();
    hands.press(KeyCode.CONTROL, KeyCode.K).type(card.name()).press(KeyCode.ENTER);
    settled();
    assertThat(desk.step()).isEqualTo(WorkStep.DEFINE);
    DropDown<?> shown = hands.node("swap-card");
    assertThat(shown.getValue()).isEqualTo(card);
    assertThat(channel()).as("looking changes nothing").isEqualTo(before);
  }

  @Test
  void aBurdenIsNotOfferedWhereAVoltageComesIn() {
    openDemo("BL-P1", WorkStep.WIRE);
    hands.press(KeyCode.CONTROL, KeyCode.K).type("insert burden");
    settled();
    assertThat(text("finder-nothing")).contains("insert burden");
    // The strip, the element's own menu and Find offer the same.
    assertThat(channel().design().stagesThatFit(1).stream().flatMap(List::stream))
        .noneMatch(s -> s.accepts().equals(Set.of(Signal.CURRENT)))
        .anyMatch(Follower.class::isInstance);
  }
}
