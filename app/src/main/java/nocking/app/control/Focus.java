package nocking.app.control;

import javafx.application.Platform;
import javafx.beans.value.ChangeListener;
import javafx.beans.value.ObservableValue;
import javafx.scene.Node;
import javafx.scene.Scene;

/** The keyboard's place. */
public final class Focus {
  private Focus() {}

  /**
   * Gives the keyboard to a node, at once or as soon as it is in the window: what stands in a pane
   * that scrolls gets there only when that pane is drawn for the first time, and would be passed
   * over until then.
   */
  public static void on(Node n) {
    if (n.getScene() != null) {
      n.requestFocus();
      return;
    }
    n.sceneProperty()
        .addListener(
            new ChangeListener<Scene>() {
              @Override
              public void changed(ObservableValue<? extends Scene> o, Scene before, Scene now) {
                if (now == null) return;
                n.sceneProperty().removeListener(this);
                Platform.runLater(n::requestFocus);
              }
            });
  }
}
