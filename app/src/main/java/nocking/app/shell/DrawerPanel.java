package nocking.app.shell;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiFunction;
import java.util.function.Function;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import nocking.app.control.Column;
import nocking.app.control.Grid;
import nocking.app.desk.Background;
import nocking.app.desk.Desk;
import nocking.app.step.BlockPaste;
import nocking.app.step.Exports;
import nocking.app.step.Files;
import nocking.book.exchange.ColumnException;
import nocking.book.exchange.ColumnFile;
import nocking.book.exchange.StockCsv;
import nocking.parts.StockPart;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.ResistorCode;
import nocking.quantity.Unit;

/** The drawer of parts: a table of the book, with import and export. Escape closes it. */
final class DrawerPanel extends VBox {
  private final Desk desk;
  private final Files files;
  private final Exports exports;
  private final Grid grid;
  private final Label note = new Label();
  private Node returnTo;

  DrawerPanel(Desk desk, Files files) {
    this.desk = desk;
    this.files = files;
    exports = new Exports(desk, files);
    getStyleClass().add("finder");
    setId("drawer");
    setMaxSize(760, 520);
    setSpacing(8);
    StackPane.setMargin(this, new Insets(60, 20, 60, 20));
    var title = new Label("Drawer of parts");
    title.getStyleClass().add("sheet-title");
    note.getStyleClass().add("caption");
    note.setWrapText(true);
    Unit watt = Unit.of("W");
    grid =
        new Grid(
            "drawer-grid",
            "The drawer is empty. Import a CSV file with the columns value, tolerance, power,"
                + " voltage, quantity, name, or add a part.",
            List.of(
                typed("value Ω", 90, p -> ResistorCode.of(p.ohms()), Unit.OHM, DrawerPanel::ohms),
                typed("±", 70, p -> number(p.tolerance(), " %"), Unit.PERCENT, DrawerPanel::tol),
                typed(
                    "power",
                    80,
                    p -> p.watts() == 0 ? "–" : Numbers.compact(p.watts(), "W", 3),
                    watt,
                    DrawerPanel::watts),
                typed(
                    "voltage",
                    80,
                    p -> p.volts() == 0 ? "–" : Numbers.compact(p.volts(), "V", 4),
                    Unit.VOLT,
                    DrawerPanel::volts),
                typed(
                    "pieces", 70, p -> String.valueOf(p.quantity()), Unit.ONE, DrawerPanel::pieces),
                Column.typed(
                    "name",
                    160,
                    false,
                    i -> part(i).name(),
                    (row, text) -> replace(row, named(part(row), text.strip())))),
            i -> part(i).quantity() == 0);
    grid.onDelete(this::remove)
        .onPaste(BlockPaste.said(desk, (row, column, block) -> paste(block)));
    VBox.setVgrow(grid, Priority.ALWAYS);
    var add = button("drawer-add", "Add a part", this::add);
    var load = button("drawer-import", "Import CSV…", this::load);
    var save = button("drawer-export", "Export CSV…", this::save);
    var close = button("drawer-close", "Close", this::close);
    var gap = new HBox();
    HBox.setHgrow(gap, Priority.ALWAYS);
    var foot = new HBox(8, add, load, save, gap, close);
    foot.setAlignment(Pos.CENTER_LEFT);
    getChildren().addAll(title, note, grid, foot);
    setVisible(false);
    managedProperty().bind(visibleProperty());
    // Before the table takes Escape for itself; a cell that is being edited keeps it.
    addEventFilter(
        KeyEvent.KEY_PRESSED,
        e -> {
          if (e.getCode() == KeyCode.ESCAPE && !(e.getTarget() instanceof TextField)) {
            close();
            e.consume();
          }
        });
    desk.listen(
        c -> {
          if (isVisible() && c == Desk.Change.DOCUMENT) refresh();
        });
  }

  private static Button button(String id, String text, Runnable action) {
    var b = new Button(text);
    b.setId(id);
    b.setOnAction(e -> action.run());
    return b;
  }

  private Column typed(
      String title,
      double width,
      Function<StockPart, String> shown,
      Unit unit,
      BiFunction<StockPart, Double, StockPart> change) {
    return Column.typed(
        title,
        width,
        true,
        i -> shown.apply(part(i)),
        (row, text) -> replace(row, change.apply(part(row), QuantityParser.value(text, unit))));
  }

  private static String number(double v, String unit) {
    return Numbers.trimmed(v, 3) + unit;
  }

  private static StockPart ohms(StockPart p, double v) {
    return new StockPart(p.name(), v, p.tolerance(), p.watts(), p.volts(), p.quantity());
  }

  private static StockPart tol(StockPart p, double v) {
    return new StockPart(p.name(), p.ohms(), v, p.watts(), p.volts(), p.quantity());
  }

  private static StockPart watts(StockPart p, double v) {
    return new StockPart(p.name(), p.ohms(), p.tolerance(), v, p.volts(), p.quantity());
  }

  private static StockPart volts(StockPart p, double v) {
    return new StockPart(p.name(), p.ohms(), p.tolerance(), p.watts(), v, p.quantity());
  }

  private static StockPart pieces(StockPart p, double v) {
    if (v != Math.rint(v) || v < 0 || v > 1e6) {
      throw new QuantityException("pieces must be a whole number");
    }
    return p.withQuantity((int) v);
  }

  private static StockPart named(StockPart p, String name) {
    return new StockPart(name, p.ohms(), p.tolerance(), p.watts(), p.volts(), p.quantity());
  }

  private StockPart part(int i) {
    return desk.book().stock().get(i);
  }

  private void replace(int row, StockPart part) {
    desk.editBook(
        "change drawer",
        "",
        b -> {
          var next = new ArrayList<>(b.stock());
          next.set(row, part);
          return b.withStock(next);
        });
  }

  private boolean remove(int row) {
    return desk.editBook(
        "take a part out of the drawer",
        "",
        b -> {
          var next = new ArrayList<>(b.stock());
          next.remove(row);
          return b.withStock(next);
        });
  }

  private void add() {
    desk.editBook(
        "add a part",
        "",
        b -> {
          var next = new ArrayList<>(b.stock());
          next.add(new StockPart("", 10e3, 1, 0.25, 250, 10));
          return b.withStock(next);
        });
  }

  /** What was read, or the sentence why not. */
  private record Read(List<StockPart> parts, String problem) {}

  private void load() {
    files.toOpen("Drawer", "*.csv").ifPresent(file -> Background.run(() -> read(file), this::take));
  }

  private static Read read(Path file) {
    try {
      return new Read(StockCsv.read(ColumnFile.read(file)), "");
    } catch (ColumnException | QuantityException e) {
      return new Read(List.of(), e.getMessage() + ". The drawer is as it was.");
    }
  }

  /**
   * A block of parts is added to the drawer; without a header its columns are in the usual order.
   */
  private void paste(String block) {
    try {
      List<StockPart> parts = StockCsv.block(block);
      desk.editBook(
          "paste parts",
          "",
          b -> {
            var next = new ArrayList<>(b.stock());
            next.addAll(parts);
            return b.withStock(next);
          });
      note.setText(
          "%d kind%s of parts added. Undo takes them out."
              .formatted(parts.size(), parts.size() == 1 ? "" : "s"));
    } catch (ColumnException e) {
      throw new QuantityException(e.getMessage() + ". The drawer is as it was.");
    }
  }

  private void take(Read read) {
    if (!read.problem.isEmpty()) {
      note.setText(read.problem);
      return;
    }
    desk.editBook("import drawer", "", b -> b.withStock(read.parts));
    note.setText(
        "%d kinds of parts taken in. Undo brings the former drawer back."
            .formatted(read.parts.size()));
  }

  private void save() {
    exports.write("Drawer", "drawer.csv", ".csv", StockCsv.write(desk.book().stock()));
  }

  void open(Node focus) {
    returnTo = focus;
    note.setText(
        "Searches from the drawer never use a part more often than there are. Cells take codes"
            + " and units: 4k7, 1 %, 250 mW.");
    refresh();
    setVisible(true);
    grid.table().requestFocus();
  }

  private void refresh() {
    grid.editable(desk.writable());
    grid.show(desk.book().stock().size());
  }

  private void close() {
    setVisible(false);
    if (returnTo != null) returnTo.requestFocus();
  }
}
