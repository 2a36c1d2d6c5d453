package nocking.app.control;

import javafx.scene.Group;
import javafx.scene.Node;
import javafx.scene.paint.Color;
import javafx.scene.shape.Arc;
import javafx.scene.shape.ArcType;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Polyline;
import javafx.scene.shape.Rectangle;
import javafx.scene.shape.Shape;
import javafx.scene.shape.StrokeLineCap;
import javafx.scene.shape.StrokeType;
import nocking.analysis.ChannelState;
import nocking.analysis.Progress;
import nocking.check.Verdict;

/** Signs of a state: shape first, colour second, a word for a screen reader. */
public final class StateSign {
  private static final double SIZE = 12;
  private static final double R = SIZE / 2;

  private StateSign() {}

  public static Node of(ChannelState state) {
    Node sign =
        switch (state) {
          case PASS -> tick();
          case WARNING -> triangle();
          case FAIL -> cross();
          case UNDER_WAY -> half();
          case NOT_STARTED -> dashedRing();
        };
    sign.setAccessibleText(words(state));
    return sign;
  }

  public static String words(ChannelState state) {
    return switch (state) {
      case PASS -> "checked, good";
      case WARNING -> "needs attention";
      case FAIL -> "fails";
      case UNDER_WAY -> "under way";
      case NOT_STARTED -> "not started";
    };
  }

  public static Node of(Verdict verdict) {
    return switch (verdict) {
      case PASS -> tick();
      case FAIL -> cross();
      case OPEN -> dashedRing();
    };
  }

  /** Dot of a stage: empty, half or full. */
  public static Node of(Progress progress) {
    var ring = new Circle(R, R, 4);
    style(ring, "-fx-fill: transparent; -fx-stroke-width: 1.3;");
    var group = new Group(ring);
    switch (progress) {
      case EMPTY -> style(ring, "-fx-fill: transparent; -fx-stroke: -faint;");
      case HALF -> {
        style(ring, "-fx-fill: transparent; -fx-stroke: -pass;");
        var arc = new Arc(R, R, 4, 4, 90, 180);
        arc.setType(ArcType.CHORD);
        style(arc, "-fx-fill: -pass;");
        group.getChildren().add(arc);
      }
      case FULL -> style(ring, "-fx-fill: -pass; -fx-stroke: -pass;");
    }
    return group;
  }

  private static void style(Shape s, String css) {
    s.setStyle(css);
  }

  private static Polyline stroke(double... points) {
    var line = new Polyline(points);
    line.setStroke(Color.WHITE);
    line.setStrokeWidth(1.6);
    line.setStrokeLineCap(StrokeLineCap.ROUND);
    return line;
  }

  private static Node tick() {
    var disc = new Circle(R, R, R);
    style(disc, "-fx-fill: -pass;");
    return new Group(disc, stroke(3.3, 6.2, 5.3, 8.2, 8.8, 4));
  }

  private static Node cross() {
    var square = new Rectangle(0, 0, SIZE, SIZE);
    style(square, "-fx-fill: -fail;");
    return new Group(square, stroke(3.5, 3.5, 8.5, 8.5), stroke(8.5, 3.5, 3.5, 8.5));
  }

  private static Node triangle() {
    var shape = new Polygon(R, 0.5, SIZE, SIZE - 0.5, 0, SIZE - 0.5);
    style(shape, "-fx-fill: -warning-mark;");
    return new Group(shape, stroke(R, 4.5, R, 7.4), stroke(R, 9.6, R, 9.7));
  }

  private static Node half() {
    var ring = new Circle(R, R, R - 0.8);
    style(ring, "-fx-fill: transparent; -fx-stroke: -pass; -fx-stroke-width: 1.5;");
    var arc = new Arc(R, R, R - 0.8, R - 0.8, 90, 180);
    arc.setType(ArcType.CHORD);
    style(arc, "-fx-fill: -pass;");
    return new Group(ring, arc);
  }

  private static Node dashedRing() {
    var ring = new Circle(R, R, R - 0.8);
    style(ring, "-fx-fill: transparent; -fx-stroke: -faint; -fx-stroke-width: 1.3;");
    ring.setStrokeType(StrokeType.CENTERED);
    ring.getStrokeDashArray().addAll(2.2, 2.2);
    return new Group(ring);
  }
}
