package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.VBox;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.Hazard;
import nocking.channel.QuantityKind;
import nocking.channel.SensorCard;
import nocking.channel.UnitChange;
import nocking.channel.WorkStep;
import nocking.parts.PreferredSeries;
import nocking.parts.StockPart;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.FormulaSensor;
import nocking.sensor.NtcBeta;
import nocking.sensor.NtcSteinhart;
import nocking.sensor.PlatinumRtd;
import nocking.sensor.RatiometricSensor;
import nocking.sensor.Sensor;
import nocking.sensor.TableSensor;
import nocking.stage.Divider;
import nocking.stage.PullUp;
import org.junit.jupiter.api.Test;

/** Define and Condition by mouse and keyboard: sensors of all kinds, parts, swaps, equations. */
class DefineAndConditionTest extends WindowTest {

  /** A new channel of temperature with nothing said about its sensor. */
  private void blank() {
    open(new Book(List.of(Channel.blank("x", "X-1"))));
  }

  private String clipboard() {
    return Hands.ask(() -> Clipboard.getSystemClipboard().getString());
  }

  private static double ratio(Channel c) {
    Divider d = (Divider) c.design().stages().getFirst();
    return d.lower().number() / (d.upper().number() + d.lower().number());
  }

  @Test
  void dividerIsDesignedFromTheDrawer() {
    openDemo("BL-P1", WorkStep.CONDITION);
    hands.click("condition-view-parts");
    hands.fill("wanted-to", "0.3 … 1.8");
    hands.fill("wanted-total", "5k … 60k");
    hands.click("wanted-stock");
    settled();
    assertThat(text("wanted-note")).contains("R1").contains("R2");
    List<StockPart> drawer = Hands.ask(() -> desk.book().stock());
    hands.click("wanted-take");
    Divider d = (Divider) channel().design().stages().getFirst();
    assertThat(drawer).extracting(StockPart::ohms).contains(d.upper().number(), d.lower().number());
    assertThat(ratio(channel())).isCloseTo(1.8 / 2.92, within(0.02));
    assertThat(d.upper().spread().limit()).isEqualTo(1);
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(ratio(channel())).isCloseTo(10 / 15.1, within(1e-12));
  }

  @Test
  void wishThatCannotBeIsSaidInOneSentence() {
    openDemo("BL-P1", WorkStep.CONDITION);
    hands.click("condition-view-parts");
    hands.fill("wanted-to", "0.3 … 9");
    hands.click("wanted-choose");
    settled();
    assertThat(text("wanted-note")).startsWith("A divider makes a smaller voltage");
    hands.fill("wanted-to", "nonsense");
    assertThat(wrong("wanted-to")).isTrue();
  }

  @Test
  void gainOfTheDifferenceAmplifierIsMadeOfPreferredValues() {
    openDemo("IN-T2", WorkStep.CONDITION);
    hands.run(() -> desk.force("unlock", c -> c.journal(j -> j.withLocked(false))));
    hands.click("condition-view-parts");
    choose("wanted-series", PreferredSeries.E96);
    choose("wanted-parts", 3);
    hands.fill("wanted-to", "0.2 … 3.1");
    hands.click("wanted-choose");
    settled();
    hands.click("wanted-take");
    var path = analysis().design().path().orElseThrow();
    assertThat(path.linear().orElseThrow().pivot()).isCloseTo(9, within(0.01));
    assertThat(path.output(14) - path.output(4)).isCloseTo(2.9, within(0.01));
  }

  @Test
  void sensorIsSwappedAfterSeeingWhatItWouldSay() {
    openDemo("BL-P1", WorkStep.DEFINE);
    hands.click("define-view-swap");
    SensorCard large =
        Hands.ask(
            () ->
                desk.book().cards().stream()
                    .filter(c -> c.name().equals("Manifold 250 g"))
                    .findFirst()
                    .orElseThrow());
    choose("swap-card", large);
    assertThat(text("swap-sentence"))
        .isEqualTo("At rest the new one reads the same; at full scale 36 kPa low.");
    assertThat(text("swap-nodes"))
        .isEqualTo("Full scale: TP1 2.920 V → 1.408 V, TP2 1.934 V → 932.5 mV, code 2400 → 1157");
    assertThat(((RatiometricSensor) channel().design().sensor()).highAt().number()).isEqualTo(100);
    hands.click("swap-accept");
    assertThat(((RatiometricSensor) channel().design().sensor()).highAt().number()).isEqualTo(250);
    assertThat(channel().design().card().name()).isEqualTo("Manifold 250 g");
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(((RatiometricSensor) channel().design().sensor()).highAt().number()).isEqualTo(100);
  }

  @Test
  void derivedEquationIsReadFromTheClipboard() {
    openDemo("IN-T2", WorkStep.CONDITION);
    hands.click("equation-copy");
    assertThat(clipboard())
        .contains("(4)  T = ((Vout − Vr)·Rg/Rf + Vc − V0)/S")
        .contains("pivot 9.00 °C");
    hands.click("form-latex");
    hands.click("equation-copy");
    assertThat(clipboard()).contains("\\frac{");
    hands.click("form-c");
    hands.click("equation-copy");
    assertThat(clipboard()).contains("double in_t2_quantity(double Vout)");
    hands.click("form-sheet");
    hands.click("equation-copy");
    assertThat(clipboard()).startsWith("=((Vout");
  }

  @Test
  void derivationIsGoneThroughStepByStep() {
    openDemo("IN-T2", WorkStep.CONDITION);
    hands.click("equation-earlier").click("equation-earlier");
    var steps = (VBox) Hands.ask(() -> shell.scene().lookup("#equation-steps"));
    // The solved equation stands by itself above the steps that lead to it.
    var result = (VBox) Hands.ask(() -> shell.scene().lookup("#equation-result"));
    assertThat(steps.getChildren()).extracting(Node::isVisible).containsExactly(true, true, false);
    assertThat(result.getChildren()).extracting(Node::isVisible).containsExactly(false);
    hands.click("equation-later");
    assertThat(steps.getChildren().get(2).isVisible()).isTrue();
    hands.click("equation-later");
    assertThat(result.getChildren()).extracting(Node::isVisible).containsExactly(true);
  }

  @Test
  void leastSpanThatHoldsTheRangeIsMarked() {
    openDemo("BL-P1", WorkStep.DEFINE);
    hands.click("define-view-which-range?");
    assertThat(column("range-grid", 0))
        .containsExactly("Suction 50 g", "Manifold 100 g", "Manifold 250 g", "Line 1000 g");
    assertThat(column("range-grid", 1))
        .containsExactly("saturates", "fits", "too coarse", "too coarse");
    hands.fill("range-spans", "0…70");
    assertThat(column("range-grid", 1)).startsWith("saturates", "fits", "larger", "too coarse");
    select("range-grid", 2);
    hands.click("range-take");
    assertThat(text("swap-sentence"))
        .isEqualTo("At rest the new one reads the same; at full scale the same.");
  }

  @Test
  void datasheetTableIsPastedWithItsUnits() {
    blank();
    hands.click("have-table");
    clipboard("T\tR\n°C\tkΩ\n0\t32.65\n25\t10\n50\t3.6\n");
    hands.click("sensor-paste");
    var t = (TableSensor) channel().design().sensor();
    assertThat(t.points()).hasSize(3);
    assertThat(t.points().get(0).output().number()).isEqualTo(32650);
    assertThat(text("message")).contains("output in kΩ");
    assertThat(Hands.ask(() -> desk.analysis().findings()).getFirst().fix()).isPresent();
    clipboard("T\tR\n°C\tkΩ\n0\t32.65\n25\t10\n50\t11\n");
    hands.click("sensor-paste");
    assertThat(message()).contains("table rows 2 and 3");
    assertThat(((TableSensor) channel().design().sensor()).points().get(2).output().number())
        .isEqualTo(3600);
  }

  @Test
  void thermistorFromPointsGetsItsPullUpInOneAction() {
    blank();
    hands.click("have-ntc-beta");
    hands.fill("sensor-points", "25: 10k, 85: 1070").press(KeyCode.ENTER);
    assertThat(((NtcBeta) channel().design().sensor()).beta().number())
        .isCloseTo(3977.5, within(0.1));
    hands.fill("sensor-points", "0: 32650, 25: 10k, 100: 680").press(KeyCode.ENTER);
    assertThat(channel().design().sensor()).isInstanceOf(NtcSteinhart.class);
    assertThat(analysis().design().path()).isEmpty();
    hands.run(
        () -> {
          var fix = desk.analysis().findings().getFirst().fix().orElseThrow();
          desk.edit(fix.label(), "", fix.apply());
        });
    assertThat(channel().design().stages().getFirst()).isInstanceOf(PullUp.class);
    assertThat(analysis().design().path()).isPresent();
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT2);
    hands.click("condition-view-parts").click("wanted-choose");
    settled();
    assertThat(text("wanted-note")).contains("straight within");
  }

  @Test
  void formulaThatTurnsKeepsTheLastGoodOne() {
    blank();
    hands.click("have-formula");
    hands.fill("sensor-formula", "0.4 + x/50");
    assertThat(((FormulaSensor) channel().design().sensor()).formula()).isEqualTo("0.4 + x/50");
    hands.fill("sensor-formula", "(x - 30)^2/1000");
    assertThat(wrong("sensor-formula")).isTrue();
    assertThat(((FormulaSensor) channel().design().sensor()).formula()).doesNotContain("^2");
  }

  @Test
  void everyModelIsOfferedAndWorks() {
    blank();
    for (var model : Sensor.models()) {
      hands.run(
          () ->
              desk.edit("clear", "", c -> c.design(d -> d.withSensor(null).withStages(List.of()))));
      hands.run(
          () -> {
            desk.edit(
                "unit",
                "",
                c ->
                    c.define(
                        d ->
                            model.model().equals("ac")
                                ? d.withUnit("V")
                                : model.model().equals("stepped")
                                    ? d.withUnit("").withRange(Value.of(1), Value.of(3))
                                    : d.withUnit("°C").withRange(Value.of(0), Value.of(100))));
          });
      hands.click("have-" + model.model());
      assertThat(channel().design().sensor().model()).isEqualTo(model.model());
      assertThat(Hands.ask(() -> desk.analysis().design().sensorCurve()))
          .as(model.model())
          .isPresent();
    }
  }

  /** Pressure and mains bring their caution along; it can be taken off again. */
  @Test
  void cautionStandsWhereADangerIsEntered() {
    blank();
    choose("define-kind", QuantityKind.PRESSURE);
    assertThat(channel().definition().hazards()).containsExactly(Hazard.PRESSURE);
    assertThat(analysis().findings()).extracting(f -> f.rule()).contains("caution");
    hands.click("hazard-pressure");
    assertThat(channel().definition().hazards()).isEmpty();
    choose("define-kind", QuantityKind.VOLTAGE);
    hands.click("have-ac");
    assertThat(channel().definition().hazards()).containsExactly(Hazard.MAINS);
  }

  /** A temperature sensor on a channel of pressure is said, and nothing breaks. */
  @Test
  void sensorOfAnotherQuantityIsSaid() {
    openDemo("RW-T1", WorkStep.DEFINE);
    hands.run(() -> desk.edit("rtd", "", c -> c.design(d -> d.withSensor(PlatinumRtd.of(100)))));
    hands.run(() -> desk.edit("unit", "", c -> UnitChange.apply(c, Unit.of("kPa"))));
    assertThat(analysis().findings().getFirst().detail())
        .contains("This sensor measures a temperature and the channel's unit is kPa");
    hands.run(() -> desk.probe(5));
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT2);
    hands.click("condition-view-error");
    settled();
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(analysis().design().path()).isPresent();
  }

  @Test
  void sensorIsKeptAsACardAndSaysWhenItDeparts() {
    openDemo("GV-P1", WorkStep.DEFINE);
    hands.click("card-keep");
    assertThat(channel().design().card().name()).isEqualTo("GV-P1 Two points");
    assertThat(Hands.ask(() -> desk.book().cards())).hasSize(8);
    hands.fill("sensor-highOutput", "4.8 V");
    assertThat(analysis().findings()).extracting(f -> f.rule()).contains("card-departure");
    hands.click("card-keep");
    assertThat(channel().design().card().revision()).isEqualTo(2);
    assertThat(analysis().findings()).extracting(f -> f.rule()).doesNotContain("card-departure");
    assertThat(onDisk().cards().getLast().revision()).isEqualTo(2);
  }

  @Test
  void drawerIsImportedFromAFile() throws IOException {
    openDemo("BL-P1", WorkStep.CONDITION);
    hands.click("condition-view-parts");
    Path good = folder.resolve("drawer.csv");
    Files.writeString(good, "value;quantity\n4k7;3\n10k;2\n");
    Path bad = folder.resolve("bad.csv");
    Files.writeString(bad, "value;quantity\n4k7;3\nmany;2\n");
    hands.click("wanted-drawer");
    chosen.add(bad);
    hands.click("drawer-import");
    settled();
    assertThat(Hands.ask(() -> desk.book().stock())).hasSize(42);
    chosen.add(good);
    hands.click("drawer-import");
    settled();
    assertThat(Hands.ask(() -> desk.book().stock()))
        .extracting(StockPart::ohms)
        .containsExactly(4700.0, 10000.0);
    hands.press(KeyCode.ESCAPE);
    assertThat(onDisk().stock()).hasSize(2);
  }

  @Test
  void whatIfShowsBothEquationsAndTheShiftOfThePivot() {
    openDemo("IN-T2", WorkStep.CONDITION);
    hands.click("condition-view-what-if");
    choose("whatif-symbol", "Vc");
    hands.fill("whatif-value", "528 mV");
    assertThat(text("whatif-now")).contains("2.8889");
    assertThat(text("whatif-then")).contains("2.7889");
    assertThat(text("whatif-shift")).startsWith("The pivot moves from 9.00 to 8.90 °C");
    assertThat(channel().design().stages().getFirst().number("Vc")).isEqualTo(0.53);
  }

  @Test
  void errorBudgetIsDrawnAndLeadsToThePart() {
    openDemo("IN-T2", WorkStep.CONDITION);
    hands.click("condition-view-error");
    settled();
    assertThat(text("error-sentence")).startsWith("Worst case ±");
    hands.click("error-draw");
    settled();
    assertThat(text("error-sentence")).contains("95 % of 200 000 draws within");
    hands.click("error-when-calibrated");
    assertThat(text("error-sentence")).contains("Worst case ±0.0015 °C");
    hands.click("error-when-as-built");
    hands.click("share-Rf");
    assertThat(hands.has("element-feedback")).isTrue();
  }

  @Test
  void toleranceIsTypedBehindTheValue() {
    openDemo("BL-P1", WorkStep.CONDITION);
    hands.fill("element-upper", "5k1 ±1% 50ppm");
    Value upper = ((Divider) channel().design().stages().getFirst()).upper();
    assertThat(upper.number()).isEqualTo(5100);
    assertThat(upper.spread().temperatureCoefficient()).isEqualTo(50);
    assertThat(
            ((Divider) onDisk().byTag("BL-P1").orElseThrow().design().stages().getFirst()).upper())
        .isEqualTo(upper);
  }
}
