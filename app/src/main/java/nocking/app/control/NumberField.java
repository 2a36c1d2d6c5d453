package nocking.app.control;

import javafx.geometry.Pos;
import javafx.scene.control.TextField;
import javafx.scene.text.Text;

/**
 * Numbers stand at the right of their field, so that digits align; a text that fills its field
 * stands at the left. The toolkit lays a field whose right-aligned text is as wide as itself out
 * again with every frame, without end.
 */
public final class NumberField {
  /** Room for the caret on both sides. */
  private static final double SPARE = 4;

  private NumberField() {}

  /** Makes a field one for numbers. */
  public static void of(TextField field) {
    field.getStyleClass().add("number");
    field.textProperty().addListener(o -> align(field));
    field.widthProperty().addListener(o -> align(field));
    field.insetsProperty().addListener(o -> align(field));
    field.fontProperty().addListener(o -> align(field));
  }

  private static void align(TextField field) {
    var text = new Text(field.getText());
    text.setFont(field.getFont());
    double room = field.getWidth() - field.getInsets().getLeft() - field.getInsets().getRight();
    boolean full = text.getLayoutBounds().getWidth() > room - SPARE;
    field.setAlignment(full ? Pos.CENTER_LEFT : Pos.CENTER_RIGHT);
  }
}
