package nocking.app.control;

import javafx.scene.control.ComboBox;

/**
 * A choice from a list. The toolkit knows the height of the list only after it was shown once, and
 * guesses far too much before: the first time it is shown twice, so that it stands below its box
 * where there is room.
 */
public final class DropDown<T> extends ComboBox<T> {
  private boolean measured;

  @Override
  public void show() {
    super.show();
    if (measured || !isShowing()) return;
    measured = true;
    hide();
    super.show();
  }
}
