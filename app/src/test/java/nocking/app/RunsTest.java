package nocking.app;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.io.IOException;
import java.time.Clock;
import java.util.List;
import java.util.function.BooleanSupplier;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Labeled;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import nocking.bench.simulated.BenchModel;
import nocking.bench.simulated.BenchServer;
import nocking.bench.simulated.Fault;
import nocking.bench.simulated.Scene;
import nocking.book.BookFile;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.channel.WorkStep;
import nocking.converter.Converter;
import nocking.points.ReferencePoint;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Act;
import nocking.run.Course;
import nocking.run.RunPlan;
import nocking.run.RunPoint;
import nocking.run.RunProgress.Phase;
import nocking.run.RunSnapshot;
import nocking.run.SetPoints;
import nocking.run.StoredRun;
import nocking.sensor.TwoPointSensor;
import org.junit.jupiter.api.Test;

/** Runs from the window against the simulated bench, over its sockets. */
class RunsTest extends WindowTest {

  private void until(BooleanSupplier there) {
    while (!Hands.ask(there::getAsBoolean)) Hands.settle();
    settled();
  }

  private void untilThere(String id) {
    while (!hands.has(id)) Hands.settle();
    settled();
  }

  private void untilSaid(String words) {
    while (!column("instruments", 8).getFirst().contains(words)) Hands.settle();
  }

  private void atOnce(String tag) {
    openDemo(tag, WorkStep.COLLECT);
    hands.click("collect-view-run").click("run-pace-at-once");
  }

  private Channel channel(String tag) {
    return Hands.ask(() -> desk.book().byTag(tag).orElseThrow());
  }

  /** Five points up and down from the window: what is adopted is the truth within the noise. */
  @Test
  void aRunIsBegunAndItsPointsAreTakenOver() {
    atOnce("BL-P1");
    int before = channel("BL-P1").calibration().points().points().size();
    hands.enter("run-set-points", "0…60 / 15");
    hands.click("run-begin");
    until(() -> !desk.runs().running());
    List<ReferencePoint> points = channel("BL-P1").calibration().points().points();
    assertThat(points).hasSize(before + 9);
    var sensor = Scene.named("pump").orElseThrow().sensors().getFirst();
    for (ReferencePoint p : points.subList(before, before + 9)) {
      double x = p.applied().number();
      double stated = 0.0277 * (0.01 + 0.005 + 0.03 + 0.01) + 4 * 0.0006 / Math.sqrt(10);
      assertThat(p.mean()).isCloseTo(sensor.volts().applyAsDouble(x), within(stated));
    }
    assertThat(text("message")).contains("9 points are taken over");
    assertThat(column("run-points", 4)).contains("down");
    // What was recorded stays when the points are taken back.
    hands.press(KeyCode.CONTROL, KeyCode.Z);
    assertThat(channel("BL-P1").calibration().points().points()).hasSize(before);
    assertThat(desk.store().runs()).singleElement().matches(r -> !r.unfinished());
    hands.click("run-take-over");
    assertThat(channel("BL-P1").calibration().points().points()).hasSize(before + 9);
    assertThat(hands.has("run-take-over")).isFalse();
  }

  /** The bench that stands in is offered by itself; a locked channel is not read with it. */
  @Test
  void onlyWhatMayChangeIsOffered() {
    atOnce("RW-T1");
    hands.run(
        () -> {
          ComboBox<?> box = (ComboBox<?>) shell.scene().lookup("#run-reference");
          assertThat(box.getValue()).isEqualTo("simulated bath");
        });
    // The incubator is locked: it is not offered.
    assertThat(hands.has("run-with-IN-T2")).isFalse();
  }

  /** What the rack says of runs, from top to bottom. */
  private List<String> marks() {
    return shell.scene().getRoot().lookupAll(".rack .run-mark").stream()
        .filter(Node::isVisible)
        .map(n -> ((Labeled) n).getText())
        .toList();
  }

  /** The power goes in the middle: what waits is said, gone on with, and nothing is taken twice. */
  @Test
  void aRunThatWasBrokenOffIsOfferedAndGoesOn() {
    openDemo("BL-P1", WorkStep.COLLECT);
    hands.click("collect-view-run").click("run-pace-×60");
    hands.enter("run-set-points", "0…60 / 20");
    hands.click("run-begin");
    until(() -> desk.runs().now().map(n -> n.points().size() == 2).orElse(false));
    // The window is closed as by a power cut: nobody stops the run.
    hands.run(() -> desk.store().close());
    List<RunPoint> had;
    try (BookFile file = BookFile.openToRead(book(), Clock.systemUTC())) {
      had = file.runs().getFirst().progress().points();
      assertThat(had).hasSizeBetween(2, 3);
    }
    open(store(book()));
    hands.run(desk::sayOfOpening);
    until(() -> desk.message().startsWith("BL-P1 Blower manifold: a run waits to be gone on with"));
    assertThat(Hands.ask(desk::message))
        .endsWith("(Collect, run); %d of 7 are done.".formatted(had.size()));
    // It is marked where the person looks first, and nowhere else.
    until(() -> marks().equals(List.of("run waits")));
    hands.run(
        () -> {
          desk.select(desk.book().byTag("BL-P1").orElseThrow().id());
          desk.step(WorkStep.COLLECT);
        });
    settled();
    hands.click("collect-view-run").click("run-pace-at-once");
    untilThere("run-offer");
    hands.click("run-go-on");
    until(() -> !desk.runs().running() && desk.runs().now().isPresent());
    until(() -> marks().isEmpty());
    StoredRun run = desk.store().runs().getFirst();
    assertThat(run.progress().points()).hasSize(7).startsWith(had.toArray(RunPoint[]::new));
    assertThat(run.unfinished()).isFalse();
    assertThat(
            channel("BL-P1").calibration().points().points().stream()
                .filter(p -> p.taken() != null))
        .hasSize(7);
    assertThat(hands.has("run-offer")).isFalse();
  }

  /**
   * A kill between the end of a run and its points in the channel is said, and mended by a button.
   */
  @Test
  void aRunThatEndedBeforeItsPointsWereInTheChannelIsTakenOver() {
    atOnce("BL-P1");
    hands.enter("run-set-points", "0…60 / 30");
    hands.click("run-begin");
    until(() -> !desk.runs().running() && desk.runs().now().isPresent());
    List<ReferencePoint> had = channel("BL-P1").calibration().points().points();
    assertThat(had.stream().filter(p -> p.taken() != null)).hasSize(5);
    hands.run(() -> desk.undo());
    settled();
    hands.run(() -> desk.store().close());
    open(store(book()));
    hands.run(
        () -> {
          desk.select(desk.book().byTag("BL-P1").orElseThrow().id());
          desk.step(WorkStep.COLLECT);
        });
    settled();
    hands.click("collect-view-run");
    untilThere("run-take-over");
    hands.click("run-take-over");
    settled();
    assertThat(channel("BL-P1").calibration().points().points()).isEqualTo(had);
  }

  /** Held, noted, repeated, skipped and stopped, each with its reason in the journal. */
  @Test
  void whatIsDoneInARunIsKeptWithItsReason() {
    openDemo("SG-P1", WorkStep.COLLECT);
    hands.click("collect-view-run").click("run-pace-×60");
    hands.enter("run-set-points", "5…95 / 5");
    hands.click("run-begin");
    until(() -> desk.runs().now().map(n -> n.points().size() == 1).orElse(false));
    hands.enter("run-reason", "bumped");
    hands.click("run-repeat");
    hands.enter("run-reason", "tea");
    hands.click("run-hold");
    untilThere("run-go");
    hands.enter("run-reason", "stuck");
    hands.click("run-go");
    untilThere("run-hold");
    hands.click("run-skip");
    hands.enter("run-reason", "enough");
    hands.click("run-stop");
    until(() -> !desk.runs().running());
    List<String> acts =
        desk.store().runs().getFirst().entries().stream()
            .filter(Act.class::isInstance)
            .map(Act.class::cast)
            .map(a -> a.kind() + " " + a.why())
            .toList();
    assertThat(acts).contains("REPEAT bumped", "HOLD tea", "GO stuck").endsWith("STOP enough");
  }

  /** What the bench does to a run is said while it can be mended, and the run goes on by itself. */
  @Test
  void aLostInstrumentIsSaidAndTheRunGoesOn() {
    openDemo("BL-P1", WorkStep.COLLECT);
    hands.click("collect-view-run").click("run-pace-×60");
    hands.enter("run-set-points", "0, 30");
    hands.click("run-begin");
    until(() -> desk.runs().now().map(n -> n.last().isPresent()).orElse(false));
    hands.run(() -> desk.runs().standIn().orElseThrow().fault("BL-P1", Fault.GARBAGE));
    until(
        () -> desk.runs().now().map(n -> n.trouble().contains("expected a number")).orElse(false));
    hands.run(() -> desk.runs().standIn().orElseThrow().fault("BL-P1", Fault.NONE));
    until(() -> !desk.runs().running());
    assertThat(desk.runs().now().orElseThrow().points()).hasSize(3);
  }

  /**
   * A wire that was pulled makes no point without a yes, and a key that is hit in passing is none.
   */
  @Test
  void whatSomethingSpeaksAgainstTakesAYes() {
    openDemo("BL-P1", WorkStep.COLLECT);
    hands.click("collect-view-run").click("run-pace-×60");
    hands.enter("run-set-points", "20…60 / 5");
    hands.click("run-begin");
    until(() -> desk.runs().now().map(n -> !n.points().isEmpty()).orElse(false));
    hands.run(() -> desk.runs().standIn().orElseThrow().fault("BL-P1", Fault.PULLED_WIRE));
    until(() -> desk.runs().now().map(RunSnapshot::doubted).orElse(false));
    untilThere("run-go");
    int sound = desk.runs().now().orElseThrow().points().size();
    assertThat(text("run-warning"))
        .contains("below 0.1000 V, where only a fault lies", "signal wire open");
    assertThat(text("run-what")).startsWith("Is that so, at ");
    assertThat(text("run-take")).isEqualTo("Take all the same");
    hands.press(KeyCode.ENTER);
    assertThat(desk.runs().now().orElseThrow().points()).hasSize(sound);
    hands.enter("run-reason", "as it was found");
    hands.click("run-take");
    until(() -> desk.runs().now().map(n -> n.points().size() == sound + 1).orElse(false));
    until(() -> desk.runs().now().map(RunSnapshot::doubted).orElse(false));
    hands.run(() -> desk.runs().standIn().orElseThrow().fault("BL-P1", Fault.NONE));
    untilThere("run-go");
    hands.enter("run-reason", "wire back in");
    hands.click("run-go");
    until(() -> !desk.runs().running());
    List<RunPoint> points = desk.runs().now().orElseThrow().points();
    assertThat(points).hasSize(17).filteredOn(RunPoint::doubted).hasSize(1);
    assertThat(points.get(sound).why()).isEqualTo("taken by hand: as it was found");
  }

  /** An instrument of the book says who it is and what it reads, or what failed. */
  @Test
  void anInstrumentIsAsked() throws IOException {
    try (var server = new BenchServer(new BenchModel(Scene.named("pump").orElseThrow(), 1), 0)) {
      openDemo("BL-P1", WorkStep.COLLECT);
      hands.run(
          () -> desk.editBook("instruments", "", b -> b.withInstruments(List.of(server.meter(0)))));
      hands.click("collect-view-instruments");
      into("instruments", 0, 0);
      hands.click("instrument-connect");
      untilSaid("reads ");
      assertThat(column("instruments", 8).getFirst()).contains("Millrace,BL-P1 meter of the pump");
    }
    hands.click("instrument-connect");
    untilSaid("Meter at BL-P1");
  }

  /** Two channels on one tank, each with a meter of the book: one level, two readings. */
  @Test
  void channelsWithMetersOfTheBookAreReadTogether() throws IOException {
    Scene pump = Scene.named("pump").orElseThrow();
    try (var server = new BenchServer(new BenchModel(pump, 1), 0);
        var other = new BenchServer(new BenchModel(pump, 2), 0)) {
      openDemo("SP-V1", WorkStep.COLLECT);
      hands.run(
          () ->
              desk.editBook(
                  "instruments",
                  "",
                  b ->
                      b.withInstruments(
                          List.of(
                              server.meter(0).withName("left").withChannel("SP-V1"),
                              other.meter(0).withName("right").withChannel("SP-V2")))));
      hands.click("collect-view-run");
      choose("run-reference", "read by eye");
      choose("run-meter", "left");
      hands.click("run-with-SP-V2");
      hands.enter("run-set-points", "10").press(KeyCode.ENTER);
      choose("run-course", Course.UP);
      hands.click("run-begin");
      until(() -> desk.runs().now().flatMap(RunSnapshot::last).isPresent());
      hands.enter("run-by-eye", "10").press(KeyCode.ENTER);
      until(() -> desk.runs().now().map(n -> n.phase() == Phase.SETTLING).orElse(false));
      hands.click("run-take");
      until(() -> !desk.runs().running());
    }
    RunPlan plan = desk.store().runs().getFirst().plan();
    assertThat(plan.channels()).extracting(c -> c.meter().name()).containsExactly("left", "right");
    assertThat(desk.store().runs().getFirst().progress().points())
        .singleElement()
        .matches(p -> p.readings().stream().noneMatch(List::isEmpty));
  }

  /** The sump with its form of a run open, to be filled by hand. */
  private void openSump(double tolerance) {
    Channel sump =
        Channel.blank("sump", "SP-V1")
            .define(
                d ->
                    d.withName("Sump volume")
                        .withKind(QuantityKind.VOLUME)
                        .withUnit("L")
                        .withRange(Value.of(0), Value.of(600))
                        .withTolerance(Value.of(tolerance)))
            .design(
                d ->
                    d.withSensor(
                            new TwoPointSensor(
                                Value.of(0),
                                Value.of(0.45),
                                Value.of(600),
                                Value.of(3.5),
                                Value.of(100)))
                        .withConverter(Converter.of(12, 5)));
    open(new Book(List.of(sump)));
    hands.run(() -> desk.step(WorkStep.COLLECT));
    settled();
    hands.click("collect-view-run").click("run-pace-at-once");
    choose("run-reference", "read by eye");
    choose("run-kind", RunPlan.Kind.POURS.title());
    settled();
  }

  /** A sump of odd shape: each pour by hand, one of them not as asked; volume against volts. */
  @Test
  void poursAreAddedUpAndReadWhenTheSurfaceIsCalm() {
    openSump(8);
    hands.enter("run-set-points", "100…400 / 100").press(KeyCode.ENTER);
    hands.click("run-begin");
    for (int i = 0; i < 4; i++) {
      untilThere("run-poured");
      assertThat(text("run-what")).isEqualTo("Pour %s L".formatted(i == 3 ? "70" : "100"));
      if (i == 2) hands.enter("run-pour", "130").press(KeyCode.ENTER);
      hands.click("run-poured");
      int done = i + 1;
      until(() -> desk.runs().now().map(n -> n.points().size() == done).orElse(false));
    }
    until(() -> !desk.runs().running());
    List<ReferencePoint> points = channel("SP-V1").calibration().points().points();
    assertThat(points)
        .extracting(p -> p.applied().number())
        .containsExactly(100., 200., 330., 400.);
    var probe = Scene.named("sump").orElseThrow().sensors().getFirst();
    for (ReferencePoint p : points) {
      double x = p.applied().number();
      double slope = probe.volts().applyAsDouble(x + 1) - probe.volts().applyAsDouble(x);
      // Waves of 0.8 L that ten readings do not quite even out, and what the pump still runs.
      assertThat(p.mean()).isCloseTo(probe.volts().applyAsDouble(x), within(1.2 * slope + 0.001));
    }
  }

  /** Where the sump bends more than a straight line may be off by, half of a pour is asked for. */
  @Test
  void pourIsHalvedWhereTheVesselBends() {
    openSump(2);
    hands.enter("run-set-points", "100…400 / 100").press(KeyCode.ENTER);
    assertThat(text("run-straight")).isEqualTo("1");
    hands.click("run-begin");
    for (int i = 0; i < 5; i++) {
      untilThere("run-poured");
      assertThat(text("run-what")).isEqualTo("Pour %s L".formatted(i < 3 ? "100" : "50"));
      assertThat(text("run-where")).contains(i < 3 ? "of 4" : "of 5");
      String halved = "Less than planned, since it bends: a straight line would be off by more";
      assertThat(text("run-how").contains(halved)).isEqualTo(i == 3);
      hands.click("run-poured");
      int done = i + 1;
      until(() -> desk.runs().now().map(n -> n.points().size() == done).orElse(false));
    }
    until(() -> !desk.runs().running());
    assertThat(channel("SP-V1").calibration().points().points())
        .extracting(p -> p.applied().number())
        .containsExactly(100., 200., 300., 350., 400.);
    // The next filling knows it from the first pour on.
    choose("run-kind", RunPlan.Kind.POINTS.title());
    choose("run-kind", RunPlan.Kind.POURS.title());
    settled();
    assertThat(SetPoints.parse(text("run-set-points"), Unit.of("L")))
        .extracting(Value::number)
        .contains(50., 100., 150., 200., 300., 400.);
  }

  /** With nothing but a meter in the hand: what it shows is typed, and is a point all the same. */
  @Test
  void readingsAreTypedByHand() {
    openDemo("PD-Q1", WorkStep.COLLECT);
    hands.click("collect-view-run");
    choose("run-meter", "typed by hand");
    hands.enter("run-set-points", "0, 20").press(KeyCode.ENTER);
    choose("run-course", Course.UP);
    hands.click("run-begin");
    // A slip by a power of ten is no point without a yes.
    typed(0, "0.1", "23.4");
    until(() -> desk.runs().now().map(RunSnapshot::doubted).orElse(false));
    untilThere("run-go");
    assertThat(text("run-warning"))
        .startsWith("PD-Q1 reads 23.4000 V at 0.1 ")
        .contains("It looks ×10: a prefix, or the meter's range");
    assertThat(desk.runs().now().orElseThrow().points()).isEmpty();
    hands.click("run-go");
    // The reference still stands where it was read; the meter is asked again.
    untilThere("run-reads");
    hands.enter("run-reads", "2.34").press(KeyCode.ENTER);
    until(() -> desk.runs().now().map(n -> n.next() == 1).orElse(false));
    assertThat(text("run-warning")).isEmpty();
    typed(1, "19.9", "2748 mV");
    assertThat(hands.has("run-deviation")).isFalse();
    until(() -> !desk.runs().running());
    List<ReferencePoint> points = channel("PD-Q1").calibration().points().counting();
    assertThat(points).extracting(p -> p.applied().number()).containsExactly(0.1, 19.9);
    assertThat(points).extracting(ReferencePoint::mean).containsExactly(2.34, 2.748);
    assertThat(desk.store().runs()).isNotEmpty().allMatch(r -> !r.unfinished());
  }

  /** Types what the reference and then the meter read; the keys follow what is asked for. */
  private void typed(int target, String reference, String meter) {
    // What is typed before the run looks at the next set point is of the last one.
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
    untilThere("run-reads");
    int before = desk.runs().now().orElseThrow().points().size();
    hands.type("one volt").press(KeyCode.ENTER);
    assertThat(desk.runs().now().orElseThrow().points()).hasSize(before);
    hands.press(KeyCode.CONTROL, KeyCode.A);
    hands.type(meter).press(KeyCode.ENTER);
  }

  /** Steps that were each written down by themselves, typed and pasted, stand as totals. */
  @Test
  void stepsAreAddedUp() {
    openDemo("GV-P1", WorkStep.COLLECT);
    hands.click("applied-as-steps");
    into("points", 0, 1);
    hands.type("20").press(KeyCode.ENTER);
    into("points", 1, 1);
    hands.type("20 mm").press(KeyCode.ENTER);
    clipboard("20\t0.9\n2.5 cm\t1.2\n");
    into("points", 2, 1);
    hands.press(KeyCode.CONTROL, KeyCode.V);
    settled();
    assertThat(channel("GV-P1").calibration().points().points())
        .extracting(p -> p.applied().number())
        .containsExactly(20.0, 40.0, 60.0, 85.0);
    hands.click("applied-as-total");
    into("points", 4, 1);
    hands.type("100").press(KeyCode.ENTER);
    assertThat(channel("GV-P1").calibration().points().points().getLast().applied().number())
        .isEqualTo(100);
  }

  /** The places that are proposed become the plan's, and what they leave is said. */
  @Test
  void placesAreTakenIntoThePlan() {
    openDemo("RW-T1", WorkStep.COLLECT);
    hands.click("collect-view-run");
    choose("places-model", "poly:2");
    Button take = hands.node("places-best-take");
    hands.run(take::fire);
    settled();
    TextField points = hands.node("run-set-points");
    assertThat(points.getText().split(", ")).hasSize(3);
    assertThat(Hands.ask(() -> points.getText())).isEqualTo("1.5, 12.5, 23.5");
  }
}
