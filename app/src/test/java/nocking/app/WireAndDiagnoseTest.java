package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Clock;
import java.util.List;
import java.util.concurrent.TimeUnit;
import javafx.scene.control.ComboBox;
import javafx.scene.input.KeyCode;
import nocking.app.desk.Aside;
import nocking.book.BookFile;
import nocking.channel.Channel;
import nocking.channel.PracticeResult;
import nocking.channel.WorkStep;
import nocking.fault.Fault;
import nocking.finding.Finding;
import nocking.prior.FaultKind;
import nocking.prior.PriorWeights;
import nocking.sensor.TableSensor;
import nocking.wiring.Meter;
import nocking.wiring.Observation;
import nocking.wiring.Place;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

/** Wires, faults, bands, diagnosis and practice, with mouse and keyboard. */
@Timeout(value = 60, unit = TimeUnit.SECONDS, threadMode = Timeout.ThreadMode.SEPARATE_THREAD)
class WireAndDiagnoseTest extends WindowTest {

  /** Types over one cell of a grid, as on a sheet. */
  private void cell(String grid, int row, int column, String text) {
    into(grid, row, column);
    hands.type(text);
    hands.press(KeyCode.ENTER);
    settled();
  }

  /** Enters one thing that was seen, by the menu of places and the two fields. */
  private void see(String place, String at, String value) {
    hands.click("seen-where");
    hands.choose("see-" + place);
    hands.fill("seen-at", at);
    hands.fill("seen-value", value);
    hands.press(KeyCode.ENTER);
    settled();
  }

  private String explanation(int index) {
    return Hands.ask(() -> shell.scene().lookup("#explanation-" + index).getAccessibleText());
  }

  // The three stories of the job.

  @Test
  void missingPullDownFloatsIsFoundAndMended() {
    openDemo("SG-P1", WorkStep.CONDITION);
    hands.click("element-2");
    hands.fill("element-inputResistance", "");
    assertThat(channel().design().converter().inputResistance()).isNull();
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT3);
    settled();
    assertThat(hands.has("finding-floating-signal")).isTrue();
    Hands.ask(
        () -> {
          shell.scene().lookup("#fault-picture").requestFocus();
          return null;
        });
    for (int i = 0; i < 4; i++) hands.press(KeyCode.DOWN);
    assertThat(text("fault-detail"))
        .startsWith("Signal wire open, at rest:")
        .contains("floats")
        .contains("A pull-down settles it");
    hands.click("fix-floating-signal");
    settled();
    assertThat(hands.has("finding-floating-signal")).isFalse();
    assertThat(channel().design().stages().getLast().title()).isEqualTo("Input pull");
    assertThat(text("fault-detail")).doesNotContain("floats");
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    settled();
    assertThat(hands.has("finding-floating-signal")).isTrue();
  }

  @Test
  void ohmsForKiloOhmsInTheRacewayTableAreFoundFromBothSides() {
    openDemo("RW-T1", WorkStep.DEFINE);
    TableSensor sound = (TableSensor) channel().design().sensor();
    // The datasheet is in kilo-ohms; its numbers are pasted as they stand.
    var block = new StringBuilder();
    sound
        .points()
        .forEach(
            p ->
                block
                    .append(p.at().typed())
                    .append('\t')
                    .append(p.output().number() / 1000)
                    .append('\n'));
    clipboard(block.toString());
    into("sensor-rows", 0, 0);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
    assertThat(((TableSensor) channel().design().sensor()).points().getFirst().output().number())
        .isCloseTo(sound.points().getFirst().output().number() / 1000, within(1e-9));
    assertThat(analysis().findings())
        .extracting(Finding::rule)
        .as(String.valueOf(analysis().design().problem()))
        .contains("prefix-slip");
    assertThat(hands.has("finding-prefix-slip")).isTrue();
    hands.click("fix-prefix-slip");
    settled();
    assertThat(((TableSensor) channel().design().sensor()).points().getFirst().output().number())
        .isCloseTo(sound.points().getFirst().output().number(), within(1e-6));
    assertThat(hands.has("finding-prefix-slip")).isFalse();

    // The same slip in the receiver, where no finding can see it: only the display is wrong.
    hands.click("tab-diagnose");
    settled();
    see("display", "12", "-10");
    see("sensor-ohms", "12", "18.1k");
    see("receiver", "12", "1.654");
    assertThat(explanation(0)).startsWith("sensor's numbers typed with the wrong prefix: ÷1000");
    assertThat(text("diagnose-verdict")).startsWith("Look at the numbers in the receiver first.");
  }

  @Test
  void groundOffsetOnTheBlowerIsFoundByMeasuringAtBothEnds() {
    openDemo("BL-P1", WorkStep.WIRE);
    hands.click("tab-diagnose");
    settled();
    see("display", "30 kPa", "31.4");
    assertThat(explanation(0)).doesNotContain("> 99 %");
    see("sensor", "30", "1.660 V");
    see("receiver", "30", "1.720 V");
    assertThat(explanation(0)).startsWith("ground offset +");
    assertThat(channel().wiring().seen())
        .extracting(Observation::place)
        .containsExactly(
            Place.DISPLAY,
            Place.of(Place.Kind.SIGNAL_AT_SENSOR),
            Place.of(Place.Kind.SIGNAL_AT_RECEIVER));
    assertThat(onDisk().byTag("BL-P1").orElseThrow().wiring().seen()).hasSize(3);
  }

  /** What a verdict on an open ground hangs on is typed where the supply is, and undone. */
  @Test
  void whatTheSensorDrawsIsSaid() {
    openDemo("BL-P1", WorkStep.WIRE);
    hands.click("wire-look-supply");
    hands.fill("wire-supply-current", "12 mA");
    assertThat(channel().wiring().plan().supplied().current().number()).isEqualTo(0.012);
    hands.fill("wire-supply-within", "1 %");
    assertThat(channel().wiring().plan().supplied().share()).isEqualTo(0.01);
    hands.click("wire-shared-reference");
    assertThat(channel().wiring().plan().sharedReference()).isTrue();
    settled();
    assertThat(onDisk().byTag("BL-P1").orElseThrow().wiring()).isEqualTo(channel().wiring());
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(channel().wiring().plan().sharedReference()).isFalse();
  }

  // Diagnose.

  @Test
  void adviceIsEnteredWhereItAsks() {
    openDemo("SG-P1", WorkStep.WIRE);
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT9);
    settled();
    String first = explanation(0);
    assertThat(first).startsWith("leak from signal to ground");
    hands.click("diagnose-enter");
    assertThat(text("seen-where")).isEqualTo("signal at the sensor");
    assertThat(text("seen-at")).isEqualTo("0.0");
    hands.type("4.60");
    hands.press(KeyCode.ENTER);
    settled();
    assertThat(channel().wiring().seen()).hasSize(3);
    assertThat(explanation(0)).startsWith("resistance in the signal wire");
    hands.click("explanation-0");
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    settled();
    assertThat(explanation(0)).isEqualTo(first);
  }

  /** A reading that jumps is entered with both its ends, kept, edited and weighed. */
  @Test
  void aJumpingReadingIsEntered() {
    openDemo("BL-P1", WorkStep.WIRE);
    hands.click("tab-diagnose");
    settled();
    see("receiver", "30", "0.2 … 1.6 V, jumping");
    Observation kept = onDisk().byTag("BL-P1").orElseThrow().wiring().seen().getLast();
    assertThat(kept.until().number()).isEqualTo(1.6);
    assertThat(kept.value().number()).isEqualTo(0.2);
    assertThat(explanation(0)).startsWith("contact that comes and goes");
  }

  @Test
  void whatNothingExplainsIsSaidInWords() {
    openDemo("BL-P1", WorkStep.WIRE);
    hands.click("tab-diagnose");
    settled();
    assertThat(text("diagnose-verdict")).startsWith("Add what the display says");
    see("supply-sensor", "30", "5.00");
    see("sensor", "30", "1.66");
    see("receiver", "30", "9.9");
    assertThat(text("diagnose-verdict"))
        .startsWith("None of these faults explains what was seen by itself")
        .contains("No two of them stand out either");
  }

  @Test
  void twoFaultsAtOnceAreNamed() {
    openDemo("BL-P1", WorkStep.WIRE);
    hands.click("tab-diagnose");
    settled();
    // 60 mV in the ground, and a display that shows 31.4 as 3.1.
    see("display", "30", "3.1");
    see("receiver", "30", "1.720");
    see("sensor", "30", "1.660");
    see("ground", "30", "0.060");
    see("TP2", "30", "1.139");
    assertThat(text("diagnose-verdict"))
        .contains("Two faults at once explain it: decimal point slipped: reads ÷10, and one of")
        .contains("ground offset");
  }

  /** A settled channel is what is diagnosed a year later. */
  @Test
  void lockedChannelTakesWhatWasSeenAndNothingElse() {
    openDemo("IN-T2", WorkStep.WIRE);
    Channel before = channel();
    assertThat(before.journal().locked()).isTrue();
    hands.click("tab-diagnose");
    settled();
    see("display", "9", "11.2");
    assertThat(channel().wiring(w -> w.withObservations(List.of()))).isEqualTo(before);
    assertThat(channel().wiring().seen()).hasSize(1);
    assertThat(onDisk().byTag("IN-T2").orElseThrow().wiring().seen()).hasSize(1);
  }

  @Test
  void readingsThatCannotBeReadStayAndSayWhy() {
    openDemo("BL-P1", WorkStep.WIRE);
    hands.click("tab-diagnose");
    settled();
    see("receiver", "30", "1.7 kPa");
    assertThat(channel().wiring().seen()).isEmpty();
    assertThat(text("seen-value")).isEqualTo("1.7 kPa");
    assertThat(wrong("seen-value")).isTrue();
    assertThat(text("seen-reason")).isNotBlank();
    hands.fill("seen-value", "1.7 V");
    hands.press(KeyCode.ENTER);
    settled();
    assertThat(channel().wiring().seen()).hasSize(1);
    hands.fill("diagnose-accuracy", "good");
    assertThat(wrong("diagnose-accuracy")).isTrue();
  }

  @Test
  void inputThatIsNotKnownIsNoObstacle() {
    openDemo("RW-T1", WorkStep.WIRE);
    hands.click("tab-diagnose");
    settled();
    see("receiver", "?", "3.3 V");
    see("receiver-ohms", "?", "open");
    assertThat(explanation(0)).containsAnyOf("wire open", "sensor element open");
    assertThat(channel().wiring().seen().getFirst().at()).isNull();
  }

  @Test
  void weightsOfKindsAreChangedByWhoeverKnowsThePlant() {
    openDemo("SG-P1", WorkStep.WIRE);
    hands.click("tab-diagnose");
    settled();
    assertThat(explanation(0)).startsWith("leak from signal to ground");
    hands.click("diagnose-look-weights");
    settled();
    int leak = FaultKind.LEAK_TO_GROUND.ordinal() - 1;
    cell("priors", leak, 3, "0");
    assertThat(explanation(0)).doesNotStartWith("leak from signal to ground");
    hands.click("priors-usual");
    settled();
    assertThat(explanation(0)).startsWith("leak from signal to ground");
    assertThat(desk.book().priorWeights()).isEqualTo(PriorWeights.USUAL);
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    settled();
    assertThat(explanation(0)).doesNotStartWith("leak from signal to ground");
    assertThat(desk.book().priorWeights().weight(FaultKind.LEAK_TO_GROUND)).isZero();
  }

  /** The meter in hand is the same one tomorrow. */
  @Test
  void meterAndWeightsAreInTheBookWhenItIsOpenedAgain() {
    openDemo("BL-P1", WorkStep.WIRE);
    hands.click("tab-diagnose");
    settled();
    hands.fill("diagnose-accuracy", "0.09 % + 2");
    hands.press(KeyCode.ENTER);
    hands.fill("diagnose-counts", "50 000");
    hands.press(KeyCode.ENTER);
    settled();
    PriorWeights weighed = desk.book().priorWeights();
    assertThat(weighed.meter()).isEqualTo(new Meter(0.09, 2, 50_000, 10e6));
    Hands.ask(
        () -> {
          desk.store().close();
          return null;
        });
    try (BookFile file = BookFile.openToRead(book(), Clock.systemUTC())) {
      assertThat(file.read().priorWeights()).isEqualTo(weighed);
    }
  }

  // Wire.

  @Test
  void pinsAreJudgedAsTheyAreMeasured() {
    openDemo("BL-P1", WorkStep.WIRE);
    cell("pins", 2, 7, "280 mV");
    assertThat(hands.has("finding-pin-reading")).isTrue();
    cell("pins", 2, 7, "0.402");
    assertThat(hands.has("finding-pin-reading")).isFalse();
    cell("pins", 1, 7, "35 mV");
    assertThat(hands.has("finding-ground-offset")).isTrue();
    cell("pins", 0, 1, "green/yellow");
    cell("pins", 0, 4, "12.5");
    var pin = channel().wiring().plan().pins().getFirst();
    assertThat(pin.wire()).isEqualTo("green/yellow");
    assertThat(pin.length().number()).isEqualTo(12.5);
    hands.click("wire-add").choose("wire-add-ground");
    assertThat(channel().wiring().plan().pins()).hasSize(4);
  }

  /** A pin that reads off leads to Diagnose, with what all pins read taken along. */
  @Test
  void pinThatReadsOffLeadsToDiagnose() {
    openDemo("BL-P1", WorkStep.WIRE);
    cell("pins", 0, 7, "5.00");
    cell("pins", 1, 7, "62 mV");
    cell("pins", 2, 7, "0.462");
    hands.click("diagnose-pin-reading");
    settled();
    hands.click("diagnose-pins");
    settled();
    assertThat(channel().wiring().seen()).hasSize(3);
    assertThat(explanation(0)).startsWith("ground offset +");
    assertThat(hands.has("diagnose-pins")).isFalse();
  }

  @Test
  void shortBetweenPinsIsNoticedBeforePower() {
    openDemo("SG-P1", WorkStep.WIRE);
    hands.click("wire-look-before-power");
    settled();
    cell("pairs", 3, 4, "1.2");
    assertThat(hands.has("finding-pins-before-power")).isTrue();
    cell("pairs", 3, 4, "5.02k");
    cell("pairs", 4, 4, "OL");
    assertThat(hands.has("finding-pins-before-power")).isTrue();
    cell("pairs", 4, 4, "418");
    assertThat(hands.has("finding-pins-before-power")).isFalse();
    cell("pairs", 2, 4, "OL");
    assertThat(hands.has("finding-continuity")).isTrue();
    cell("pairs", 2, 4, "1.1");
    assertThat(hands.has("finding-continuity")).isFalse();
  }

  @Test
  void thresholdsAreTypedOrTaken() {
    openDemo("SG-P1", WorkStep.WIRE);
    hands.click("fault-use");
    settled();
    assertThat(channel().wiring().plan().thresholds().says())
        .isEqualTo("below 0.17 V or above 4.8 V");
    hands.fill("fault-low", "0.6");
    settled();
    assertThat(hands.has("finding-fault-limits-cut")).isTrue();
    hands.fill("fault-low", "5");
    assertThat(wrong("fault-low")).isTrue();
    assertThat(channel().wiring().plan().thresholds().high().number()).isEqualTo(4.8);
  }

  @Test
  void backwardsSignalIsRewiredAndTheReadingStays() {
    openDemo("SG-P1", WorkStep.WIRE);
    double before = analysis().design().path().orElseThrow().output(0);
    hands.click("fix-backwards");
    settled();
    var path = analysis().design().path().orElseThrow();
    assertThat(path.output(0)).isLessThan(0.5);
    assertThat(before).isGreaterThan(4.5);
    assertThat(path.quantity(path.output(40))).isCloseTo(40, within(1e-6));
  }

  @Test
  void bandsAreTypedLikeASheet() {
    openDemo("FD-S1", WorkStep.WIRE);
    hands.click("wire-look-bands");
    settled();
    assertThat(text("band-sentence")).contains("33 %");
    cell("positions", 1, 2, "300 mV");
    assertThat(hands.has("finding-bands")).isTrue();
    hands.click("fix-bands");
    settled();
    assertThat(hands.has("finding-bands")).isFalse();
    hands.fill("band-lever", "0");
    assertThat(wrong("band-lever")).isTrue();
    cell("positions", 0, 4, "1.21 1.22");
    assertThat(channel().wiring().bands().positions().getFirst().up()).hasSize(2);
  }

  @Test
  void alarmBandsContradictInTheirOwnWords() {
    openDemo("AE-V1", WorkStep.WIRE);
    hands.click("wire-look-bands");
    settled();
    cell("alarms", 1, 1, "210");
    assertThat(hands.has("finding-alarm-bands")).isTrue();
    cell("alarms", 1, 1, "207");
    assertThat(hands.has("finding-alarm-bands")).isFalse();
  }

  @Test
  void wireSheetGoesToPaper() throws Exception {
    openDemo("AE-V1", WorkStep.WIRE);
    Path html = folder.resolve("wires.html");
    Path pdf = folder.resolve("wires.pdf");
    chosen.add(html);
    chosen.add(pdf);
    hands.click("wire-sheet");
    hands.choose("wire-html");
    settled();
    hands.click("wire-sheet");
    hands.choose("wire-pdf");
    settled();
    assertThat(html)
        .content(StandardCharsets.UTF_8)
        .contains("A bare divider gives no isolation")
        .contains("Licensed work under local codes")
        .contains("<svg");
    assertThat(new String(Files.readAllBytes(pdf), 0, 5, StandardCharsets.US_ASCII))
        .isEqualTo("%PDF-");
  }

  // Practice.

  @Test
  void practiceHidesAFaultAndKeepsTheResult() {
    openDemo("BL-P1", WorkStep.WIRE);
    Channel before = channel();
    hands.click("tab-practice");
    settled();
    hands.click("practice-start");
    assertThat(text("practice-reason")).startsWith("Type your name first");
    hands.fill("practice-learner", "Wren");
    hands.click("practice-start");
    settled();
    assertThat(table("practice-readings").getItems()).hasSize(1);
    hands.click("practice-measure");
    settled();
    hands.fill("practice-at", "900");
    hands.click("practice-measure");
    assertThat(text("practice-reason")).contains("outside the range");
    assertThat(table("practice-readings").getItems()).hasSize(2);
    hands.click("practice-answer");
    assertThat(text("practice-reason")).isEqualTo("Choose which fault it is.");
    hands.run(
        () -> {
          @SuppressWarnings("unchecked")
          var names = (ComboBox<Fault>) shell.scene().lookup("#practice-name");
          names.setValue(names.getItems().getFirst());
        });
    hands.click("practice-answer");
    settled();
    assertThat(text("practice-verdict")).matches("Right: .*|It was .*");
    assertThat(channel()).as("the channel itself is never touched").isEqualTo(before);
    onDisk();
    try (BookFile file = BookFile.openToRead(book(), Clock.systemUTC())) {
      List<PracticeResult> kept = file.practice();
      assertThat(kept).hasSize(1);
      assertThat(kept.getFirst().learner()).isEqualTo("Wren");
      assertThat(kept.getFirst().measurements()).isEqualTo(1);
    }
    assertThat(Hands.ask(() -> desk.aside())).contains(Aside.PRACTICE);
  }
}
