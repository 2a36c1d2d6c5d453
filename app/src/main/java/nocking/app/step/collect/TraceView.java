package nocking.app.step.collect;

import java.util.ArrayList;
import java.util.List;
import javafx.geometry.VPos;
import javafx.scene.Node;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polyline;
import javafx.scene.text.Text;
import nocking.app.desk.RunTrace;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Ticks;
import nocking.run.Outlook;
import nocking.run.RunChannel;
import nocking.run.RunSnapshot;
import nocking.run.SettleRule;

/**
 * The newest readings of a channel against time, with the band in which they must stay and what may
 * still come. Drawn anew with every sweep, so it is a few nodes and no plot.
 */
final class TraceView extends Pane {
  private static final double LEFT = 70;
  private static final double RIGHT = 14;
  private static final double BOTTOM = 22;
  private static final double TOP = 8;
  private static final double WINDOWS = 6;
  private static final double USUAL = 120;

  /** Share of the time that is shown which lies ahead, where it is known what comes. */
  private static final double AHEAD = 0.15;

  private static final int STEPS_AHEAD = 12;

  private final Region band = new Region();
  private final Region mayCome = new Region();
  private final Polyline course = new Polyline();
  private final Polyline comes = new Polyline();
  private final Pane grid = new Pane();
  private final List<Line> lines = new ArrayList<>();
  private final List<Text> labels = new ArrayList<>();
  private int linesUsed;
  private int labelsUsed;
  private RunTrace trace;
  private RunSnapshot now;
  private int channel;

  TraceView() {
    getStyleClass().add("run-trace");
    setId("run-trace");
    setMinHeight(80);
    band.getStyleClass().add("band");
    mayCome.getStyleClass().add("may-come");
    course.getStyleClass().add("course");
    comes.getStyleClass().add("comes");
    comes.setId("run-trace-comes");
    for (Node n : List.of(band, mayCome, course, comes, grid)) n.setManaged(false);
    getChildren().addAll(band, mayCome, grid, course, comes);
    widthProperty().addListener(o -> draw());
    heightProperty().addListener(o -> draw());
  }

  /** What the band is, in words. */
  String says(RunChannel c) {
    return switch (c.settle()) {
      case SettleRule.Rest r ->
          "the band is ±%s about where it comes to".formatted(amount(r.within(), c.raw()));
      case SettleRule.Stable s ->
          "the band is ±%s about the mean of the last %s s"
              .formatted(amount(s.deviation(), c.raw()), Numbers.trimmed(s.window(), 4));
      case SettleRule.Dwell d -> "a wait of %s s".formatted(Numbers.trimmed(d.seconds(), 4));
      case SettleRule.ByHand _ -> "you say when it has settled";
    };
  }

  private static String amount(double v, RawUnit raw) {
    return raw.small(v, 2);
  }

  void show(RunTrace trace, RunSnapshot now, int channel) {
    this.trace = trace;
    this.now = now;
    this.channel = channel;
    draw();
  }

  private void draw() {
    if (trace == null || getWidth() < LEFT + RIGHT + 20 || getHeight() < BOTTOM + TOP + 10) return;
    SettleRule rule = now.plan().channels().get(channel).settle();
    double window = rule instanceof SettleRule.Stable s ? WINDOWS * s.window() : USUAL;
    RunTrace.Course c = trace.of(channel, window);
    Span values = values(c, rule);
    linesUsed = 0;
    labelsUsed = 0;
    band.setVisible(false);
    mayCome.setVisible(false);
    comes.getPoints().clear();
    if (values == null) {
      unused();
      course.getPoints().clear();
      return;
    }
    double right = getWidth() - RIGHT;
    double bottom = getHeight() - BOTTOM;
    for (double y : Ticks.of(values, 4)) {
      line(LEFT, at(y, values), right, at(y, values));
      text(Numbers.trimmed(y, 6) + unit(), LEFT - 6, at(y, values), true);
    }
    RunSnapshot.Channel at = now.channels().get(channel);
    boolean ahead = rule instanceof SettleRule.Rest && at.outlook().known();
    double present = ahead ? right - AHEAD * (right - LEFT) : right;
    double second = (present - LEFT) / window;
    for (double t : Ticks.of(new Span(-window, ahead ? (right - present) / second : 0), 7)) {
      double x = present + t * second;
      line(x, TOP, x, bottom);
      text(Numbers.trimmed(t, 4) + (t == 0 ? " s" : ""), x, bottom + 12, false);
    }
    unused();
    var points = new ArrayList<Double>(2 * c.values().length);
    for (int i = 0; i < c.values().length; i++) {
      if (!Double.isFinite(c.values()[i])) continue;
      points.add(present + c.seconds()[i] * second);
      points.add(at(c.values()[i], values));
    }
    course.getPoints().setAll(points);
    if (rule instanceof SettleRule.Stable s) {
      showBand(band, at.mean(), s.deviation(), present - s.window() * second, values, right);
    }
    if (rule instanceof SettleRule.Rest r) {
      showBand(band, at.outlook().end(), r.within(), LEFT, values, right);
    }
    if (ahead) showAhead(at.outlook(), present, second, values, right);
  }

  /** Where it goes, and within what it comes to rest with a probability of 95 %. */
  private void showAhead(Outlook o, double present, double second, Span values, double right) {
    showBand(mayCome, o.end(), 2 * o.error(), present, values, right);
    var points = new ArrayList<Double>(2 * STEPS_AHEAD + 2);
    for (int i = 0; i <= STEPS_AHEAD; i++) {
      double x = present + i * (right - present) / STEPS_AHEAD;
      double y = at(o.end() - o.toCome((x - present) / second), values);
      points.add(x);
      points.add(Math.clamp(y, TOP, getHeight() - BOTTOM));
    }
    comes.getPoints().setAll(points);
  }

  private void showBand(
      Region band, double middle, double half, double x, Span values, double right) {
    if (!Double.isFinite(middle)) return;
    double top = Math.max(TOP, at(middle + half, values));
    double low = Math.min(getHeight() - BOTTOM, at(middle - half, values));
    if (low <= TOP || top >= getHeight() - BOTTOM) return;
    band.setVisible(true);
    band.resizeRelocate(x, top, right - x, Math.max(1, low - top));
  }

  private Span values(RunTrace.Course c, SettleRule rule) {
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (double v : c.values()) {
      if (!Double.isFinite(v)) continue;
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
    if (!(low <= high)) return null;
    Outlook o = now.channels().get(channel).outlook();
    if (rule instanceof SettleRule.Rest r && o.error() <= r.within()) {
      low = Math.min(low, o.end() - r.within());
      high = Math.max(high, o.end() + r.within());
    }
    double least =
        switch (rule) {
          case SettleRule.Stable s -> 4 * s.deviation();
          case SettleRule.Rest r -> 3 * r.within();
          default -> 1e-3;
        };
    double more = Math.max(0.08 * (high - low), (least - (high - low)) / 2);
    return new Span(low - more, high + more);
  }

  private String unit() {
    RawUnit raw = now.plan().channels().get(channel).raw();
    return raw == RawUnit.COUNTS ? "" : " " + raw.unit().symbol();
  }

  private double at(double v, Span values) {
    double height = getHeight() - BOTTOM - TOP;
    return TOP + (1 - values.fraction(v)) * height;
  }

  /** Lines and words are used again: what is new has to be styled first, and that takes long. */
  private void line(double x0, double y0, double x1, double y1) {
    if (linesUsed == lines.size()) {
      var fresh = new Line();
      fresh.getStyleClass().add("trace-grid");
      lines.add(fresh);
      grid.getChildren().add(fresh);
    }
    Line line = lines.get(linesUsed++);
    line.setStartX(x0);
    line.setStartY(y0);
    line.setEndX(x1);
    line.setEndY(y1);
    line.setVisible(true);
  }

  private void text(String words, double x, double y, boolean left) {
    if (labelsUsed == labels.size()) {
      var fresh = new Text();
      fresh.getStyleClass().add("trace-label");
      fresh.setTextOrigin(VPos.CENTER);
      labels.add(fresh);
      grid.getChildren().add(fresh);
      fresh.applyCss();
    }
    Text t = labels.get(labelsUsed++);
    if (!t.getText().equals(words)) t.setText(words);
    double width = t.getLayoutBounds().getWidth();
    t.setX(left ? x - width : Math.min(x - width / 2, getWidth() - width));
    t.setY(y);
    t.setVisible(true);
  }

  private void unused() {
    for (Line l : lines.subList(linesUsed, lines.size())) l.setVisible(false);
    for (Text t : labels.subList(labelsUsed, labels.size())) t.setVisible(false);
  }
}
