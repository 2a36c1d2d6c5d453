package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.input.KeyCode;
import nocking.channel.Book;
import nocking.finding.Finding;
import nocking.sensor.Potentiometer;
import nocking.sensor.TableSensor;
import nocking.stage.Divider;
import nocking.view.Belief;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;

/**
 * Ten jobs of the trade from an empty book, by mouse and keyboard, each with the number of clicks
 * and keys that it may take at most. Letters and digits that name or measure something count too.
 */
class TenJobsTest extends WindowTest {

  @BeforeEach
  void emptyBook() {
    open(Book.EMPTY);
    hands.click("first-channel");
    settled();
    assertThat(Hands.<String>ask(() -> shell.scene().getFocusOwner().getId()))
        .isEqualTo("define-tag");
  }

  private void took(int clicks, int keys) {
    assertThat(hands.clicks()).as("clicks").isLessThanOrEqualTo(clicks);
    assertThat(hands.keys()).as("keys").isLessThanOrEqualTo(keys);
  }

  /** The tag is marked when a channel begins; Tab goes on to its name and its quantity. */
  private void begin(String tag, int kind, String range, String tolerance) {
    hands.type(tag).press(KeyCode.TAB).press(KeyCode.TAB);
    for (int i = 0; i < kind; i++) hands.press(KeyCode.DOWN);
    hands.enter("define-range", range).press(KeyCode.TAB).type(tolerance);
    assertThat(channel().tag()).isEqualTo(tag);
  }

  private Divider divider(int stage) {
    return (Divider) channel().design().stages().get(stage);
  }

  private String finding(String rule) {
    return analysis().findings().stream()
        .filter(f -> f.rule().equals(rule))
        .map(Finding::text)
        .findFirst()
        .orElse("");
  }

  @Test
  void ratioSensorThroughADividerFromTheDrawer() throws IOException {
    begin("BL-P1", 1, "0..100", "0.5");
    hands.click("have-ratiometric");
    hands.enter("sensor-lowFraction", "8").press(KeyCode.TAB).type("100");
    hands.press(KeyCode.TAB).type("92");
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT2);
    hands.click("insert-0").choose("insert-divider");
    hands.click("condition-view-parts").click("wanted-drawer");
    Path csv = folder.resolve("drawer.csv");
    Files.writeString(
        csv,
        "value,tolerance,power,voltage,quantity,name\n5k1,1,0.25,250,4,\n10k,1,0.25,250,9,\n"
            + "6k8,1,0.25,250,2,\n22k,1,0.25,250,2,\n");
    chosen.add(csv);
    hands.click("drawer-import").click("drawer-close");
    hands.enter("wanted-never", "3.3").click("wanted-stock");
    settled();
    hands.click("wanted-take");
    List<Double> drawer = Hands.ask(() -> desk.book().stock().stream().map(p -> p.ohms()).toList());
    assertThat(drawer).hasSize(4);
    assertThat(analysis().design().path().orElseThrow().output(100)).isBetween(2.9, 3.3);
    assertThat(channel().design().sensor().ratiometricSupply()).hasValue(5.0);
    took(14, 42);
  }

  @Test
  void thermistorFromAPastedText() {
    begin("RW-T1", 0, "0..25", "0.5");
    clipboard(
        """
        Thermistor, two types
        T (°C)   Type A (kΩ)   Type B (kΩ)
        0        32,65         27,28
        5        25,39         21,60
        10       19,90         17,22
        15       15,71         13,81
        20       12,49         11,18
        25       10,00         9,100
        30       8,057         7,450
        """);
    hands.click("have-datasheet").press(KeyCode.CONTROL, KeyCode.V);
    assertThat(text("datasheet-verdict")).startsWith("Type A: 7 rows");
    hands.click("datasheet-use");
    TableSensor table = (TableSensor) channel().design().sensor();
    assertThat(table.points()).hasSize(7);
    assertThat(table.points().get(5).output().number()).isEqualTo(10e3);
    hands.click("fix-path-problem");
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT2);
    hands.click("condition-view-parts").click("wanted-choose");
    settled();
    hands.click("wanted-take");
    var path = analysis().design().path().orElseThrow();
    double rp = channel().design().stages().getFirst().number("Rp");
    assertThat(path.output(25)).isCloseTo(3.3 * 10e3 / (10e3 + rp), within(1e-9));
    took(8, 22);
  }

  @Test
  void loopWithBurden() {
    begin("HD-L1", 2, "0..4", "0.02");
    hands.click("have-loop");
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT2);
    hands.click("insert-0").choose("insert-burden");
    hands.enter("element-burden", "150");
    var path = analysis().design().path().orElseThrow();
    assertThat(path.output(0)).isCloseTo(0.6, within(1e-9));
    assertThat(path.output(4)).isCloseTo(3.0, within(1e-9));
    took(6, 27);
  }

  @Test
  void potentiometerWithEndResistorsAndFaultLimits() {
    begin("SG-P1", 5, "0..220", "1");
    hands.click("have-potentiometer");
    hands.enter("sensor-inside", "0.5..4.5").press(KeyCode.ENTER);
    Potentiometer p = (Potentiometer) channel().design().sensor();
    assertThat(p.top()).isNotNull();
    double total = p.topOhms() + 5000 + p.bottomOhms();
    assertThat(5 * p.bottomOhms() / total).isBetween(0.5, 0.6);
    assertThat(5 * (p.bottomOhms() + 5000) / total).isBetween(4.4, 4.5);
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT2);
    hands.enter("element-reference", "5");
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT3);
    hands.click("fault-use");
    var limits = channel().wiring().plan().thresholds();
    assertThat(limits.low().number()).isBetween(0.05, 0.5);
    assertThat(limits.high().number()).isBetween(4.5, 4.95);
    took(6, 34);
  }

  @Test
  void shrunkSwingWithWhatTheReceiverBelieves() {
    begin("PD-P1", 1, "0..100", "1");
    hands.click("have-two-point");
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT2);
    hands.enter("element-reference", "5");
    hands.click("condition-view-receiver").click("receiver-keep");
    hands.click("insert-0").choose("insert-divider");
    hands.enter("element-upper", "5k").press(KeyCode.TAB).type("10k");
    Belief b = analysis().receiver().belief().orElseThrow();
    assertThat(b.gain()).isCloseTo(2.0 / 3, within(1e-9));
    assertThat(text("strip-corner")).contains("the receiver believes").contains("gain 0.667");
    assertThat(finding("receiver-believes")).contains("effective gain 0.6667");
    took(9, 28);
  }

  @Test
  void strainBridge() {
    begin("FH-W1", 4, "0..60", "0.2");
    hands.click("have-bridge");
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT2);
    hands.click("insert-0").choose("insert-instrumentation-amp");
    hands.enter("element-gainResistor", "180");
    var path = analysis().design().path().orElseThrow();
    double gain = (path.output(60) - path.output(0)) / (5 * 2e-3);
    assertThat(gain).isGreaterThan(100);
    assertThat(path.output(60)).isLessThan(3.3);
    took(6, 27);
  }

  @Test
  void mainsMonitor() {
    begin("AE-V1", 9, "180..260", "5");
    hands.click("have-ac");
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT2);
    hands.click("insert-0").choose("insert-rectifier");
    hands.click("condition-insert").choose("condition-insert-divider");
    hands.enter("element-upper", "1.5M").press(KeyCode.TAB).type("12k");
    var path = analysis().design().path().orElseThrow();
    assertThat(path.output(260)).isLessThan(3.3);
    assertThat(finding("caution")).isNotEmpty();
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT3);
    hands.click("wire-look-bands").click("band-part-alarms").click("band-add");
    assertThat(channel().wiring().bands().alarms()).hasSize(3);
    assertThat(column("alarms", 4).get(1)).contains(" … ");
    took(11, 43);
  }

  @Test
  void selectorWithDecoderCode() throws IOException {
    begin("FD-S1", 6, "1..3", "0.3");
    hands.click("have-stepped");
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT3);
    hands.click("wire-look-bands").click("band-from-sensor");
    assertThat(channel().wiring().bands().positions()).hasSize(3);
    Path header = folder.resolve("d.h");
    chosen.add(header);
    hands.click("band-decoder").choose("band-decoder-c");
    settled();
    assertThat(Files.readString(header)).contains("fd_s1_position_selftest");
    took(7, 25);
  }

  @Test
  void proposedPathAccepted() {
    begin("RW-T1", 0, "0..25", "0.5");
    hands.click("have-ntc-beta");
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT2);
    hands.click("condition-view-paths").enter("paths-supply", "3.3").click("paths-propose");
    settled();
    hands.click("paths-take");
    assertThat(channel().design().stages()).isNotEmpty();
    assertThat(analysis().design().path()).isPresent();
    took(7, 20);
  }

  @Test
  void sensorSwappedUnderAReceiverThatKeepsItsCurve() {
    begin("BL-P1", 1, "0..4", "0.05");
    clipboard(
        """
        Supply voltage 5 V
        Output 0.5–4.5 V ratiometric
        Type   P4   P10
        Range (bar)   0…4   0…10
        Proof pressure (bar)   8   20
        """);
    hands.click("have-datasheet").press(KeyCode.CONTROL, KeyCode.V);
    hands.click("datasheet-type").press(KeyCode.DOWN).press(KeyCode.ENTER);
    hands.click("datasheet-keep");
    assertThat(channel().design().card().name()).isEqualTo("P10");
    hands.click("have-other").click("have-datasheet").press(KeyCode.CONTROL, KeyCode.V);
    hands.click("datasheet-keep");
    assertThat(channel().design().card().name()).isEqualTo("P4");
    hands.click("define-view-swap").click("swap-card");
    hands.press(KeyCode.DOWN).press(KeyCode.ENTER);
    hands.click("swap-behind");
    assertThat(channel().design().card().name()).isEqualTo("P10");
    // The receiver has the curve of 0 … 4 bar, and what stands there now has a range of 10 bar.
    Belief b = analysis().receiver().belief().orElseThrow();
    assertThat(b.gain()).isCloseTo(0.4, within(1e-9));
    assertThat(b.offset()).isCloseTo(0, within(1e-9));
    took(13, 23);
  }
}
