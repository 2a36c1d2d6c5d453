package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.file.Path;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.Region;
import javafx.stage.Stage;
import nocking.app.desk.Settings;
import nocking.channel.WorkStep;
import nocking.parts.PreferredSeries;
import nocking.stage.Divider;
import nocking.stage.PullUp;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Whole paths proposed and put in, parts below a limit, and sides that fold away. */
class PathsAndRailsTest extends WindowTest {
  @TempDir Path home;

  @Test
  void aProposedPathIsPutInWithOneKeyAndTakenOutAgain() {
    openDemo("RW-T1", WorkStep.CONDITION);
    var before = channel().design().stages();
    hands.click("condition-view-paths").fill("paths-supply", "3.3");
    hands.click("paths-propose");
    settled();
    assertThat(column("paths-grid", 0)).first().isEqualTo("pull-up");
    assertThat(text("paths-note")).contains("broken wires told");
    select("paths-grid", 1);
    hands.click("paths-take");
    assertThat(channel().design().stages()).hasSize(1).isNotEqualTo(before);
    assertThat(text("message")).contains("In the path: pull-down");
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(channel().design().stages()).isEqualTo(before);
    assertThat(before.getFirst()).isInstanceOf(PullUp.class);
  }

  @Test
  void forTheMainsNothingIsProposedAndItSaysWhy() {
    openDemo("AE-V1", WorkStep.CONDITION);
    hands.click("condition-view-paths").click("paths-propose");
    settled();
    assertThat(text("paths-note")).contains("what isolates it has to be chosen first");
    assertThat(column("paths-grid", 0)).isEmpty();
    hands.fill("paths-supply", "0");
    assertThat(wrong("paths-supply")).isTrue();
  }

  /** What was proposed for one channel is not offered on another. */
  @Test
  void proposalsStayWithTheirChannel() {
    openDemo("RW-T1", WorkStep.CONDITION);
    hands.click("condition-view-paths").click("paths-propose");
    settled();
    hands.run(() -> desk.select(desk.book().byTag("BL-P1").orElseThrow().id()));
    assertThat(column("paths-grid", 0)).isEmpty();
  }

  /** 2.92 V · R2/(R1 + R2) with both parts 1 % off stays below the limit. */
  @Test
  void partsNeverPassTheLimitThatWasSet() {
    openDemo("BL-P1", WorkStep.CONDITION);
    hands.click("condition-view-parts");
    choose("wanted-series", PreferredSeries.E24);
    hands.fill("wanted-to", "0.3 … 1.8").fill("wanted-never", "1.8");
    hands.click("wanted-choose");
    settled();
    assertThat(column("wanted-grid", 0)).isNotEmpty();
    select("wanted-grid", 0);
    hands.click("wanted-take");
    var d = (Divider) channel().design().stages().getFirst();
    double t = d.upper().spread().limit() / 100;
    double lower = d.lower().number() * (1 + t);
    double most = 2.92 * lower / (d.upper().number() * (1 - t) + lower);
    assertThat(most).isLessThanOrEqualTo(1.8).isCloseTo(1.8, within(0.1));
    hands.fill("wanted-never", "nothing");
    assertThat(wrong("wanted-never")).isTrue();
  }

  private double width(String id) {
    return Hands.ask(() -> ((Region) shell.scene().lookup("#" + id)).getWidth());
  }

  @Test
  void sidesFoldByKeyAndButtonAndStayAsTheyWereLeft() {
    openDemo("BL-P1", WorkStep.CONDITION);
    Path file = home.resolve("window.properties");
    hands.run(() -> desk.settings(Settings.in(file)));
    assertThat(width("findings")).isGreaterThan(200);
    hands.press(KeyCode.CONTROL, KeyCode.J);
    assertThat(width("findings")).isLessThan(60);
    assertThat(hands.has("findings-counts")).isTrue();
    hands.click("fold-findings");
    assertThat(width("findings")).isGreaterThan(200);
    hands.click("fold-channels");
    assertThat(width("rack")).isLessThan(60);
    assertThat(Settings.in(file).is("channels.folded.wide", false)).isTrue();
    assertThat(Settings.in(file).is("findings.folded.wide", true)).isFalse();
  }

  /** In a narrow window the findings make room by themselves, until they are asked for. */
  @Test
  void narrowWindowsFoldTheFindings() {
    openDemo("BL-P1", WorkStep.CONDITION);
    var window = (Stage) Hands.ask(() -> shell.scene().getWindow());
    hands.run(() -> window.setWidth(1100));
    assertThat(width("findings")).isLessThan(60);
    hands.click("findings-counts");
    assertThat(width("findings")).isGreaterThan(200);
    hands.run(() -> window.setWidth(1300));
    assertThat(width("findings")).isGreaterThan(200);
    hands.run(() -> window.setWidth(1100));
    assertThat(width("findings")).isGreaterThan(200);
  }
}
