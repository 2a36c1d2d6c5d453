package nocking.app.step.wire;

import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.text.Text;
import javafx.scene.text.TextFlow;
import nocking.app.control.Paper;
import nocking.app.control.WheelScroll;
import nocking.wiring.WireStep;

/** The steps of wiring in their order, each with its reason, and what is normal. */
final class StepsPanel extends VBox {

  StepsPanel() {
    var list = new VBox(3);
    int number = 0;
    for (WireStep.Phase phase : WireStep.Phase.values()) {
      list.getChildren().add(Paper.subtitle(phase.title()));
      for (WireStep s : WireStep.ALL) {
        if (s.phase() != phase) continue;
        boolean ordered = phase != WireStep.Phase.NORMAL;
        if (ordered) number++;
        list.getChildren().add(line(ordered ? String.valueOf(number) : "·", s));
      }
    }
    ScrollPane scroll = WheelScroll.of(list);
    scroll.setFitToWidth(true);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    getChildren().add(scroll);
  }

  private static HBox line(String mark, WireStep s) {
    var number = new Label(mark);
    number.getStyleClass().add("step-mark");
    number.setMinWidth(24);
    var what = new Text(s.text() + (s.why().isEmpty() ? "" : "  "));
    var why = new Text(s.why());
    why.getStyleClass().add("step-why");
    var words = new TextFlow(what, why);
    HBox.setHgrow(words, Priority.ALWAYS);
    return new HBox(number, words);
  }
}
