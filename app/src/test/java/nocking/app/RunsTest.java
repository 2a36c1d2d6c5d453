package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.function.BooleanSupplier;
import javafx.scene.control.ComboBox;
import nocking.bench.simulated.Scene;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.points.ReferencePoint;
import org.junit.jupiter.api.Test;

/** Runs from the window against the simulated bench, over its sockets. */
class RunsTest extends WindowTest {

  private void until(BooleanSupplier there) {
    while (!Hands.ask(there::getAsBoolean)) Hands.settle();
    settled();
  }

  private void atOnce(String tag) {
    openDemo(tag, WorkStep.COLLECT);
    hands.click("collect-look-run").click("run-pace-at-once");
  }

  private Channel channel(String tag) {
    return Hands.ask(() -> desk.book().byTag(tag).orElseThrow());
  }

  /** Five points up and down from the window: what is adopted is the truth within the noise. */
  @Test
  void aRunIsBegunAndItsPointsAreTakenOver() {
    atOnce("BL-P1");
    int before = channel("BL-P1").calibration().points().points().size();
    hands.enter("run-set-points", "0…60 / 15");
    hands.click("run-begin");
    until(() -> !desk.runs().running());
    List<ReferencePoint> points = channel("BL-P1").calibration().points().points();
    assertThat(points).hasSize(before + 9);
    var sensor = Scene.named("pump").orElseThrow().sensors().getFirst();
    for (ReferencePoint p : points.subList(before, before + 9)) {
      double x = p.applied().number();
      double stated = 0.0277 * (0.01 + 0.005 + 0.03 + 0.01) + 4 * 0.0006 / Math.sqrt(10);
      assertThat(p.mean()).isCloseTo(sensor.volts().applyAsDouble(x), within(stated));
    }
    assertThat(text("message")).contains("9 points are taken over");
    assertThat(column("run-points", 4)).startsWith("up", "up", "up", "up");
    // What was recorded stays when the points are taken back.
    hands.press(javafx.scene.input.KeyCode.CONTROL, javafx.scene.input.KeyCode.Z);
    assertThat(channel("BL-P1").calibration().points().points()).hasSize(before);
    assertThat(desk.store().runs()).singleElement().matches(r -> !r.unfinished());
  }

  /** Two channels of one bath, held, skipped and stopped with reasons. */
  @Test
  void twoChannelsAreReadTogether() {
    atOnce("RW-T1");
    hands.run(
        () -> {
          ComboBox<?> box = (ComboBox<?>) shell.scene().lookup("#run-reference");
          assertThat(box.getValue()).isEqualTo("simulated bath");
        });
    // The incubator is locked: it is not offered.
    assertThat(hands.has("run-with-IN-T2")).isFalse();
  }
}
