package nocking.app.step.condition;

import java.util.List;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import javafx.scene.shape.Shape;
import javafx.scene.text.Text;
import nocking.analysis.Analysis;
import nocking.path.PathState;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.Span;

/** The span through the chain: what each node can carry, and what the working range uses of it. */
final class SpansPicture extends Pane {
  private static final double LEFT = 150;
  private static final double RIGHT = 96;
  private static final double ROW = 42;
  private static final double BAR = 16;
  private Analysis analysis;
  private double probe = Double.NaN;

  SpansPicture() {
    setId("spans-picture");
    getStyleClass().add("spans");
    setMinHeight(120);
    widthProperty().addListener((o, b, w) -> draw());
  }

  void show(Analysis a) {
    analysis = a;
    draw();
  }

  void probe(double x) {
    probe = x;
    draw();
  }

  private void draw() {
    getChildren().clear();
    if (analysis == null || analysis.design().path().isEmpty() || getWidth() < LEFT + RIGHT + 60)
      return;
    SignalPath path = analysis.design().path().get();
    Span working = analysis.channel().definition().working();
    List<PathState.Node> low = path.at(working.low()).nodes();
    List<PathState.Node> high = path.at(working.high()).nodes();
    var spoken = new StringBuilder("Span through the chain. ");
    for (int i = 0; i < low.size(); i++) {
      Span used = Span.between(low.get(i).value(), high.get(i).value());
      row(i, low.get(i), used, path.points().get(i).usable());
      spoken
          .append(low.get(i).point().name())
          .append(" uses ")
          .append(text(used.low(), low.get(i)))
          .append(" to ")
          .append(text(used.high(), low.get(i)))
          .append(". ");
    }
    setAccessibleText(spoken.toString());
    setPrefHeight(low.size() * ROW + 16);
  }

  private static String text(double v, PathState.Node n) {
    return Numbers.engineering(v, n.point().unit().symbol(), 3).replace('-', '−');
  }

  private void row(int i, PathState.Node node, Span used, Span usable) {
    double y = 14 + i * ROW;
    boolean limited = usable.width() < 1e5;
    Span shown =
        limited
            ? new Span(Math.min(usable.low(), used.low()), Math.max(usable.high(), used.high()))
            : new Span(Math.min(0, used.low()), Math.max(used.high() * 1.1, used.low() + 1e-9));
    double width = getWidth() - LEFT - RIGHT;
    add(new Text(0, y + 12, node.point().name()), "node");
    add(new Text(36, y + 12, node.point().from()), "quiet");
    bar(shown, shown, y, width, "bed");
    if (limited) bar(shown, usable, y, width, "usable");
    boolean out = limited && (used.low() < usable.low() || used.high() > usable.high());
    bar(shown, used, y + 4, width, out ? "over" : "used");
    end(shown, used.low(), y, width, text(used.low(), node), -1);
    end(shown, used.high(), y, width, text(used.high(), node), 1);
    double share = 100 * used.width() / (limited ? usable.width() : shown.width());
    String says = limited ? Numbers.fixed(share, 0) + " % used" : "no limit";
    add(new Text(LEFT + width + 12, y + 12, says), out ? "bad" : "quiet");
    if (!Double.isNaN(probe)) {
      double x =
          place(shown, analysis.design().path().get().at(probe).nodes().get(i).value(), width);
      if (!Double.isNaN(x)) add(new Line(x, y - 2, x, y + BAR + 2), "probe-line");
    }
  }

  private static double place(Span shown, double v, double width) {
    return LEFT + Math.clamp(shown.fraction(v), 0, 1) * width;
  }

  private void bar(Span shown, Span part, double y, double width, String style) {
    double from = place(shown, part.low(), width);
    double to = place(shown, part.high(), width);
    double height = style.equals("used") || style.equals("over") ? BAR - 8 : BAR;
    add(new Rectangle(from, y, Math.max(2, to - from), height), style);
  }

  /** Values stand below the ends of the used part, beside each other where it is short. */
  private void end(Span shown, double v, double y, double width, String words, int side) {
    var t = new Text(words);
    t.getStyleClass().add("value");
    double x = place(shown, v, width);
    double w = words.length() * 6.6;
    double at = side < 0 ? Math.max(LEFT, x - w - 2) : Math.min(x + 2, LEFT + width - w);
    t.setX(at);
    t.setY(y + BAR + 11);
    getChildren().add(t);
  }

  private void add(Shape s, String style) {
    s.getStyleClass().add(style);
    getChildren().add(s);
  }
}
