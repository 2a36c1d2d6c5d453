package nocking.app.step.collect;

import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.function.BiConsumer;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.analysis.RunDraft;
import nocking.app.control.DropDown;
import nocking.app.control.Paper;
import nocking.app.desk.Desk;
import nocking.app.desk.Latest;
import nocking.placement.Model;
import nocking.placement.Nominal;
import nocking.placement.Places;
import nocking.quantity.Numbers;
import nocking.quantity.Value;

/**
 * Which points? The fewest at their best places, and as many at equal steps, with what each leaves
 * between them; worked out in the background.
 */
final class PlacesPanel extends VBox {
  /** Steps into which a range is cut: round numbers for most ranges. */
  private static final int STEPS = 50;

  private static final List<String> MODELS = List.of("line", "poly:2", "poly:3", "table");

  /** Both schools, and one point more. */
  private record Both(Places best, Places equal, Optional<Places> more) {}

  private final Desk desk;
  private final BiConsumer<List<Value>, Integer> take;
  private final Latest work = new Latest();
  private final DropDown<String> model = new DropDown<>();
  private final Row best = new Row("places-best");
  private final Row equal = new Row("places-equal");
  private final Label more = Paper.caption("");
  private Analysis shown;

  /** A school with its button. */
  private final class Row extends VBox {
    final Button button = new Button("Take");
    final Label where = Paper.caption("");
    final Label leaves = Paper.caption("");
    Places places;

    Row(String id) {
      setId(id);
      button.setId(id + "-take");
      button.getStyleClass().add("tiny");
      button.setMinWidth(USE_PREF_SIZE);
      button.setOnAction(e -> takeOver(places));
      HBox.setHgrow(where, Priority.ALWAYS);
      var top = new HBox(8, where, button);
      top.setAlignment(Pos.CENTER_LEFT);
      getChildren().addAll(top, leaves);
    }

    void show(String school, Places p, Analysis a) {
      places = p;
      where.setText(
          "%s: %s"
              .formatted(
                  school,
                  p.at().stream()
                      .map(x -> Numbers.trimmed(x, 5))
                      .collect(Collectors.joining(", "))));
      leaves.setText(
          "leaves %s: misfit %s, scatter %s"
              .formatted(
                  a.design().error(p.leaves().worst()),
                  a.design().error(p.leaves().misfit()),
                  a.design().error(p.leaves().band())));
    }
  }

  /**
   * @param take takes set points, and how often the course is gone
   */
  PlacesPanel(Desk desk, BiConsumer<List<Value>, Integer> take) {
    this.desk = desk;
    this.take = take;
    setSpacing(4);
    setId("places");
    model.setId("places-model");
    model.getItems().setAll(MODELS);
    model.setValue(MODELS.getFirst());
    model.setAccessibleText("Model that will be fitted");
    model.setMaxWidth(Double.MAX_VALUE);
    model.valueProperty().addListener(o -> workOut());
    var label = new Label("For a");
    label.setMinWidth(76);
    HBox.setHgrow(model, Priority.ALWAYS);
    var row = new HBox(6, label, model);
    row.setAlignment(Pos.CENTER_LEFT);
    getChildren().addAll(row, best, equal, more);
  }

  private void takeOver(Places p) {
    int repeats = p.at().stream().mapToInt(x -> Collections.frequency(p.at(), x)).max().orElse(1);
    take.accept(
        p.at().stream()
            .distinct()
            .map(x -> Value.of(Double.parseDouble(Numbers.trimmed(x, 6))))
            .toList(),
        repeats);
  }

  void refresh() {
    Analysis a = desk.analysis();
    if (a != shown) workOut();
  }

  private void workOut() {
    Analysis a = desk.analysis();
    shown = a;
    Optional<Nominal> n = RunDraft.nominal(a);
    for (Row r : List.of(best, equal)) r.setVisible(false);
    more.setText(n.isPresent() ? "working out …" : "");
    if (n.isEmpty()) return;
    Model m = Model.named(model.getValue());
    double tolerance = RunDraft.tolerance(a);
    work.run(() -> both(n.get(), m, tolerance), found -> show(found, a, tolerance));
  }

  private static Both both(Nominal n, Model m, double tolerance) {
    Places best = Places.fewest(n, m, tolerance, STEPS);
    int count = best.at().size();
    Optional<Places> more =
        count < Places.MOST ? Optional.of(Places.best(n, m, count + 1, STEPS)) : Optional.empty();
    return new Both(best, Places.equalSteps(n, m, count), more);
  }

  private void show(Both found, Analysis a, double tolerance) {
    if (a != shown) return;
    best.show("Best places", found.best, a);
    equal.show("Equal steps", found.equal, a);
    for (Row r : List.of(best, equal)) r.setVisible(true);
    boolean enough = found.best.leaves().worst() <= tolerance;
    String one =
        found
            .more
            .map(p -> "One more leaves %s. ".formatted(a.design().error(p.leaves().worst())))
            .orElse("");
    more.setText(
        one
            + (enough
                    ? "The tolerance of %s is held; one point that is not fitted still tells most."
                    : "The tolerance of %s is not held: another model would.")
                .formatted(a.design().error(tolerance)));
  }
}
