package nocking.app.control;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.function.IntFunction;
import java.util.function.IntPredicate;
import java.util.stream.IntStream;
import javafx.beans.InvalidationListener;
import javafx.beans.WeakInvalidationListener;
import javafx.beans.property.IntegerProperty;
import javafx.beans.property.ReadOnlyObjectWrapper;
import javafx.beans.property.SimpleIntegerProperty;
import javafx.scene.control.IndexedCell;
import javafx.scene.control.Label;
import javafx.scene.control.TableColumn;
import javafx.scene.control.TablePosition;
import javafx.scene.control.TableRow;
import javafx.scene.control.TableView;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.quantity.QuantityException;

/**
 * A table that behaves like a spreadsheet: type over, F2 or Enter to edit, Tab and Enter to go on,
 * copy and paste of blocks, Delete. A cell that cannot be understood keeps what was typed, is
 * marked, and says why below the table; the last good value stays in force.
 */
public final class Grid extends VBox {
  /** Takes a pasted block whose first cell belongs at a place. */
  @FunctionalInterface
  public interface BlockTaker {
    /**
     * @throws QuantityException one sentence; nothing has changed then
     */
    void take(int row, int column, String block);
  }

  private final TableView<Integer> table = new TableView<>();
  private final Label reason = new Label();
  private final List<Column> columns;
  private final WrongCells wrong = new WrongCells();
  private final IntPredicate quiet;
  private BlockTaker paste =
      (row, column, block) -> {
        throw new QuantityException(
            "This table takes one cell at a time, no block of them. Nothing was pasted.");
      };
  private IntFunction<Boolean> delete = row -> false;
  private boolean editable = true;

  /**
   * Rises whenever what the cells show may be another. They look again by themselves: a table that
   * is told to make its cells anew keeps the old ones where its height changes in the same breath.
   */
  private final IntegerProperty version = new SimpleIntegerProperty();

  /**
   * @param quiet rows shown in quiet ink, such as points that are left out
   */
  public Grid(String id, String empty, List<Column> columns, IntPredicate quiet) {
    this.columns = columns;
    this.quiet = quiet;
    table.setId(id);
    table.setEditable(true);
    table.setFixedCellSize(25);
    table.setColumnResizePolicy(TableView.CONSTRAINED_RESIZE_POLICY_ALL_COLUMNS);
    table.getSelectionModel().setCellSelectionEnabled(false);
    var placeholder = new Label(empty);
    placeholder.setWrapText(true);
    table.setPlaceholder(placeholder);
    table.setRowFactory(t -> new QuietRow());
    for (int i = 0; i < columns.size(); i++) table.getColumns().add(column(i));
    table.widthProperty().addListener((o, before, now) -> leaveOut(now.doubleValue()));
    VBox.setVgrow(table, Priority.ALWAYS);
    reason.getStyleClass().addAll("text-fail");
    reason.setWrapText(true);
    getChildren().add(table);
    table.addEventFilter(KeyEvent.KEY_PRESSED, this::key);
    table.addEventFilter(KeyEvent.KEY_TYPED, this::typeOver);
  }

  private void leaveOut(double width) {
    for (int i = 0; i < columns.size(); i++) {
      table.getColumns().get(i).setVisible(width >= columns.get(i).from());
    }
  }

  private TableColumn<Integer, Integer> column(int index) {
    Column c = columns.get(index);
    var column = new TableColumn<Integer, Integer>(c.title());
    column.setSortable(false);
    column.setReorderable(false);
    column.setPrefWidth(c.width());
    boolean keeps = c.firm() || c.number() && c.width() < 100;
    column.setMinWidth(keeps ? c.width() : Math.min(c.width(), 40));
    column.setEditable(c.taker() != null);
    if (c.number()) column.getStyleClass().add("number");
    column.setCellValueFactory(f -> new ReadOnlyObjectWrapper<>(f.getValue()));
    column.setCellFactory(f -> new GridCell(this, index));
    return column;
  }

  public Grid onPaste(BlockTaker taker) {
    paste = taker;
    return this;
  }

  /** Delete on a row; answers whether the row was taken out. */
  public Grid onDelete(IntFunction<Boolean> taker) {
    delete = taker;
    return this;
  }

  public TableView<Integer> table() {
    return table;
  }

  public int selectedRow() {
    return table.getSelectionModel().getSelectedIndex();
  }

  public void editable(boolean v) {
    editable = v;
    table.setEditable(v);
  }

  /** Shows so many rows, worked out anew. */
  public void show(int rows) {
    if (table.getItems().size() != rows) {
      int selected = selectedRow();
      table.getItems().setAll(IntStream.range(0, rows).boxed().toList());
      wrong.cutFrom(rows);
      if (selected >= 0 && selected < rows) table.getSelectionModel().select(selected);
    }
    renew();
    showReason();
  }

  /** Forgets what could not be understood; for another channel. */
  public void clearWrong() {
    wrong.clear();
    showReason();
  }

  void take(int row, int column, String text) {
    try {
      wrong.remove(row, column);
      columns.get(column).taker().take(row, text);
    } catch (QuantityException e) {
      wrong.put(row, column, text, e.getMessage());
    }
    renew();
    showReason();
  }

  private void renew() {
    version.set(version.get() + 1);
  }

  /** A cell that still stands for a row which there is looks at it again. */
  void lookAgain(IndexedCell<Integer> cell, BiConsumer<Integer, Boolean> update) {
    Integer row = cell.getItem();
    if (row != null && row < table.getItems().size()) update.accept(row, cell.isEmpty());
  }

  /** Calls a cell or row whenever what it shows may be another; it does not hold on to it. */
  void onRenewal(InvalidationListener look) {
    version.addListener(new WeakInvalidationListener(look));
  }

  private void showReason() {
    getChildren().remove(reason);
    wrong
        .first()
        .ifPresent(
            w -> {
              reason.setText(
                  "Row %d, %s: %s"
                      .formatted(w.row() + 1, columns.get(w.column()).title(), w.reason()));
              getChildren().add(reason);
            });
  }

  /** What stands in a cell that could not be understood. */
  Optional<WrongCells.Wrong> wrong(int row, int column) {
    return wrong.at(row, column);
  }

  Column columnAt(int index) {
    return columns.get(index);
  }

  int columns() {
    return columns.size();
  }

  boolean editable() {
    return editable;
  }

  private TablePosition<?, ?> focus() {
    return table.getFocusModel().getFocusedCell();
  }

  private int focusColumn() {
    // A position counts only the columns that are shown.
    int c = focus() == null ? -1 : table.getColumns().indexOf(focus().getTableColumn());
    return Math.max(0, c);
  }

  private void key(KeyEvent e) {
    if (table.getEditingCell() != null) return;
    if (e.isShortcutDown() && e.getCode() == KeyCode.V) {
      paste();
      e.consume();
    } else if (e.isShortcutDown() && e.getCode() == KeyCode.C) {
      copy();
      e.consume();
    } else if (e.getCode() == KeyCode.F2 || e.getCode() == KeyCode.ENTER) {
      edit(selectedRow(), nextTyped(focusColumn()), null);
      e.consume();
    } else if ((e.getCode() == KeyCode.DELETE || e.getCode() == KeyCode.BACK_SPACE) && editable) {
      if (selectedRow() >= 0) {
        int row = selectedRow();
        if (delete.apply(row)) wrong.clear();
        show(table.getItems().size());
      }
      e.consume();
    }
  }

  /** A letter opens the cell and is the first of its new text. */
  private void typeOver(KeyEvent e) {
    String c = e.getCharacter();
    boolean plain =
        !e.isShortcutDown()
            && !e.isAltDown()
            && !c.isEmpty()
            && c.charAt(0) > ' '
            && c.charAt(0) != 127;
    if (table.getEditingCell() != null || !plain || selectedRow() < 0) return;
    edit(selectedRow(), nextTyped(focusColumn()), c);
    e.consume();
  }

  private int nextTyped(int column) {
    for (int i = column; i < columns.size(); i++) if (typed(i)) return i;
    for (int i = 0; i < column; i++) if (typed(i)) return i;
    return -1;
  }

  boolean typed(int column) {
    return columns.get(column).taker() != null && table.getColumns().get(column).isVisible();
  }

  /**
   * Puts a block where a spreadsheet would: its first cell at a place, the others to the right and
   * below, each taken as if it were typed. Empty cells and columns that cannot be typed in are
   * passed over; so are rows for which the table has none.
   *
   * @return what was done, in one sentence
   * @throws QuantityException naming row and column of the first cell that was not understood;
   *     those before it are taken already
   */
  public String putBlock(int row, int column, String block) {
    // An empty cell in front of the first keeps the others in their columns.
    List<String> lines = block.stripTrailing().lines().toList();
    int taken = 0;
    int passed = 0;
    int rows = 0;
    for (int i = 0; i < lines.size() && row + i < table.getItems().size(); i++) {
      rows++;
      int at = column;
      for (String cell : lines.get(i).split("\t", -1)) {
        while (at < columns.size() && !table.getColumns().get(at).isVisible()) at++;
        if (at < columns.size() && columns.get(at).taker() != null && !cell.isBlank()) {
          put(row + i, at, cell.strip());
          taken++;
        } else if (!cell.isBlank()) {
          passed++;
        }
        at++;
      }
    }
    int left = lines.size() - rows;
    return "Pasted %d cell%s%s%s."
        .formatted(
            taken,
            s(taken),
            passed == 0 ? "" : "; %d stand where nothing can be typed".formatted(passed),
            left == 0 ? "" : "; for %d more row%s there is no place".formatted(left, s(left)));
  }

  private static String s(int n) {
    return n == 1 ? "" : "s";
  }

  private void put(int row, int column, String cell) {
    try {
      columns.get(column).taker().take(row, cell);
    } catch (QuantityException e) {
      throw new QuantityException(
          "Row %d, %s: %s. Nothing was pasted."
              .formatted(row + 1, columns.get(column).title(), e.getMessage()));
    }
  }

  /** Opens a cell; {@code text} replaces what stands in it, null keeps it. */
  public void edit(int row, int column, String text) {
    if (!editable || row < 0 || column < 0 || row >= table.getItems().size()) return;
    table.scrollTo(row);
    table.layout();
    table.getSelectionModel().select(row);
    table.getFocusModel().focus(row, table.getColumns().get(column));
    pendingText = text;
    table.edit(row, table.getColumns().get(column));
  }

  private String pendingText;

  /** The first text of a cell that is being opened; null to keep what stands in it. */
  String takePending() {
    String text = pendingText;
    pendingText = null;
    return text;
  }

  private void paste() {
    int row = selectedRow() < 0 ? Math.max(0, table.getItems().size() - 1) : selectedRow();
    paste(row, nextTyped(focusColumn()));
  }

  void paste(int row, int column) {
    String block = Clipboard.getSystemClipboard().getString();
    if (block == null || block.isBlank() || !editable) return;
    try {
      paste.take(row, column, block);
    } catch (QuantityException e) {
      getChildren().remove(reason);
      reason.setText(e.getMessage());
      getChildren().add(reason);
    }
  }

  private void copy() {
    var lines = new ArrayList<String>();
    lines.add(String.join("\t", columns.stream().map(Column::title).toList()));
    for (int row : table.getItems()) {
      lines.add(String.join("\t", columns.stream().map(c -> c.shown(row)).toList()));
    }
    var content = new ClipboardContent();
    content.putString(String.join("\n", lines));
    Clipboard.getSystemClipboard().setContent(content);
  }

  private final class QuietRow extends TableRow<Integer> {
    // Held here: the grid does not.
    private final InvalidationListener look = o -> lookAgain(this, this::updateItem);

    private QuietRow() {
      onRenewal(look);
    }

    @Override
    protected void updateItem(Integer row, boolean empty) {
      super.updateItem(row, empty);
      getStyleClass().remove("quiet-row");
      if (!empty && row != null && quiet.test(row)) getStyleClass().add("quiet-row");
    }
  }
}
