package nocking.app.shell;

import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.layout.Pane;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Rectangle;
import nocking.quantity.Span;

/** A pad of the trace where a probe could touch: name, ring, live value, and a gauge. */
final class Pad extends VBox {
  static final double WIDTH = 86;
  private static final double GAUGE = 72;

  private final Label value = new Label();
  private final Rectangle used = new Rectangle(0, 2.5, GAUGE, 5);
  private final Rectangle mark = new Rectangle(0, 0, 3, 10);
  private final Rectangle bed = new Rectangle(0, 2.5, GAUGE, 5);

  Pad(String name) {
    setId("pad-" + name);
    setAlignment(Pos.TOP_CENTER);
    setMinWidth(WIDTH);
    setMaxWidth(WIDTH);
    setSpacing(2);
    var title = new Label(name);
    title.getStyleClass().add("pad-name");
    var ring = new Circle(9);
    ring.getStyleClass().add("pad-ring");
    var dot = new Circle(3.5);
    dot.getStyleClass().add("pad-dot");
    value.getStyleClass().add("pad-value");
    value.setId("value-" + name);
    value.setMinWidth(USE_PREF_SIZE);
    bed.getStyleClass().add("gauge-bed");
    used.getStyleClass().add("gauge-span");
    mark.getStyleClass().add("gauge-mark");
    for (Rectangle r : new Rectangle[] {bed, used}) {
      r.setArcWidth(4);
      r.setArcHeight(4);
    }
    var gauge = new Pane(bed, used, mark);
    gauge.setMinSize(GAUGE, 10);
    gauge.setMaxSize(GAUGE, 10);
    getChildren().addAll(title, new StackPane(ring, dot), value, gauge);
  }

  /**
   * @param usable what the node can carry, the whole bed
   * @param job the part of it that the working range uses
   */
  void show(String text, double at, Span usable, Span job, boolean clipped) {
    value.setText(text);
    value.getStyleClass().remove("clipped");
    if (clipped) value.getStyleClass().add("clipped");
    double from = Math.clamp(usable.fraction(job.low()), 0, 1);
    double to = Math.clamp(usable.fraction(job.high()), 0, 1);
    used.setX(from * GAUGE);
    used.setWidth(Math.max(2, (to - from) * GAUGE));
    mark.setX(Math.clamp(usable.fraction(at), 0, 1) * (GAUGE - 3));
    setAccessibleText(text);
  }

  void blank() {
    value.setText("–");
    value.getStyleClass().remove("clipped");
    used.setWidth(0);
    mark.setX(0);
  }
}
