package nocking.app.step.define;

import java.time.Clock;
import java.time.LocalDate;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.TextArea;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.StringConverter;
import nocking.app.control.Column;
import nocking.app.control.DropDown;
import nocking.app.control.Grid;
import nocking.app.control.Segments;
import nocking.app.desk.Desk;
import nocking.app.desk.Latest;
import nocking.channel.Book;
import nocking.channel.Channel;
import nocking.channel.SensorCard;
import nocking.datasheet.Datasheet;
import nocking.datasheet.Separator;
import nocking.datasheet.SheetLine;
import nocking.datasheet.SheetSensor;
import nocking.quantity.QuantityException;
import nocking.quantity.Sentence;

/** The text of a datasheet, what was understood of each line, and the sensors that it makes. */
final class DatasheetPanel extends VBox {

  /** How numbers are written: found out, or said. */
  private enum Written {
    FIND_OUT("as the numbers say", Optional.empty()),
    POINT("decimal point", Optional.of(Separator.POINT)),
    COMMA("decimal comma", Optional.of(Separator.COMMA));

    private final String title;
    private final Optional<Separator> separator;

    Written(String title, Optional<Separator> separator) {
      this.title = title;
      this.separator = separator;
    }
  }

  private final Desk desk;
  private final Runnable done;
  private final Latest work = new Latest();
  private final TextArea text = new TextArea();
  private final Segments<Written> written;
  private final Label verdict = new Label();
  private final ComboBox<SheetSensor> types = new DropDown<>();
  private final Button use = new Button("Use it");
  private final Button keep = new Button("Keep as a card and use it");
  private final Grid grid;
  private Written how = Written.FIND_OUT;
  private List<SheetLine> lines = List.of();

  /**
   * @param done called when a sensor was taken, or nobody wants one
   */
  DatasheetPanel(Desk desk, Runnable done) {
    this.desk = desk;
    this.done = done;
    setSpacing(8);
    text.setId("datasheet-text");
    text.setAccessibleText("Text of the datasheet");
    text.setPromptText(
        "Paste the lines of the datasheet here: ranges, outputs, supply, tolerances, limits, tables"
            + " with units in their heads.");
    text.setPrefRowCount(8);
    text.setMinHeight(96);
    text.textProperty().addListener((o, before, now) -> read());
    written =
        new Segments<>("datasheet-written", List.of(Written.values()), w -> w.title, this::write);
    written.show(how);
    types.setId("datasheet-type");
    types.setAccessibleText("Which type of the datasheet");
    types.setConverter(
        new StringConverter<>() {
          @Override
          public String toString(SheetSensor s) {
            return s == null ? "" : name(s);
          }

          @Override
          public SheetSensor fromString(String words) {
            throw new UnsupportedOperationException("the box is not editable");
          }
        });
    types.valueProperty().addListener((o, before, now) -> describe());
    use.setId("datasheet-use");
    use.getStyleClass().add("primary");
    use.setOnAction(e -> use());
    keep.setId("datasheet-keep");
    keep.setOnAction(e -> keep());
    var cancel = new Button("Back");
    cancel.setId("datasheet-back");
    cancel.setOnAction(e -> done.run());
    for (Button b : List.of(use, keep, cancel)) b.setMinWidth(Region.USE_PREF_SIZE);
    verdict.setId("datasheet-verdict");
    verdict.getStyleClass().add("result-line");
    verdict.setWrapText(true);
    verdict.setMaxWidth(Double.MAX_VALUE);
    verdict.setMinHeight(Region.USE_PREF_SIZE);
    grid =
        new Grid(
            "datasheet-lines",
            "What was understood of each line appears here.",
            List.of(
                Column.shown("line", 40, true, i -> String.valueOf(lines.get(i).number())),
                Column.shown("", 26, false, i -> mark(lines.get(i).reading()))
                    .styled(i -> style(lines.get(i).reading()))
                    .keepingItsWidth(),
                Column.shown("understood", 300, false, i -> lines.get(i).says())
                    .styled(i -> style(lines.get(i).reading())),
                Column.shown("text", 260, false, i -> lines.get(i).text()).fromWidth(600)),
            i -> lines.get(i).reading() == SheetLine.Reading.NOT_NEEDED);
    grid.table()
        .getSelectionModel()
        .selectedIndexProperty()
        .addListener((o, before, now) -> showInText(now.intValue()));
    grid.setMinHeight(120);
    VBox.setVgrow(grid, Priority.ALWAYS);
    var choice = new FlowPane(8, 6, types, use, keep, cancel);
    var numbers = new HBox(8, new Label("Numbers have"), written);
    numbers.setAlignment(Pos.CENTER_LEFT);
    getChildren().addAll(text, numbers, verdict, choice, grid);
  }

  /** Marks the line in the pasted text. */
  private void showInText(int row) {
    if (row < 0 || row >= lines.size()) return;
    String[] all = text.getText().split("\n", -1);
    int from = 0;
    for (int i = 0; i < lines.get(row).number() - 1; i++) from += all[i].length() + 1;
    text.selectRange(from, from + all[lines.get(row).number() - 1].length());
  }

  private static String mark(SheetLine.Reading r) {
    return switch (r) {
      case UNDERSTOOD -> "✓";
      case NOT_NEEDED -> "·";
      case NOT_UNDERSTOOD -> "?";
      case CONTRADICTS -> "✕";
    };
  }

  private static String style(SheetLine.Reading r) {
    return switch (r) {
      case UNDERSTOOD, NOT_NEEDED -> "";
      case NOT_UNDERSTOOD -> "text-warning";
      case CONTRADICTS -> "text-fail";
    };
  }

  private static String name(SheetSensor s) {
    return s.type().isEmpty() ? Sentence.capital(s.sensor().inHand()) : s.type();
  }

  void open() {
    text.clear();
    how = Written.FIND_OUT;
    written.show(how);
    read();
    text.requestFocus();
  }

  private void write(Written w) {
    how = w;
    read();
  }

  /** A whole datasheet takes longer than a frame: it is read off the interface thread. */
  private void read() {
    String pasted = text.getText();
    Written as = how;
    // What was read before is no longer what stands there.
    use.setDisable(true);
    keep.setDisable(true);
    work.run(() -> Understood.of(pasted, as.separator), this::show);
  }

  /** What was made of the text. */
  private record Understood(List<SheetLine> lines, List<SheetSensor> sensors, String problem) {
    static Understood of(String text, Optional<Separator> separator) {
      if (text.isBlank()) return new Understood(List.of(), List.of(), "Nothing is pasted yet.");
      try {
        Datasheet d =
            separator.map(s -> Datasheet.read(text, s)).orElseGet(() -> Datasheet.read(text));
        return new Understood(
            d.lines(),
            d.sensors(),
            d.problem().isEmpty() ? "" : "No sensor yet: " + d.problem() + ".");
      } catch (QuantityException e) {
        return new Understood(List.of(), List.of(), Sentence.capital(e.getMessage()) + ".");
      }
    }
  }

  private void show(Understood u) {
    lines = u.lines;
    grid.show(lines.size());
    types.getItems().setAll(u.sensors);
    types.setValue(u.sensors.isEmpty() ? null : u.sensors.getFirst());
    types.setVisible(u.sensors.size() > 1);
    types.setManaged(u.sensors.size() > 1);
    verdict.setText(u.problem);
    describe();
  }

  private void describe() {
    SheetSensor s = types.getValue();
    use.setDisable(s == null || !desk.editable());
    keep.setDisable(s == null || !desk.editable());
    if (s == null) return;
    String bears =
        s.overload()
            .map(
                o ->
                    (o.proof() == null ? "" : ", bears " + o.proof().typed())
                        + (o.burst() == null ? "" : ", bursts at " + o.burst().typed()))
            .orElse("");
    long open = lines.stream().filter(l -> l.reading() == SheetLine.Reading.NOT_UNDERSTOOD).count();
    verdict.setText(
        "%s: %s, %s%s%s"
            .formatted(
                name(s),
                s.sensor().summary(),
                s.says(),
                bears,
                open == 0
                    ? ""
                    : open == 1
                        ? " · one line was not understood"
                        : " · %d lines were not understood".formatted(open)));
  }

  private void use() {
    SheetSensor s = types.getValue();
    if (s != null && desk.edit("sensor from a datasheet", "", c -> with(c, s))) done.run();
  }

  private void keep() {
    SheetSensor s = types.getValue();
    if (s == null) return;
    String stem = s.type().isEmpty() ? s.sensor().title() + ", pasted" : s.type();
    SensorCard card =
        s.card(
            Book.newId(),
            desk.book().freeCardName(stem),
            LocalDate.now(Clock.systemDefaultZone()).toString());
    Channel c = desk.channel().orElseThrow();
    boolean kept =
        desk.editBook(
            "keep card " + card.name(),
            "",
            b -> b.with(card).with(with(c, s).design(d -> d.withCard(card.ref()))));
    if (kept) {
      desk.say("%s is kept as a card.".formatted(card.name()), false);
      done.run();
    }
  }

  private static Channel with(Channel c, SheetSensor s) {
    return s.card(c.id(), name(s), "").begin(c).design(d -> d.withCard(null));
  }
}
