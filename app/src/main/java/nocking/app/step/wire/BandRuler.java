package nocking.app.step.wire;

import javafx.scene.layout.Pane;
import javafx.scene.shape.Line;
import javafx.scene.shape.Rectangle;
import javafx.scene.shape.Shape;
import javafx.scene.text.Text;
import nocking.band.BandPlan;
import nocking.band.BandPosition;
import nocking.band.Positions;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Ticks;

/** The windows of a selector on one voltage ruler, with every settle as a tick. */
final class BandRuler extends Pane {
  private static final double LEFT = 14;
  private static final double TOP = 34;
  private static final double BAR = 26;
  private static final int TICKS = 8;

  private Positions positions;
  private BandPlan plan;
  private Span range = new Span(0, 5);
  private double probe = Double.NaN;

  BandRuler() {
    setId("band-ruler");
    getStyleClass().add("bands");
    setMinHeight(92);
    setPrefHeight(92);
    widthProperty().addListener((o, b, w) -> draw());
  }

  void show(BandPlan p, Positions judged, Span volts) {
    plan = p;
    positions = judged;
    range = volts;
    draw();
  }

  /** Volts at the probe; not a number for none. */
  void probe(double volts) {
    probe = volts;
    draw();
  }

  private double place(double volts) {
    return LEFT + Math.clamp(range.fraction(volts), 0, 1) * (getWidth() - 2 * LEFT);
  }

  private void draw() {
    getChildren().clear();
    if (positions == null || getWidth() < 100) return;
    add(new Rectangle(LEFT, TOP, getWidth() - 2 * LEFT, BAR), "bed");
    var spoken = new StringBuilder("Windows on the ruler. ");
    double lastEnd = Double.NEGATIVE_INFINITY;
    for (int i = 0; i < positions.windows().size(); i++) {
      Positions.Window w = positions.windows().get(i);
      double from = place(w.low());
      double to = place(w.high());
      add(new Rectangle(from, TOP, Math.max(1, to - from), BAR), "window");
      add(new Line(place(w.centre()), TOP, place(w.centre()), TOP + BAR), "centre");
      double middle = (from + to) / 2;
      double wide = w.name().length() * 6.2;
      // Names that would touch take turns above and below.
      boolean high = middle - wide / 2 < lastEnd + 6;
      var t = new Text(middle - wide / 2, high ? TOP - 18 : TOP - 5, w.name());
      t.getStyleClass().add("name");
      getChildren().add(t);
      if (!high) lastEnd = middle + wide / 2;
      spoken.append(w.name()).append(" from ").append(Numbers.fixed(w.low(), 3));
      spoken.append(" V to ").append(Numbers.fixed(w.high(), 3)).append(" V. ");
    }
    overlaps();
    for (BandPosition p : plan.positions()) {
      for (double v : p.observed())
        add(new Line(place(v), TOP + 5, place(v), TOP + BAR - 5), "settle");
    }
    for (double v : Ticks.of(range, TICKS)) {
      add(new Line(place(v), TOP + BAR, place(v), TOP + BAR + 5), "tick");
      String words = Numbers.trimmed(v, 3) + " V";
      var t = new Text(place(v) - words.length() * 3.2, TOP + BAR + 18, words);
      t.getStyleClass().add("scale");
      getChildren().add(t);
    }
    if (!Double.isNaN(probe))
      add(new Line(place(probe), TOP - 4, place(probe), TOP + BAR + 6), "probe-line");
    setAccessibleText(spoken.toString());
  }

  private void overlaps() {
    var w = positions.windows();
    for (int i = 0; i < w.size(); i++) {
      for (int j = i + 1; j < w.size(); j++) {
        double from = Math.max(w.get(i).low(), w.get(j).low());
        double to = Math.min(w.get(i).high(), w.get(j).high());
        if (to > from + 1e-12) {
          add(
              new Rectangle(place(from), TOP, Math.max(2, place(to) - place(from)), BAR),
              "overlap");
        }
      }
    }
  }

  private void add(Shape s, String style) {
    s.getStyleClass().add(style);
    getChildren().add(s);
  }
}
