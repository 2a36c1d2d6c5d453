package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.stream.Stream;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.GridPane;
import nocking.analysis.Jobs;
import nocking.band.BandPosition;
import nocking.channel.Channel;
import nocking.channel.RunJson;
import nocking.channel.WorkStep;
import nocking.check.Verdict;
import nocking.fit.Trim;
import nocking.procedure.JobRecord;
import nocking.procedure.MechanicalTrim;
import nocking.procedure.ZeroAndSpan;
import nocking.quantity.Value;
import nocking.run.StoredRun;
import nocking.sensor.TwoPointSensor;
import org.junit.jupiter.api.Test;

/** Procedures from the window at the simulated bench, each to its record. */
class ProceduresTest extends WindowTest {

  private void untilThere(String id) {
    while (!hands.has(id)) Hands.settle();
    settled();
  }

  private void until(BooleanSupplier there) {
    while (!Hands.ask(there::getAsBoolean)) Hands.settle();
    settled();
  }

  private void plan(String tag, String procedure) {
    openDemo(tag, WorkStep.COLLECT);
    hands.click("collect-view-run").click("run-pace-at-once");
    choose("run-kind", procedure);
    settled();
  }

  private boolean running() {
    return Hands.ask(() -> desk.runs().running());
  }

  /** Begins, and says of each step that waits for hands that it is done. */
  private void carryOut() {
    hands.click("run-begin");
    while (running()) {
      if (hands.has("run-done")) hands.click("run-done");
      Hands.settle();
    }
    settled();
  }

  private Channel channel(String tag) {
    return Hands.ask(() -> desk.book().byTag(tag).orElseThrow());
  }

  private StoredRun stored() {
    return desk.store().runs().getFirst();
  }

  private JobRecord record() {
    StoredRun run = stored();
    return run.plan()
        .procedure()
        .record(run.progress().taken(), Hands.ask(() -> Jobs.known(desk.analysis()).orElseThrow()));
  }

  /** True while neither a node nor what it stands in is hidden. */
  private static boolean seen(Node n) {
    for (Node p = n; p != null; p = p.getParent()) if (!p.isVisible()) return false;
    return true;
  }

  private String reason(String field) {
    Node text = hands.node(field);
    Node entry = text.getParent().getParent();
    return Hands.ask(() -> ((Label) entry.lookup(".reason")).getText());
  }

  private List<String> lines() {
    GridPane grid = hands.node("job-lines");
    return Hands.ask(
        () -> grid.getChildren().stream().flatMap(n -> Stream.of(((Label) n).getText())).toList());
  }

  /**
   * The clamp shifts by about −12 mV each time: the second turn aims as much high, and what is left
   * with the clamp tight is within the window. The lead is out before it counts.
   */
  @Test
  void aMountingIsTrimmed() {
    plan("SG-P1", "mechanical trim");
    assertThat(text("run-caution")).contains("Lock what the sensor sits on").contains("the clamp");
    hands.enter("trim-target", "4.45").press(KeyCode.ENTER);
    hands.enter("trim-window", "5").press(KeyCode.ENTER);
    hands.click("run-begin");
    untilThere("run-done");
    assertThat(text("run-what")).isEqualTo("Leave the clamp tight: as found");
    while (running()) {
      if (hands.has("run-done")) hands.click("run-done");
      Hands.settle();
    }
    settled();
    JobRecord record = record();
    assertThat(record.verdict()).as(record.says()).isEqualTo(Verdict.PASS);
    assertThat(record.lines())
        .extracting(JobRecord.Line::what)
        .contains("as found", "clamping 1", "a degree is worth", "break-out lead");
    assertThat(lines()).contains("break-out lead", "seal checked");
    var trim = (MechanicalTrim) stored().plan().procedure();
    var taken = stored().progress().taken();
    double tight = taken.get(taken.size() - 2).volts();
    assertThat(tight).isCloseTo(trim.target().number(), within(0.005));
    assertThat(text("job-says")).startsWith("Near enough");
    // What is planned is what is shown; the record is there again when it is asked for.
    choose("run-kind", "set points");
    settled();
    Node says = Hands.ask(() -> shell.scene().lookup("#job-lines"));
    assertThat(Hands.ask(() -> seen(says))).isFalse();
    choose("run-kind", "mechanical trim");
    settled();
    assertThat(text("job-says")).startsWith("Near enough");
    // None of it is a reference point of the gate.
    assertThat(channel("SG-P1").calibration().points().points()).noneMatch(p -> p.taken() != null);
  }

  /** Both ends are taught inwards; the new transfer is verified at three places and taken over. */
  @Test
  void endsAreTaught() {
    plan("GV-P1", "taught end-points");
    assertThat(text("run-caution")).contains("never to the positive supply");
    hands.enter("teach-low", "80").press(KeyCode.ENTER);
    assertThat(reason("teach-low")).contains("from 0 to 55").contains("80");
    hands.press(KeyCode.CONTROL, KeyCode.A).type("11").press(KeyCode.ENTER);
    hands.enter("teach-high", "209").press(KeyCode.ENTER);
    hands.enter("teach-meanwhile", "0.3").press(KeyCode.ENTER);
    carryOut();
    JobRecord record = record();
    assertThat(record.verdict()).as(record.says()).isEqualTo(Verdict.PASS);
    assertThat(record.lines())
        .filteredOn(l -> l.what().startsWith("verified"))
        .extracting(JobRecord.Line::what)
        .containsExactly("verified at 11.0 mm", "verified at 110.0 mm", "verified at 209.0 mm");
    hands.click("job-offer-0");
    var sensor = (TwoPointSensor) channel("GV-P1").design().sensor();
    assertThat(sensor.lowAt().number()).isEqualTo(11);
    assertThat(sensor.highAt().number()).isEqualTo(209);
    assertThat(hands.has("job-offer-0")).isFalse();
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(((TwoPointSensor) channel("GV-P1").design().sensor()).lowAt().number()).isZero();
  }

  /** By eye, without a word on how far it was turned: one key goes on, and nothing is made up. */
  @Test
  void aTrimByEyeClaimsNoAngles() {
    plan("SG-P1", "mechanical trim");
    choose("run-reference", "read by eye");
    hands.enter("trim-target", "4.4").press(KeyCode.ENTER);
    hands.enter("trim-window", "60").press(KeyCode.ENTER);
    hands.click("run-begin");
    untilThere("run-done");
    for (int step = 0; step < 2; step++) {
      untilThere("run-done");
      int done = step + 1;
      // The button that goes hands Space on to nobody: the next one is for the next step.
      if (step == 0) hands.click("run-done");
      else hands.press(KeyCode.SPACE);
      until(() -> desk.runs().now().map(n -> n.points().size() >= done).orElse(false));
    }
    hands.enter("run-reason", "dinner");
    hands.click("run-stop");
    until(() -> !desk.runs().running());
    assertThat(stored().progress().points().get(1).placeUnknown()).isTrue();
    assertThat(record().lines())
        .extracting(JobRecord.Line::what)
        .doesNotContain("a degree is worth");
  }

  /** Closed and open as they are: travel, direction and room, and one revision. */
  @Test
  void twoEndsAreLearnt() {
    plan("SG-P1", "two ends learnt");
    carryOut();
    JobRecord record = record();
    assertThat(record.verdict()).as(record.says()).isEqualTo(Verdict.PASS);
    assertThat(record.lines())
        .extracting(JobRecord.Line::what)
        .contains("travel used", "direction");
    int before = channel("SG-P1").calibration().points().points().size();
    hands.click("job-offer-0");
    Channel c = channel("SG-P1");
    assertThat(c.calibration().adopted().model()).isEqualTo("ends");
    assertThat(c.calibration().points().points()).hasSize(before + 2);
    assertThat(Hands.ask(() -> desk.analysis().calibration().curve().orElseThrow().quantity(4.6)))
        .isCloseTo(0.1, within(0.5));
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(channel("SG-P1").calibration().points().points()).hasSize(before);
  }

  /** A lever goes up and down through its stations; slack and the closed cycle are told. */
  @Test
  void stationsAreReadFromBothSides() {
    plan("FD-S1", "positions of a lever");
    carryOut();
    JobRecord record = record();
    assertThat(record.verdict()).as(record.says()).isEqualTo(Verdict.PASS);
    assertThat(record.lines())
        .extracting(JobRecord.Line::what)
        .contains("the cycle closes within", "least step between stations");
    int ups = upsOf("FD-S1");
    hands.click("job-offer-0");
    assertThat(upsOf("FD-S1")).isEqualTo(ups + 5);
    assertThat(hands.has("job-offer-0")).isFalse();
  }

  private int upsOf(String tag) {
    return channel(tag).wiring().bands().positions().stream()
        .map(BandPosition::up)
        .mapToInt(List::size)
        .sum();
  }

  /**
   * Two channels offer the same words: what is pressed is of the channel and run that are shown.
   */
  @Test
  void anOfferIsOfTheRunThatIsShown() {
    plan("BL-P1", "zero and span trim");
    carryOut();
    StoredRun blower = stored();
    hands.run(() -> desk.select(desk.book().byTag("FH-W1").orElseThrow().id()));
    settled();
    choose("run-kind", "zero and span trim");
    settled();
    carryOut();
    assertThat(hands.has("job-offer-0")).isTrue();
    hands.run(() -> desk.select(desk.book().byTag("BL-P1").orElseThrow().id()));
    settled();
    Trim own =
        ((ZeroAndSpan) blower.plan().procedure())
            .trim(
                blower.progress().taken(),
                Hands.ask(() -> Jobs.known(desk.analysis()).orElseThrow()))
            .orElseThrow();
    hands.click("job-offer-0");
    assertThat(channel("BL-P1").calibration().trim()).isEqualTo(own);
    assertThat(channel("FH-W1").calibration().trim()).isNull();
  }

  /**
   * Zero at the atmosphere and span at 60 kPa: a trim on top of the curve, seen in what it reads.
   */
  @Test
  void zeroAndSpanAreTrimmed() {
    plan("BL-P1", "zero and span trim");
    carryOut();
    JobRecord record = record();
    assertThat(record.verdict()).as(record.says()).isEqualTo(Verdict.PASS);
    hands.click("job-offer-0");
    Trim trim = channel("BL-P1").calibration().trim();
    assertThat(trim.factor()).isNotEqualTo(1).isCloseTo(1, within(0.1));
    double volts = (0.403 + 0.04188 * 30) * 10 / 15.1;
    double reads =
        Hands.ask(() -> desk.analysis().calibration().curve().orElseThrow().quantity(volts));
    assertThat(reads).isCloseTo(30, within(0.3));
    // It stands apart from the curve, and comes off by itself.
    hands.run(() -> desk.step(WorkStep.FIT));
    settled();
    assertThat(text("trim-says")).startsWith("On top of it: zero").contains("span ×1.0");
    hands.click("trim-off");
    assertThat(channel("BL-P1").calibration().trim()).isNull();
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(channel("BL-P1").calibration().trim()).isEqualTo(trim);
    // The record holds, whatever the channel becomes.
    hands.run(() -> desk.step(WorkStep.COLLECT));
    settled();
    String says = text("job-says");
    assertThat(says).startsWith("The trim leaves");
    hands.run(() -> desk.edit("tighter", "", c -> c.define(d -> d.withTolerance(Value.of(1e-6)))));
    settled();
    assertThat(record().verdict()).as("judged anew").isEqualTo(Verdict.FAIL);
    assertThat(text("job-says")).isEqualTo(says);
    assertThat(RunJson.readRecord(stored().closing(), "it").verdict()).isEqualTo(Verdict.PASS);
  }
}
