package nocking.app.step.wire;

import java.util.Locale;
import javafx.scene.layout.Pane;
import javafx.scene.paint.Color;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import nocking.report.wiring.Sketch;

/** Shows a sketch with the window's own letters and colours. */
final class SketchPane extends Pane {

  SketchPane(String id) {
    setId(id);
    getStyleClass().add("sketch");
  }

  void show(Sketch sketch, String spoken) {
    getChildren().clear();
    setMinSize(sketch.width(), sketch.height());
    setPrefSize(sketch.width(), sketch.height());
    setMaxSize(sketch.width(), sketch.height());
    setAccessibleText(spoken);
    for (Sketch.Shape shape : sketch.shapes()) {
      switch (shape) {
        case Sketch.Box b -> {
          var r = new Rectangle(b.x(), b.y(), b.w(), b.h());
          r.setArcWidth(6);
          r.setArcHeight(6);
          r.getStyleClass().add(style(b.role()));
          getChildren().add(r);
        }
        case Sketch.Wire w -> getChildren().add(wire(w));
        case Sketch.Words w -> getChildren().add(words(w));
      }
    }
  }

  private static String style(Sketch.Role role) {
    return role.name().toLowerCase(Locale.ROOT);
  }

  private static Line wire(Sketch.Wire w) {
    var line = new Line(w.x1(), w.y1(), w.x2(), w.y2());
    line.setStrokeWidth(w.width());
    boolean named = w.colour().startsWith("#");
    line.getStyleClass().add(named ? "wire" : w.colour().isEmpty() ? "unknown" : "outline");
    if (named) line.setStroke(Color.web(w.colour()));
    if (w.dashed()) line.getStrokeDashArray().setAll(9.0, 9.0);
    return line;
  }

  private static Text words(Sketch.Words w) {
    var t = new Text(w.text());
    t.getStyleClass().add(style(w.role()));
    t.setY(w.y());
    t.setX(w.x());
    // The width is known only with the style in force.
    t.layoutBoundsProperty()
        .addListener(
            (o, before, now) ->
                t.setTranslateX(
                    switch (w.anchor()) {
                      case START -> 0;
                      case MIDDLE -> -now.getWidth() / 2;
                      case END -> -now.getWidth();
                    }));
    return t;
  }
}
