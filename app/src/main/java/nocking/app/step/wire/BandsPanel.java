package nocking.app.step.wire;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.analysis.LiveReading;
import nocking.app.control.EntryField;
import nocking.app.control.Grid;
import nocking.app.control.Segments;
import nocking.app.desk.Background;
import nocking.app.desk.Desk;
import nocking.app.step.Exports;
import nocking.band.BandPlan;
import nocking.band.Positions;
import nocking.channel.Channel;
import nocking.firmware.Decoder;
import nocking.firmware.DecoderSource;
import nocking.path.GeneratedEquation;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Sentence;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.AcVoltage;
import nocking.view.ProbeState;

/** Positions of a selector, alarm bands, and switches beside the signal. */
final class BandsPanel extends VBox {

  /** What the panel shows. */
  private enum Part {
    POSITIONS("Positions"),
    ALARMS("Alarms"),
    SWITCHES("Switches");

    private final String title;

    Part(String title) {
      this.title = title;
    }
  }

  private final Desk desk;
  private final Exports exports;
  private final MenuButton decoder = new MenuButton("Decoder");
  private final Label state = new Label();
  private final BandRuler ruler = new BandRuler();
  private final BandEdits bands;
  private final PositionGrid positions;
  private final AlarmGrid alarms;
  private final SwitchGrid switches;
  private final EntryField dwell;
  private final EntryField lever;
  private final EntryField turn;
  private final EntryField hysteresis;
  private final Button add = new Button("Add");
  private final Button fromSensor = new Button("From the sensor");
  private final Label sentence = new Label();
  private final FlowPane fields = new FlowPane(5, 6);
  private final StackPane table = new StackPane();
  private final Segments<Part> parts;
  private Part part = Part.POSITIONS;
  private Positions judged;
  private String of = "";

  BandsPanel(Desk desk, Exports exports) {
    this.desk = desk;
    this.exports = exports;
    setSpacing(6);
    parts =
        new Segments<>(
            "band-part",
            List.of(Part.values()),
            p -> p.title,
            p -> {
              part = p;
              refresh();
            });
    parts.show(part);
    dwell =
        field("band-dwell", "Seconds that a voltage must stay before it counts.", this::takeDwell);
    lever =
        field("band-lever", "Length of the lever that turns the sensor.", t -> takeLever(t, true));
    turn =
        field(
            "band-turn",
            "Turn of the sensor over the whole range of the converter.",
            t -> takeLever(t, false));
    hysteresis =
        field(
            "band-hysteresis",
            "Hysteresis: how far the quantity must come back before an alarm clears.",
            this::takeHysteresis);
    add.setId("band-add");
    add.getStyleClass().add("tiny");
    add.setOnAction(e -> add());
    fromSensor.setId("band-from-sensor");
    fromSensor.getStyleClass().add("tiny");
    fromSensor.setOnAction(e -> takeFromSensor());
    decoder.setId("band-decoder");
    decoder.getStyleClass().add("tiny");
    decoder.getItems().setAll(item("C header…", true), item("Python module…", false));
    state.setId("band-state");
    state.getStyleClass().add("result-line");
    bands = new BandEdits(desk);
    positions = new PositionGrid(bands);
    alarms = new AlarmGrid(bands);
    switches = new SwitchGrid(bands);
    sentence.setId("band-sentence");
    sentence.getStyleClass().add("caption");
    sentence.setWrapText(true);
    sentence.setTooltip(
        new Tooltip("The suggested half window is half the smallest spacing less the scatter."));
    fields.setAlignment(Pos.CENTER_LEFT);
    VBox.setVgrow(table, Priority.ALWAYS);
    sentence.setMinWidth(0);
    sentence.setMaxWidth(Double.MAX_VALUE);
    HBox.setHgrow(sentence, Priority.ALWAYS);
    state.setMinWidth(USE_PREF_SIZE);
    decoder.setMinWidth(USE_PREF_SIZE);
    var said = new HBox(8, state, sentence, decoder);
    said.setAlignment(Pos.CENTER_LEFT);
    getChildren().addAll(fields, ruler, said, table);
  }

  private MenuItem item(String title, boolean c) {
    var item = new MenuItem(title);
    item.setId(c ? "band-decoder-c" : "band-decoder-python");
    item.setOnAction(e -> export(c));
    return item;
  }

  /** A source, or the sentence why there is none. */
  private record Made(String text, String problem) {}

  /** Writes the decoder of what is looked at, or says why there is none. */
  private void export(boolean c) {
    Analysis a = desk.analysis();
    Part of = part;
    int contact = Math.max(0, switches.grid().selectedRow());
    String what =
        switch (of) {
          case POSITIONS -> "position";
          case ALARMS -> "alarm";
          case SWITCHES ->
              GeneratedEquation.identifier(
                  a.channel().wiring().bands().switches().get(contact).name());
        };
    String name = GeneratedEquation.identifier(a.channel().tag()) + "_" + what;
    var source =
        new DecoderSource(
            name, "%s %s, %s".formatted(a.channel().tag(), a.channel().definition().name(), what));
    String ending = c ? ".h" : ".py";
    // Every code is asked for its state: not on the interface thread.
    Background.run(
        () -> {
          try {
            Decoder d =
                switch (of) {
                  case POSITIONS -> a.wiring().positionDecoder();
                  case ALARMS -> a.wiring().alarmDecoder();
                  case SWITCHES -> a.wiring().contactDecoder(contact);
                };
            return new Made(c ? source.header(d) : source.python(d), "");
          } catch (QuantityException e) {
            return new Made("", Sentence.capital(e.getMessage()) + ".");
          }
        },
        made -> {
          if (!made.problem.isEmpty()) {
            desk.say(made.problem, true);
            return;
          }
          exports.write(
              c ? "C header" : "Python module", name + "_decoder" + ending, ending, made.text);
        });
  }

  private EntryField field(String id, String help, EntryField.Taker taker) {
    return new EntryField(id, id, true, taker, desk::seal).prompt("none").help(help).bare();
  }

  private void takeDwell(String text) {
    Value v = text.isBlank() ? null : Value.typed(text, Unit.of("s"));
    bands.edit("dwell", "band.dwell", p -> p.withDwell(v));
  }

  private void takeLever(String text, boolean length) {
    Value v = text.isBlank() ? null : Value.typed(text, Unit.of(length ? "mm" : "°"));
    bands.edit(
        length ? "lever" : "turn of the sensor",
        length ? "band.lever" : "band.turn",
        p -> length ? p.withLever(v, p.turn()) : p.withLever(p.lever(), v));
  }

  private void takeHysteresis(String text) {
    Unit unit = desk.channel().orElseThrow().unit().difference();
    Value v = text.isBlank() ? null : Value.typed(text, unit);
    bands.edit("hysteresis", "band.hysteresis", p -> p.withHysteresis(v));
  }

  private void add() {
    Channel c = desk.channel().orElseThrow();
    Span working = c.definition().working();
    double reference = c.design().converter().reference().number();
    switch (part) {
      case POSITIONS -> bands.edit("add position", p -> p.plusPosition(reference));
      case ALARMS -> bands.edit("add alarm band", p -> p.plusAlarm(working));
      case SWITCHES -> bands.edit("add switch", p -> p.plusSwitch(working));
    }
  }

  /** The stations as the path brings them to the converter. */
  private void takeFromSensor() {
    Channel c = desk.channel().orElseThrow();
    SignalPath path = desk.analysis().design().path().orElse(null);
    List<String> stations = c.design().stations();
    if (stations.isEmpty() || path == null) return;
    bands.edit("take stations from the sensor", p -> p.withStations(stations, path::output));
  }

  void refresh() {
    Channel c = desk.channel().orElseThrow();
    choosePart(c);
    BandPlan p = c.wiring().bands();
    Span range = new Span(0, c.design().converter().reference().number());
    judged = Positions.of(p, range);
    boolean editable = desk.editable();
    dwell.show(p.dwell(), Unit.of("s"));
    lever.show(p.lever(), Unit.of("mm"));
    turn.show(p.turn(), Unit.of("°"));
    hysteresis.show(p.hysteresis(), c.unit().difference());
    for (EntryField f : List.of(dwell, lever, turn, hysteresis)) f.field().setMaxWidth(50);
    for (EntryField f : List.of(dwell, lever, turn, hysteresis)) f.field().setEditable(editable);
    for (Grid g : grids()) g.editable(editable);
    add.setDisable(!editable);
    fromSensor.setDisable(!editable);
    fields.getChildren().setAll(parts, add);
    boolean decodes = part != Part.SWITCHES || switches.grid().selectedRow() >= 0 || one(p);
    decoder.setVisible(decodes);
    decoder.setManaged(decodes);
    boolean stepped = !c.design().stations().isEmpty();
    switch (part) {
      case POSITIONS -> {
        if (stepped) fields.getChildren().add(fromSensor);
        fields
            .getChildren()
            .addAll(new Label("Dwell"), dwell, new Label("Lever"), lever, new Label("Turn"), turn);
        table.getChildren().setAll(positions.grid());
      }
      case ALARMS -> {
        fields.getChildren().addAll(new Label("Hysteresis"), hysteresis);
        table.getChildren().setAll(alarms.grid());
      }
      case SWITCHES -> table.getChildren().setAll(switches.grid());
    }
    positions.show(p, judged);
    alarms.grid().show(p.alarms().size());
    switches.grid().show(p.switches().size());
    boolean ruled = part == Part.POSITIONS && !p.positions().isEmpty();
    ruler.setVisible(ruled);
    ruler.setManaged(ruled);
    if (ruled) ruler.show(p, judged, range);
    sentence.setText(sentence(c, p));
    probe();
  }

  /** Of several contacts the one whose row is chosen is decoded. */
  private static boolean one(BandPlan p) {
    return p.switches().size() == 1;
  }

  private String sentence(Channel c, BandPlan p) {
    return switch (part) {
      case POSITIONS ->
          p.positions().size() < 2
              ? ""
              : "Suggested half window %s; %s %% of the converter's range is used."
                  .formatted(
                      PositionGrid.volts(Math.max(0, judged.suggested())),
                      Numbers.fixed(100 * judged.used(), 0));
      case ALARMS ->
          c.design().sensor() instanceof AcVoltage ac
              ? "The bands are stated as %s; the peak stands beside them."
                  .formatted(ac.from().title())
              : "Bands must follow one another without gap or overlap.";
      case SWITCHES ->
          "A switch binds the mechanical position: where it is seen to change tells whether the sensor sits right.";
    };
  }

  /** The chosen position, or the one that the volts lie in, takes where it settled. */
  boolean live(LiveReading r) {
    boolean none = desk.channel().orElseThrow().wiring().bands().positions().isEmpty();
    if (part != Part.POSITIONS || none) return false;
    r.requireConverter();
    positions.settled(r);
    return true;
  }

  void probe() {
    Optional<ProbeState> at = desk.probeState();
    at.ifPresent(s -> ruler.probe(s.readOut().output()));
    Optional<String> holds =
        at.flatMap(
            s ->
                switch (part) {
                  case POSITIONS -> desk.analysis().wiring().positionAt(s.readOut().output());
                  case ALARMS -> desk.analysis().wiring().alarmAt(s.readOut().output());
                  case SWITCHES -> Optional.empty();
                });
    alarms.holds(part == Part.ALARMS ? holds : Optional.empty());
    switches.levels(
        at.map(s -> desk.analysis().wiring().contactsAt(s.readOut().output())).orElse(List.of()));
    var words = new ArrayList<String>();
    holds.ifPresent(h -> words.add("at the probe: " + h));
    desk.live()
        .now()
        .map(LiveReading::state)
        .filter(s -> !s.isEmpty())
        .ifPresent(s -> words.add("live: " + s));
    state.setText(String.join(" · ", words));
    state.setVisible(!words.isEmpty());
    state.setManaged(!words.isEmpty());
  }

  private List<Grid> grids() {
    return List.of(positions.grid(), alarms.grid(), switches.grid());
  }

  void switched() {
    for (Grid g : grids()) g.clearWrong();
  }

  /** What a channel has is what is looked at first. */
  private void choosePart(Channel c) {
    if (c.id().equals(of)) return;
    of = c.id();
    if (c.wiring().bands().isEmpty()) return;
    part =
        !c.wiring().bands().positions().isEmpty()
            ? Part.POSITIONS
            : !c.wiring().bands().alarms().isEmpty() ? Part.ALARMS : Part.SWITCHES;
    parts.show(part);
  }
}
