package nocking.app.shell;

import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;

/** What an empty book shows: what a book is, and how to begin. */
final class FrontPage extends VBox {
  /**
   * @param newChannel makes the first channel
   * @param openDemo puts the demo book on the desk
   * @param importChannel takes one from a file
   */
  FrontPage(Runnable newChannel, Runnable openDemo, Runnable importChannel) {
    var big = new Label("This book is empty");
    big.getStyleClass().add("big");
    var text =
        new Label(
            "A book holds channels: a sensor, what stands between it and the converter, its"
                + " reference points, the curve that was adopted, the table, the check, and every"
                + " state that was worth a name.");
    text.setMaxWidth(560);
    var first = new Button("Make the first channel");
    first.setId("first-channel");
    first.getStyleClass().add("primary");
    first.setOnAction(e -> newChannel.run());
    var demo = new Button("Look at the demo book");
    demo.setId("front-demo");
    demo.setOnAction(e -> openDemo.run());
    var load = new Button("Import a channel…");
    load.setOnAction(e -> importChannel.run());
    getChildren().addAll(big, text, new HBox(10, first, demo, load));
    getStyleClass().add("front-page");
    setMinWidth(Region.USE_PREF_SIZE);
  }
}
