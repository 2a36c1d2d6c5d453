package nocking.app.step.table;

import java.time.Clock;
import java.time.DateTimeException;
import java.time.Instant;
import java.time.format.DateTimeFormatter;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.Column;
import nocking.app.control.DropDown;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.desk.Desk;
import nocking.app.step.BlockPaste;
import nocking.app.step.InHand;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Unit;
import nocking.table.HeldCopy;
import nocking.table.Transfer;
import nocking.table.TypedCell;
import nocking.table.TypingList;
import nocking.view.TableResult;

/** The list that is typed into the receiver: what is done, what it shows, and the transfer. */
final class TypingPage implements TablePage {
  private static final DateTimeFormatter WHEN =
      DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm", Locale.ROOT);

  private final Desk desk;
  private final Clock clock;
  private final Grid grid;
  private final Label title = new Label();
  private final Label what = new Label();
  private final Label how = new Label();
  private final Button done = new Button("Typed");
  private final TextField by = new TextField();
  private final DropDown<String> way = new DropDown<>();
  private final TextField note = new TextField();
  private final InHand.Field who;
  private final InHand.Field which;
  private final Button record = new Button("Record it");
  private final Label state = Paper.caption("");
  private final Label transfers = Paper.caption("");
  private final VBox root;
  private TableResult table;
  private List<TypedCell> rows = List.of();

  TypingPage(Desk desk, Clock clock) {
    this.desk = desk;
    this.clock = clock;
    who = InHand.of(desk, by);
    which = InHand.of(desk, note);
    grid =
        new Grid(
            "typing",
            "No table yet. Say how many cells the receiver holds.",
            List.of(
                Column.shown("cell", 40, true, i -> String.valueOf(i + 1)),
                Column.shown("raw", 80, true, i -> raw(rows.get(i).raw())),
                Column.shown("output", 80, true, i -> out(rows.get(i).out())),
                Column.shown("typed", 54, false, i -> "").signed(this::tick),
                Column.typed(
                        "raw reads",
                        84,
                        true,
                        i -> back(rows.get(i).rawBack(), true),
                        this::takeRaw)
                    .styled(i -> differs(rows.get(i).rawBack(), rows.get(i).raw())),
                Column.typed(
                        "output reads",
                        94,
                        true,
                        i -> back(rows.get(i).outBack(), false),
                        this::takeOut)
                    .styled(i -> differs(rows.get(i).outBack(), rows.get(i).out()))),
            i -> rows.get(i).typed());
    BlockPaste.ofNumbers(grid, desk);
    VBox.setVgrow(grid, Priority.ALWAYS);
    title.getStyleClass().add("cue-title");
    what.getStyleClass().add("cue-what");
    what.setId("typing-what");
    how.getStyleClass().add("cue-text");
    how.setWrapText(true);
    how.setMinHeight(Region.USE_PREF_SIZE);
    done.setId("typing-done");
    done.getStyleClass().add("cue-button");
    done.setMinWidth(Region.USE_PREF_SIZE);
    done.setOnAction(e -> typed());
    var gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    what.setMinWidth(0);
    var line = new HBox(10, what, gap, done);
    line.setAlignment(Pos.CENTER_LEFT);
    var cue = new VBox(2, title, line, how);
    cue.getStyleClass().add("cue");
    by.setId("transfer-by");
    by.setPromptText("who");
    by.setAccessibleText("Who did it");
    by.setPrefColumnCount(6);
    way.setId("transfer-how");
    way.setAccessibleText("How the table went over");
    way.getItems().setAll("typed in", "flashed", "sent");
    way.setValue("typed in");
    way.setMinWidth(104);
    note.setId("transfer-note");
    note.setPromptText("which receiver");
    note.setAccessibleText("Note to the transfer");
    HBox.setHgrow(note, Priority.ALWAYS);
    note.setMinWidth(60);
    record.setId("transfer-record");
    record.getStyleClass().add("primary");
    record.setMinWidth(Region.USE_PREF_SIZE);
    record.setOnAction(e -> record());
    by.textProperty().addListener((o, b, t) -> able());
    state.setId("typing-state");
    transfers.setId("transfers");
    var entry = new HBox(6, by, way, note, record);
    entry.setAlignment(Pos.CENTER_LEFT);
    root = new VBox(8, cue, grid, state, entry, transfers);
  }

  @Override
  public Node node() {
    return root;
  }

  private String raw(double v) {
    return Numbers.fixed(v, table.spec().rawDecimals());
  }

  private String out(double v) {
    return table.output().text(v).replace('-', '−');
  }

  private String back(Double v, boolean rawColumn) {
    if (v == null) return "";
    return rawColumn ? raw(v) : out(v);
  }

  private static String differs(Double back, double meant) {
    return back != null && back != meant ? "text-fail" : "";
  }

  private Node tick(int i) {
    if (i >= rows.size()) return null;
    var box = new CheckBox();
    box.setSelected(rows.get(i).typed());
    box.setDisable(!desk.writable());
    box.setAccessibleText("Cell %d is typed".formatted(i + 1));
    box.setFocusTraversable(false);
    box.setOnAction(e -> change(i, "tick a cell", c -> c.withTyped(box.isSelected())));
    return box;
  }

  private void change(int i, String what, UnaryOperator<TypedCell> how) {
    // A pasted block changes one cell after the other before anything is shown.
    List<TypedCell> before = desk.channel().orElseThrow().receiver().typing();
    var next = new ArrayList<>(TypingList.of(table.ordered(), before));
    next.set(i, how.apply(next.get(i)));
    desk.writeDown(what, "typing", c -> c.receiver(r -> r.withTyping(next)));
  }

  private void takeRaw(int i, String text) {
    double v = QuantityParser.value(text.replace('−', '-'), table.spec().axis().unit());
    change(i, "what the receiver reads", c -> c.withTyped(true).withRawBack(v));
    desk.seal();
  }

  private void takeOut(int i, String text) {
    Unit unit = table.output().plain() ? desk.channel().orElseThrow().unit() : Unit.ONE;
    double v = QuantityParser.value(text.replace('−', '-'), unit);
    change(i, "what the receiver reads", c -> c.withTyped(true).withOutBack(v));
    desk.seal();
  }

  /** The cell that is to be typed now is. */
  private void typed() {
    int next = TypingList.next(rows);
    if (next < rows.size()) change(next, "tick a cell", c -> c.withTyped(true));
  }

  private void record() {
    try {
      Transfer t =
          new Transfer(
              Instant.now(clock).truncatedTo(ChronoUnit.SECONDS).toString(),
              by.getText().strip(),
              way.getValue(),
              note.getText().strip(),
              table.spec().axis(),
              table.output().unit(),
              rows);
      boolean recorded =
          desk.writeDown(
              "record a transfer",
              "",
              c ->
                  c.receiver(
                      r -> {
                        var all = new ArrayList<>(r.transfers());
                        all.add(t);
                        return r.withTransfers(all).withTyping(List.of());
                      }));
      if (recorded) {
        note.clear();
        // Ctrl+Z takes the transfer back, and not what stood in a field.
        grid.table().requestFocus();
        desk.say(
            "The transfer is recorded; what the receiver holds is compared from now on.", false);
      }
    } catch (QuantityException e) {
      desk.say(e.getMessage() + ".", true);
    }
  }

  private void able() {
    boolean typedIn = Objects.equals(way.getValue(), "typed in");
    boolean ready = table != null && (!typedIn || TypingList.typed(rows) == rows.size());
    record.setDisable(!desk.writable() || !ready || by.getText().isBlank());
  }

  @Override
  public void show(Analysis a, TableResult t) {
    table = t;
    rows = TypingList.of(t.ordered(), a.channel().receiver().typing());
    grid.editable(desk.writable());
    String u = t.spec().axis().unit().symbol();
    grid.table().getColumns().get(1).setText("raw " + u);
    grid.table().getColumns().get(2).setText(("output " + t.output().unit()).strip());
    grid.show(rows.size());
    int next = TypingList.next(rows);
    boolean all = next == rows.size();
    title.setText(
        all
            ? "All %d cells are typed".formatted(rows.size())
            : "Cell %d of %d".formatted(next + 1, rows.size()));
    what.setText(
        all
            ? "Read them back"
            : "%s %s → %s %s"
                .formatted(
                    raw(rows.get(next).raw()), u, out(rows.get(next).out()), t.output().unit()));
    how.setText(
        all
            ? "Type what the receiver shows, or paste its list; then record the transfer."
            : "Type it into the receiver, then say so here. What is typed so far is kept.");
    done.setVisible(!all);
    done.setDisable(!desk.writable());
    if (!all) grid.table().scrollTo(Math.max(0, next - 3));
    state.setText(state(t));
    state.getStyleClass().remove("text-fail");
    if (rows.stream().anyMatch(TypedCell::differs)) state.getStyleClass().add("text-fail");
    transfers.setText(history(a.channel().receiver().transfers()));
    if (by.getText().isEmpty() && !a.channel().receiver().transfers().isEmpty()) {
      by.setText(a.channel().receiver().transfers().getLast().by());
    }
    way.setOnAction(e -> able());
    able();
  }

  private String state(TableResult t) {
    long back = rows.stream().filter(TypedCell::readBack).count();
    long differ = rows.stream().filter(TypedCell::differs).count();
    String read =
        back == 0
            ? "Nothing was read back yet."
            : differ == 0
                ? "%d of %d read back, as meant.".formatted(back, rows.size())
                : "%d of %d read back, %d differ.".formatted(back, rows.size(), differ);
    String refused =
        HeldCopy.refused(
                rows.stream().map(TypedCell::held).toList(),
                t.spec().descending(),
                t.spec().demands().refusesEqual())
            .map(why -> " The receiver will refuse it: " + why + ".")
            .orElse("");
    return "%d of %d typed. %s%s".formatted(TypingList.typed(rows), rows.size(), read, refused);
  }

  private String history(List<Transfer> all) {
    if (all.isEmpty()) return "No table went into the receiver yet.";
    Transfer t = all.getLast();
    long back = t.cells().stream().filter(TypedCell::readBack).count();
    String before = all.size() == 1 ? "" : " %d before it.".formatted(all.size() - 1);
    return "%s: %d cells %s by %s, %d read back%s.%s"
        .formatted(
            when(t.at()),
            t.cells().size(),
            t.how(),
            t.by(),
            back,
            t.note().isEmpty() ? "" : ", " + t.note(),
            before);
  }

  /** An instant by the clock of the bench; what is none as it is written. */
  private String when(String at) {
    try {
      return WHEN.withZone(clock.getZone()).format(Instant.parse(at));
    } catch (DateTimeException e) {
      return at;
    }
  }

  @Override
  public void none(String why) {
    table = null;
    rows = List.of();
    grid.show(0);
    title.setText("No list yet");
    what.setText("");
    how.setText(why.isEmpty() ? "There is no table." : why + ".");
    done.setVisible(false);
    state.setText("");
    transfers.setText(desk.channel().map(c -> history(c.receiver().transfers())).orElse(""));
    able();
  }

  @Override
  public void switched() {
    grid.clearWrong();
    who.switched();
    which.switched();
  }
}
