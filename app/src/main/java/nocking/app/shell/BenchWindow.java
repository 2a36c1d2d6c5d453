package nocking.app.shell;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import javafx.animation.Animation;
import javafx.animation.KeyFrame;
import javafx.animation.Timeline;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import javafx.stage.Stage;
import javafx.stage.Window;
import javafx.util.Duration;
import nocking.app.control.DropDown;
import nocking.app.control.EntryField;
import nocking.app.control.Paper;
import nocking.app.desk.Desk;
import nocking.app.desk.StandIn;
import nocking.app.theme.Theme;
import nocking.bench.simulated.BenchState;
import nocking.bench.simulated.Fault;
import nocking.bench.simulated.Fixture;
import nocking.procedure.Deed;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * The bench that stands in for a real one, as a window of its own beside the work: drawn as it
 * stands, with its knobs and what can go wrong on it.
 */
final class BenchWindow {
  private static final Duration OFTEN = Duration.millis(100);
  private static final double WIDTH = 760;
  private static final double HEIGHT = 440;

  private final Desk desk;
  private final Stage stage = new Stage();
  private final Scene scene;
  private final Label title = new Label();
  private final Label time = Paper.caption("");
  private final BenchPicture picture = new BenchPicture();
  private final VBox knobs = new VBox(6);
  private final Label caution = Paper.caption("");
  private final Timeline clock;
  private StandIn built;
  private List<Runnable> shows = List.of();

  BenchWindow(Desk desk, Window owner) {
    this.desk = desk;
    title.getStyleClass().add("sheet-title");
    caution.getStyleClass().add("caution-line");
    knobs.setPrefWidth(320);
    knobs.setMinWidth(300);
    var left = new VBox(8, title, picture, time, caution);
    left.setPrefWidth(384);
    left.setMaxWidth(384);
    var root = new HBox(16, left, knobs);
    root.setPadding(new Insets(14));
    root.getStyleClass().addAll("root", "stage");
    scene = new Scene(root, WIDTH, HEIGHT);
    Theme.apply(scene);
    stage.initOwner(owner);
    stage.setTitle("Bench that stands in");
    stage.setScene(scene);
    clock = new Timeline(new KeyFrame(OFTEN, e -> refresh()));
    clock.setCycleCount(Animation.INDEFINITE);
    stage.setOnShown(e -> clock.play());
    stage.setOnHidden(e -> clock.stop());
  }

  Scene scene() {
    return scene;
  }

  /** Shows it, and brings it to the front. */
  void open() {
    refresh();
    stage.show();
    stage.toFront();
  }

  /** Shows the bench as it stands now. */
  void refresh() {
    Theme.dark(scene, desk.dark());
    StandIn bench = desk.runs().standIn().orElse(null);
    if (bench == null) {
      stage.hide();
      return;
    }
    if (bench != built) build(bench);
    BenchState s = bench.state();
    picture.show(bench.scene(), s);
    time.setText("%s has gone by, %s".formatted(minutes(s.seconds()), pace(bench)));
    shows.forEach(Runnable::run);
  }

  private static String minutes(double seconds) {
    return "%d min %02d s".formatted((int) (seconds / 60), (int) (seconds % 60));
  }

  private static String pace(StandIn bench) {
    return bench.pace() == StandIn.Pace.AT_ONCE
        ? "and only with a run: choose another pace there to turn knobs by hand"
        : bench.pace().title() + " as fast as here";
  }

  private void build(StandIn bench) {
    built = bench;
    var next = new ArrayList<Runnable>();
    String of = bench.scene().title();
    title.setText(of.substring(0, 1).toUpperCase(Locale.ROOT) + of.substring(1));
    caution.setText(bench.scene().caution());
    EntryField bring = bring(bench);
    String unit = bench.scene().stimulus().unit();
    next.add(() -> bring.show(Numbers.trimmed(bench.state().target(), 5), unit));
    knobs.getChildren().setAll(Paper.subtitle("What is applied"), bring);
    steps(bench, next);
    bench.scene().fixture().ifPresent(f -> knobs.getChildren().add(hands(bench, f)));
    knobs.getChildren().add(Paper.subtitle("What is connected"));
    connected(bench, 0, "Reference", next);
    for (int i = 0; i < bench.scene().sensors().size(); i++) {
      connected(bench, i + 1, "Meter at " + bench.scene().sensors().get(i).tag(), next);
      if (bench.scene().stimulus().gradient() != 0) knobs.getChildren().add(depth(bench, i));
    }
    shows = next;
  }

  private static EntryField bring(StandIn bench) {
    var stimulus = bench.scene().stimulus();
    Unit unit = stimulus.unit().isEmpty() ? Unit.ONE : Unit.of(stimulus.unit());
    var field =
        new EntryField(
                "bench-bring",
                "Bring it to",
                true,
                t -> bench.bringTo(Value.typed(t, unit).number()),
                () -> {})
            .whenDone();
    return field;
  }

  /** Five places over what the bench can do, for one press each. */
  private void steps(StandIn bench, List<Runnable> next) {
    var line = new FlowPane(6, 6);
    var s = bench.scene().stimulus();
    for (int i = 0; i <= 4; i++) {
      double at = s.low() + (s.high() - s.low()) * i / 4;
      var b = new Button(Numbers.trimmed(at, 4));
      b.setId("bench-to-" + i);
      b.getStyleClass().add("tiny");
      b.setOnAction(e -> bench.bringTo(at));
      line.getChildren().add(b);
    }
    var feels = Paper.caption("");
    feels.setId("bench-feels");
    next.add(
        () ->
            feels.setText(
                String.join(
                    ", ",
                    bench.state().sensors().stream()
                        .map(
                            k ->
                                "%s is at %s %s"
                                    .formatted(k.tag(), Numbers.fixed(k.feels(), 3), s.unit()))
                        .toList())));
    knobs.getChildren().addAll(line, feels);
  }

  private static HBox hands(StandIn bench, Fixture fixture) {
    return switch (fixture) {
      case Fixture.Clamp _ ->
          new HBox(
              6,
              hand("bench-loosen", "Loosen the clamp", bench, Deed.LOOSEN),
              hand("bench-tighten", "Tighten it", bench, Deed.TIGHTEN));
      case Fixture.TeachWire _ ->
          new HBox(
              6,
              hand("bench-ground", "Teach wire to ground", bench, Deed.GROUND),
              hand("bench-release", "Take it off", bench, Deed.RELEASE));
    };
  }

  private static Button hand(String id, String text, StandIn bench, Deed deed) {
    var b = new Button(text);
    b.setId(id);
    b.setOnAction(e -> bench.doIt(deed));
    return b;
  }

  private void connected(StandIn bench, int instrument, String name, List<Runnable> next) {
    var fault = new DropDown<Fault>();
    fault.titled(f -> f.name().toLowerCase(Locale.ROOT).replace('_', ' '));
    fault.setId("bench-fault-" + instrument);
    fault.getItems().setAll(Fault.values());
    fault.setAccessibleText("Trouble of " + name);
    fault.setValue(Fault.NONE);
    fault.setOnAction(e -> bench.fault(instrument, fault.getValue()));
    var at = Paper.caption("answers at " + bench.address(instrument));
    next.add(() -> at.setText("answers at " + bench.address(instrument)));
    var words = new VBox(new Label(name), at);
    words.setMinWidth(170);
    var line = new HBox(10, words, fault);
    line.setAlignment(Pos.CENTER_LEFT);
    knobs.getChildren().add(line);
  }

  private static EntryField depth(StandIn bench, int sensor) {
    var field =
        new EntryField(
                "bench-depth-" + sensor,
                "deeper than the reference by",
                true,
                t -> bench.depth(sensor, Value.typed(t, Unit.of("mm")).number()),
                () -> {})
            .whenDone();
    field.show(Numbers.trimmed(bench.state().sensors().get(sensor).depth(), 4), "mm");
    return field;
  }
}
