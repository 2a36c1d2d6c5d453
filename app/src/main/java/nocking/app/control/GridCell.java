package nocking.app.control;

import java.util.Optional;
import javafx.beans.InvalidationListener;
import javafx.scene.control.TableCell;
import javafx.scene.control.TextField;
import javafx.scene.control.Tooltip;
import javafx.scene.input.Clipboard;
import javafx.scene.input.KeyEvent;

/** A cell of a grid: shown, opened, and left by Enter, Tab or Escape. */
final class GridCell extends TableCell<Integer, Integer> {
  private final Grid grid;
  private final int index;
  private TextField field;
  private String styled = "";

  // Held here: the grid does not.
  private final InvalidationListener look;

  GridCell(Grid grid, int index) {
    this.grid = grid;
    this.index = index;
    if (column().number()) getStyleClass().add("number");
    look = o -> grid.lookAgain(this, this::updateItem);
    grid.onRenewal(look);
  }

  @Override
  protected void updateItem(Integer row, boolean empty) {
    super.updateItem(row, empty);
    if (!styled.isEmpty()) getStyleClass().remove(styled);
    getStyleClass().remove("wrong");
    styled = "";
    setTooltip(null);
    if (empty || row == null) {
      setText(null);
      setGraphic(null);
      return;
    }
    if (isEditing()) return;
    Optional<WrongCells.Wrong> wrong = grid.wrong(row, index);
    setText(wrong.map(WrongCells.Wrong::text).orElseGet(() -> column().shown(row)));
    setGraphic(column().graphic().apply(row));
    if (wrong.isPresent()) {
      getStyleClass().add("wrong");
      setTooltip(new Tooltip(wrong.get().reason()));
    } else {
      styled = column().styled(row);
      if (!styled.isEmpty()) getStyleClass().add(styled);
    }
  }

  @Override
  public void startEdit() {
    if (column().taker() == null || !grid.editable()) return;
    super.startEdit();
    if (!isEditing()) return;
    String typed = grid.takePending();
    field = new CellField(typed == null ? getText() : typed, getItem(), index);
    if (column().number()) NumberField.of(field);
    field.setId(grid.table().getId() + "-edit");
    field.addEventFilter(KeyEvent.KEY_PRESSED, this::editKey);
    field
        .focusedProperty()
        .addListener(
            (o, before, now) -> {
              if (!now && isEditing()) finish(0, 0);
            });
    setText(null);
    setGraphic(field);
    // Without its skin a field takes no letters; the pulse that would make it may come too late.
    field.applyCss();
    field.requestFocus();
    if (typed == null) field.selectAll();
    else field.end();
  }

  private void editKey(KeyEvent e) {
    switch (e.getCode()) {
      case ENTER -> {
        finish(e.isShiftDown() ? -1 : 1, 0);
        e.consume();
      }
      case TAB -> {
        finish(0, e.isShiftDown() ? -1 : 1);
        e.consume();
      }
      case ESCAPE -> {
        cancelEdit();
        e.consume();
      }
      default -> {}
    }
  }

  private void finish(int down, int right) {
    int row = getItem();
    String text = field.getText();
    String before = column().shown(row);
    super.cancelEdit();
    setGraphic(null);
    boolean pending = grid.wrong(row, index).isPresent();
    if (!text.equals(before) || pending) grid.take(row, index, text);
    else updateItem(row, false);
    grid.table().requestFocus();
    if (right != 0) next(row, right);
    else if (down != 0) {
      int target = Math.clamp(row + down, 0, grid.table().getItems().size() - 1);
      grid.table().getSelectionModel().clearAndSelect(target);
      grid.table().getFocusModel().focus(target, grid.table().getColumns().get(index));
    }
  }

  private void next(int row, int step) {
    int column = index;
    int target = row;
    do {
      column += step;
      if (column >= grid.columns()) {
        column = 0;
        target++;
      } else if (column < 0) {
        column = grid.columns() - 1;
        target--;
      }
    } while (!grid.typed(column));
    grid.edit(target, column, null);
  }

  @Override
  public void cancelEdit() {
    super.cancelEdit();
    setGraphic(null);
    updateItem(getItem(), isEmpty());
    grid.table().requestFocus();
  }

  private Column column() {
    return grid.columnAt(index);
  }

  /** The field of an open cell, into which a block of cells does not go as one. */
  private final class CellField extends TextField {
    private final int row;
    private final int column;

    private CellField(String text, int row, int column) {
      super(text);
      this.row = row;
      this.column = column;
    }

    @Override
    public void paste() {
      String block = Clipboard.getSystemClipboard().getString();
      if (block == null || !block.strip().matches("(?s).*[\t\n\r].*")) {
        super.paste();
        return;
      }
      grid.table().edit(-1, null);
      grid.table().requestFocus();
      grid.paste(row, column);
    }
  }
}
