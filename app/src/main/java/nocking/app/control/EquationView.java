package nocking.app.control;

import java.util.function.Consumer;
import javafx.geometry.VPos;
import javafx.scene.layout.Pane;
import javafx.scene.shape.Line;
import javafx.scene.shape.StrokeLineCap;
import javafx.scene.text.Font;
import javafx.scene.text.FontPosture;
import javafx.scene.text.FontWeight;
import javafx.scene.text.Text;
import nocking.report.typeset.EquationLayout;
import nocking.report.typeset.Glyphs;
import nocking.report.typeset.Rule;

/** A typeset equation whose symbols answer the mouse. */
public final class EquationView extends Pane {
  private static final String FAMILY = "STIX Two Text";

  /**
   * @param spoken the equation in words or plain text, for a screen reader
   * @param clicked called with the symbol that was clicked
   */
  public EquationView(EquationLayout layout, String spoken, Consumer<String> clicked) {
    getStyleClass().add("equation");
    setAccessibleText(spoken);
    for (Rule r : layout.rules()) {
      var line = new Line(r.x1(), r.y1(), r.x2(), r.y2());
      line.setStrokeWidth(r.thickness());
      line.setStrokeLineCap(StrokeLineCap.BUTT);
      line.getStyleClass().add("rule");
      getChildren().add(line);
    }
    for (Glyphs g : layout.glyphs()) getChildren().add(letters(g, clicked));
    setMinSize(layout.width(), layout.height());
    setPrefSize(layout.width(), layout.height());
    setMaxSize(layout.width(), layout.height());
  }

  private Text letters(Glyphs g, Consumer<String> clicked) {
    var text = new Text(g.x(), g.y(), g.text());
    text.setTextOrigin(VPos.BASELINE);
    text.setFont(
        Font.font(
            FAMILY,
            FontWeight.NORMAL,
            g.italic() ? FontPosture.ITALIC : FontPosture.REGULAR,
            g.size()));
    text.getStyleClass().add("glyph");
    if (!g.symbol().isEmpty()) {
      text.setPickOnBounds(true);
      text.setUserData(g.symbol());
      text.setOnMouseEntered(e -> light(g.symbol(), true));
      text.setOnMouseExited(e -> light(g.symbol(), false));
      text.setOnMouseClicked(e -> clicked.accept(g.symbol()));
    }
    return text;
  }

  /** Lights every place where a symbol stands. */
  private void light(String symbol, boolean on) {
    for (var node : getChildren()) {
      if (!symbol.equals(node.getUserData())) continue;
      if (on) node.getStyleClass().add("lit");
      else node.getStyleClass().remove("lit");
    }
  }
}
