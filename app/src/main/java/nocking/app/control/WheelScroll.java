package nocking.app.control;

import javafx.beans.value.ChangeListener;
import javafx.geometry.Bounds;
import javafx.geometry.Insets;
import javafx.scene.Node;
import javafx.scene.control.ScrollPane;

/**
 * A scroll pane that fits its content's width, shows a bar only when it must, and brings what gets
 * the focus into view, so that the keyboard never works on something unseen.
 */
public final class WheelScroll {
  private static final double AIR = 8;

  private WheelScroll() {}

  public static ScrollPane of(Node content) {
    var pane = new ScrollPane(content);
    pane.setFitToWidth(true);
    pane.setHbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    pane.setMinHeight(0);
    // The right edge of a sheet would lie under the viewport's clip.
    pane.setPadding(new Insets(0, 1, 0, 0));
    pane.setFocusTraversable(false);
    ChangeListener<Node> focus = (o, before, now) -> reveal(pane, now);
    pane.sceneProperty()
        .addListener(
            (o, before, now) -> {
              if (before != null) before.focusOwnerProperty().removeListener(focus);
              if (now != null) now.focusOwnerProperty().addListener(focus);
            });
    return pane;
  }

  /** Scrolls as little as needed to show a node; nothing happens when it is not inside. */
  public static void reveal(ScrollPane pane, Node node) {
    Node content = pane.getContent();
    if (node == null || !isInside(node, content)) return;
    Bounds at = content.sceneToLocal(node.localToScene(node.getBoundsInLocal()));
    double view = pane.getViewportBounds().getHeight();
    double room = content.getBoundsInLocal().getHeight() - view;
    if (room <= 0) return;
    double top = pane.getVvalue() * room;
    if (at.getMinY() - AIR < top) pane.setVvalue(Math.max(0, at.getMinY() - AIR) / room);
    else if (at.getMaxY() + AIR > top + view) {
      pane.setVvalue(Math.min(room, at.getMaxY() + AIR - view) / room);
    }
  }

  private static boolean isInside(Node node, Node content) {
    for (Node n = node; n != null; n = n.getParent()) if (n == content) return true;
    return false;
  }
}
