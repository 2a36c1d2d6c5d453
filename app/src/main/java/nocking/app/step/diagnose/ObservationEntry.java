package nocking.app.step.diagnose;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.app.control.NumberField;
import nocking.channel.Channel;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.wiring.Observation;
import nocking.wiring.Place;
import nocking.wiring.WirePlan;

/** One line in which a reading is entered: where, at which input, what was seen. */
final class ObservationEntry extends VBox {
  private final MenuButton where = new MenuButton();
  private final TextField at = new TextField();
  private final TextField seen = new TextField();
  private final Button add = new Button("Add");
  private final Label reason = new Label();
  private final Function<Observation, Boolean> taker;
  private Place place = Place.DISPLAY;
  private Unit unit = Unit.ONE;
  private WirePlan plan = WirePlan.DEFAULT;

  /**
   * @param taker takes a reading; false when nothing may be changed
   */
  ObservationEntry(Function<Observation, Boolean> taker) {
    this.taker = taker;
    where.setId("seen-where");
    where.setMaxWidth(Double.MAX_VALUE);
    at.setId("seen-at");
    at.setPromptText("?");
    at.setAccessibleHelp("Input at the sensor; a question mark where it is not known.");
    at.setAccessibleText("Input at the sensor");
    seen.setId("seen-value");
    seen.setPromptText("seen");
    seen.setAccessibleText("What was seen");
    seen.setAccessibleHelp(
        "A reading with its unit, 4.36 V; one that jumps with both its ends, 1.2 … 3.4 V, jumping.");
    for (TextField f : List.of(at, seen)) {
      NumberField.of(f);
      f.setPrefColumnCount(5);
      f.setMinWidth(54);
      HBox.setHgrow(f, Priority.ALWAYS);
      f.setOnAction(e -> take());
    }
    add.setId("seen-add");
    add.getStyleClass().add("primary");
    add.setMinWidth(USE_PREF_SIZE);
    add.setOnAction(e -> take());
    reason.setId("seen-reason");
    reason.getStyleClass().add("text-fail");
    reason.setWrapText(true);
    var line = new HBox(6, new Label("at"), at, new Label("seen"), seen, add);
    line.setAlignment(Pos.CENTER_LEFT);
    setSpacing(5);
    getChildren().addAll(where, line);
  }

  /**
   * @param places where can be measured
   */
  void show(List<Place> places, Channel c, boolean editable) {
    unit = c.unit();
    plan = c.wiring().plan();
    var items = new ArrayList<MenuItem>();
    for (Place p : places) {
      var item = new MenuItem(plan.title(p));
      item.setId("see-" + p.key());
      item.setOnAction(e -> choose(p));
      items.add(item);
    }
    where.getItems().setAll(items);
    if (!places.isEmpty() && !places.contains(place)) place = places.getFirst();
    where.setText(plan.title(place));
    setDisable(!editable || places.isEmpty());
  }

  private void choose(Place p) {
    place = p;
    where.setText(plan.title(p));
    seen.requestFocus();
  }

  /** Gets ready for a reading at a place and an input. */
  void ready(Place p, String input) {
    at.setText(input);
    seen.clear();
    choose(p);
  }

  /** What the line suggests while nothing has been typed into it. */
  void suggest(String input) {
    if (!at.isFocused()) at.setText(input);
  }

  /** Takes what a meter reads at a place, at the input that stands in the line. */
  void take(Place p, Value volts) {
    choose(p);
    seen.setText(volts.typed() + " V");
    take();
  }

  private void take() {
    try {
      String x = at.getText().strip();
      Value input = x.isEmpty() || x.equals("?") ? null : read(x, unit, at);
      Unit of = place.unit(unit);
      if (seen.getText().isBlank()) throw wrong(seen, "type what was seen, for example 4.36 V");
      if (taker.apply(read(input, of))) {
        clear();
        seen.requestFocus();
      }
    } catch (QuantityException e) {
      reason.setText(e.getMessage());
      if (!getChildren().contains(reason)) getChildren().add(reason);
    }
  }

  private Observation read(Value input, Unit of) {
    try {
      return Observation.typed(place, input, seen.getText(), of);
    } catch (QuantityException e) {
      throw wrong(seen, e.getMessage());
    }
  }

  private Value read(String text, Unit of, TextField field) {
    try {
      return Value.typed(text, of);
    } catch (QuantityException e) {
      throw wrong(field, e.getMessage());
    }
  }

  private static QuantityException wrong(TextField field, String why) {
    if (!field.getStyleClass().contains("wrong")) field.getStyleClass().add("wrong");
    field.requestFocus();
    return new QuantityException(why);
  }

  /** Forgets what was typed; for another channel. */
  void clear() {
    seen.clear();
    for (TextField f : List.of(at, seen)) f.getStyleClass().remove("wrong");
    getChildren().remove(reason);
  }
}
