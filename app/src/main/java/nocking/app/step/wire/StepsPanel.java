package nocking.app.step.wire;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.app.control.Paper;
import nocking.app.control.WheelScroll;
import nocking.app.desk.Desk;
import nocking.quantity.QuantityException;
import nocking.quantity.Sentence;
import nocking.wiring.Checklist;
import nocking.wiring.WireStep;
import nocking.wiring.WireStep.Phase;

/**
 * The steps of wiring in their order, each with its reason, to be ticked off with who did it, when
 * and what was found; and what is normal.
 */
final class StepsPanel extends VBox {
  private final Desk desk;
  private final TextField who = new TextField();
  private final Label progress = new Label();
  private final VBox list = new VBox(3);
  private final Map<WireStep, StepRow> rows = new HashMap<>();
  private final Map<Phase, Label> titles = new EnumMap<>(Phase.class);
  private final Map<Phase, TextField> further = new EnumMap<>(Phase.class);
  private final List<Node> normal = new ArrayList<>();

  StepsPanel(Desk desk) {
    this.desk = desk;
    setSpacing(6);
    who.setId("steps-who");
    who.setPromptText("initials");
    who.setAccessibleText("Who does it");
    who.setPrefColumnCount(8);
    progress.setId("steps-progress");
    progress.getStyleClass().add("quiet");
    for (Phase p : Phase.values()) titles.put(p, Paper.subtitle(p.title()));
    for (Phase p : List.of(Phase.MAKE, Phase.BEFORE, Phase.AFTER)) further.put(p, further(p));
    for (WireStep s : Checklist.EMPTY.steps(Phase.NORMAL)) normal.add(normal(s));
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

  private boolean edit(String what, UnaryOperator<Checklist> change) {
    return desk.edit(what, "", c -> c.wiring(w -> w.withChecklist(change.apply(w.checklist()))));
  }

  void refresh() {
    Checklist now = checklist();
    boolean edit = desk.editable();
    progress.setText("%d of %d done".formatted(now.ticked(), now.todo().size()));
    who.setDisable(!edit);
    rows.keySet().retainAll(now.todo());
    var lines = new ArrayList<Node>();
    int number = 0;
    for (Phase phase : Phase.values()) {
      lines.add(titles.get(phase));
      if (phase == Phase.NORMAL) {
        lines.addAll(normal);
        continue;
      }
      for (WireStep s : now.steps(phase)) {
        StepRow row = rows.computeIfAbsent(s, this::row);
        row.show(++number, now.tick(s), now.own().contains(s), edit);
        lines.add(row);
      }
      further.get(phase).setDisable(!edit);
      lines.add(further.get(phase));
    }
    // Lines that stay where they are keep what is being typed in them, and the focus.
    if (!list.getChildren().equals(lines)) replace(lines);
  }

  private void replace(List<Node> lines) {
    Node focused = getScene() == null ? null : getScene().getFocusOwner();
    list.getChildren().setAll(lines);
    if (focused != null && focused.getScene() != null) focused.requestFocus();
  }

  private StepRow row(WireStep s) {
    return new StepRow(
        s,
        who::getText,
        tick -> edit("step is done", c -> c.with(tick)),
        () -> edit("step is open again", c -> c.open(s)),
        () -> edit("take out a step", c -> c.without(s)));
  }

  private static HBox normal(WireStep s) {
    var mark = new Label("·");
    mark.getStyleClass().add("step-mark");
    mark.setMinWidth(24);
    return new HBox(mark, StepRow.words(s));
  }

  private TextField further(Phase phase) {
    var field = new TextField();
    field.setId("step-add-" + phase.name().toLowerCase(Locale.ROOT));
    field.setPromptText("a step of your own, Enter adds it");
    field.setAccessibleText("Add a step to: " + phase.title());
    field.setOnAction(
        e -> {
          try {
            if (edit("add a step", c -> c.plus(phase, field.getText()))) field.clear();
          } catch (QuantityException wrong) {
            desk.say(Sentence.capital(wrong.getMessage()) + ".", true);
          }
        });
    return field;
  }
}
