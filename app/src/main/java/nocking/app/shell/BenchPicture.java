package nocking.app.shell;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Arc;
import javafx.scene.shape.ArcType;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polygon;
import javafx.scene.shape.Rectangle;
import javafx.scene.shape.Shape;
import javafx.scene.text.Text;
import nocking.bench.simulated.BenchState;
import nocking.bench.simulated.Fixture;
import nocking.bench.simulated.Scene;
import nocking.bench.simulated.Stimulus;
import nocking.quantity.Numbers;

/** The bench that stands in, drawn as it stands: a vessel, a gauge, or something that moves. */
final class BenchPicture extends Pane {
  private static final double W = 380;
  private static final double H = 300;
  private static final double LEFT = 60;
  private static final double RIGHT = 330;

  private final List<Node> drawn = new ArrayList<>();

  BenchPicture() {
    setId("bench-picture");
    getStyleClass().add("bench-picture");
    setMinSize(W, H);
    setPrefSize(W, H);
    setMaxSize(W, H);
  }

  void show(Scene scene, BenchState s) {
    drawn.clear();
    switch (scene.name()) {
      case "bath", "well", "oxygen" -> vessel(scene, s, 0.78);
      case "tank", "sump" -> vessel(scene, s, fraction(scene.stimulus(), s.shown()));
      case "pump", "mains" -> gauge(scene, s);
      case "frame" -> frame(scene, s);
      default -> slide(scene, s);
    }
    getChildren().setAll(drawn);
    String words = "%s at %s".formatted(scene.title(), amount(scene.stimulus(), s.shown()));
    setAccessibleText(words);
  }

  private static double fraction(Stimulus st, double v) {
    return Math.clamp((v - st.low()) / (st.high() - st.low()), 0, 1);
  }

  private static String amount(Stimulus st, double v) {
    int decimals = Math.max(0, (int) Math.round(-Math.log10(st.resolution())));
    return (Numbers.fixed(v, decimals) + " " + st.unit()).strip();
  }

  private <T extends Shape> T add(T shape, String style) {
    shape.getStyleClass().add(style);
    drawn.add(shape);
    return shape;
  }

  /** Words about a place, but never beyond the picture. */
  private void text(double x, double y, String words, String style) {
    var t = new Text(words);
    t.getStyleClass().add(style);
    t.setTextOrigin(VPos.CENTER);
    t.applyCss();
    double half = t.getLayoutBounds().getWidth() / 2;
    t.setX(Math.clamp(x, half + 4, W - half - 4) - half);
    t.setY(y);
    drawn.add(t);
  }

  /** A vessel that is filled to a level, with the sensors hanging in it as deep as they are. */
  private void vessel(Scene scene, BenchState s, double level) {
    double top = 60;
    double bottom = 270;
    double surface = bottom - level * (bottom - top - 20);
    add(new Rectangle(LEFT + 3, surface, RIGHT - LEFT - 6, bottom - surface - 2), "water");
    add(new Line(LEFT, top, LEFT, bottom), "wall");
    add(new Line(LEFT, bottom, RIGHT, bottom), "wall");
    add(new Line(RIGHT, bottom, RIGHT, top), "wall");
    boolean warms = s.target() > s.shown() + 0.05 * scene.stimulus().rate();
    boolean heated = scene.name().equals("bath") || scene.name().equals("well");
    if (heated) {
      for (int i = 0; i < 4; i++) {
        add(new Rectangle(LEFT + 30 + i * 55, bottom - 14, 40, 6), warms ? "hot" : "part");
      }
    } else if (!scene.name().equals("oxygen")) {
      boolean fills = s.target() > s.shown() + 1e-3 * (scene.stimulus().high());
      add(new Line(RIGHT + 25, top - 20, RIGHT - 30, top - 20), "pipe");
      add(
          new Line(RIGHT - 30, top - 20, RIGHT - 30, fills ? surface : top),
          fills ? "flow" : "pipe");
    }
    hang(LEFT + 60, top, Math.max(surface, top) + 40, "reference", true);
    for (int i = 0; i < s.sensors().size(); i++) {
      BenchState.AtSensor at = s.sensors().get(i);
      double deep = Math.clamp(at.depth() / 2, -30, bottom - surface - 60);
      hang(LEFT + 135 + 85 * i, top, Math.max(surface, top) + 40 + deep, at.tag(), false);
    }
    text(LEFT + 50, 22, amount(scene.stimulus(), s.shown()), "value");
    text(RIGHT - 40, 22, "to " + amount(scene.stimulus(), s.target()), "word");
  }

  private void hang(double x, double top, double tip, String name, boolean reference) {
    add(new Line(x, top - 14, x, tip - 18), "lead");
    var body = new Rectangle(x - 4, tip - 18, 8, 24);
    body.setArcWidth(6);
    body.setArcHeight(6);
    add(body, reference ? "reference" : "probe");
    text(x, top - 21, name, "word");
  }

  /** A dial with its needle. */
  private void gauge(Scene scene, BenchState s) {
    double x = (LEFT + RIGHT) / 2;
    double y = 150;
    double r = 92;
    add(new Circle(x, y, r), "dial");
    var scale = new Arc(x, y, r - 14, r - 14, 225, -270);
    scale.setType(ArcType.OPEN);
    add(scale, "scale");
    for (int i = 0; i <= 10; i++) {
      double a = Math.toRadians(225 - 27 * i);
      add(
          new Line(
              x + (r - 20) * Math.cos(a),
              y - (r - 20) * Math.sin(a),
              x + (r - 10) * Math.cos(a),
              y - (r - 10) * Math.sin(a)),
          "scale");
    }
    needle(x, y, r - 24, fraction(scene.stimulus(), s.target()), "wanted");
    needle(x, y, r - 18, fraction(scene.stimulus(), s.shown()), "needle");
    add(new Circle(x, y, 5), "hub");
    text(x, y + 50, amount(scene.stimulus(), s.shown()), "value");
    text(x, 268, s.sensors().getFirst().tag() + moving(scene.stimulus(), s), "word");
  }

  private static String moving(Stimulus st, BenchState s) {
    double left = s.target() - s.shown();
    if (Math.abs(left) < 0.01 * (st.high() - st.low())) return "";
    return left > 0 ? ", rising" : ", falling";
  }

  private void needle(double x, double y, double r, double of, String style) {
    double a = Math.toRadians(225 - 270 * of);
    add(new Line(x, y, x + r * Math.cos(a), y - r * Math.sin(a)), style);
  }

  /** Masses on a hook. */
  private void frame(Scene scene, BenchState s) {
    double x = (LEFT + RIGHT) / 2;
    add(new Line(LEFT + 30, 40, RIGHT - 30, 40), "wall");
    add(new Line(LEFT + 40, 40, LEFT + 40, 275), "wall");
    add(new Line(RIGHT - 40, 40, RIGHT - 40, 275), "wall");
    add(new Rectangle(x - 22, 44, 44, 26), "probe");
    text(x + 60, 57, s.sensors().getFirst().tag(), "word");
    add(new Line(x, 70, x, 105), "lead");
    int masses = (int) Math.round(10 * fraction(scene.stimulus(), s.shown()));
    for (int i = 0; i < masses; i++) add(new Rectangle(x - 42, 105 + 14 * i, 84, 12), "reference");
    text(x, 262, amount(scene.stimulus(), s.shown()), "value");
  }

  /** A carriage on a rail, with a clamp or a teach wire where there is one. */
  private void slide(Scene scene, BenchState s) {
    double y = 170;
    Stimulus st = scene.stimulus();
    add(new Line(LEFT, y, RIGHT, y), "wall");
    for (int i = 0; i <= 10; i++) {
      double x = LEFT + (RIGHT - LEFT) * i / 10;
      add(new Line(x, y + 8, x, y + (i % 5 == 0 ? 22 : 15)), "scale");
    }
    text(LEFT, y + 34, amount(st, st.low()), "word");
    text(RIGHT, y + 34, amount(st, st.high()), "word");
    double to = LEFT + (RIGHT - LEFT) * fraction(st, s.target());
    add(new Polygon(to, y + 6, to - 5, y + 16, to + 5, y + 16), "wanted-mark");
    double x = LEFT + (RIGHT - LEFT) * fraction(st, s.applied());
    add(new Rectangle(x - 16, y - 34, 32, 30), "probe");
    add(new Line(x, y - 4, x, y + 6), "needle");
    text(x, y - 50, s.sensors().getFirst().tag(), "word");
    text(W / 2, 26, amount(st, s.shown()), "value");
    if (scene.fixture().orElse(null) instanceof Fixture.Clamp) {
      double gap = s.tight() ? 0 : 9;
      add(new Rectangle(x - 24, y - 100 - gap, 48, 10), "part");
      add(new Line(x, y - 90 - gap, x, y - 62), s.tight() ? "needle" : "pipe");
      text(x, y - 118, s.tight() ? "clamp tight" : "clamp loose", "word");
    } else if (scene.fixture().orElse(null) instanceof Fixture.TeachWire) {
      add(new Line(x + 8, y - 34, x + 8, y - 90), s.grounded() ? "flow" : "lead");
      text(x, y - 104, s.grounded() ? "teach wire on ground" : "teach wire free", "word");
    }
  }
}
