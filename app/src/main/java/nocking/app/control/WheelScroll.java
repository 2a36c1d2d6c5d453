package nocking.app.control;

import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;

/** A scroll pane that fits its content's width and shows a bar only when it must. */
public final class WheelScroll {
  private WheelScroll() {}

  public static ScrollPane of(Node content) {
    var pane = new ScrollPane(content);
    pane.setFitToWidth(true);
    pane.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    pane.setMinHeight(0);
    // The right edge of a sheet would lie under the viewport's clip.
    pane.setPadding(new Insets(0, 1, 0, 0));
    return pane;
  }
}
