package nocking.app.control;

import java.awt.geom.Rectangle2D;
import java.util.Optional;
import java.util.function.DoubleConsumer;
import java.util.function.DoubleFunction;
import javafx.embed.swing.SwingFXUtils;
import javafx.geometry.Point2D;
import javafx.scene.Cursor;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.image.Image;
import javafx.scene.image.ImageView;
import javafx.scene.input.MouseButton;
import javafx.scene.input.MouseEvent;
import javafx.scene.input.ScrollEvent;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Region;
import javafx.scene.shape.Circle;
import javafx.scene.shape.Line;
import nocking.app.desk.Background;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.report.plot.Axis;
import nocking.report.plot.Palette;
import nocking.report.plot.Plot;
import nocking.report.plot.PlotPicture;

/**
 * Shows a plot. It is drawn off the interface thread into an image; the probe's cross-hair and the
 * hover read-out lie on top of it, so that moving them costs nothing. Wheel zooms, drag moves,
 * double click goes back.
 */
public final class PlotView extends Pane {
  private static final double ZOOM = 0.85;

  /** Size of a handle, pixels. */
  private static final double GRIP = 11;

  private final ImageView image = new ImageView();
  private final Line cross = new Line();
  private final Circle dot = new Circle(3.5);
  private final Circle ring = new Circle(8);
  private double ringX = Double.NaN;
  private double ringY = Double.NaN;
  private final Label hover = new Label();
  private Plot whole;
  private Plot shown;
  private PlotPicture picture;
  private boolean drawing;
  private boolean stale;
  private boolean dark;
  private double probe = Double.NaN;
  private DoubleFunction<Double> follow = x -> Double.NaN;
  private final Region handle = new Region();
  private double grip = Double.NaN;
  private boolean gripping;
  private Picker picker = (x, y, dx, dy) -> false;
  private boolean picking;
  private double dragX;
  private double dragY;

  public PlotView(String id, String spoken) {
    setId(id);
    getStyleClass().add("plot");
    setAccessibleText(spoken);
    cross.getStyleClass().add("cross");
    dot.getStyleClass().add("cross-dot");
    hover.getStyleClass().add("hover");
    ring.getStyleClass().add("plot-ring");
    for (var node : new Node[] {cross, dot, ring, hover}) {
      node.setManaged(false);
      node.setVisible(false);
      node.setMouseTransparent(true);
    }
    getChildren().addAll(image, cross, dot, ring, hover);
    setMinSize(160, 110);
    setPrefSize(420, 240);
    widthProperty().addListener(o -> redraw());
    heightProperty().addListener(o -> redraw());
    setOnScroll(this::zoom);
    setOnMousePressed(
        e -> {
          dragX = e.getX();
          dragY = e.getY();
          picking = e.getButton() == MouseButton.PRIMARY && picks(e);
        });
    setOnMouseDragged(
        e -> {
          if (!picking) pan(e);
        });
    setOnMouseMoved(this::hover);
    setOnMouseExited(e -> hover.setVisible(false));
    setOnMouseClicked(
        e -> {
          if (e.getButton() == MouseButton.PRIMARY && e.getClickCount() == 2) zoomTo(whole);
        });
    setOnContextMenuRequested(
        e ->
            new PlotMenu(this, shown, image.getImage(), () -> zoomTo(whole), this::say)
                .show(this, e.getScreenX(), e.getScreenY()));
  }

  /**
   * Puts a handle at the right of the plot by which a height is dragged: the band of a tolerance.
   *
   * @param spoken name of the handle
   * @param dragged takes the height while it is dragged, at least 0
   * @param released called when it is let go
   */
  public void grip(String spoken, DoubleConsumer dragged, Runnable released) {
    handle.setId(getId() + "-grip");
    handle.getStyleClass().add("plot-grip");
    handle.setAccessibleText(spoken);
    handle.setManaged(false);
    handle.setVisible(false);
    handle.setCursor(Cursor.V_RESIZE);
    handle.resize(GRIP, GRIP);
    handle.setOnMousePressed(
        e -> {
          gripping = true;
          e.consume();
        });
    handle.setOnMouseDragged(
        e -> {
          double y = sceneToLocal(e.getSceneX(), e.getSceneY()).getY();
          handle.setLayoutY(y - GRIP / 2);
          dragged.accept(Math.abs(heightAt(y)));
          e.consume();
        });
    handle.setOnMouseReleased(
        e -> {
          gripping = false;
          released.run();
          zoomTo(whole);
          e.consume();
        });
    getChildren().add(handle);
  }

  /** Takes a place in the plot where the mouse was pressed. */
  @FunctionalInterface
  public interface Picker {
    /**
     * @param dx width of a pixel
     * @param dy height of a pixel
     * @return true where something is there, so that the plot is not moved
     */
    boolean take(double x, double y, double dx, double dy);
  }

  /** Lets what the plot shows be picked with the mouse. */
  public void onPick(Picker taker) {
    picker = taker;
  }

  /** Puts a ring around a place of the plot; NaN takes it away. */
  public void ring(double x, double y) {
    ringX = x;
    ringY = y;
    placeRing();
  }

  /** Where a place of the plot is in this view; empty where it is not shown. */
  public Optional<Point2D> place(double x, double y) {
    if (picture == null) return Optional.empty();
    Span xs = picture.plot().x().span();
    Span ys = picture.plot().y().span();
    if (!xs.contains(x) || !ys.contains(y)) return Optional.empty();
    Rectangle2D area = picture.area();
    return Optional.of(
        new Point2D(
            area.getX() + xs.fraction(x) * area.getWidth(),
            area.getMaxY() - ys.fraction(y) * area.getHeight()));
  }

  private void placeRing() {
    Optional<Point2D> at = place(ringX, ringY);
    ring.setVisible(at.isPresent());
    at.ifPresent(
        p -> {
          ring.setCenterX(p.getX());
          ring.setCenterY(p.getY());
        });
  }

  private boolean picks(MouseEvent e) {
    if (picture == null || !picture.area().contains(e.getX(), e.getY())) return false;
    Rectangle2D area = picture.area();
    Span xs = picture.plot().x().span();
    Span ys = picture.plot().y().span();
    return picker.take(
        xs.at((e.getX() - area.getX()) / area.getWidth()),
        heightAt(e.getY()),
        xs.width() / area.getWidth(),
        ys.width() / area.getHeight());
  }

  /** The height that can be dragged now; NaN for none. */
  public void gripAt(double height) {
    grip = height;
    placeGrip();
  }

  private void placeGrip() {
    boolean on = picture != null && !Double.isNaN(grip) && picture.plot().y().span().contains(grip);
    handle.setVisible(on);
    if (!on || gripping) return;
    Rectangle2D area = picture.area();
    double y = area.getMaxY() - picture.plot().y().span().fraction(grip) * area.getHeight();
    handle.relocate(area.getMaxX() - GRIP / 2, y - GRIP / 2);
  }

  private double heightAt(double y) {
    Rectangle2D area = picture.area();
    return picture.plot().y().span().at((area.getMaxY() - y) / area.getHeight());
  }

  /**
   * Shows a plot; the zoom is kept only while the axes stay what they are, and while something in
   * it is dragged.
   */
  public void show(Plot plot) {
    boolean same =
        gripping || whole != null && whole.x().equals(plot.x()) && whole.y().equals(plot.y());
    shown = same && shown != null ? plot.zoomed(shown.x().span(), shown.y().span()) : plot;
    whole = plot;
    redraw();
  }

  public void dark(boolean v) {
    if (dark == v) return;
    dark = v;
    redraw();
  }

  /** Puts the cross-hair at an input; {@code y} gives the height of its dot, NaN for none. */
  public void probe(double x, DoubleFunction<Double> y) {
    probe = x;
    follow = y;
    placeCross();
  }

  private void redraw() {
    if (shown == null || getWidth() < 40 || getHeight() < 40) return;
    if (drawing) {
      stale = true;
      return;
    }
    drawing = true;
    stale = false;
    Plot plot = shown;
    double width = getWidth();
    double height = getHeight();
    double scale =
        getScene() == null
            ? 1
            : getScene().getWindow() == null ? 1 : getScene().getWindow().getOutputScaleX();
    Palette palette = dark ? Palette.DARK : Palette.LIGHT;
    Background.run(
        () -> {
          PlotPicture drawn = PlotPicture.draw(plot, palette, width, height, scale);
          return new Drawn(drawn, SwingFXUtils.toFXImage(drawn.image(), null));
        },
        drawn -> {
          picture = drawn.picture;
          image.setImage(drawn.image);
          image.setFitWidth(width);
          image.setFitHeight(height);
          drawing = false;
          placeCross();
          placeGrip();
          placeRing();
          if (stale) redraw();
        });
  }

  private record Drawn(PlotPicture picture, Image image) {}

  private void placeCross() {
    boolean on =
        picture != null && picture.plot().x().span().contains(probe) && !Double.isNaN(probe);
    cross.setVisible(on);
    dot.setVisible(false);
    if (!on) return;
    Rectangle2D area = picture.area();
    double x = area.getX() + picture.plot().x().span().fraction(probe) * area.getWidth();
    cross.setStartX(x);
    cross.setEndX(x);
    cross.setStartY(area.getMinY());
    cross.setEndY(area.getMaxY());
    double y = follow.apply(probe);
    Span ySpan = picture.plot().y().span();
    if (Double.isNaN(y) || !ySpan.contains(y)) return;
    dot.setVisible(true);
    dot.setCenterX(x);
    dot.setCenterY(area.getMaxY() - ySpan.fraction(y) * area.getHeight());
  }

  private void zoom(ScrollEvent e) {
    if (picture == null || e.getDeltaY() == 0) return;
    double factor = e.getDeltaY() > 0 ? ZOOM : 1 / ZOOM;
    Rectangle2D area = picture.area();
    double fx = Math.clamp((e.getX() - area.getX()) / area.getWidth(), 0, 1);
    double fy = Math.clamp((area.getMaxY() - e.getY()) / area.getHeight(), 0, 1);
    zoomTo(whole.zoomed(about(shown.x().span(), fx, factor), about(shown.y().span(), fy, factor)));
    e.consume();
  }

  private static Span about(Span span, double fraction, double factor) {
    double fixed = span.at(fraction);
    double width = span.width() * factor;
    return new Span(fixed - fraction * width, fixed + (1 - fraction) * width);
  }

  private void pan(MouseEvent e) {
    if (picture == null) return;
    Rectangle2D area = picture.area();
    double dx = (dragX - e.getX()) / area.getWidth() * shown.x().span().width();
    double dy = (e.getY() - dragY) / area.getHeight() * shown.y().span().width();
    dragX = e.getX();
    dragY = e.getY();
    zoomTo(whole.zoomed(shift(shown.x().span(), dx), shift(shown.y().span(), dy)));
  }

  private static Span shift(Span s, double by) {
    return new Span(s.low() + by, s.high() + by);
  }

  private void zoomTo(Plot plot) {
    if (plot == null) return;
    shown = plot;
    redraw();
  }

  private void hover(MouseEvent e) {
    if (picture == null || !picture.area().contains(e.getX(), e.getY())) {
      hover.setVisible(false);
      return;
    }
    Rectangle2D area = picture.area();
    Span xs = picture.plot().x().span();
    Span ys = picture.plot().y().span();
    double x = xs.at((e.getX() - area.getX()) / area.getWidth());
    double y = ys.at((area.getMaxY() - e.getY()) / area.getHeight());
    hover.setText(
        Numbers.fixed(x, Numbers.decimalsFor(xs.width() / 100))
            + "  "
            + Numbers.fixed(y, Numbers.decimalsFor(ys.width() / 100))
            + picture.plot().right().map(r -> "  " + beside(r, ys.fraction(y))).orElse(""));
    hover.autosize();
    boolean right = e.getX() + hover.getWidth() + 14 > getWidth();
    hover.relocate(
        right ? e.getX() - hover.getWidth() - 8 : e.getX() + 10, Math.max(0, e.getY() - 24));
    hover.setVisible(true);
  }

  /** The same height on the axis at the right. */
  private static String beside(Axis right, double fraction) {
    return Numbers.fixed(right.span().at(fraction), Numbers.decimalsFor(right.span().width() / 100))
        + " "
        + right.title();
  }

  /** Says in the plot what went wrong with it. */
  private void say(String sentence) {
    hover.setText(sentence);
    hover.autosize();
    hover.relocate(8, 8);
    hover.setVisible(true);
  }

  @Override
  protected void layoutChildren() {
    image.relocate(0, 0);
  }
}
