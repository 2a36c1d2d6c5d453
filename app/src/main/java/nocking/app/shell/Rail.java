package nocking.app.shell;

import javafx.css.PseudoClass;
import javafx.scene.Scene;
import javafx.scene.control.Button;
import javafx.scene.layout.Region;
import nocking.app.desk.Desk;

/**
 * A side of the window that folds to a narrow rail: by its key, by its button, or by itself where
 * the window is narrow. What was chosen is remembered, for wide windows and for narrow ones.
 */
final class Rail {
  /** Windows below this width are narrow. */
  static final double NARROW = 1200;

  private static final PseudoClass FOLDED = PseudoClass.getPseudoClass("folded");

  private final Desk desk;
  private final String name;
  private final Region side;
  private final boolean foldsWhenNarrow;
  private final Runnable changed;
  private final Button button = new Button();
  private boolean narrow;
  private boolean folded;

  /**
   * @param name in the settings, and in the button's id
   * @param foldsWhenNarrow what a narrow window does to it unless something else was chosen
   * @param changed called when it was folded or unfolded
   */
  Rail(Desk desk, String name, Region side, boolean foldsWhenNarrow, Runnable changed) {
    this.desk = desk;
    this.name = name;
    this.side = side;
    this.foldsWhenNarrow = foldsWhenNarrow;
    this.changed = changed;
    button.setId("fold-" + name);
    button.getStyleClass().add("fold");
    button.setFocusTraversable(false);
    button.setOnAction(e -> toggle());
    side.sceneProperty()
        .flatMap(Scene::widthProperty)
        .subscribe(
            w -> {
              if (w != null) width(w.doubleValue());
            });
    show();
  }

  /** Folds and unfolds with the mouse. */
  Button button() {
    return button;
  }

  boolean folded() {
    return folded;
  }

  void toggle() {
    desk.settings().set(key(), !folded);
    apply();
  }

  private String key() {
    return name + ".folded." + (narrow ? "narrow" : "wide");
  }

  private void width(double w) {
    if (w <= 0) return;
    narrow = w < NARROW;
    apply();
  }

  private void apply() {
    boolean now = desk.settings().is(key(), narrow && foldsWhenNarrow);
    if (now == folded) return;
    folded = now;
    show();
    changed.run();
  }

  private void show() {
    boolean left = name.equals("channels");
    button.setText(folded == left ? "›" : "‹");
    button.setAccessibleText((folded ? "Show the " : "Fold the ") + name);
    side.pseudoClassStateChanged(FOLDED, folded);
  }
}
