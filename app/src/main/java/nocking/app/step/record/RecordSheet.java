package nocking.app.step.record;

import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.app.control.Column;
import nocking.app.control.Focus;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.desk.Background;
import nocking.app.desk.Desk;
import nocking.app.desk.Outcome;
import nocking.app.step.Exports;
import nocking.app.step.Files;
import nocking.app.step.Sheet;
import nocking.book.LogEntry;
import nocking.book.Revision;
import nocking.book.exchange.PointsCsv;
import nocking.channel.Channel;
import nocking.channel.ChannelJson;
import nocking.channel.Differences;
import nocking.path.GeneratedEquation;

/** The view of the eighth stage. */
public final class RecordSheet implements Sheet {
  private static final DateTimeFormatter TIME =
      DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm").withZone(ZoneId.systemDefault());

  private final Desk desk;
  private final Exports exports;
  private final TextField name = new TextField();
  private final Button keep = new Button("Name revision");
  private final Button back = new Button("Go back to it");
  private final Label difference = Paper.caption("");
  private final Grid revisions;
  private final Grid log;
  private final Grid notes;
  private final Paper lockPaper = new Paper("Lock");
  private final Label lockSays = Paper.caption("");
  private final TextField why = new TextField();
  private final Button lock = new Button();
  private final HBox root;
  private List<Revision> named = List.of();
  private List<LogEntry> entries = List.of();
  private String loadedFor = "";

  public RecordSheet(Desk desk, Files files) {
    this.desk = desk;
    exports = new Exports(desk, files);
    name.setId("revision-name");
    name.setPromptText("Name of this state, for example: as found, spring");
    name.setAccessibleText("Name of the revision");
    name.textProperty().addListener(o -> keep.setDisable(!mayKeep()));
    name.setOnAction(e -> keep());
    HBox.setHgrow(name, Priority.ALWAYS);
    keep.setId("revision-keep");
    keep.getStyleClass().add("primary");
    keep.setOnAction(e -> keep());
    back.setId("revision-back");
    back.setOnAction(e -> goBack());
    revisions =
        new Grid(
            "revisions",
            "No revision yet. Name the present state to be able to go back to it.",
            List.of(
                Column.shown("no.", 44, true, i -> String.valueOf(named.get(i).number())),
                Column.shown("name", 190, false, i -> named.get(i).name()),
                Column.shown("made", 138, true, i -> TIME.format(named.get(i).madeAt())),
                Column.shown("", 50, false, i -> isPresent(named.get(i)) ? "now" : "")),
            i -> false);
    revisions.table().getSelectionModel().selectedIndexProperty().addListener(o -> selected());
    log =
        new Grid(
            "log",
            "Nothing is logged yet.",
            List.of(
                Column.shown("line", 52, true, i -> String.valueOf(entries.get(i).number())),
                Column.shown("made", 138, true, i -> TIME.format(entries.get(i).madeAt())),
                Column.shown("kind", 66, false, i -> entries.get(i).kind()),
                Column.shown("what", 190, false, i -> entries.get(i).text())),
            i -> false);
    notes =
        new Grid(
            "notes",
            "Enter on the scratch line keeps a line here.",
            List.of(
                Column.shown(
                    "asked", 180, false, i -> channel().journal().notes().get(i).question()),
                Column.shown("answer", 90, true, i -> channel().journal().notes().get(i).answer())),
            i -> false);
    var nameRow = new HBox(8, name, keep);
    var backRow = new HBox(8, back, difference);
    backRow.setAlignment(Pos.CENTER_LEFT);
    HBox.setHgrow(difference, Priority.ALWAYS);
    back.setMinWidth(Region.USE_PREF_SIZE);
    var revisionPaper = new Paper("Revisions", nameRow, revisions, backRow);
    revisionPaper.note("every edit is saved as it is done; a name makes a state to go back to");
    VBox.setVgrow(revisions, Priority.ALWAYS);
    var logPaper = new Paper("Log", log);
    logPaper.note("each line is chained to the one before");
    VBox.setVgrow(log, Priority.ALWAYS);
    for (Paper p : List.of(revisionPaper, logPaper)) {
      VBox.setVgrow(p, Priority.ALWAYS);
      p.setPrefHeight(260);
    }
    var middle = new VBox(12, revisionPaper, logPaper);
    HBox.setHgrow(middle, Priority.ALWAYS);

    why.setId("unlock-reason");
    why.setPromptText("why is it unlocked?");
    why.setAccessibleText("Reason for unlocking");
    why.textProperty().addListener(o -> lockState());
    lock.setId("lock");
    lock.setOnAction(e -> toggleLock());
    lockPaper.getChildren().addAll(lockSays, why, lock);
    var json = export("export-json", "Channel as JSON…", this::exportJson);
    var csv = export("export-csv", "Points as CSV…", this::exportCsv);
    var exportPaper =
        new Paper(
            "Export",
            Paper.caption("Open formats, complete: what goes out comes in again without loss."),
            new FlowPane(6, 6, json, csv));
    var notesPaper = new Paper("Notes", notes);
    notesPaper.note("from the scratch line");
    notes.setPrefHeight(150);
    notes.setMinHeight(90);
    VBox.setVgrow(notes, Priority.ALWAYS);
    var left = new VBox(12, lockPaper, exportPaper, notesPaper);
    left.setMinWidth(300);
    left.setMaxWidth(300);
    VBox.setVgrow(notesPaper, Priority.ALWAYS);
    root = new HBox(12, left, middle);
  }

  private static Button export(String id, String title, Runnable action) {
    var b = new Button(title);
    b.setId(id);
    b.setOnAction(e -> action.run());
    return b;
  }

  private Channel channel() {
    return desk.channel().orElseThrow();
  }

  /** A revision is the present state when nothing but the lock differs. */
  private boolean isPresent(Revision r) {
    return r.channel()
        .filter(
            c ->
                c.journal(j -> j.withLocked(false))
                    .equals(channel().journal(j -> j.withLocked(false))))
        .isPresent();
  }

  private boolean mayKeep() {
    return desk.channel().isPresent() && desk.writable() && !name.getText().isBlank();
  }

  private void keep() {
    if (!mayKeep()) return;
    Channel c = channel();
    String title = name.getText().strip();
    name.clear();
    Background.run(
        () ->
            Outcome.of(
                () -> {
                  Revision r = desk.store().nameRevision(c, title);
                  return "Revision %d \"%s\" of %s is kept."
                      .formatted(r.number(), r.name(), c.tag());
                }),
        done -> {
          desk.say(done.sentence(), done.failed());
          // A name that could not be kept is there to be tried again.
          if (done.failed() && name.getText().isEmpty()) name.setText(title);
          load();
        });
  }

  private void goBack() {
    int i = revisions.selectedRow();
    if (i < 0 || i >= named.size()) return;
    Revision r = named.get(i);
    r.channel().ifPresent(state -> goBack(r, state));
  }

  private void goBack(Revision r, Channel state) {
    boolean done =
        desk.edit(
            "go back to revision " + r.number(),
            "",
            c -> state.withId(c.id()).journal(j -> j.withLocked(false)));
    if (done) {
      desk.say(
          "%s is as in revision %d \"%s\". Undo brings the later state back."
              .formatted(state.tag(), r.number(), r.name()),
          false);
    }
  }

  private void selected() {
    int i = revisions.selectedRow();
    boolean row = i >= 0 && i < named.size();
    Revision r = row ? named.get(i) : null;
    back.setDisable(!row || !desk.editable() || r.channel().isEmpty() || isPresent(r));
    difference.setText(
        row ? r.channel().map(c -> Differences.between(c, channel())).orElse(r.problem()) : "");
  }

  private void toggleLock() {
    Channel c = channel();
    if (c.journal().locked()) {
      String reason = why.getText().strip();
      if (reason.isEmpty()) return;
      desk.store().note("unlock", c.id(), reason);
      why.clear();
      desk.force("unlock", ch -> ch.journal(j -> j.withLocked(false)));
    } else {
      desk.force("lock", ch -> ch.journal(j -> j.withLocked(true)));
    }
  }

  private void lockState() {
    boolean locked = channel().journal().locked();
    why.setVisible(locked);
    why.setManaged(locked);
    lock.setText(locked ? "Unlock" : "Lock the channel");
    lock.setDisable(!desk.writable() || (locked && why.getText().isBlank()));
    lockPaper.note(locked ? "settled" : "open for edits");
    lockSays.setText(
        locked
            ? "A settled calibration is not changed by accident. Unlocking is noted in the log with its reason."
            : "Lock it when it is settled: edits are then refused until it is unlocked with a reason.");
  }

  private void exportJson() {
    Channel c = channel();
    exports.write(
        "Channel", GeneratedEquation.identifier(c.tag()) + ".json", ".json", ChannelJson.write(c));
  }

  private void exportCsv() {
    Channel c = channel();
    exports.write(
        "Column file",
        GeneratedEquation.identifier(c.tag()) + "_points.csv",
        ".csv",
        PointsCsv.write(c));
  }

  @Override
  public Node node() {
    return root;
  }

  @Override
  public void switched() {
    loadedFor = "";
    why.clear();
    name.clear();
  }

  /** Puts the focus into the field for a revision's name. */
  public void askName() {
    Focus.on(name);
  }

  /** Puts the focus where the channel is locked or unlocked. */
  public void askLock() {
    Focus.on(channel().journal().locked() ? why : lock);
  }

  @Override
  public void refresh() {
    if (!loadedFor.equals(channel().id())) {
      loadedFor = channel().id();
      named = List.of();
      entries = List.of();
    }
    keep.setDisable(!mayKeep());
    lockState();
    notes.show(channel().journal().notes().size());
    revisions.show(named.size());
    selected();
    load();
  }

  /** Revisions and log come from the disk, so they are read off the interface thread. */
  private void load() {
    String id = channel().id();
    Background.run(
        () -> {
          desk.store().flush();
          return new Loaded(desk.store().revisions(id), desk.store().log(id));
        },
        loaded -> {
          if (desk.channel().isEmpty() || !channel().id().equals(id)) return;
          named = loaded.revisions;
          entries = loaded.log;
          revisions.show(named.size());
          log.show(entries.size());
          selected();
        });
  }

  private record Loaded(List<Revision> revisions, List<LogEntry> log) {}
}
