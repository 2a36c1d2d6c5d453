package nocking.app.step.define;

import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.analysis.SensorFacts;
import nocking.app.control.DropDown;
import nocking.app.control.EntryField;
import nocking.app.control.Paper;
import nocking.app.control.PlotView;
import nocking.app.control.Segments;
import nocking.app.control.WheelScroll;
import nocking.app.desk.Desk;
import nocking.app.step.Sheet;
import nocking.channel.Channel;
import nocking.channel.Definition;
import nocking.channel.Hazard;
import nocking.channel.QuantityKind;
import nocking.channel.SensorCard;
import nocking.channel.UnitChange;
import nocking.element.Signal;
import nocking.path.SensorCurve;
import nocking.quantity.Ends;
import nocking.quantity.Numbers;
import nocking.quantity.Sentence;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.Sensor;

/** The view of the first stage. */
public final class DefineSheet implements Sheet {

  /** What the lower sheet shows. */
  private enum View {
    FACTS("Facts"),
    RANGE("Which range?"),
    SWAP("Swap");

    private final String title;

    View(String title) {
      this.title = title;
    }
  }

  private final Desk desk;
  private final EntryField tag;
  private final EntryField name;
  private final EntryField unit;
  private final EntryField range;
  private final EntryField tolerance;
  private final EntryField rest;
  private final ComboBox<QuantityKind> kind = new DropDown<>();
  private final Segments<Boolean> gauge;
  private final HBox gaugeRow;
  private final FlowPane chips = new FlowPane(6, 6);
  private final HazardChecks hazards;
  private final SensorSheet sensorSheet;
  private final Button keepCard = new Button("Keep as a card");
  private final MenuButton fromCard = new MenuButton("a card…");
  private final Label cardState = Paper.caption("");
  private final EntryField atmosphere;
  private final SensorCards cards;
  private final RangePanel rangePanel;
  private final SwapPanel swapPanel;
  private final Segments<View> views;
  private final Paper lower;
  private final Button other = new Button("something else…");
  private View view = View.FACTS;
  private boolean open;
  private final Label sensorTitle = Paper.subtitle("");
  private final Paper plotPaper;
  private final PlotView plot = new PlotView("define-plot", "Sensor output over its range");
  private final VBox empty = new VBox(12);
  private final GridPane facts = new GridPane(14, 5);
  private final HBox root;
  private boolean showing;

  public DefineSheet(Desk desk) {
    this.desk = desk;
    tag = entry("define-tag", "Tag", false, this::takeTag).whenDone();
    name = entry("define-name", "Name", false, t -> define("name", d -> d.withName(t.strip())));
    unit = entry("define-unit", "Unit", false, this::takeUnit).whenDone().prompt("none");
    range =
        entry("define-range", "Working range", true, this::takeRange)
            .help("Two values with … or .. or 'to' between them, for example 4 … 14.");
    tolerance =
        entry(
                "define-tolerance",
                "Must be within",
                true,
                t ->
                    define(
                        "tolerance",
                        d ->
                            d.withTolerance(
                                t.isBlank()
                                    ? null
                                    : Value.tolerance(
                                        t, d.quantityUnit().difference(), d.working().width()))))
            .prompt("no limit stated")
            .help("The maximum permissible error; a percentage is one of the working range.");
    rest =
        entry(
                "define-rest",
                "At rest",
                true,
                t -> define("rest", d -> d.withRest(optional(t, d.quantityUnit()))))
            .help(
                "The quantity when nothing is done to the sensor; when empty the low end, for an absolute pressure the ambient one.");
    kind.setId("define-kind");
    kind.setAccessibleText("Measures");
    kind.getItems().setAll(QuantityKind.values());
    kind.setMaxWidth(Double.MAX_VALUE);
    kind.setConverter(new KindWords());
    kind.valueProperty().addListener((o, before, now) -> takeKind(now));
    gauge =
        new Segments<>(
            "define-gauge",
            List.of(true, false),
            g -> g ? "gauge" : "absolute",
            g -> define("reference", d -> d.withGauge(g)));
    gaugeRow = row("Pressure is", gauge);
    sensorSheet = new SensorSheet(desk);
    hazards = new HazardChecks((h, on) -> define("hazards", d -> d.withHazard(h, on)));
    atmosphere =
        new EntryField(
                "define-atmosphere",
                "Ambient",
                true,
                t -> {
                  Value kPa = Value.typed(t, Unit.of("kPa"));
                  desk.edit(
                      "change ambient pressure",
                      "define.atmosphere",
                      c ->
                          c.design(
                              d ->
                                  d.withSurroundings(
                                      c.design().surroundings().withAtmosphere(kPa))));
                },
                desk::seal)
            .help("Pressure of the air here and now; 0 gauge is this much absolute.");
    cards = new SensorCards(desk, this::propose);
    keepCard.setId("card-keep");
    keepCard.setOnAction(e -> cards.keep());
    fromCard.setId("have-card");
    fromCard.getStyleClass().add("chip");
    fromCard.setOnShowing(e -> cards.list(fromCard));
    rangePanel = new RangePanel(desk, this::propose);
    swapPanel = new SwapPanel(desk);
    for (Sensor model : Sensor.models()) chips.getChildren().add(chip(model));
    chips.getChildren().add(fromCard);
    other.setId("have-other");
    other.getStyleClass().setAll("chip");
    other.setOnAction(
        e -> {
          open = true;
          showChips(desk.channel().orElseThrow());
        });
    chips.getChildren().add(other);

    var left =
        new Paper(
            "Channel",
            tag,
            name,
            row("Measures", kind),
            unit,
            gaugeRow,
            atmosphere,
            range,
            tolerance,
            rest,
            Paper.subtitle("What do you have?"),
            chips,
            sensorTitle,
            sensorSheet,
            cardState,
            keepCard,
            Paper.subtitle("What can hurt someone here?"),
            hazards);
    var leftScroll = WheelScroll.of(left);
    leftScroll.setMinWidth(296);
    leftScroll.setPrefWidth(296);
    leftScroll.setMaxWidth(296);
    var offers = new FlowPane(8, 8);
    for (Sensor model : Sensor.models()) {
      var offer = new Button(Sentence.capital(model.inHand()));
      offer.setId("offer-" + model.model());
      offer.setOnAction(e -> chooseModel(model));
      offers.getChildren().add(offer);
    }
    empty
        .getChildren()
        .setAll(
            Paper.caption(
                "There is no sensor yet. Say what you have in hand; the values of the datasheet go"
                    + " into the fields at the left, and the curve appears here."),
            offers);
    plotPaper = new Paper("Sensor", empty, plot);
    plotPaper.note("output over its range");
    VBox.setVgrow(plot, Priority.ALWAYS);
    VBox.setVgrow(plotPaper, Priority.ALWAYS);
    views = new Segments<>("define-view", List.of(View.values()), v -> v.title, this::showView);
    views.show(View.FACTS);
    lower = new Paper("", facts).head(views);
    lower.note("what follows from it");
    lower.setMinHeight(236);
    lower.setPrefHeight(236);
    var middle = new VBox(12, plotPaper, lower);
    middle.setMinWidth(0);
    HBox.setHgrow(middle, Priority.ALWAYS);
    root = new HBox(12, leftScroll, middle);
  }

  private void showView(View v) {
    view = v;
    views.show(v);
    Node body =
        switch (v) {
          case FACTS -> facts;
          case RANGE -> rangePanel;
          case SWAP -> swapPanel;
        };
    VBox.setVgrow(body, Priority.ALWAYS);
    lower.getChildren().set(lower.getChildren().size() - 1, body);
    lower.note(
        switch (v) {
          case FACTS -> "what follows from it";
          case RANGE -> "the least span that holds the range";
          case SWAP -> "said before anything is changed";
        });
    refreshView();
  }

  private void refreshView() {
    if (desk.channel().isEmpty()) return;
    if (view == View.RANGE) rangePanel.refresh();
    if (view == View.SWAP) swapPanel.refresh();
  }

  /** Opens a card of the book: compared with the channel's sensor, or taken where there is none. */
  public void openCard(SensorCard card) {
    cards.use(card);
  }

  /** A card that was chosen in the list of ranges is compared before it is fitted. */
  private void propose(SensorCard card) {
    showView(View.SWAP);
    swapPanel.propose(card);
  }

  /** Once a sensor is chosen, the other ways to have one step back. */
  private void showChips(Channel c) {
    boolean all = open || c.design().sensor() == null;
    for (Node n : chips.getChildren()) {
      boolean mine = n instanceof ToggleButton t && t.isSelected();
      n.setVisible(n == other ? !all : all || mine);
      n.setManaged(n.isVisible());
    }
  }

  private EntryField entry(String id, String title, boolean number, EntryField.Taker taker) {
    return new EntryField(id, title, number, taker, desk::seal);
  }

  private static HBox row(String title, Node control) {
    var label = new Label(title);
    label.getStyleClass().add("entry-label");
    label.setMinWidth(132);
    var row = new HBox(6, label, control);
    row.getStyleClass().add("entry");
    row.setAlignment(Pos.CENTER_LEFT);
    HBox.setHgrow(control, Priority.ALWAYS);
    return row;
  }

  private ToggleButton chip(Sensor model) {
    var chip = new ToggleButton(model.inHand());
    chip.setId("have-" + model.model());
    chip.getStyleClass().setAll("chip");
    chip.setOnAction(
        e -> {
          chip.setSelected(true);
          chooseModel(model);
        });
    return chip;
  }

  private void define(String what, UnaryOperator<Definition> change) {
    if (showing) return;
    desk.edit("change " + what, "define." + what, c -> c.define(change));
  }

  private void takeTag(String text) {
    String wanted = text.strip();
    desk.book().requireTag(wanted, desk.channel().orElseThrow().id());
    define("tag", d -> d.withTag(wanted));
  }

  private void takeUnit(String text) {
    Unit to = Unit.of(text);
    if (to.symbol().equals(desk.channel().orElseThrow().definition().unit())) return;
    desk.edit("change unit", "define.unit", c -> UnitChange.apply(c, to));
  }

  private void takeRange(String text) {
    Ends ends = Ends.typed(text, desk.channel().orElseThrow().unit());
    define("working range", d -> d.withRange(ends.from(), ends.to()));
  }

  private static Value optional(String text, Unit of) {
    return text.isBlank() ? null : Value.typed(text, of);
  }

  private void takeKind(QuantityKind now) {
    if (showing || now == null) return;
    desk.edit(
        "change quantity",
        "",
        c -> {
          Definition kind = c.definition().withKind(now);
          Definition d =
              now == QuantityKind.PRESSURE ? kind.withHazard(Hazard.PRESSURE, true) : kind;
          boolean fresh =
              c.design().sensor() == null && c.calibration().points().points().isEmpty();
          return c.define(
              same -> fresh && !now.usualUnit().isEmpty() ? d.withUnit(now.usualUnit()) : d);
        });
  }

  private static Channel started(Channel c, Sensor model) {
    Channel next = c.design(d -> d.withSensor(SensorStart.of(model, c)).withCard(null));
    return model.signal() == Signal.ALTERNATING
        ? next.define(d -> d.withHazard(Hazard.MAINS, true))
        : next;
  }

  /** A new model starts from the channel's own range, so that it is at once a sensible one. */
  private void chooseModel(Sensor model) {
    Channel c = desk.channel().orElseThrow();
    open = false;
    if (c.design().sensor() != null && c.design().sensor().model().equals(model.model())) {
      showChips(c);
      return;
    }
    desk.edit("choose sensor", "", ch -> started(ch, model));
  }

  @Override
  public Node node() {
    return root;
  }

  @Override
  public void switched() {
    sensorSheet.clear();
    open = false;
    rangePanel.switched();
    swapPanel.switched();
  }

  @Override
  public void refresh() {
    showing = true;
    Channel c = desk.channel().orElseThrow();
    Definition d = c.definition();
    boolean edit = desk.editable();
    tag.show(d.tag(), "");
    name.show(d.name(), "");
    unit.show(d.unit(), "");
    range.show(d.low().typed() + " … " + d.high().typed(), d.unit());
    tolerance.show(d.tolerance(), d.quantityUnit().difference());
    rest.show(d.rest(), d.quantityUnit());
    boolean ambient = d.rest() == null && c.design().rest() != d.low().number();
    rest.prompt(
        desk.analysis().design().amount(c.design().rest()) + (ambient ? ", ambient" : ", low end"));
    for (EntryField e : List.of(tag, name, unit, range, tolerance, rest)) {
      e.field().setEditable(edit);
    }
    kind.setValue(d.kind());
    kind.setDisable(!edit);
    boolean pressure = d.gauge() != null;
    gaugeRow.setVisible(pressure);
    gaugeRow.setManaged(pressure);
    gaugeRow.setDisable(!edit);
    if (pressure) gauge.show(d.gauge());
    fromCard.setDisable(!edit);
    atmosphere.setVisible(pressure);
    atmosphere.setManaged(pressure);
    atmosphere.show(c.design().surroundings().atmosphere(), Unit.of("kPa"));
    atmosphere.field().setEditable(edit);
    for (Node n : chips.getChildren()) {
      if (!(n instanceof ToggleButton chip)) continue;
      chip.setSelected(
          c.design().sensor() != null
              && chip.getId().equals("have-" + c.design().sensor().model()));
      chip.setDisable(!edit);
    }
    other.setDisable(!edit);
    showChips(c);
    hazards.show(d.hazards(), edit);
    sensorTitle.setManaged(c.design().sensor() != null);
    sensorTitle.setText(
        c.design().sensor() == null ? "" : "From the datasheet: " + c.design().sensor().inHand());
    sensorSheet.refresh();
    keepCard.setVisible(c.design().sensor() != null);
    keepCard.setManaged(c.design().sensor() != null);
    keepCard.setDisable(!desk.writable());
    cardState.setText(c.design().card() == null ? "" : "from the card " + c.design().card().name());
    cardState.setManaged(c.design().card() != null && c.design().sensor() != null);
    cardState.setVisible(cardState.isManaged());
    keepCard.setText(c.design().card() == null ? "Keep as a card" : "Keep the card up to date");
    refreshView();
    draw(desk.analysis());
    showing = false;
    probe();
  }

  private void draw(Analysis a) {
    facts.getChildren().clear();
    Channel c = a.channel();
    Optional<SensorCurve> curve = a.design().sensorCurve();
    plot.setVisible(curve.isPresent());
    plot.setManaged(curve.isPresent());
    boolean none = c.design().sensor() == null;
    empty.setVisible(none);
    empty.setManaged(none);
    empty.setDisable(!desk.editable());
    if (curve.isEmpty()) {
      plotPaper.note(none ? "" : a.design().problem().orElse(""));
      var nothing =
          Paper.caption(
              "Sensitivity, used range and the worth of one count follow from the sensor.");
      facts.addRow(0, nothing);
      return;
    }
    SensorFacts follows = SensorFacts.of(a);
    plotPaper.note(
        "working range: %s %% of the sensor is used"
            .formatted(Numbers.fixed(100 * follows.used(), 0)));
    plot.show(
        SensorPlot.of(
            c, curve.get(), c.definition().working(), c.design().sensor().rated(c.unit())));
    for (SensorFacts.Fact f : follows.facts()) {
      fact(follows.facts().indexOf(f), f.what(), f.value());
    }
  }

  private void fact(int row, String what, String value) {
    var label = new Label(what);
    label.getStyleClass().add("quiet");
    var text = new Label(value);
    text.getStyleClass().add("mono");
    text.setId("fact-" + row);
    facts.addRow(row, label, text);
  }

  @Override
  public void probe() {
    Analysis a = desk.analysis();
    plot.dark(desk.dark());
    plot.probe(
        desk.probe(),
        x -> a.design().sensorCurve().map(s -> s.at(x) * SensorPlot.scaleOf(s)).orElse(Double.NaN));
  }
}
