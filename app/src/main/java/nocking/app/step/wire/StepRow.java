package nocking.app.step.wire;

import java.time.Clock;
import java.time.LocalDateTime;
import java.time.temporal.ChronoUnit;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.text.Text;
import javafx.scene.text.TextFlow;
import nocking.app.control.EntryField;
import nocking.wiring.Checklist.Tick;
import nocking.wiring.WireStep;

/** A step with its tick, and once it is done when and by whom, and what was found. */
final class StepRow extends HBox {
  private final CheckBox box = new CheckBox();
  private final Label at = new Label();
  private final EntryField found;
  private final HBox done;
  private final Button out = new Button("Take out");
  private Optional<Tick> tick = Optional.empty();

  /**
   * @param who initials of who does it
   * @param ticked told the tick when the step is done or was found to be something
   * @param opened told when it is open again
   * @param takenOut told when an own step is to go
   */
  StepRow(
      WireStep step,
      Supplier<String> who,
      Consumer<Tick> ticked,
      Runnable opened,
      Runnable takenOut) {
    super(6);
    box.setAccessibleText(step.text());
    box.setOnAction(
        e -> {
          if (box.isSelected()) ticked.accept(new Tick(step.text(), now(), who.get().strip(), ""));
          else opened.run();
        });
    at.getStyleClass().add("quiet");
    at.setMinWidth(Region.USE_PREF_SIZE);
    found =
        new EntryField(
                "",
                "What was found",
                false,
                t ->
                    tick.ifPresent(
                        k -> ticked.accept(new Tick(k.step(), k.at(), k.by(), t.strip()))),
                () -> {})
            .whenDone()
            .prompt("what was found")
            .bare();
    found.field().setPrefColumnCount(14);
    found.field().setMaxWidth(USE_PREF_SIZE);
    done = new HBox(8, at, found);
    done.setAlignment(Pos.CENTER_LEFT);
    out.getStyleClass().add("tiny");
    out.setMinWidth(Region.USE_PREF_SIZE);
    out.setOnAction(e -> takenOut.run());
    var line = new VBox(2, words(step), done);
    HBox.setHgrow(line, Priority.ALWAYS);
    getChildren().setAll(box, line, out);
  }

  /**
   * @param number of the step, from 1
   * @param own true for a line that the technician added
   */
  void show(int number, Optional<Tick> tick, boolean own, boolean editable) {
    this.tick = tick;
    box.setId("step-" + number);
    box.setSelected(tick.isPresent());
    box.setDisable(!editable);
    done.setVisible(tick.isPresent());
    done.setManaged(tick.isPresent());
    at.setText(
        tick.map(t -> t.at().replace('T', ' ') + (t.by().isBlank() ? "" : " · " + t.by()))
            .orElse(""));
    found.field().setId("step-found-" + number);
    found.field().setEditable(editable);
    found.show(tick.map(Tick::measured).orElse(""), "");
    out.setId("step-out-" + number);
    out.setVisible(own);
    out.setManaged(own);
    out.setDisable(!editable);
  }

  private static String now() {
    return LocalDateTime.now(Clock.systemDefaultZone()).truncatedTo(ChronoUnit.MINUTES).toString();
  }

  /** What to do, and why. */
  static TextFlow words(WireStep s) {
    var what = new Text(s.text() + (s.why().isEmpty() ? "" : "  "));
    var why = new Text(s.why());
    why.getStyleClass().add("step-why");
    return new TextFlow(what, why);
  }
}
