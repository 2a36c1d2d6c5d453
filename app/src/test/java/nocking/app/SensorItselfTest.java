package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.List;
import java.util.function.BooleanSupplier;
import javafx.scene.input.KeyCode;
import nocking.bench.simulated.BenchModel;
import nocking.bench.simulated.BenchServer;
import nocking.bench.simulated.Scene;
import nocking.channel.Acceptance;
import nocking.channel.WorkStep;
import nocking.check.CheckTable;
import nocking.check.CheckTable.Measured;
import nocking.points.PointSet;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Corrections;
import nocking.run.Course;
import nocking.run.Instrument;
import nocking.run.RunProgress.Phase;
import nocking.run.RunSnapshot;
import org.junit.jupiter.api.Test;

/** A thermistor that lies unplugged in a bath, and an ohmmeter: typed, pasted, read, checked. */
class SensorItselfTest extends WindowTest {
  private void until(BooleanSupplier there) {
    while (!Hands.ask(there::getAsBoolean)) Hands.settle();
    settled();
  }

  private void thermistor(WorkStep step) {
    openDemo("RW-T1", step);
    hands.run(
        () ->
            desk.edit(
                "nothing yet",
                "",
                c ->
                    c.with(new Acceptance(CheckTable.EMPTY))
                        .calibration(k -> k.withPoints(PointSet.EMPTY).withAdopted(null))));
    settled();
  }

  private List<ReferencePoint> points() {
    return channel().calibration().points().points();
  }

  @Test
  void ohmsAreTypedWithTheirPrefixAndPastedWithTheirUnit() {
    thermistor(WorkStep.COLLECT);
    assertThat(hands.has("raw-ma")).isFalse();
    hands.click("raw-ohms");
    settled();
    into("points", 0, 1);
    hands.type("10").press(KeyCode.ENTER);
    into("points", 0, 2);
    hands.type("19.9k; 19.91 kΩ").press(KeyCode.ENTER);
    settled();
    assertThat(channel().calibration().points().raw()).isEqualTo(RawUnit.OHMS);
    assertThat(points().getFirst().mean()).isCloseTo(19905, within(1e-9));
    clipboard("T [°C]\tR [kΩ]\n0\t32.7\n20\t12.5\n");
    into("points", 1, 1);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
    assertThat(points())
        .extracting(p -> Math.rint(p.mean()))
        .containsExactly(19905., 32700., 12500.);
    // A gap in a column of readings moves nothing.
    clipboard("19.8k\n\n12.4k\n");
    into("points", 0, 2);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
    assertThat(points())
        .extracting(p -> Math.rint(p.mean()))
        .containsExactly(19800., 32700., 12400.);
    // What was read at the converter is no reading of the sensor.
    clipboard("T [°C]\tU [mV]\n5\t1900\n");
    into("points", 3, 1);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
    assertThat(points()).hasSize(3);
    assertThat(shown(".text-fail"))
        .contains(
            "The pasted block holds volts, and the points here are in ohms. Nothing was pasted.");
    assertThat(analysis().findings()).anyMatch(f -> f.rule().equals("points-of-sensor"));
  }

  @Test
  void aRunIsTypedInOhms() {
    thermistor(WorkStep.COLLECT);
    hands.click("collect-view-run");
    choose("run-reference", "read by eye");
    choose("run-meter", "typed in ohms");
    assertThat(text("run-caution")).startsWith("Ohms: unplug the sensor first.");
    hands.enter("run-set-points", "10, 20").press(KeyCode.ENTER);
    choose("run-course", Course.UP);
    hands.click("run-begin");
    step(0, "10", "19.9");
    // The meter's range is kilo-ohms, which it does not say of itself.
    until(() -> desk.runs().now().map(RunSnapshot::doubted).orElse(false));
    assertThat(text("run-warning"))
        .startsWith("RW-T1 reads 19.9 Ω at 10 °C")
        .contains("It looks ÷1000");
    hands.click("run-go");
    until(() -> hands.has("run-reads"));
    hands.enter("run-reads", "19.9k").press(KeyCode.ENTER);
    until(() -> desk.runs().now().map(n -> n.next() == 1).orElse(false));
    step(1, "20", "12k5");
    until(() -> !desk.runs().running());
    assertThat(channel().calibration().points().raw()).isEqualTo(RawUnit.OHMS);
    assertThat(points()).extracting(ReferencePoint::mean).containsExactly(19900., 12500.);
    assertThat(points()).allMatch(ReferencePoint::counts);
  }

  private void step(int target, String reference, String meter) {
    until(
        () ->
            desk.runs()
                .now()
                .flatMap(RunSnapshot::last)
                .map(l -> l.target() == target && Double.isNaN(l.applied()))
                .orElse(false));
    hands.type(reference).press(KeyCode.ENTER);
    until(
        () ->
            desk.runs()
                .now()
                .map(n -> n.next() == target && n.phase() == Phase.SETTLING)
                .orElse(false));
    until(() -> hands.has("run-reads"));
    hands.press(KeyCode.CONTROL, KeyCode.A);
    hands.type(meter).press(KeyCode.ENTER);
  }

  /** The ohmmeter stands at the channel: its reading lives in the strip and goes into the check. */
  @Test
  void aLiveOhmmeterGoesIntoTheCheck() throws IOException {
    Scene bath = Scene.named("bath").orElseThrow();
    var model = new BenchModel(bath, 5);
    model.put(15);
    model.advance(200);
    // Its certificate says that it shows 1 kΩ too much.
    double ohms = -1000 + 10020 * Math.exp(3858 * (1 / 288.15 - 1 / 298.15));
    try (var server = new BenchServer(model, 0)) {
      thermistor(WorkStep.CHECK);
      Instrument meter =
          Instrument.of(
                  "Ohmmeter",
                  Instrument.Language.SCPI,
                  server.meter(0).address(),
                  "MEAS:RES?",
                  Unit.OHM)
              .withChannel("RW-T1")
              .withCorrections(Corrections.parse("1000=0", Unit.OHM));
      hands.run(() -> desk.editBook("instruments", "", b -> b.withInstruments(List.of(meter))));
      hands.click("measured-ohms");
      settled();
      into("checks", 0, 0);
      hands.type("15").press(KeyCode.ENTER);
      into("checks", 0, 4);
      hands.press(KeyCode.ESCAPE).press(KeyCode.F6);
      until(() -> desk.live().now().isPresent());
      assertThat(text("strip-corner"))
          .matches("live 14\\.\\d+ kΩ at sensor alone, unplugged = 1[67]\\.\\d+ °C.*");
      hands.press(KeyCode.F5);
      until(() -> channel().acceptance().check().points().getFirst().measured() != null);
      Value measured = channel().acceptance().check().points().getFirst().measured();
      assertThat(measured.number()).isCloseTo(ohms, within(0.005 * ohms));
      assertThat(channel().acceptance().check().measured()).isEqualTo(Measured.OHMS);
      assertThat(analysis().findings()).anyMatch(f -> f.rule().equals("check-of-sensor"));
    }
  }

  /** A block with its names and units is read into the check by them, in either order. */
  @Test
  void aCheckIsPastedByItsNames() {
    thermistor(WorkStep.CHECK);
    clipboard("R [kΩ]\treference [°C]\n19,9\t10\n12,5\t20\n");
    into("checks", 0, 0);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
    CheckTable sheet = channel().acceptance().check();
    assertThat(sheet.measured()).isEqualTo(Measured.OHMS);
    assertThat(sheet.points()).extracting(p -> p.applied().number()).containsExactly(10., 20.);
    assertThat(sheet.points())
        .extracting(p -> p.measured().number())
        .containsExactly(19900., 12500.);
    assertThat(column("checks", 1).getFirst()).startsWith("199");
    // An input that is not measured yet stays one, and a gap moves nothing.
    clipboard("R [kΩ]\treference [°C]\n19,9\t10\n\t15\n12,5\t20\n");
    into("checks", 0, 0);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
    clipboard("19.8k\n\n12.4k\n");
    into("checks", 0, 4);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
    sheet = channel().acceptance().check();
    assertThat(sheet.points()).extracting(p -> p.applied().number()).containsExactly(10., 15., 20.);
    assertThat(sheet.points().get(0).measured().number()).isEqualTo(19800);
    assertThat(sheet.points().get(1).measured()).isNull();
    assertThat(sheet.points().get(2).measured().number()).isEqualTo(12400);
    clipboard("1.7 V\n1.35 V\n");
    into("checks", 0, 4);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
    assertThat(shown(".text-fail")).anyMatch(t -> t.endsWith("Nothing was pasted."));
    assertThat(channel().acceptance().check()).isEqualTo(sheet);
  }
}
