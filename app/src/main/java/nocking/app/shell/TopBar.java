package nocking.app.shell;

import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.Menu;
import javafx.scene.control.MenuBar;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import nocking.app.desk.Desk;
import org.kordamp.ikonli.feather.Feather;
import org.kordamp.ikonli.javafx.FontIcon;

/** Name, menus, and what is known about the file. */
final class TopBar extends HBox {
  private final Desk desk;
  private final Label file = new Label();
  private final Label lock = new Label();
  private final FontIcon lockSign = new FontIcon(Feather.UNLOCK);
  private final MenuItem undo;
  private final MenuItem redo;

  TopBar(Desk desk, Commands commands) {
    this.desk = desk;
    getStyleClass().add("top-bar");
    setAlignment(Pos.CENTER_LEFT);
    setSpacing(10);
    var brand = new Label("Nocking");
    brand.getStyleClass().add("brand");
    brand.setMinWidth(USE_PREF_SIZE);
    var bar = new MenuBar();
    undo = commands.item("Undo");
    redo = commands.item("Redo");
    bar.getMenus()
        .addAll(
            menu(
                commands,
                "Book",
                "New book…",
                "Open book…",
                "Open the demo book",
                "Copy book to…",
                null,
                "Drawer of parts…",
                "Import channel…",
                "Export whole book…",
                null,
                "Close the window"),
            edit(),
            menu(
                commands,
                "Channel",
                "New channel",
                "Duplicate",
                "Take out of the book",
                null,
                "Name a revision",
                "Lock or unlock"),
            menu(
                commands,
                "View",
                "Define",
                "Condition",
                "Wire",
                "Collect",
                "Fit",
                "Table",
                "Check",
                "Record",
                null,
                "Diagnose",
                "Practice finding faults",
                null,
                "Simulated bench…",
                "Take the live reading",
                "Live reading on or off",
                null,
                "Dark variant"),
            menu(commands, "Help", "Find…", "Help on what has the focus", "Keys"));
    var gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    file.getStyleClass().add("quiet");
    file.setId("file-state");
    lock.setGraphic(lockSign);
    lock.setId("lock-state");
    file.setMinWidth(0);
    lock.setMinWidth(USE_PREF_SIZE);
    bar.setMinWidth(USE_PREF_SIZE);
    getChildren().addAll(brand, bar, gap, file, lock);
  }

  private Menu edit() {
    var menu = new Menu("Edit");
    menu.getItems().addAll(undo, redo);
    return menu;
  }

  private static Menu menu(Commands commands, String title, String... names) {
    var menu = new Menu(title);
    for (String name : names) {
      menu.getItems().add(name == null ? new SeparatorMenuItem() : commands.item(name));
    }
    return menu;
  }

  void refresh() {
    boolean open = desk.channel().isPresent();
    // Why not is said in full below the desk.
    boolean failed = desk.store().failed();
    file.setText(desk.store().name() + " — " + (failed ? "not saved" : desk.store().state()));
    file.getStyleClass().removeAll("text-fail", "quiet");
    file.getStyleClass().add(failed ? "text-fail" : "quiet");
    boolean locked = open && desk.channel().get().journal().locked();
    boolean readOnly = !desk.writable();
    lock.setText(readOnly ? "read-only" : !open ? "" : locked ? "locked" : "unlocked");
    lockSign.setIconCode(locked || readOnly ? Feather.LOCK : Feather.UNLOCK);
    lockSign.setVisible(open || readOnly);
    undo.setText(desk.undoable().map(w -> "Undo: " + w).orElse("Undo"));
    undo.setDisable(desk.undoable().isEmpty());
    redo.setText(desk.redoable().map(w -> "Do again: " + w).orElse("Redo"));
    redo.setDisable(desk.redoable().isEmpty());
  }
}
