package nocking.app.shell;

import java.util.EnumMap;
import java.util.Locale;
import java.util.Map;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ContentDisplay;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import nocking.analysis.Analysis;
import nocking.analysis.Progress;
import nocking.app.control.StateSign;
import nocking.app.desk.Aside;
import nocking.app.desk.Desk;
import nocking.app.desk.Latest;
import nocking.channel.WorkStep;

/** The eight stages with a dot that says how far each has come. */
final class StepTabs extends HBox {
  private static final double NARROW = 1000;

  private final Desk desk;
  private final Map<WorkStep, Button> buttons = new EnumMap<>(WorkStep.class);
  private final Map<Aside, Button> asides = new EnumMap<>(Aside.class);
  private final Map<WorkStep, HBox> dots = new EnumMap<>(WorkStep.class);
  private final Map<WorkStep, Progress> shown = new EnumMap<>(WorkStep.class);
  private final Latest work = new Latest();

  /** The analysis whose stages were asked for last. */
  private Analysis asked;

  StepTabs(Desk desk) {
    this.desk = desk;
    getStyleClass().add("tabs");
    for (WorkStep step : WorkStep.values()) {
      var number = new Label(String.valueOf(step.ordinal() + 1));
      number.getStyleClass().add("number");
      var name = new Label(step.title());
      name.getStyleClass().add("name");
      name.setMinWidth(USE_PREF_SIZE);
      var dot = new HBox();
      dot.setAlignment(Pos.CENTER);
      var content = new HBox(6, number, name, dot);
      content.setAlignment(Pos.CENTER);
      var button = new Button(null, content);
      button.setContentDisplay(ContentDisplay.GRAPHIC_ONLY);
      button.getStyleClass().setAll("tab-button");
      button.setId("tab-" + step.name().toLowerCase(Locale.ROOT));
      button.setOnAction(e -> desk.step(step));
      buttons.put(step, button);
      dots.put(step, dot);
      getChildren().add(button);
    }
    widthProperty()
        .addListener(
            (o, before, width) -> {
              getStyleClass().remove("narrow");
              if (width.doubleValue() < NARROW) getStyleClass().add("narrow");
            });
    var gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    getChildren().add(gap);
    for (Aside aside : Aside.values()) {
      var name = new Label(aside.title());
      name.getStyleClass().add("name");
      name.setMinWidth(USE_PREF_SIZE);
      var button = new Button(null, name);
      button.setContentDisplay(ContentDisplay.GRAPHIC_ONLY);
      button.getStyleClass().setAll("tab-button");
      button.setId("tab-" + aside.name().toLowerCase(Locale.ROOT));
      button.setAccessibleText(aside.title());
      button.setOnAction(e -> desk.aside(aside));
      asides.put(aside, button);
      getChildren().add(button);
    }
  }

  void refresh() {
    asides.forEach(
        (aside, b) -> {
          b.getStyleClass().remove("current");
          if (desk.aside().filter(a -> a == aside).isPresent()) b.getStyleClass().add("current");
        });
    for (WorkStep step : WorkStep.values()) {
      Button b = buttons.get(step);
      b.getStyleClass().remove("current");
      if (step == desk.step() && desk.aside().isEmpty()) b.getStyleClass().add("current");
    }
    if (desk.channel().isEmpty() || desk.analysis() == asked) return;
    asked = desk.analysis();
    Analysis a = asked;
    work.run(() -> progress(a), this::show);
  }

  /** How far each stage is; what stands out and the table are looked for, which takes a while. */
  private static Map<WorkStep, Progress> progress(Analysis a) {
    var map = new EnumMap<WorkStep, Progress>(WorkStep.class);
    for (WorkStep step : WorkStep.values()) map.put(step, Progress.of(a, step));
    return map;
  }

  private void show(Map<WorkStep, Progress> now) {
    now.forEach(
        (step, progress) -> {
          if (progress == shown.put(step, progress)) return;
          dots.get(step).getChildren().setAll(StateSign.of(progress));
          String said = step.title() + ", " + progress.name().toLowerCase(Locale.ROOT);
          buttons.get(step).setAccessibleText(said);
        });
  }
}
