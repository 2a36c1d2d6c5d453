package nocking.app.step.wire;

import java.util.List;
import java.util.function.IntConsumer;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import javafx.scene.shape.Shape;
import javafx.scene.text.Text;
import nocking.analysis.Analysis;
import nocking.fault.FaultMatrix;
import nocking.fault.FaultRow;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Ticks;
import nocking.wiring.Thresholds;

/** One voltage ruler with the normal band and the span of every fault on it. */
final class FaultPicture extends Pane {
  private static final double LEFT = 226;
  private static final double RIGHT = 20;
  private static final double ROW = 20;
  private static final double TOP = 22;
  private static final double BAR = 10;
  private static final int TICKS = 8;

  private final IntConsumer chosen;
  private List<FaultRow> rows = List.of();
  private Analysis analysis;
  private FaultMatrix matrix;
  private Thresholds limits;
  private int selected;
  private Span ruler = new Span(0, 5);

  /**
   * @param chosen told which row the user looks at
   */
  FaultPicture(IntConsumer chosen) {
    this.chosen = chosen;
    setId("fault-picture");
    getStyleClass().add("faults");
    setFocusTraversable(true);
    widthProperty().addListener((o, b, w) -> draw());
    setOnMousePressed(this::pressed);
    setOnKeyPressed(this::key);
  }

  /**
   * @param shown rows of the matrix to be drawn, the sound channel first
   */
  void show(Analysis a, FaultMatrix m, List<FaultRow> shown) {
    analysis = a;
    matrix = m;
    rows = shown;
    limits = a.channel().wiring().plan().thresholds();
    double reference = a.channel().design().converter().reference().number();
    double top = Math.max(reference, m.band().volts().high());
    ruler = new Span(Math.min(0, m.band().volts().low()), 1.04 * top);
    selected = Math.min(selected, Math.max(0, rows.size() - 1));
    draw();
    if (!rows.isEmpty()) chosen.accept(selected);
  }

  private void pressed(MouseEvent e) {
    requestFocus();
    choose((int) Math.floor((e.getY() - TOP) / ROW));
  }

  private void key(KeyEvent e) {
    switch (e.getCode()) {
      case UP -> choose(selected - 1);
      case DOWN -> choose(selected + 1);
      default -> {
        return;
      }
    }
    e.consume();
  }

  private void choose(int row) {
    if (row < 0 || row >= rows.size()) return;
    selected = row;
    draw();
    chosen.accept(row);
  }

  private double place(double volts) {
    return LEFT + Math.clamp(ruler.fraction(volts), 0, 1) * (getWidth() - LEFT - RIGHT);
  }

  private void draw() {
    getChildren().clear();
    if (matrix == null || rows.isEmpty() || getWidth() < LEFT + 120) return;
    double height = TOP + rows.size() * ROW + 16;
    setMinHeight(height);
    setPrefHeight(height);
    scale(height);
    var spoken = new StringBuilder("What every fault looks like. ");
    for (int i = 0; i < rows.size(); i++) {
      row(i, rows.get(i));
      spoken
          .append(rows.get(i).fault().says())
          .append(": ")
          .append(words(rows.get(i)))
          .append(". ");
    }
    setAccessibleText(spoken.toString());
    if (limits != null) {
      if (limits.low() != null) limit(limits.low().number(), height);
      if (limits.high() != null) limit(limits.high().number(), height);
    }
  }

  private void scale(double height) {
    Span band = matrix.band().volts();
    double from = place(band.low());
    add(new Rectangle(from, TOP - 2, place(band.high()) - from, height - TOP - 12), "band");
    for (double v : Ticks.of(ruler, TICKS)) {
      double x = place(v);
      add(new Line(x, TOP - 4, x, height - 14), "tick");
      centred(x, TOP - 8, Numbers.trimmed(v, 3).replace('-', '−') + " V");
    }
  }

  private void centred(double x, double y, String text) {
    var t = new Text(text);
    t.getStyleClass().add("scale");
    t.setX(x - text.length() * 3.2);
    t.setY(y);
    getChildren().add(t);
  }

  private void limit(double v, double height) {
    double x = place(v);
    add(new Line(x, TOP - 2, x, height - 14), "limit");
    var t = new Text(Numbers.trimmed(v, 4));
    t.getStyleClass().add("limit-text");
    t.setX(x - t.getText().length() * 3.2);
    t.setY(height - 3);
    getChildren().add(t);
  }

  private void row(int i, FaultRow r) {
    double y = TOP + i * ROW;
    if (i == selected) {
      add(new Rectangle(0, y, getWidth(), ROW), "selected");
    }
    var name = new Text(cut(i == 0 ? "normal" : r.fault().says(), 36));
    name.getStyleClass().add("name");
    name.setX(6);
    name.setY(y + 14);
    getChildren().add(name);
    double from = place(r.volts().low());
    double to = place(r.volts().high());
    add(new Rectangle(from, y + 5, Math.max(4, to - from), BAR), i == 0 ? "normal" : style(r));
    label(r, i == 0, y, from, Math.max(from + 4, to));
  }

  private static String style(FaultRow r) {
    if (r.harm().any()) return r.harm().certain() ? "harmful" : "undetectable";
    return switch (r.verdict()) {
      case TOLD -> "detectable";
      case PARTLY, HIDDEN -> "undetectable";
      case HARMLESS -> "harmless";
      case HANGS -> "undetectable";
      case FLOATS -> "floats";
    };
  }

  /** Words stand beside the bar where there is room, else in it. */
  private void label(FaultRow r, boolean sound, double y, double from, double to) {
    String text = sound ? "" : words(r);
    boolean beyond = r.volts().low() > ruler.high() && !r.harm().any();
    if (beyond) text = volts(r.volts().high()) + ", " + text;
    var t = new Text(text);
    double w = text.length() * 5.9;
    boolean right = to + 6 + w < getWidth() - 4;
    boolean left = from - 6 - w > LEFT;
    t.setY(y + 14);
    if (right) t.setX(to + 6);
    else if (left) t.setX(from - 6 - w);
    else t.setX((from + to - w) / 2);
    boolean inside = !right && !left;
    t.getStyleClass().add(inside ? "inside" : "beside");
    if (inside) {
      var ground = new Rectangle((from + to - w) / 2 - 4, y + 3, w + 8, ROW - 6);
      add(ground, "inside-ground");
    }
    getChildren().add(t);
  }

  private String words(FaultRow r) {
    if (r.harm().any()) return r.harm().brief();
    return switch (r.verdict()) {
      case TOLD -> "detectable";
      case PARTLY -> "detectable over part, else off by up to " + error(r);
      case HIDDEN -> "undetectable: off by up to " + error(r);
      case HARMLESS -> "does no harm";
      case HANGS -> "hangs on the supply current: say it";
      case FLOATS -> "floats" + (r.note().isEmpty() ? "" : ": " + r.note());
    };
  }

  private String error(FaultRow r) {
    if (Double.isNaN(r.worst())) return "no reading";
    String unit = analysis.channel().definition().unit();
    return Numbers.signed(r.worst(), Math.max(1, Math.min(2, analysis.design().decimals())))
            .replace('-', '−')
        + (unit.isEmpty() ? "" : " " + unit);
  }

  static String volts(double v) {
    return Math.abs(v) < 5e-7 ? "0 V" : Numbers.engineering(v, "V", 3).replace('-', '−');
  }

  private static String cut(String s, int most) {
    return s.length() <= most ? s : s.substring(0, most - 1) + "…";
  }

  private void add(Shape s, String style) {
    s.getStyleClass().add(style);
    getChildren().add(s);
  }
}
