package nocking.app.step.condition;

import javafx.scene.Group;
import javafx.scene.Node;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Rectangle;
import javafx.scene.text.Text;
import nocking.stage.CircuitSketch;
import nocking.stage.Stage;

/** The circuit of one stage in the window. */
final class Schematic extends Pane {
  private final Group drawing = new Group();

  Schematic() {
    getStyleClass().add("schematic");
    setMinSize(CircuitSketch.WIDTH, CircuitSketch.HEIGHT);
    setPrefSize(CircuitSketch.WIDTH, CircuitSketch.HEIGHT);
    setMaxSize(CircuitSketch.WIDTH, CircuitSketch.HEIGHT);
    drawing.setTranslateY(7);
    getChildren().add(drawing);
    setId("schematic");
  }

  void show(Stage s) {
    drawing.getChildren().clear();
    setAccessibleText("Circuit of the " + s.title() + ": " + s.summary());
    CircuitSketch.of(s).shapes().forEach(this::draw);
  }

  private void draw(CircuitSketch.Shape shape) {
    switch (shape) {
      case CircuitSketch.Line l -> add(new Line(l.x1(), l.y1(), l.x2(), l.y2()), l.role());
      case CircuitSketch.Box b -> add(new Rectangle(b.x(), b.y(), b.width(), b.height()), b.role());
      case CircuitSketch.Disc d -> add(new Circle(d.x(), d.y(), d.radius()), d.role());
      case CircuitSketch.Area a -> {
        var polygon = new Polygon();
        polygon.getPoints().addAll(a.corners());
        add(polygon, a.role());
      }
      case CircuitSketch.Words w -> words(w);
    }
  }

  private void words(CircuitSketch.Words w) {
    var t = new Text(w.text());
    // The style's font is smaller than the one that measures here.
    double width = t.getLayoutBounds().getWidth() * 0.9;
    double most = CircuitSketch.WIDTH - width - 2;
    t.setX(w.centred() ? w.x() - width / 2 : Math.max(0, Math.min(w.x(), most)));
    t.setY(w.y());
    add(t, "value");
  }

  private void add(Node n, CircuitSketch.Role role) {
    add(
        n,
        switch (role) {
          case WIRE -> "wire";
          case PLATE -> "plate";
          case PART -> "part";
          case JOINT -> "joint";
          case TERMINAL -> "terminal";
        });
  }

  private void add(Node n, String style) {
    n.getStyleClass().add(style);
    drawing.getChildren().add(n);
  }
}
