package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import javafx.geometry.Point2D;
import javafx.scene.control.Button;
import javafx.scene.input.KeyCode;
import nocking.app.control.PlotView;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.fit.Fit;
import org.junit.jupiter.api.Test;

/** Candidates side by side, one of them adopted. */
class FitViewTest extends WindowTest {

  private Channel channel(String tag) {
    return Hands.ask(() -> desk.book().byTag(tag).orElseThrow());
  }

  /** Selects a row that may have to be scrolled to; the button says which one it is. */
  private void choose(int row, String model) {
    hands.run(
        () -> {
          table("fits").scrollTo(row);
          table("fits").getSelectionModel().select(row);
        });
    settled();
    String says = Hands.ask(() -> ((Button) shell.scene().lookup("#fit-adopt")).getText());
    assertThat(says).isEqualTo("Adopt " + model);
  }

  private boolean canAdopt() {
    return Hands.ask(() -> !((Button) shell.scene().lookup("#fit-adopt")).isDisabled());
  }

  /** A bent model is adopted with one key, shows its constants, and is taken back. */
  @Test
  void aCurvedModelIsAdopted() {
    openDemo("RW-T1", WorkStep.FIT);
    settled();
    assertThat(text("fit-reason")).startsWith("Simplest that is good enough: Design equation.");
    assertThat(column("fits", 0)).contains("Least-squares line", "Least-worst line", "Logarithm");
    assertThat(table("fits").getItems()).hasSizeGreaterThan(15);
    choose(7, "polynomial of degree 3");
    assertThat(column("coefficients", 0)).hasSize(4);
    hands.click("fit-adopt");
    settled();
    assertThat(channel("RW-T1").calibration().adopted().model()).isEqualTo("poly:3");
    choose(7, "polynomial of degree 3");
    assertThat(column("fits", 5)).contains("adopted");
    assertThat(canAdopt()).as("it is adopted already").isFalse();
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(channel("RW-T1").calibration().adopted().model()).isEqualTo("design");
  }

  /** A point is picked in the plot, left out with a reason, and counted again. */
  @Test
  void aPointIsLeftOutInThePlotAndBroughtBack() {
    openDemo("BL-P1", WorkStep.FIT);
    settled();
    choose(0, "design equation");
    PlotView plot = Hands.ask(() -> (PlotView) shell.scene().lookup("#fit-plot"));
    Fit design = Hands.ask(() -> analysis().calibration().fit("design").orElseThrow());
    Point2D at = Hands.ask(() -> plot.place(40, design.errors()[4]).orElseThrow());
    hands.clickAt(plot, at);
    settled();
    assertThat(text("picked-point")).isEqualTo("Point 5, 40.0 kPa: +450 kPa");
    hands.click("picked-leave-out");
    assertThat(channel("BL-P1").calibration().points().counting()).as("no reason").hasSize(7);
    assertThat(message()).startsWith("A point is left out for a reason");
    hands.fill("picked-reason", "decimal point slipped").press(KeyCode.ENTER);
    settled();
    assertThat(channel("BL-P1").calibration().points().counting()).hasSize(6);
    assertThat(text("fit-reason")).startsWith("Simplest that is good enough: Design equation.");
    assertThat(text("picked-point")).as("it stays in sight").startsWith("Point 5, 40.0 kPa");
    hands.click("picked-leave-out");
    settled();
    assertThat(channel("BL-P1").calibration().points().counting()).hasSize(7);
  }

  /** Another channel shows the model that it goes by, whatever was looked at before. */
  @Test
  void anotherChannelShowsItsOwnModel() {
    openDemo("OX-D1", WorkStep.FIT);
    settled();
    assertThat(selectedModel()).isEqualTo(2);
    hands.run(() -> desk.select(desk.book().byTag("RW-T1").orElseThrow().id()));
    settled();
    assertThat(selectedModel()).as("the design").isZero();
    hands.run(() -> desk.select(desk.book().byTag("IN-T2").orElseThrow().id()));
    settled();
    assertThat(selectedModel()).as("the least-squares line").isEqualTo(3);
  }

  private int selectedModel() {
    return Hands.ask(() -> table("fits").getSelectionModel().getSelectedIndex());
  }

  /** Enter adopts; another model and the curve itself are looked at beside it. */
  @Test
  void modelsAreComparedAndAdoptedWithEnter() {
    openDemo("RW-T1", WorkStep.FIT);
    settled();
    choose(3, "least-squares line");
    choose("fit-beside", "poly:3");
    hands.click("fit-look-curve");
    settled();
    hands.click("fit-look-other-way");
    settled();
    assertThat(text("fit-other-way"))
        .startsWith("Raw from the quantity, as if all the scatter were in the raw value: worst ")
        .contains("b0 ", "b1 ");
    hands.click("fit-look-residuals");
    hands.run(() -> table("fits").requestFocus());
    hands.press(KeyCode.ENTER);
    settled();
    assertThat(channel("RW-T1").calibration().adopted().model()).isEqualTo("line");
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(channel("RW-T1").calibration().adopted().model()).isEqualTo("design");
  }

  /** One slipped reading: nothing is advised for its sake, and a curve that turns is not taken. */
  @Test
  void nothingIsAdvisedForTheSakeOfOneSlip() {
    openDemo("BL-P1", WorkStep.FIT);
    settled();
    assertThat(text("fit-reason"))
        .startsWith("No model stays within 0.50 kPa")
        .contains("Without the point at 40 kPa Design equation would leave");
    assertThat(column("fits", 5)).doesNotContain("advised");
    choose(7, "polynomial of degree 3");
    assertThat(canAdopt()).isFalse();
    choose(3, "least-squares line");
    assertThat(canAdopt()).isTrue();
  }
}
