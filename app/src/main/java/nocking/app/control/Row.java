package nocking.app.control;

import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.layout.FlowPane;

/** A row of controls that breaks where it is narrow. */
public final class Row extends FlowPane {
  public Row(Node... nodes) {
    super(8, 6, nodes);
    setAlignment(Pos.CENTER_LEFT);
  }
}
