package nocking.app.step.define;

import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.analysis.SensorFacts;
import nocking.app.control.Paper;
import nocking.app.control.PlotView;
import nocking.app.control.Segments;
import nocking.app.control.WheelScroll;
import nocking.app.desk.Desk;
import nocking.app.step.Sheet;
import nocking.channel.Channel;
import nocking.channel.Hazard;
import nocking.channel.SensorCard;
import nocking.element.Signal;
import nocking.path.SensorCurve;
import nocking.quantity.Numbers;
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

  /** What the middle shows. */
  private enum Middle {
    SENSOR,
    CHOOSER,
    DATASHEET
  }

  private static final double HEIGHT = 236;
  private static final double SWAP_HEIGHT = 312;

  private final Desk desk;
  private final DefinitionForm definition;
  private final HazardChecks hazards;
  private final SensorSheet sensorSheet;
  private final Button keepCard = new Button("Keep as a card");
  private final Button other = new Button("Another sensor…");
  private final Label cardState = Paper.caption("");
  private final Label sensorTitle = Paper.subtitle("");
  private final SensorCards cards;
  private final RangePanel rangePanel;
  private final SwapPanel swapPanel;
  private final SensorChooser chooser;
  private final DatasheetPanel datasheet;
  private final Paper chooserPaper;
  private final Paper datasheetPaper;
  private final Segments<View> views;
  private final Paper lower;
  private final Paper plotPaper;
  private final PlotView plot = new PlotView("define-plot", "Sensor output over its range");
  private final GridPane facts = new GridPane(14, 5);
  private final VBox middle = new VBox(12);
  private final HBox root;
  private View view = View.FACTS;
  private Middle shown = Middle.SENSOR;

  public DefineSheet(Desk desk) {
    this.desk = desk;
    definition = new DefinitionForm(desk);
    sensorSheet = new SensorSheet(desk);
    hazards =
        new HazardChecks(
            (h, on) ->
                desk.edit(
                    "change hazards", "define.hazards", c -> c.define(d -> d.withHazard(h, on))));
    cards = new SensorCards(desk, this::propose);
    keepCard.setId("card-keep");
    keepCard.setOnAction(e -> cards.keep());
    other.setId("have-other");
    other.setOnAction(e -> show(Middle.CHOOSER));
    rangePanel = new RangePanel(desk, this::propose);
    swapPanel = new SwapPanel(desk);
    chooser =
        new SensorChooser(
            desk,
            this::chooseModel,
            cards::use,
            () -> show(Middle.DATASHEET),
            () -> show(Middle.SENSOR));
    datasheet = new DatasheetPanel(desk, () -> show(Middle.SENSOR));
    chooserPaper = new Paper("What do you have?", chooser);
    chooserPaper.note("the values of the datasheet go into the fields at the left");
    datasheetPaper = new Paper("A datasheet's text", datasheet);
    datasheetPaper.note("nothing is taken that was not understood");
    for (VBox p : List.of(chooserPaper, datasheetPaper, chooser, datasheet)) {
      VBox.setVgrow(p, Priority.ALWAYS);
    }

    var left =
        new Paper(
            "Channel",
            definition,
            sensorTitle,
            sensorSheet,
            definition.borne(),
            cardState,
            new FlowPane(6, 6, other, keepCard),
            Paper.subtitle("What can hurt someone here?"),
            hazards);
    var leftScroll = WheelScroll.of(left);
    leftScroll.setMinWidth(296);
    leftScroll.setPrefWidth(296);
    leftScroll.setMaxWidth(296);
    plotPaper = new Paper("Sensor", plot);
    plotPaper.note("output over its range");
    VBox.setVgrow(plot, Priority.ALWAYS);
    VBox.setVgrow(plotPaper, Priority.ALWAYS);
    views = new Segments<>("define-view", List.of(View.values()), v -> v.title, this::showView);
    views.show(View.FACTS);
    lower = new Paper("", facts).head(views);
    lower.note("what follows from it");
    lower.setMinHeight(HEIGHT);
    lower.setPrefHeight(HEIGHT);
    middle.setMinWidth(0);
    HBox.setHgrow(middle, Priority.ALWAYS);
    root = new HBox(12, leftScroll, middle);
  }

  /** Without a sensor there is one to choose. */
  private void show(Middle wanted) {
    boolean none = desk.channel().orElseThrow().design().sensor() == null;
    Middle now = none && wanted == Middle.SENSOR ? Middle.CHOOSER : wanted;
    boolean other = now != shown || middle.getChildren().isEmpty();
    shown = now;
    if (other) {
      switch (now) {
        case SENSOR -> middle.getChildren().setAll(plotPaper, lower);
        case CHOOSER -> {
          chooser.clear();
          middle.getChildren().setAll(chooserPaper);
        }
        case DATASHEET -> {
          middle.getChildren().setAll(datasheetPaper);
          datasheet.open();
        }
      }
    }
    if (now == Middle.CHOOSER) chooser.refresh();
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
    // The rows of a comparison stand below two lines of choices.
    double room = v == View.SWAP ? SWAP_HEIGHT : HEIGHT;
    lower.setMinHeight(room);
    lower.setPrefHeight(room);
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
    show(Middle.SENSOR);
    showView(View.SWAP);
    swapPanel.propose(card);
  }

  private static Channel started(Channel c, Sensor model) {
    Channel next =
        c.design(d -> d.withSensor(SensorStart.of(model, c)).withCard(null).withOverload(null));
    return model.signal() == Signal.ALTERNATING
        ? next.define(d -> d.withHazard(Hazard.MAINS, true))
        : next;
  }

  /** A new model starts from the channel's own range, so that it is at once a sensible one. */
  private void chooseModel(Sensor model) {
    Channel c = desk.channel().orElseThrow();
    Sensor now = c.design().sensor();
    boolean same =
        now != null && now.model().equals(model.model()) && now.signal() == model.signal();
    shown = Middle.SENSOR;
    middle.getChildren().clear();
    if (same) show(Middle.SENSOR);
    else desk.edit("choose sensor", "", ch -> started(ch, model));
  }

  /** Puts the focus where the channel gets its tag. */
  public void askTag() {
    definition.askTag();
  }

  @Override
  public Node node() {
    return root;
  }

  @Override
  public void switched() {
    sensorSheet.clear();
    shown = Middle.SENSOR;
    middle.getChildren().clear();
    rangePanel.switched();
    swapPanel.switched();
  }

  @Override
  public void refresh() {
    Channel c = desk.channel().orElseThrow();
    Sensor sensor = c.design().sensor();
    definition.refresh();
    hazards.show(c.definition().hazards(), desk.editable());
    sensorTitle.setText(
        sensor == null ? "There is no sensor yet" : "From the datasheet: " + sensor.inHand());
    sensorSheet.refresh();
    boolean has = sensor != null;
    for (Node n : List.of(keepCard, other)) {
      n.setVisible(has);
      n.setManaged(has);
    }
    other.setDisable(!desk.editable());
    keepCard.setDisable(!desk.writable());
    keepCard.setText(c.design().card() == null ? "Keep as a card" : "Keep the card up to date");
    cardState.setText(c.design().card() == null ? "" : "from the card " + c.design().card().name());
    cardState.setManaged(c.design().card() != null && has);
    cardState.setVisible(cardState.isManaged());
    show(shown);
    refreshView();
    draw(desk.analysis());
    probe();
  }

  private void draw(Analysis a) {
    facts.getChildren().clear();
    Channel c = a.channel();
    Optional<SensorCurve> curve = a.design().sensorCurve();
    plot.setVisible(curve.isPresent());
    plot.setManaged(curve.isPresent());
    if (curve.isEmpty()) {
      plotPaper.note(a.design().problem().orElse(""));
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
