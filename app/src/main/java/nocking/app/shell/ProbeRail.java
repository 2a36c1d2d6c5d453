package nocking.app.shell;

import java.util.List;
import javafx.geometry.VPos;
import javafx.scene.input.KeyEvent;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Line;
import javafx.scene.shape.Polygon;
import javafx.scene.text.Text;
import nocking.app.desk.Desk;
import nocking.quantity.Numbers;
import nocking.quantity.Span;

/** The probe on its rail: drag it, or move it with the arrow keys. */
final class ProbeRail extends Pane {
  private static final double SIDE = 12;
  private static final double Y = 13;
  private static final double GAP = 10;
  private static final int INTERVALS = 10;

  private final Desk desk;
  private final Polygon handle = new Polygon(-7, -14, 7, -14, 7, -4, 0, 3, -7, -4);
  private Span span = new Span(0, 1);
  private List<String> stations = List.of();
  private final Line liveMark = new Line(0, Y - 9, 0, Y + 9);
  private double at;
  private double liveAt = Double.NaN;

  ProbeRail(Desk desk) {
    this.desk = desk;
    setId("probe-rail");
    getStyleClass().add("probe-rail");
    setMinHeight(34);
    setPrefHeight(34);
    setFocusTraversable(true);
    setAccessibleText("Probe");
    setAccessibleHelp(
        "Drag the probe, or move it with the arrow keys: one step is a hundredth of the range,"
            + " with Shift a tenth, Home and End go to the ends.");
    handle.getStyleClass().add("handle");
    handle.setId("probe-handle");
    liveMark.getStyleClass().add("live-mark");
    liveMark.setId("live-mark");
    liveMark.setMouseTransparent(true);
    liveMark.setVisible(false);
    widthProperty().addListener(o -> rebuild());
    setOnMousePressed(this::grab);
    setOnMouseDragged(this::grab);
    setOnMouseReleased(e -> desk.seal());
    setOnKeyPressed(this::key);
  }

  private void grab(MouseEvent e) {
    requestFocus();
    desk.probe(span.at(Math.clamp((e.getX() - SIDE) / railWidth(), 0, 1)));
    e.consume();
  }

  private void key(KeyEvent e) {
    double step = stations.isEmpty() ? span.width() / (e.isShiftDown() ? 10 : 100) : 1;
    switch (e.getCode()) {
      case RIGHT, UP -> desk.probe(desk.probe() + step);
      case LEFT, DOWN -> desk.probe(desk.probe() - step);
      case HOME -> desk.probe(span.low());
      case END -> desk.probe(span.high());
      default -> {
        return;
      }
    }
    e.consume();
  }

  private double railWidth() {
    return Math.max(1, getWidth() - 2 * SIDE);
  }

  /**
   * @param names of a selector's stations, at 1, 2, 3 …; empty for a quantity that moves evenly
   */
  void show(Span working, List<String> names) {
    Span wanted = names.isEmpty() ? working : new Span(1, names.size());
    if (!span.equals(wanted) || !stations.equals(names) || getChildren().isEmpty()) {
      span = wanted;
      stations = names;
      rebuild();
    }
  }

  void place(double x) {
    at = x;
    handle.setTranslateX(SIDE + Math.clamp(span.fraction(x), 0, 1) * railWidth());
    handle.setTranslateY(Y);
  }

  /** Marks what a meter reads; NaN for nothing. */
  void live(double x) {
    liveAt = x;
    liveMark.setVisible(Double.isFinite(x));
    if (!Double.isFinite(x)) return;
    liveMark.setTranslateX(SIDE + Math.clamp(span.fraction(x), 0, 1) * railWidth());
  }

  private void rebuild() {
    getChildren().clear();
    double width = railWidth();
    var rail = new Line(SIDE, Y, SIDE + width, Y);
    rail.getStyleClass().add("rail");
    getChildren().add(rail);
    if (stations.isEmpty()) evenTicks(width);
    else stationTicks(width);
    getChildren().addAll(liveMark, handle);
    place(at);
    live(liveAt);
  }

  private void evenTicks(double width) {
    int decimals = Math.max(0, Numbers.decimalsFor(span.width() / 5) - 1);
    for (int i = 0; i <= INTERVALS; i++) {
      double x = SIDE + width * i / INTERVALS;
      getChildren().add(tick(x));
      if (i % 2 != 0) continue;
      String value = Numbers.fixed(span.at((double) i / INTERVALS), decimals);
      getChildren().add(label(x, value.replace('-', '−')));
    }
  }

  /** A tick at each station, and as many names as have room beside one another. */
  private void stationTicks(double width) {
    double end = Double.NEGATIVE_INFINITY;
    for (int i = 0; i < stations.size(); i++) {
      double x = SIDE + width * i / (stations.size() - 1);
      getChildren().add(tick(x));
      Text name = label(x, stations.get(i));
      if (name.getX() < end + GAP) continue;
      getChildren().add(name);
      end = name.getX() + name.getLayoutBounds().getWidth();
    }
  }

  private static Line tick(double x) {
    var tick = new Line(x, Y - 5, x, Y + 5);
    tick.getStyleClass().add("tick");
    return tick;
  }

  /** Under its tick, but not beyond the ends of the rail. */
  private Text label(double x, String words) {
    var text = new Text(words);
    text.getStyleClass().add("tick-label");
    text.setTextOrigin(VPos.TOP);
    text.applyCss();
    double half = text.getLayoutBounds().getWidth() / 2;
    text.setX(
        Math.clamp(x, Math.min(half, getWidth() / 2), Math.max(getWidth() - half, getWidth() / 2))
            - half);
    text.setY(Y + 7);
    return text;
  }
}
