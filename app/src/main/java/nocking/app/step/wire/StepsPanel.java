package nocking.app.step.wire;

import java.time.Clock;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.Locale;
import java.util.Optional;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.text.Text;
import javafx.scene.text.TextFlow;
import nocking.app.control.Paper;
import nocking.app.control.WheelScroll;
import nocking.app.desk.Desk;
import nocking.quantity.QuantityException;
import nocking.wiring.Checklist;
import nocking.wiring.WireStep;

/**
 * The steps of wiring in their order, each with its reason, to be ticked off with who did it, when
 * and what was found; and what is normal.
 */
final class StepsPanel extends VBox {
  private final Desk desk;
  private final TextField who = new TextField();
  private final Label progress = new Label();
  private final VBox list = new VBox(3);

  StepsPanel(Desk desk) {
    this.desk = desk;
    setSpacing(6);
    who.setId("steps-who");
    who.setPromptText("initials");
    who.setAccessibleText("Who does it");
    who.setPrefColumnCount(8);
    progress.setId("steps-progress");
    progress.getStyleClass().add("quiet");
    var top = new HBox(8, new Label("Done by"), who, progress);
    top.setAlignment(Pos.CENTER_LEFT);
    ScrollPane scroll = WheelScroll.of(list);
    scroll.setFitToWidth(true);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    getChildren().addAll(top, scroll);
  }

  private Checklist checklist() {
    return desk.channel().orElseThrow().wiring().checklist();
  }

  private boolean edit(String what, String key, UnaryOperator<Checklist> change) {
    return desk.edit(what, key, c -> c.wiring(w -> w.withChecklist(change.apply(w.checklist()))));
  }

  void refresh() {
    Checklist now = checklist();
    progress.setText("%d of %d done".formatted(now.ticked(), now.todo().size()));
    who.setDisable(!desk.editable());
    list.getChildren().clear();
    int number = 0;
    for (WireStep.Phase phase : WireStep.Phase.values()) {
      list.getChildren().add(Paper.subtitle(phase.title()));
      for (WireStep s : now.steps(phase)) {
        if (phase == WireStep.Phase.NORMAL) list.getChildren().add(normal(s));
        else list.getChildren().add(toDo(++number, s, now));
      }
      if (phase != WireStep.Phase.NORMAL) list.getChildren().add(further(phase));
    }
  }

  private static HBox normal(WireStep s) {
    var mark = new Label("·");
    mark.getStyleClass().add("step-mark");
    mark.setMinWidth(24);
    return new HBox(mark, words(s));
  }

  private HBox toDo(int number, WireStep s, Checklist now) {
    var box = new CheckBox();
    box.setId("step-" + number);
    box.setAccessibleText(s.text());
    Optional<Checklist.Tick> tick = now.tick(s);
    box.setSelected(tick.isPresent());
    box.setDisable(!desk.editable());
    box.setOnAction(e -> tick(s, box.isSelected()));
    var line = new VBox(2, words(s));
    HBox.setHgrow(line, Priority.ALWAYS);
    tick.ifPresent(t -> line.getChildren().add(done(number, t)));
    var row = new HBox(6, box, line);
    if (now.own().contains(s)) row.getChildren().add(takeOut(number, s));
    return row;
  }

  private Button takeOut(int number, WireStep s) {
    var out = new Button("Take out");
    out.setId("step-out-" + number);
    out.getStyleClass().add("tiny");
    out.setMinWidth(Region.USE_PREF_SIZE);
    out.setDisable(!desk.editable());
    out.setOnAction(e -> edit("take out a step", "", c -> c.without(s)));
    return out;
  }

  /** When and by whom it was done, and what was found. */
  private HBox done(int number, Checklist.Tick t) {
    var at = new Label(t.at().replace('T', ' ') + (t.by().isBlank() ? "" : " · " + t.by()));
    at.getStyleClass().add("quiet");
    at.setMinWidth(Region.USE_PREF_SIZE);
    var found = new TextField(t.measured());
    found.setId("step-found-" + number);
    found.setPromptText("what was found");
    found.setAccessibleText("What was found at step " + number);
    found.setEditable(desk.editable());
    found.setPrefColumnCount(14);
    found.setOnAction(e -> found(t, found.getText()));
    found
        .focusedProperty()
        .addListener(
            (o, before, now) -> {
              if (!now) found(t, found.getText());
            });
    var line = new HBox(8, at, found);
    line.setAlignment(Pos.CENTER_LEFT);
    return line;
  }

  private void found(Checklist.Tick t, String text) {
    if (text.strip().equals(t.measured()) || !desk.editable()) return;
    edit(
        "what was found",
        "",
        c -> c.with(new Checklist.Tick(t.step(), t.at(), t.by(), text.strip())));
  }

  private void tick(WireStep s, boolean on) {
    if (!on) {
      edit("step is open again", "", c -> c.open(s));
      return;
    }
    String at =
        LocalDateTime.now(Clock.systemDefaultZone()).truncatedTo(ChronoUnit.MINUTES).toString();
    String by = who.getText().strip();
    edit("step is done", "", c -> c.with(new Checklist.Tick(s.text(), at, by, "")));
  }

  private TextField further(WireStep.Phase phase) {
    var field = new TextField();
    field.setId("step-add-" + phase.name().toLowerCase(Locale.ROOT));
    field.setPromptText("a step of your own, Enter adds it");
    field.setAccessibleText("Add a step to: " + phase.title());
    field.setDisable(!desk.editable());
    field.setOnAction(
        e -> {
          try {
            edit("add a step", "", c -> c.plus(phase, field.getText()));
          } catch (QuantityException wrong) {
            desk.say(wrong.getMessage(), true);
          }
        });
    return field;
  }

  private static TextFlow words(WireStep s) {
    var what = new Text(s.text() + (s.why().isEmpty() ? "" : "  "));
    var why = new Text(s.why());
    why.getStyleClass().add("step-why");
    return new TextFlow(what, why);
  }
}
