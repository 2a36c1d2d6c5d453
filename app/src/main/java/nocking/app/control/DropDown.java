package nocking.app.control;

import java.util.function.Function;
import javafx.scene.control.ComboBox;
import javafx.util.StringConverter;

/**
 * A choice from a list. The toolkit knows the height of the list only after it was shown once, and
 * guesses far too much before: the first time it is shown twice, so that it stands below its box
 * where there is room.
 */
public final class DropDown<T> extends ComboBox<T> {
  private boolean measured;

  /** Shows each choice by its title. */
  public DropDown<T> titled(Function<? super T, String> title) {
    setConverter(
        new StringConverter<>() {
          @Override
          public String toString(T v) {
            return v == null ? "" : title.apply(v);
          }

          @Override
          public T fromString(String text) {
            throw new UnsupportedOperationException("the list is not typed into");
          }
        });
    return this;
  }

  @Override
  public void show() {
    super.show();
    if (measured || !isShowing()) return;
    measured = true;
    hide();
    super.show();
  }
}
