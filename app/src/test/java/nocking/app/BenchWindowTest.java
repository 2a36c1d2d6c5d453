package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.function.BooleanSupplier;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.stage.Stage;
import javafx.stage.Window;
import nocking.bench.simulated.BenchState;
import nocking.bench.simulated.Fault;
import nocking.channel.WorkStep;
import org.junit.jupiter.api.Test;

/** The bench that stands in, in a window of its own: what its knobs do is what a meter reads. */
class BenchWindowTest extends WindowTest {

  private void until(BooleanSupplier there) {
    while (!Hands.ask(there::getAsBoolean)) Hands.settle();
    settled();
  }

  private Stage bench() {
    return Window.getWindows().stream()
        .filter(w -> w instanceof Stage s && "Bench that stands in".equals(s.getTitle()))
        .map(Stage.class::cast)
        .findFirst()
        .orElseThrow();
  }

  @SuppressWarnings("unchecked")
  private <T extends Node> T there(String id) {
    return (T) Hands.ask(() -> bench().getScene().lookup("#" + id));
  }

  private void press(String id) {
    Button b = there(id);
    hands.run(b::fire);
    settled();
  }

  private void openBench(String tag) {
    openDemo(tag, WorkStep.CHECK);
    hands.press(KeyCode.CONTROL, KeyCode.K).type("simulated bench").press(KeyCode.ENTER);
    until(() -> desk.runs().standIn().isPresent());
  }

  private BenchState state() {
    return Hands.ask(() -> desk.runs().standIn().orElseThrow().state());
  }

  private void close() {
    Stage s = Hands.ask(this::bench);
    hands.run(s::hide);
  }

  /** Its knob is turned, the meter that is live follows, and trouble is trouble. */
  @Test
  void theKnobsAreThoseOfTheBench() {
    openBench("BL-P1");
    hands.press(KeyCode.F6);
    until(() -> desk.live().now().isPresent());
    TextField bring = there("bench-bring");
    hands.run(
        () -> {
          bring.setText("40 kPa");
          bring.fireEvent(new javafx.event.ActionEvent());
        });
    until(() -> Math.abs(desk.runs().standIn().orElseThrow().state().applied() - 40) < 0.5);
    until(() -> desk.live().now().map(r -> Math.abs(r.quantity() - 40) < 3).orElse(false));
    Labeled feels = there("bench-feels");
    until(() -> feels.getText().matches("BL-P1 is at (39|40)\\.\\d+ kPa"));
    ComboBox<Fault> fault = there("bench-fault-1");
    hands.run(() -> fault.setValue(Fault.PULLED_WIRE));
    until(() -> desk.live().now().map(r -> r.volts() < 0.05).orElse(false));
    assertThat(there("bench-picture").getAccessibleText()).startsWith("hand pump");
    hands.press(KeyCode.F6);
    close();
  }

  /** A clamp is loosened and tightened by hand: it shifts what the sensor gives. */
  @Test
  void theClampIsTurnedByHand() {
    openDemo("SG-P1", WorkStep.COLLECT);
    hands.click("collect-view-run");
    choose("run-kind", "mechanical trim");
    settled();
    hands.press(KeyCode.CONTROL, KeyCode.K).type("simulated bench").press(KeyCode.ENTER);
    settled();
    assertThat(state().tight()).isTrue();
    press("bench-loosen");
    assertThat(state().tight()).isFalse();
    press("bench-to-4");
    until(() -> desk.runs().standIn().orElseThrow().state().applied() > 14.9);
    press("bench-tighten");
    press("bench-to-0");
    assertThat(state().applied()).isCloseTo(15, within(0.2));
    close();
  }

  /** A channel that stands on no simulated bench says so. */
  @Test
  void whatHasNoStandInSaysSo() {
    openDemo("PD-Q1", WorkStep.CHECK);
    hands.press(KeyCode.CONTROL, KeyCode.K).type("simulated bench").press(KeyCode.ENTER);
    settled();
    assertThat(text("message")).contains("No simulated bench stands in");
  }
}
