package nocking.app.step.table;

import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;

/** A control with its name in front, as wide as all others of the form. */
final class FormRow extends HBox {
  private static final double TITLE = 84;

  FormRow(String title, Node control) {
    super(6);
    var label = new Label(title);
    label.setMinWidth(TITLE);
    label.setMaxWidth(TITLE);
    getChildren().addAll(label, control);
    setAlignment(Pos.CENTER_LEFT);
  }
}
