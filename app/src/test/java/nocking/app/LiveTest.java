package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.util.List;
import java.util.function.BooleanSupplier;
import javafx.scene.Node;
import javafx.scene.input.KeyCode;
import nocking.app.desk.Aside;
import nocking.bench.simulated.BenchModel;
import nocking.bench.simulated.BenchServer;
import nocking.bench.simulated.Scene;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.check.CheckPoint;
import nocking.points.ReferencePoint;
import nocking.quantity.Value;
import nocking.run.Instrument;
import nocking.wiring.Observation;
import nocking.wiring.Pin;
import nocking.wiring.Place;
import org.junit.jupiter.api.Test;

/**
 * What a meter reads goes with one key to where the work is, and stands beside what is expected.
 */
class LiveTest extends WindowTest {
  private static final Scene PUMP = Scene.named("pump").orElseThrow();

  private void until(BooleanSupplier there) {
    while (!Hands.ask(there::getAsBoolean)) Hands.settle();
    settled();
  }

  private Channel channel(String tag) {
    return Hands.ask(() -> desk.book().byTag(tag).orElseThrow());
  }

  private void measuredBy(Instrument meter, String tag) {
    hands.run(
        () ->
            desk.editBook(
                "instruments", "", b -> b.withInstruments(List.of(meter.withChannel(tag)))));
  }

  private void at(WorkStep step) {
    hands.run(() -> desk.step(step));
    settled();
  }

  /** 20 kPa are on: the strip says volts, quantity and departure; each view takes its own. */
  @Test
  void aLiveReadingGoesWhereTheWorkIs() throws IOException {
    var model = new BenchModel(PUMP, 5);
    model.put(20);
    model.advance(30);
    double truth = model.truth(0, 20);
    try (var server = new BenchServer(model, 0)) {
      openDemo("BL-P1", WorkStep.COLLECT);
      measuredBy(server.meter(0), "BL-P1");
      int points = channel("BL-P1").calibration().points().points().size();
      ReferencePoint last = channel("BL-P1").calibration().points().points().getLast();
      hands.press(KeyCode.F5);
      until(
          () ->
              desk.channel()
                      .orElseThrow()
                      .calibration()
                      .points()
                      .points()
                      .getLast()
                      .readings()
                      .size()
                  > last.readings().size());
      List<ReferencePoint> now = channel("BL-P1").calibration().points().points();
      assertThat(now).hasSize(points);
      assertThat(now.getLast().readings().getLast().number()).isCloseTo(truth, within(0.004));
      hands.press(KeyCode.F6);
      until(() -> desk.live().now().isPresent());
      assertThat(text("strip-corner")).startsWith("live 0.8").contains("kPa");
      // What is applied nobody has said: where the probe of the screen stands is nothing of it.
      assertThat(text("strip-corner")).doesNotContain("off");
      Node mark = hands.node("live-mark");
      assertThat(mark.isVisible()).isTrue();
      check(truth);
      wire(truth);
      diagnose(truth);
      // Where nothing takes a reading the probe goes to it.
      at(WorkStep.TABLE);
      hands.press(KeyCode.F5);
      settled();
      assertThat(Hands.ask(() -> desk.probe())).isCloseTo(20, within(1.5));
      hands.press(KeyCode.F6);
      assertThat(text("strip-corner")).startsWith("error");
    }
  }

  private void check(double truth) {
    at(WorkStep.CHECK);
    hands.run(
        () ->
            desk.edit(
                "one input",
                "",
                c ->
                    c.acceptance(
                        a -> a.withCheck(a.check().plus(new CheckPoint(Value.of(20), null))))));
    settled();
    int row = channel("BL-P1").acceptance().check().points().size() - 1;
    into("checks", row, 4);
    hands.press(KeyCode.ESCAPE).press(KeyCode.F5);
    settled();
    Value measured = channel("BL-P1").acceptance().check().points().get(row).measured();
    assertThat(measured).as("taken").isNotNull();
    switch (channel("BL-P1").acceptance().check().measured()) {
      case VOLTS -> assertThat(measured.number()).isCloseTo(truth, within(0.004));
      case COUNTS -> assertThat(measured.number()).isCloseTo(truth / 3.3 * 4096, within(6.0));
      case READING -> assertThat(measured.number()).isCloseTo(20, within(1.5));
    }
  }

  private void wire(double truth) {
    at(WorkStep.WIRE);
    hands.press(KeyCode.F5);
    settled();
    var plan = channel("BL-P1").wiring().plan();
    Value measured = plan.pins().get(plan.indexOf(Pin.Function.SIGNAL)).measured();
    assertThat(measured.number()).isCloseTo(truth, within(0.004));
  }

  private void diagnose(double truth) {
    hands.run(() -> desk.aside(Aside.DIAGNOSE));
    settled();
    hands.press(KeyCode.F5);
    settled();
    Observation seen = channel("BL-P1").wiring().seen().getLast();
    assertThat(seen.place()).isEqualTo(Place.of(Place.Kind.SIGNAL_AT_RECEIVER));
    assertThat(seen.value().number()).isCloseTo(truth, within(0.004));
  }

  /** A lever caught at its third station: the position takes where it settled, up and then down. */
  @Test
  void aStationTakesWhereItSettles() throws IOException {
    var model = new BenchModel(Scene.named("lever").orElseThrow(), 5);
    try (var server = new BenchServer(model, 0)) {
      openDemo("FD-S1", WorkStep.WIRE);
      measuredBy(server.meter(0), "FD-S1");
      int before = settles(2);
      model.bringTo(3);
      model.advance(20);
      hands.press(KeyCode.F5);
      until(() -> settlesNow(2) == before + 1);
      hands.press(KeyCode.F6);
      until(() -> desk.live().now().isPresent());
      String name = channel("FD-S1").wiring().bands().positions().get(2).name();
      assertThat(text("strip-corner")).contains(name);
    }
  }

  private int settles(int position) {
    return Hands.ask(() -> settlesNow(position));
  }

  private int settlesNow(int position) {
    var p = desk.channel().orElseThrow().wiring().bands().positions().get(position);
    return p.up().size() + p.down().size();
  }

  /**
   * A run has the meter for itself: what it reads is what is live meanwhile, and after it again.
   */
  @Test
  void aRunIsListenedTo() {
    openDemo("BL-P1", WorkStep.COLLECT);
    hands.click("collect-view-run").click("run-pace-×60");
    hands.press(KeyCode.F6);
    until(() -> desk.live().now().isPresent());
    hands.enter("run-set-points", "0, 20").press(KeyCode.ENTER);
    hands.click("run-begin");
    until(() -> desk.runs().now().map(n -> n.points().size() == 1).orElse(false));
    double last =
        Hands.ask(() -> desk.runs().now().orElseThrow().last().orElseThrow().raw().getFirst());
    assertThat(Hands.ask(() -> desk.live().now().orElseThrow().volts()))
        .isCloseTo(last, within(0.2));
    until(() -> !desk.runs().running());
    until(() -> desk.live().now().isPresent());
    assertThat(text("strip-corner")).startsWith("live ");
  }

  /** Without a meter, and with one that does not answer, what lacks is said; nothing is taken. */
  @Test
  void whatCannotBeReadIsSaid() throws IOException {
    openDemo("BL-P1", WorkStep.CHECK);
    Channel before = channel("BL-P1");
    hands.press(KeyCode.F5);
    assertThat(text("message")).contains("No meter measures BL-P1");
    Instrument gone;
    try (var server = new BenchServer(new BenchModel(PUMP, 1), 0)) {
      gone = server.meter(0);
    }
    measuredBy(gone.withName("Gone"), "BL-P1");
    hands.press(KeyCode.F5);
    until(() -> desk.message().contains("Gone"));
    measuredBy(gone.withName("Gone").withPlace("TP2"), "BL-P1");
    assertThat(channel("BL-P1")).isEqualTo(before);
  }
}
