package nocking.app.step.collect;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.Optional;
import java.util.function.Supplier;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import nocking.app.control.Paper;
import nocking.app.desk.Desk;
import nocking.run.RunPlan;
import nocking.run.StoredRun;

/** A run that was broken off, with what it has and what it lacks; offered to be gone on with. */
final class RunOffer extends VBox {
  private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm");

  private final Desk desk;
  private final Label title = new Label();
  private final Label missing = Paper.caption("");
  private final Button goOn = new Button("Go on");
  private final Button close = new Button("Close it, keep its points");
  private final Supplier<Optional<RunPlan>> plan;
  private final Runnable begun;
  private StoredRun run;

  /**
   * @param plan with the instruments at which it would go on
   * @param begun called when it goes on
   */
  RunOffer(Desk desk, Supplier<Optional<RunPlan>> plan, Runnable begun) {
    this.begun = begun;
    this.desk = desk;
    this.plan = plan;
    setId("run-offer");
    getStyleClass().addAll("sheet", "run-offer");
    setSpacing(6);
    title.getStyleClass().add("sheet-title");
    title.setWrapText(true);
    goOn.setId("run-go-on");
    goOn.getStyleClass().add("primary");
    goOn.setOnAction(e -> goOn());
    close.setId("run-close");
    close.setOnAction(e -> desk.runs().close(run));
    var buttons = new HBox(8, goOn, close);
    buttons.setAlignment(Pos.CENTER_LEFT);
    getChildren().addAll(title, missing, buttons);
    setMinHeight(USE_PREF_SIZE);
  }

  /** Its own plan is the one that is worked at, so that its own bench stands in for it. */
  private void goOn() {
    desk.channel().ifPresent(c -> desk.runs().draft(c.id(), run.progress().plan()));
    plan.get().ifPresent(p -> desk.runs().goOn(run, p));
    begun.run();
  }

  void refresh() {
    run =
        desk.runs().running()
            ? null
            : desk.channel().flatMap(c -> desk.runs().waiting(c.id())).orElse(null);
    setVisible(run != null);
    setManaged(run != null);
    if (run == null) return;
    title.setText("A run was broken off: " + run.plan().title());
    String when = WHEN.format(Instant.ofEpochMilli(run.began()).atZone(ZoneId.systemDefault()));
    missing.setText(
        "Begun %s. %s Going on settles the point under way anew.".formatted(when, run.missing()));
    goOn.setDisable(!desk.writable() || plan.get().isEmpty());
    close.setDisable(!desk.writable());
  }
}
