package nocking.app.step.define;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import javafx.geometry.Insets;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.input.KeyCode;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.app.control.Paper;
import nocking.app.control.WheelScroll;
import nocking.app.desk.Desk;
import nocking.channel.SensorCard;
import nocking.element.Signal;
import nocking.quantity.Sentence;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.InHand;
import nocking.sensor.Sensor;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;

/** Every way to have a sensor, grouped by what is in hand, with a search. */
final class SensorChooser extends VBox {
  private static final double TITLE = 112;

  private final Desk desk;
  private final Consumer<Sensor> model;
  private final Consumer<SensorCard> card;
  private final TextField search = new TextField();
  private final VBox groups = new VBox(8);
  private final Label nothing = Paper.caption("");
  private final Button datasheet = new Button("Paste a datasheet…");
  private final Button back = new Button("Keep the sensor");
  private Runnable first = () -> {};

  /**
   * @param model told which model was chosen
   * @param card told which card was chosen
   */
  SensorChooser(
      Desk desk,
      Consumer<Sensor> model,
      Consumer<SensorCard> card,
      Runnable openDatasheet,
      Runnable keep) {
    this.desk = desk;
    this.model = model;
    this.card = card;
    setSpacing(12);
    search.setId("sensor-search");
    search.setPromptText("thermistor, lever …");
    search.setAccessibleText("Search for a sensor");
    search.textProperty().addListener((o, before, now) -> list());
    search.setOnKeyPressed(
        e -> {
          if (e.getCode() != KeyCode.ENTER) return;
          first.run();
          e.consume();
        });
    HBox.setHgrow(search, Priority.ALWAYS);
    datasheet.setId("have-datasheet");
    datasheet.setMinWidth(Region.USE_PREF_SIZE);
    datasheet.setOnAction(e -> openDatasheet.run());
    back.setId("have-keep");
    back.setMinWidth(Region.USE_PREF_SIZE);
    back.setOnAction(e -> keep.run());
    nothing.setId("sensor-nothing");
    ScrollPane scroll = WheelScroll.of(groups);
    scroll.setFitToWidth(true);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    getChildren().addAll(new HBox(8, search, datasheet, back), nothing, scroll);
  }

  /** Begins anew, with everything to choose from. */
  void clear() {
    search.clear();
  }

  void refresh() {
    boolean edit = desk.editable();
    search.setDisable(!edit);
    datasheet.setDisable(!edit);
    groups.setDisable(!edit);
    boolean has = desk.channel().orElseThrow().design().sensor() != null;
    back.setVisible(has);
    back.setManaged(has);
    list();
  }

  private void list() {
    groups.getChildren().clear();
    first = () -> {};
    for (InHand group : InHand.values()) {
      var buttons = new ArrayList<Button>();
      for (Sensor s : Sensor.models()) {
        boolean here = InHand.of(s) == group;
        if (here && wanted(group.title(), s)) buttons.add(button(s, "have-" + s.model()));
        if (s instanceof TableSensor t && group == InHand.RESISTANCE && wanted(group.title(), s)) {
          buttons.add(button(ofResistances(t), "have-table-ohms"));
        }
      }
      add(group.title(), buttons);
    }
    var cards = new ArrayList<Button>();
    Unit own = desk.channel().orElseThrow().unit();
    boolean fresh = desk.channel().orElseThrow().design().sensor() == null;
    for (SensorCard k : desk.book().cards()) {
      boolean same = Unit.of(k.unit()).dimension().equals(own.dimension());
      if ((same || fresh) && matches("card " + k.name() + " " + k.sensor().title())) {
        cards.add(button(k));
      }
    }
    add("Cards of this book", cards);
    nothing.setText(
        groups.getChildren().isEmpty()
            ? "Nothing here is called '%s'. A formula or a table describes any sensor."
                .formatted(search.getText().strip())
            : "");
    nothing.setVisible(groups.getChildren().isEmpty());
    nothing.setManaged(nothing.isVisible());
  }

  private boolean wanted(String group, Sensor s) {
    return matches(group + " " + s.inHand() + " " + s.title() + " " + s.alsoCalled());
  }

  private boolean matches(String text) {
    String t = text.toLowerCase(Locale.ROOT);
    return Arrays.stream(search.getText().toLowerCase(Locale.ROOT).strip().split("\\s+"))
        .allMatch(t::contains);
  }

  private void add(String title, List<Button> buttons) {
    if (buttons.isEmpty()) return;
    if (groups.getChildren().isEmpty()) first = buttons.getFirst()::fire;
    Label of = Paper.subtitle(title);
    of.setMinWidth(TITLE);
    of.setMaxWidth(TITLE);
    of.setWrapText(true);
    of.setPadding(new Insets(5, 0, 0, 0));
    var flow = new FlowPane(6, 5);
    flow.getChildren().addAll(buttons);
    HBox.setHgrow(flow, Priority.ALWAYS);
    groups.getChildren().add(new HBox(8, of, flow));
  }

  private Button button(Sensor s, String id) {
    var b = new Button(Sentence.capital(s.inHand()));
    b.setId(id);
    b.getStyleClass().add("offer");
    b.setOnAction(e -> model.accept(s));
    return b;
  }

  private Button button(SensorCard k) {
    var b = new Button(k.name());
    b.setId("have-card-" + k.id());
    b.getStyleClass().add("offer");
    b.setOnAction(e -> card.accept(k));
    return b;
  }

  private static TableSensor ofResistances(TableSensor t) {
    List<TablePoint> rows =
        t.points().stream()
            .map(p -> new TablePoint(p.at(), Value.of(1e4 / p.output().number())))
            .toList();
    return new TableSensor(rows, t.interpolation(), Signal.RESISTANCE, Value.of(0));
  }
}
