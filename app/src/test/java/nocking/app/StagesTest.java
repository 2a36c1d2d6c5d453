package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextArea;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyCode;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.channel.Hazard;
import nocking.channel.WorkStep;
import nocking.check.CheckTable.Measured;
import nocking.check.Verdict;
import nocking.points.RawUnit;
import org.junit.jupiter.api.Test;

/** Every stage on its own, with the demo channels: what it offers, and what it refuses. */
class StagesTest extends WindowTest {

  @Test
  void defineTakesRangesInEveryWritingAndRefusesFallingOnes() {
    openDemo("BL-P1", WorkStep.DEFINE);
    hands.fill("define-range", "0 to 8 psi");
    assertThat(channel().definition().high().number()).isCloseTo(55.158, within(1e-3));
    hands.fill("define-range", "5..50");
    assertThat(channel().definition().low().number()).isEqualTo(5);
    hands.fill("define-range", "50 … 5");
    assertThat(wrong("define-range")).isTrue();
    assertThat(channel().definition().high().number()).as("50 … 5 is not taken").isEqualTo(50);
    hands.fill("define-tag", "IN-T2").press(KeyCode.ENTER);
    assertThat(wrong("define-tag")).as("a tag is there once").isTrue();
    assertThat(channel().tag()).isEqualTo("BL-P1");
  }

  @Test
  void defineKnowsGaugeHazardsAndUnits() {
    openDemo("BL-P1", WorkStep.DEFINE);
    hands.click("define-gauge-absolute");
    assertThat(channel().definition().gauge()).isFalse();
    hands.click("hazard-heat");
    assertThat(channel().definition().hazards()).contains(Hazard.HEAT, Hazard.PRESSURE);
    assertThat(hands.has("finding-caution")).isTrue();
    hands.fill("define-unit", "ps");
    assertThat(channel().definition().unit()).as("ps is not meant yet").isEqualTo("kPa");
    hands.type("i").press(KeyCode.ENTER);
    assertThat(channel().definition().high().number()).isCloseTo(8.7023, within(1e-4));
    assertThat(analysis().design().path().orElseThrow().output(8.7022642))
        .isCloseTo(1.93377, within(1e-5));
    hands.fill("define-unit", "furlong").press(KeyCode.TAB);
    assertThat(wrong("define-unit")).isTrue();
  }

  @Test
  void newSensorStartsFromTheWorkingRange() {
    openDemo("PD-Q1", WorkStep.DEFINE);
    hands.run(
        () ->
            desk.edit(
                "clear",
                "",
                c -> c.design(d -> d.withSensor(null).withStages(java.util.List.of()))));
    hands.click("have-two-point");
    assertThat(channel().design().sensor().rated(channel().unit()).low()).isEqualTo(-40);
    assertThat(channel().design().sensor().rated(channel().unit()).high()).isEqualTo(40);
    assertThat(analysis().design().path()).isPresent();
    hands.click("have-other").click("have-linear");
    assertThat(channel().design().sensor().model()).isEqualTo("linear");
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(channel().design().sensor().model()).isEqualTo("two-point");
  }

  @Test
  void symbolOfTheEquationOpensItsElement() {
    openDemo("GV-P1", WorkStep.CONDITION);
    hands.click("element-2");
    assertThat(hands.has("element-bits")).isTrue();
    hands.click("element-1");
    assertThat(hands.has("element-upper")).isTrue();
    hands.click("condition-view-parts");
    hands.fill("condition-pivot", "100");
    assertThat(channel().definition().pivot().number()).isEqualTo(100);
    assertThat(hands.has("finding-pivot")).isTrue();
    hands.click("element-0");
    assertThat(Hands.<WorkStep>ask(() -> desk.step())).isEqualTo(WorkStep.DEFINE);
  }

  @Test
  void everyFormOfTheEquationIsShown() {
    openDemo("IN-T2", WorkStep.CONDITION);
    String[] forms = {"text", "c", "python", "sheet"};
    String[] parts = {"Vout = ", "double in_t2_quantity", "def in_t2_quantity", "=((Vout"};
    for (int i = 0; i < forms.length; i++) {
      String part = parts[i];
      hands.click("form-" + forms[i]);
      String shown = Hands.ask(() -> ((TextArea) shell.scene().lookup("#equation-text")).getText());
      assertThat(shown).contains(part);
    }
    hands.click("form-steps").click("equation-copy");
    assertThat(Hands.<String>ask(() -> Clipboard.getSystemClipboard().getString()))
        .contains("(1)  V1 = V0 + S·T")
        .contains("T = 3.7037 °C/V · Vout + 2.8889 °C");
  }

  @Test
  void wireRefusesWordsAndTestPointsHaveNoWire() {
    openDemo("GV-P1", WorkStep.WIRE);
    into("pins", 2, 6);
    hands.type("many").press(KeyCode.ENTER);
    assertThat(channel().wiring().plan().pins().get(2).measured()).isNull();
    into("pins", 2, 6);
    hands.type("12 mV").press(KeyCode.ENTER);
    assertThat(channel().wiring().plan().pins().get(2).measured().number()).isEqualTo(0.012);
    into("pins", 3, 1);
    hands.type("red").press(KeyCode.ENTER);
    assertThat(channel().wiring().plan().pins()).allMatch(p -> !p.wire().equals("red"));
    hands.fill("wire-supply", "5");
    assertThat(analysis().wiring().supply()).contains(5.0);
  }

  @Test
  void collectKeepsDirectionsAndReadsCounts() {
    openDemo("BL-P1", WorkStep.COLLECT);
    into("points", 6, 5);
    hands.type("down").press(KeyCode.ENTER);
    assertThat(channel().calibration().points().points().get(6).down()).isTrue();
    into("points", 6, 5);
    hands.type("sideways").press(KeyCode.ENTER);
    assertThat(channel().calibration().points().points().get(6).down()).isTrue();
    hands.click("raw-counts");
    assertThat(channel().calibration().points().raw()).isEqualTo(RawUnit.COUNTS);
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    into("points", 0, 1);
    hands.press(KeyCode.DELETE);
    assertThat(channel().calibration().points().points()).hasSize(6);
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(channel().calibration().points().points()).hasSize(7);
  }

  /** Units in the head count as those in a row of their own; names come before order. */
  @Test
  void aPastedHeadSaysUnitsAndWhatIsWhat() {
    openDemo("GV-P1", WorkStep.COLLECT);
    int before = channel().calibration().points().points().size();
    clipboard("reading [mV]\tapplied [cm]\tdirection\n420\t3\tdown\n840\t6\tup\n");
    into("points", before, 1);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    var all = channel().calibration().points().points();
    assertThat(all).as(message()).hasSize(before + 2);
    var first = all.get(before);
    assertThat(first.applied().number()).isCloseTo(30, within(1e-9));
    assertThat(first.mean()).isCloseTo(0.42, within(1e-9));
    assertThat(first.down()).isTrue();
    assertThat(all.get(before + 1).mean()).isCloseTo(0.84, within(1e-9));
  }

  @Test
  void blockWithHeaderAndUnitsIsPasted() {
    openDemo("GV-P1", WorkStep.COLLECT);
    clipboard("Hub\tSpannung\ncm\tmV\n0\t12,5\n11\t1490\n22\t2970\n");
    into("points", 0, 1);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    assertThat(channel().calibration().points().points()).hasSize(3);
    assertThat(channel().calibration().points().points().get(1).applied().number())
        .isCloseTo(110, within(1e-9));
    assertThat(channel().calibration().points().points().get(0).mean())
        .isCloseTo(0.0125, within(1e-9));
    assertThat(message()).contains("Pasted 3 new points").contains("decimal comma");
  }

  @Test
  void fitWithoutPointsOffersTheDesign() {
    openDemo("PD-Q1", WorkStep.FIT);
    assertThat(text("fit-reason")).startsWith("Collect reference points first");
    hands.run(() -> desk.select(desk.book().byTag("BL-P1").orElseThrow().id()));
    hands.click("fit-adopt");
    assertThat(channel().calibration().adopted()).isNotNull();
  }

  @Test
  void tableRefusesWhatNoReceiverHolds() throws IOException {
    openDemo("OX-D1", WorkStep.TABLE);
    hands.click("table-start");
    hands.fill("table-cells", "1");
    assertThat(wrong("table-cells")).isTrue();
    hands.fill("table-cells", "16");
    assertThat(channel().receiver().table().cells()).isEqualTo(16);
    hands.fill("table-raw-decimals", "0");
    assertThat(text("table-worst")).contains("too few for 16 cells");
    hands.fill("table-raw-decimals", "4");
    Path csv = folder.resolve("t.csv");
    chosen.add(csv);
    hands.click("table-csv");
    assertThat(Files.readAllLines(csv)).hasSize(18).startsWith("raw,out", "V,mg/L");
    assertThat(message()).endsWith("t.csv is written.");
  }

  /** A block is cells, also while one of them is open. */
  @Test
  void blockPastedIntoAnOpenCellGoesIntoTheGrid() {
    openDemo("GV-P1", WorkStep.COLLECT);
    clipboard("0\t0.0125\n110\t1.49\n220\t2.97\n");
    into("points", 0, 1);
    hands.press(KeyCode.F2);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
    assertThat(channel().calibration().points().points()).hasSize(3);
    assertThat(channel().calibration().points().points().get(2).mean())
        .isCloseTo(2.97, within(1e-9));
    // Readings alone replace those of the rows that they are put on.
    clipboard("0.02\n1.5\n2.98\n3.1\n");
    into("points", 0, 2);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    assertThat(channel().calibration().points().points()).hasSize(3);
    assertThat(channel().calibration().points().points().get(1).mean())
        .isCloseTo(1.5, within(1e-9));
    assertThat(message()).contains("rows 1 to 3; 1 more had no point to belong to");
    // One value goes into the open cell as it is.
    clipboard("2.99");
    into("points", 2, 2);
    hands.press(KeyCode.F2);
    hands.press(KeyCode.CONTROL, KeyCode.V).press(KeyCode.ENTER);
    assertThat(channel().calibration().points().points().get(2).mean())
        .isCloseTo(2.99, within(1e-9));
  }

  @Test
  void checkTakesReadingsAndPastedBlocks() {
    openDemo("BL-P1", WorkStep.CHECK);
    hands.click("measured-reading");
    assertThat(channel().acceptance().check().measured()).isEqualTo(Measured.READING);
    clipboard("0.1\n30.2\n61");
    into("checks", 0, 4);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    assertThat(analysis().acceptance().verdict()).isEqualTo(Verdict.FAIL);
    assertThat(hands.has("finding-check-fails")).isTrue();
    into("checks", 2, 4);
    hands.type("60.3").press(KeyCode.ENTER);
    assertThat(analysis().acceptance().verdict()).isEqualTo(Verdict.PASS);
    clipboard("10\tabc");
    into("checks", 3, 0);
    Channel before = channel();
    hands.press(KeyCode.CONTROL, KeyCode.V);
    assertThat(channel()).isEqualTo(before);
  }

  @Test
  void recordExportsWhatComesInAgain() throws IOException {
    openDemo("OX-D1", WorkStep.RECORD);
    Path json = folder.resolve("ox.json");
    Path csv = folder.resolve("ox.csv");
    chosen.add(json);
    hands.click("export-json");
    chosen.add(csv);
    hands.click("export-csv");
    assertThat(ChannelJson.readChannel(Files.readString(json), "ox.json")).isEqualTo(channel());
    assertThat(Files.readAllLines(csv)).hasSize(2 + 5);
    chosen.add(json);
    hands.press(KeyCode.CONTROL, KeyCode.K).type("Import channel").press(KeyCode.ENTER);
    assertThat(channel().tag())
        .as("a second channel with the same tag gets a free one")
        .isEqualTo("OX-D1-2");
    Files.writeString(json, "{ broken");
    chosen.add(json);
    Book before = Hands.ask(() -> desk.book());
    hands.press(KeyCode.CONTROL, KeyCode.K).type("Import channel").press(KeyCode.ENTER);
    assertThat(message()).contains("is not JSON").endsWith("The book is as it was.");
    assertThat(Hands.<Book>ask(() -> desk.book())).isEqualTo(before);
  }

  @Test
  void revisionSaysWhatIsDifferent() {
    openDemo("BL-P1", WorkStep.RECORD);
    hands.click("revision-name").type("as found").press(KeyCode.ENTER);
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT2);
    hands.fill("element-upper", "5k6");
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT8);
    hands.run(() -> table("revisions").getSelectionModel().select(0));
    String shown =
        Hands.ask(
            () ->
                shell.scene().getRoot().lookupAll(".caption").stream()
                    .map(n -> ((Labeled) n).getText())
                    .filter(t -> t.startsWith("Since then"))
                    .findFirst()
                    .orElse(""));
    assertThat(shown).isEqualTo("Since then: R1 5k6, then 5k1.");
  }

  @Test
  void frontPageLeadsToTheDemoAndTheDarkVariant() {
    open(Book.EMPTY);
    hands.click("front-demo");
    assertThat(Hands.<Book>ask(() -> desk.book()).channels()).hasSize(14);
    hands.press(KeyCode.CONTROL, KeyCode.K).type("Dark").press(KeyCode.ENTER);
    assertThat(Hands.<Boolean>ask(() -> desk.dark())).isTrue();
    hands.press(KeyCode.CONTROL, KeyCode.N);
    assertThat(channel().tag()).isEqualTo("CH-1");
    hands.type("NEW-1").press(KeyCode.ENTER);
    assertThat(channel().tag()).as("the tag has the focus").isEqualTo("NEW-1");
  }
}
