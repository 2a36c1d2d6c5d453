package nocking.app.step.diagnose;

import java.util.List;
import java.util.function.Consumer;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ContentDisplay;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import nocking.diagnosis.Explanation;
import nocking.quantity.Numbers;

/** Explanations with a bar for how likely each is; one of them is looked at. */
final class ExplanationList extends VBox {
  private static final double BAR = 96;
  private static final double WIDE = 380;

  private final Consumer<Explanation> chosen;

  ExplanationList(Consumer<Explanation> chosen) {
    this.chosen = chosen;
    setId("explanations");
    getStyleClass().add("explanations");
  }

  void show(List<Explanation> list, Explanation looked) {
    getChildren().clear();
    for (int i = 0; i < list.size(); i++) {
      getChildren().add(row(i, list.get(i), list.get(i) == looked));
    }
  }

  private Button row(int index, Explanation e, boolean looked) {
    var name = new Label(e.line());
    name.setMinWidth(0);
    name.setMaxWidth(Double.MAX_VALUE);
    HBox.setHgrow(name, Priority.ALWAYS);
    var bed = new Region();
    bed.getStyleClass().add("chance-bed");
    bed.setMinSize(BAR, 9);
    bed.setMaxSize(BAR, 9);
    var bar = new Region();
    bar.getStyleClass().add("chance-bar");
    double width = Math.max(1.5, BAR * e.probability());
    bar.setMinSize(width, 9);
    bar.setMaxSize(width, 9);
    var meter = new StackPane(bed, bar);
    meter.setAlignment(Pos.CENTER_LEFT);
    meter.setMinWidth(BAR);
    var chance = new Label(percent(e.probability()));
    chance.getStyleClass().add("chance");
    chance.setMinWidth(54);
    boolean fitting = e.fits() || !e.listed();
    var fits = new Label(fitting ? "" : "does not fit");
    fits.getStyleClass().add("text-warning");
    fits.setMinWidth(fitting ? 0 : 74);
    // Where it is narrow the number alone has to do.
    meter.visibleProperty().bind(widthProperty().greaterThan(WIDE));
    meter.managedProperty().bind(meter.visibleProperty());
    var line = new HBox(8, name, fits, meter, chance);
    line.setAlignment(Pos.CENTER_LEFT);
    var button = new Button(null, line);
    button.setId("explanation-" + index);
    button.setContentDisplay(ContentDisplay.GRAPHIC_ONLY);
    button.getStyleClass().setAll("explanation");
    if (looked) button.getStyleClass().add("looked");
    button.setMaxWidth(Double.MAX_VALUE);
    line.prefWidthProperty().bind(widthProperty().subtract(18));
    button.setAccessibleText(e.says() + ", " + chance.getText());
    button.setOnAction(a -> chosen.accept(e));
    return button;
  }

  static String percent(double p) {
    if (p > 0.995) return "> 99 %";
    return p < 0.01 ? "< 1 %" : Numbers.fixed(100 * p, 0) + " %";
  }
}
