package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import javafx.scene.control.CheckBox;
import javafx.scene.input.KeyCode;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.points.RawUnit;
import nocking.sensor.NtcBeta;
import nocking.sensor.Potentiometer;
import nocking.sensor.TableSensor;
import nocking.wiring.Checklist;
import nocking.wiring.Pin;
import org.junit.jupiter.api.Test;

/** What practitioners worked out by hand in the first three stages, done in the window. */
class NothingByHandTest extends WindowTest {

  private void emptyChannel() {
    open(new Book(List.of(Channel.blank("c", "CH-1"))));
    hands.run(() -> desk.step(WorkStep.DEFINE));
  }

  @Test
  void aSensorIsFoundByWhatPeopleCallIt() {
    emptyChannel();
    hands.click("sensor-search").type("lever");
    assertThat(hands.has("have-potentiometer")).isTrue();
    assertThat(hands.has("have-two-point")).isFalse();
    hands.press(KeyCode.ENTER);
    assertThat(channel().design().sensor()).isInstanceOf(Potentiometer.class);
    hands.click("have-other").click("sensor-search").type("gremlin");
    assertThat(text("sensor-nothing")).contains("Nothing here is called 'gremlin'");
    hands.click("have-keep");
    assertThat(hands.has("define-plot")).isTrue();
    hands.click("have-other").click("have-table-ohms");
    TableSensor t = (TableSensor) channel().design().sensor();
    assertThat(t.signal().unit().symbol()).isEqualTo("Ω");
  }

  /** What nobody typed stays a round number; what was typed is converted. */
  @Test
  void anUntouchedDefaultStaysRoundInAnotherUnit() {
    emptyChannel();
    hands.click("have-two-point");
    hands.enter("define-unit", "K").press(KeyCode.ENTER);
    assertThat(channel().definition().high().number()).isEqualTo(100);
    assertThat(channel().design().sensor().rated(channel().unit()).high()).isEqualTo(100);
    hands.enter("define-range", "0..80");
    hands.enter("define-unit", "°C").press(KeyCode.ENTER);
    assertThat(channel().definition().low().number()).isEqualTo(-273.15);
  }

  /** A text that says two things makes no sensor until one of them is taken out. */
  @Test
  void aDatasheetThatContradictsItselfIsNotTaken() {
    emptyChannel();
    hands.click("have-datasheet");
    clipboard("Range 0…10 bar\nOutput 0.5…4.5 V\nOutput 0…5 V\n");
    hands.press(KeyCode.CONTROL, KeyCode.V);
    assertThat(text("datasheet-verdict")).startsWith("No sensor yet: line 3 contradicts another");
    assertThat(hands.<javafx.scene.control.Button>node("datasheet-use").isDisabled()).isTrue();
    hands.press(KeyCode.CONTROL, KeyCode.A).type("Range: 0…1,000 kPa");
    assertThat(text("datasheet-verdict")).contains("may have a decimal comma");
    hands.click("datasheet-written-decimal-point");
    assertThat(text("datasheet-verdict")).contains("no line says what comes out");
    hands.click("datasheet-back");
    assertThat(channel().design().sensor()).isNull();
  }

  @Test
  void whatASensorBearsIsHeldAgainstTheRange() {
    openDemo("BL-P1", WorkStep.DEFINE);
    hands.enter("define-proof", "50");
    assertThat(hands.has("finding-beyond-overload")).isTrue();
    hands.enter("define-proof", "200 kPa");
    assertThat(hands.has("finding-beyond-overload")).isFalse();
    hands.enter("define-burst", "150");
    assertThat(wrong("define-burst")).isTrue();
  }

  /** Ticked, with what was found, taken back; a line of one's own comes and goes. */
  @Test
  void theStepsOfWiringAreTickedOff() {
    openDemo("BL-P1", WorkStep.WIRE);
    hands.click("wire-look-steps").enter("steps-who", "KS");
    hands.click("step-4");
    assertThat(text("steps-progress")).isEqualTo("1 of 12 done");
    hands.enter("step-found-4", "held 50 N").press(KeyCode.ENTER);
    Checklist.Tick tick = channel().wiring().checklist().done().getFirst();
    assertThat(tick.step()).startsWith("Crimp, then pull");
    assertThat(tick.by()).isEqualTo("KS");
    assertThat(tick.measured()).isEqualTo("held 50 N");
    assertThat(tick.at()).matches("\\d{4}-\\d\\d-\\d\\dT\\d\\d:\\d\\d");
    hands.enter("step-add-before", "Drip loop below the gland.").press(KeyCode.ENTER);
    assertThat(text("steps-progress")).isEqualTo("1 of 13 done");
    // Words that are still being typed stay while another step is ticked, and so does the focus.
    hands.enter("step-add-after", "Half a wo");
    hands.click("step-5");
    assertThat(text("steps-progress")).isEqualTo("2 of 13 done");
    assertThat(hands.node("step-5").isFocused()).isTrue();
    hands.click("step-5");
    assertThat(text("step-add-after")).isEqualTo("Half a wo");
    assertThat(text("steps-progress")).isEqualTo("1 of 13 done");
    hands.click("step-out-9");
    hands.click("step-4");
    assertThat(channel().wiring().checklist()).isEqualTo(Checklist.EMPTY);
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(hands.<CheckBox>node("step-4").isSelected()).isTrue();
  }

  @Test
  void alarmsSayWhereTheyComeAndWhichHoldsNow() {
    openDemo("AE-V1", WorkStep.WIRE);
    hands.click("wire-look-bands").click("band-part-alarms");
    hands.run(() -> desk.probe(230));
    assertThat(column("alarms", 4).get(1)).isEqualTo("2.399 … 2.934");
    assertThat(column("alarms", 5).get(1)).isEqualTo("2977 … 3642");
    assertThat(column("alarms", 7)).containsExactly("", "holds now", "");
    hands.run(() -> desk.probe(190));
    assertThat(column("alarms", 7)).containsExactly("holds now", "", "");
  }

  @Test
  void aContactSaysWhatItsInputMustReadAtTheProbe() {
    openDemo("BL-P1", WorkStep.WIRE);
    hands.click("wire-look-bands").click("band-part-switches").click("band-add");
    into("switches", 0, 1);
    hands.type("30").press(KeyCode.ENTER);
    into("switches", 0, 5);
    hands.type("low").press(KeyCode.ENTER);
    assertThat(channel().wiring().bands().switches().getFirst().activeLow()).isTrue();
    hands.run(() -> desk.probe(50));
    assertThat(column("switches", 7)).containsExactly("low");
    hands.run(() -> desk.probe(10));
    assertThat(column("switches", 7)).containsExactly("high");
  }

  /** A splice has volts of its own, and what broke is found between it and the next place. */
  @Test
  void aPathIsWalkedPlaceByPlace() {
    openDemo("SG-P1", WorkStep.WIRE);
    hands.click("wire-look-drawing");
    hands.enter("wire-joints", "splice, terminal strip").press(KeyCode.ENTER);
    assertThat(channel().wiring().plan().joints()).containsExactly("splice", "terminal strip");
    hands.click("tab-diagnose");
    settled();
    hands.click("seen-where");
    hands.choose("see-signal-1");
    assertThat(text("seen-where")).isEqualTo("signal at splice");
  }

  @Test
  void aTeachWireHasItsCaution() {
    openDemo("BL-P1", WorkStep.WIRE);
    hands.click("wire-add").choose("wire-add-teach");
    int last = channel().wiring().plan().pins().size() - 1;
    assertThat(channel().wiring().plan().pins().get(last).function()).isEqualTo(Pin.Function.TEACH);
    assertThat(hands.has("finding-teach-wire")).isTrue();
    into("pins", last, 7);
    hands.type("4.9").press(KeyCode.ENTER);
    assertThat(hands.has("finding-teach-on-supply")).isTrue();
  }

  /** A receiver that wants ohms needs no pull-up to be known. */
  @Test
  void aTableInOhmsIsMadeWithoutAPullUp() {
    emptyChannel();
    hands.enter("define-range", "0..25");
    hands.click("have-ntc-beta");
    assertThat(channel().design().sensor()).isInstanceOf(NtcBeta.class);
    hands.press(KeyCode.CONTROL, KeyCode.DIGIT6);
    hands.click("table-start");
    assertThat(channel().receiver().table().axis()).isEqualTo(RawUnit.OHMS);
    assertThat(text("table-worst")).startsWith("worst");
    hands.click("table-look-cells");
    assertThat(column("cells", 1)).hasSize(9).contains("10000.0");
  }

  /** Five rounds from easy to hard; what each took is told at the end. */
  @Test
  void aCourseOfFiveIsCountedToItsEnd() {
    openDemo("BL-P1", WorkStep.CHECK);
    hands.click("tab-practice");
    settled();
    hands.enter("practice-learner", "Wren");
    for (int round = 0; round < 5; round++) {
      hands.click("practice-course");
      settled();
      hands.click("practice-measure");
      settled();
      hands.run(
          () -> {
            var names = (javafx.scene.control.ComboBox<?>) shell.scene().lookup("#practice-name");
            names.getSelectionModel().select(0);
          });
      hands.click("practice-answer");
      settled();
      assertThat(text("practice-course-says")).startsWith(round < 4 ? "Course: " : "Course done: ");
    }
    assertThat(text("practice-course-says"))
        .matches("Course done: \\d of 5 found, score \\d+, \\d+:\\d\\d in all; .*live parts.*");
    assertThat(column("practice-history", 4)).hasSize(5).allMatch(t -> t.matches("\\d+:\\d\\d"));
    assertThat(text("practice-course")).isEqualTo("Course of five");
  }
}
