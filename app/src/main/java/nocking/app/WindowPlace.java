package nocking.app;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.stream.Stream;
import javafx.geometry.Rectangle2D;
import javafx.stage.Screen;
import javafx.stage.Stage;
import nocking.app.desk.Settings;

/**
 * Where the window stands and how large it is: as it was left, but never beyond the edges of a
 * screen that is there now.
 */
final class WindowPlace {
  private static final String SETTING = "window";
  private static final double WIDTH = 1280;
  private static final double HEIGHT = 800;

  /** The least at which nothing is cut, on a screen that has as much. */
  private static final double LEAST_WIDTH = 1100;

  private static final double LEAST_HEIGHT = 700;

  private final Stage stage;
  private final Settings settings;
  private Rectangle2D usual;

  private WindowPlace(Stage stage, Settings settings) {
    this.stage = stage;
    this.settings = settings;
  }

  /** Puts a window that is not yet shown where it belongs. */
  static WindowPlace of(Stage stage, Settings settings) {
    var place = new WindowPlace(stage, settings);
    List<Rectangle2D> screens =
        Stream.concat(Stream.of(Screen.getPrimary()), Screen.getScreens().stream())
            .map(Screen::getVisualBounds)
            .distinct()
            .toList();
    String left = settings.text(SETTING);
    Rectangle2D r = at(left, screens);
    Rectangle2D on = most(r, screens);
    stage.setX(r.getMinX());
    stage.setY(r.getMinY());
    stage.setWidth(r.getWidth());
    stage.setHeight(r.getHeight());
    stage.setMinWidth(Math.min(LEAST_WIDTH, on.getWidth()));
    stage.setMinHeight(Math.min(LEAST_HEIGHT, on.getHeight()));
    stage.setMaximized(left.endsWith(" maximized"));
    place.usual = r;
    stage.xProperty().addListener((o, was, now) -> place.moved());
    stage.yProperty().addListener((o, was, now) -> place.moved());
    stage.widthProperty().addListener((o, was, now) -> place.moved());
    stage.heightProperty().addListener((o, was, now) -> place.moved());
    return place;
  }

  /** What a window that fills the screen goes back to is remembered, not that it fills it. */
  private void moved() {
    boolean own = !stage.isMaximized() && !stage.isFullScreen() && !stage.isIconified();
    if (!own || !(stage.getWidth() > 0 && stage.getHeight() > 0)) return;
    if (Double.isNaN(stage.getX()) || Double.isNaN(stage.getY())) return;
    usual = new Rectangle2D(stage.getX(), stage.getY(), stage.getWidth(), stage.getHeight());
  }

  /** The window is closed: its place is kept for the next one. */
  void keep() {
    settings.setNow(
        SETTING,
        String.format(
            Locale.ROOT,
            "%.0f %.0f %.0f %.0f%s",
            usual.getMinX(),
            usual.getMinY(),
            usual.getWidth(),
            usual.getHeight(),
            stage.isMaximized() ? " maximized" : ""));
  }

  /**
   * @param left how a window was left: x, y, width and height; anything else is as if nothing had
   *     been said
   * @param screens what of each screen is free for windows, the first one first; not empty
   * @return wholly on one screen
   */
  static Rectangle2D at(String left, List<Rectangle2D> screens) {
    Rectangle2D first = screens.getFirst();
    Rectangle2D wanted = read(left);
    if (wanted == null || overlap(wanted, most(wanted, screens)) <= 0) {
      double w = Math.min(WIDTH, first.getWidth());
      double h = Math.min(HEIGHT, first.getHeight());
      return new Rectangle2D(
          first.getMinX() + (first.getWidth() - w) / 2,
          first.getMinY() + (first.getHeight() - h) / 2,
          w,
          h);
    }
    Rectangle2D on = most(wanted, screens);
    double w = within(wanted.getWidth(), Math.min(LEAST_WIDTH, on.getWidth()), on.getWidth());
    double h = within(wanted.getHeight(), Math.min(LEAST_HEIGHT, on.getHeight()), on.getHeight());
    return new Rectangle2D(
        within(wanted.getMinX(), on.getMinX(), on.getMaxX() - w),
        within(wanted.getMinY(), on.getMinY(), on.getMaxY() - h),
        w,
        h);
  }

  private static double within(double v, double low, double high) {
    return Math.max(low, Math.min(v, high));
  }

  private static Rectangle2D read(String left) {
    String[] words = left.strip().split("\\s+");
    if (words.length < 4) return null;
    double[] v = new double[4];
    for (int i = 0; i < v.length; i++) {
      // Whole numbers only, as they were written: no NaN, no 1e300.
      if (!words[i].matches("-?[0-9]{1,6}")) return null;
      v[i] = Double.parseDouble(words[i]);
    }
    return v[2] > 0 && v[3] > 0 ? new Rectangle2D(v[0], v[1], v[2], v[3]) : null;
  }

  private static Rectangle2D most(Rectangle2D r, List<Rectangle2D> screens) {
    return screens.stream().max(Comparator.comparingDouble(s -> overlap(r, s))).orElseThrow();
  }

  private static double overlap(Rectangle2D a, Rectangle2D b) {
    double w = Math.min(a.getMaxX(), b.getMaxX()) - Math.max(a.getMinX(), b.getMinX());
    double h = Math.min(a.getMaxY(), b.getMaxY()) - Math.max(a.getMinY(), b.getMinY());
    return Math.max(0, w) * Math.max(0, h);
  }
}
