package nocking.app;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.Node;
import javafx.scene.Parent;
import javafx.scene.layout.BackgroundFill;
import javafx.scene.layout.Region;
import javafx.scene.paint.Color;
import javafx.scene.text.Text;

/** Contrast of texts on their ground as in WCAG 2.2, success criterion 1.4.3. */
final class Contrast {
  private Contrast() {}

  /** A text that can be seen, with its contrast. */
  record Measured(String text, double contrast, Node node) {}

  /** Every visible text below a node that is not switched off. */
  static List<Measured> of(Node root) {
    var list = new ArrayList<Measured>();
    collect(root, list);
    return list;
  }

  private static void collect(Node n, List<Measured> list) {
    if (!n.isVisible() || n.isDisabled()) return;
    if (n instanceof Text t && !t.getText().isBlank() && t.getFill() instanceof Color ink) {
      Color ground = ground(t);
      list.add(new Measured(t.getText(), contrast(over(ink, opacity(t), ground), ground), t));
    }
    if (n instanceof Parent p) p.getChildrenUnmodifiable().forEach(c -> collect(c, list));
  }

  private static double opacity(Node n) {
    double all = 1;
    for (Node p = n; p != null; p = p.getParent()) all *= p.getOpacity();
    return all;
  }

  /** What lies under a text: the colours of all that hold it, the nearest on top. */
  private static Color ground(Node n) {
    var layers = new ArrayList<Color>();
    for (Node p = n.getParent(); p != null; p = p.getParent()) {
      if (!(p instanceof Region r) || r.getBackground() == null) continue;
      List<BackgroundFill> fills = r.getBackground().getFills();
      for (BackgroundFill f : fills.reversed()) {
        if (f.getFill() instanceof Color c) layers.add(c);
      }
    }
    Color ground = Color.WHITE;
    for (Color c : layers.reversed()) ground = over(c, 1, ground);
    return ground;
  }

  private static Color over(Color c, double opacity, Color ground) {
    double a = c.getOpacity() * opacity;
    return Color.color(
        a * c.getRed() + (1 - a) * ground.getRed(),
        a * c.getGreen() + (1 - a) * ground.getGreen(),
        a * c.getBlue() + (1 - a) * ground.getBlue());
  }

  private static double contrast(Color a, Color b) {
    double first = luminance(a) + 0.05;
    double second = luminance(b) + 0.05;
    return Math.max(first, second) / Math.min(first, second);
  }

  private static double luminance(Color c) {
    return 0.2126 * linear(c.getRed())
        + 0.7152 * linear(c.getGreen())
        + 0.0722 * linear(c.getBlue());
  }

  private static double linear(double v) {
    return v <= 0.04045 ? v / 12.92 : Math.pow((v + 0.055) / 1.055, 2.4);
  }
}
