package nocking.app.step.fit;

import java.util.Arrays;
import java.util.Comparator;
import java.util.stream.IntStream;
import javafx.scene.Node;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Polyline;
import javafx.scene.shape.Rectangle;
import nocking.fit.Fit;
import nocking.fit.Samples;

/** What a model leaves, in the height of a line of text: the shape says what is missing. */
final class Spark {
  private static final double WIDTH = 40;
  private static final double HEIGHT = 17;
  private static final int MOST = 40;

  /** Of many points these are looked at: a line of a few pixels shows no more. */
  private static final int LOOKED = 400;

  private Spark() {}

  /**
   * @param tolerance drawn as a band; NaN for none
   */
  static Node of(Fit fit, Samples samples, double tolerance) {
    int n = Math.min(samples.size(), fit.errors().length);
    double largest = Arrays.stream(fit.errors()).map(Math::abs).max().orElse(0);
    double full = Math.max(largest, Double.isNaN(tolerance) ? 0 : tolerance);
    var pane = new Pane();
    pane.setMinSize(WIDTH, HEIGHT);
    pane.setMaxSize(WIDTH, HEIGHT);
    if (n == 0 || !(full > 0) || !Double.isFinite(full)) return pane;
    double middle = HEIGHT / 2;
    if (!Double.isNaN(tolerance)) {
      double half = Math.max(1, tolerance / full * (middle - 1));
      var band = new Rectangle(0, middle - half, WIDTH, 2 * half);
      band.getStyleClass().add("spark-band");
      pane.getChildren().add(band);
    }
    int looked = Math.min(n, LOOKED);
    int[] order =
        IntStream.range(0, looked)
            .mapToObj(k -> (int) ((long) k * n / looked))
            .sorted(Comparator.comparingDouble(i -> samples.quantity()[i]))
            .mapToInt(i -> i)
            .toArray();
    var line = new Polyline();
    line.getStyleClass().add("spark");
    int shown = Math.min(looked, MOST);
    for (int k = 0; k < shown; k++) {
      int i = order[shown == 1 ? 0 : (int) ((long) k * (looked - 1) / (shown - 1))];
      double x = shown == 1 ? WIDTH / 2 : WIDTH * k / (shown - 1.0);
      line.getPoints().addAll(x, middle - fit.errors()[i] / full * (middle - 1));
    }
    pane.getChildren().add(line);
    pane.setMouseTransparent(true);
    return pane;
  }
}
