package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import javafx.scene.control.TextField;
import javafx.scene.control.ToggleButton;
import javafx.scene.input.KeyCode;
import nocking.channel.WorkStep;
import nocking.points.ReferencePoint;
import org.junit.jupiter.api.Test;

/** What is half done on one channel is that channel's, and waits there. */
class InHandTest extends WindowTest {
  private void look(String tag) {
    hands.run(() -> desk.select(desk.book().byTag(tag).orElseThrow().id()));
    settled();
  }

  private boolean chosen(String id) {
    return Hands.ask(() -> ((ToggleButton) shell.scene().lookup("#" + id)).isSelected());
  }

  private String field(String id) {
    return Hands.ask(() -> ((TextField) shell.scene().lookup("#" + id)).getText());
  }

  private ReferencePoint typedBelow(String applied) {
    int row = channel().calibration().points().points().size();
    into("points", row, 1);
    hands.type(applied).press(KeyCode.ENTER);
    settled();
    return channel().calibration().points().points().getLast();
  }

  @Test
  void theWayOfEnteringIsNotCarriedToTheNextChannel() {
    openDemo("HD-L1", WorkStep.COLLECT);
    hands.click("collect-view-points");
    hands.click("applied-as-steps");
    typedBelow("0.2");
    assertThat(typedBelow("0.1").applied().number()).isCloseTo(0.3, within(1e-12));
    look("BL-P1");
    assertThat(chosen("applied-as-total")).isTrue();
    assertThat(typedBelow("10").applied().number()).isEqualTo(10);
    look("HD-L1");
    assertThat(chosen("applied-as-steps")).isTrue();
  }

  @Test
  void aReasonHalfTypedWaitsAtItsChannel() {
    openDemo("BL-P1", WorkStep.COLLECT);
    hands.click("collect-view-points");
    select("points", 0);
    hands.fill("leave-reason", "hose kinked");
    look("HD-L1");
    assertThat(field("leave-reason")).isEmpty();
    look("BL-P1");
    assertThat(field("leave-reason")).isEqualTo("hose kinked");
  }

  @Test
  void whatWasSaidOfOneChannelIsNotSaidOfTheNext() {
    openDemo("HD-L1", WorkStep.COLLECT);
    hands.run(() -> desk.say("Pasted 32 cells.", false));
    look("BL-P1");
    assertThat(message()).doesNotContain("Pasted");
  }
}
