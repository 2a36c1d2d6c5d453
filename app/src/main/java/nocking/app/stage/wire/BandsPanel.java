package nocking.app.stage.wire;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.DoubleFunction;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import nocking.app.control.Column;
import nocking.app.control.EntryField;
import nocking.app.control.Grid;
import nocking.app.control.Segments;
import nocking.app.desk.Desk;
import nocking.app.stage.BlockPaste;
import nocking.band.AlarmBand;
import nocking.band.BandPlan;
import nocking.band.BandPosition;
import nocking.band.Positions;
import nocking.band.SwitchPoint;
import nocking.channel.Channel;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.AcVoltage;
import nocking.sensor.SteppedSensor;

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

  /** Where the table is narrower the ruler alone shows the windows' ends. */
  private static final double WINDOW_FROM = 620;

  private final Desk desk;
  private final BandRuler ruler = new BandRuler();
  private final Grid positions;
  private final Grid alarms;
  private final Grid switches;
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

  BandsPanel(Desk desk) {
    this.desk = desk;
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
    positions = BlockPaste.into(positionGrid(), desk);
    alarms = BlockPaste.into(alarmGrid(), desk);
    switches = BlockPaste.into(switchGrid(), desk);
    sentence.setId("band-sentence");
    sentence.getStyleClass().add("caption");
    sentence.setWrapText(true);
    fields.setAlignment(Pos.CENTER_LEFT);
    VBox.setVgrow(table, Priority.ALWAYS);
    getChildren().addAll(fields, ruler, sentence, table);
  }

  private EntryField field(String id, String help, EntryField.Taker taker) {
    return new EntryField(id, id, true, taker, desk::seal).prompt("none").help(help).bare();
  }

  private BandPlan plan() {
    return desk.channel().orElseThrow().wiring().bands();
  }

  private void edit(String what, String key, UnaryOperator<BandPlan> change) {
    desk.edit(what, key, c -> c.wiring(w -> w.withBands(change.apply(c.wiring().bands()))));
  }

  private void takeDwell(String text) {
    Value v = text.isBlank() ? null : Value.typed(text, Unit.of("s"));
    edit("dwell", "band.dwell", p -> p.withDwell(v));
  }

  private void takeLever(String text, boolean length) {
    Value v = text.isBlank() ? null : Value.typed(text, Unit.of(length ? "mm" : "°"));
    edit(
        length ? "lever" : "turn of the sensor",
        length ? "band.lever" : "band.turn",
        p -> length ? p.withLever(v, p.turn()) : p.withLever(p.lever(), v));
  }

  private void takeHysteresis(String text) {
    Unit unit = desk.channel().orElseThrow().unit().difference();
    Value v = text.isBlank() ? null : Value.typed(text, unit);
    edit("hysteresis", "band.hysteresis", p -> p.withHysteresis(v));
  }

  private Grid positionGrid() {
    return new Grid(
            "positions",
            "No positions yet. Add one, or take the stations from the sensor.",
            List.of(
                Column.typed("position", 78, false, i -> position(i).name(), this::takeName)
                    .keepingItsWidth(),
                Column.typed(
                    "centre", 54, true, i -> position(i).centre().typed(), this::takeCentre),
                Column.typed("± window", 92, true, this::half, this::takeHalf),
                Column.shown("low … high", 116, true, this::window)
                    .keepingItsWidth()
                    .fromWidth(WINDOW_FROM),
                Column.typed(
                        "settled, up",
                        142,
                        true,
                        i -> list(position(i).up()),
                        (i, t) -> takeSettles(i, t, true))
                    .keepingItsWidth(),
                Column.typed(
                        "settled, down",
                        142,
                        true,
                        i -> list(position(i).down()),
                        (i, t) -> takeSettles(i, t, false))
                    .keepingItsWidth(),
                Column.shown("scatter", 58, true, i -> volts(judged.windows().get(i).scatter())),
                Column.shown("slack", 54, true, i -> volts(judged.windows().get(i).slack()))),
            i -> false)
        .onDelete(
            i -> {
              var next = new ArrayList<>(plan().positions());
              next.remove(i);
              edit("take out position", "", p -> p.withPositions(next));
              return true;
            });
  }

  private BandPosition position(int i) {
    return plan().positions().get(i);
  }

  private static String volts(double v) {
    return Double.isNaN(v) ? "" : v == 0 ? "0 V" : Numbers.engineering(v, "V", 2);
  }

  private String half(int i) {
    BandPosition p = position(i);
    return p.half() != null
        ? p.half().typed()
        : Double.isNaN(judged.suggested())
            ? ""
            : "auto " + Numbers.fixed(Math.max(0, judged.suggested()), 3);
  }

  private String window(int i) {
    Positions.Window w = judged.windows().get(i);
    return Numbers.fixed(w.low(), 3) + " … " + Numbers.fixed(w.high(), 3);
  }

  private static String list(List<Value> values) {
    return values.stream().map(Value::typed).collect(Collectors.joining(" "));
  }

  private void change(int i, String what, UnaryOperator<BandPosition> change) {
    edit(what, "", p -> p.with(i, change.apply(p.positions().get(i))));
  }

  private void takeName(int i, String text) {
    change(i, "name position", p -> p.withName(text.strip()));
  }

  private void takeCentre(int i, String text) {
    change(i, "centre of position", p -> p.withCentre(Value.typed(text, Unit.VOLT)));
  }

  private void takeHalf(int i, String text) {
    boolean own = text.isBlank() || text.startsWith("auto");
    Value v = own ? null : Value.typed(text, Unit.VOLT);
    change(i, "window of position", p -> p.withHalf(v));
  }

  private void takeSettles(int i, String text, boolean up) {
    List<Value> values =
        Arrays.stream(text.strip().split("[\\s;]+"))
            .filter(t -> !t.isEmpty())
            .map(t -> Value.typed(t, Unit.VOLT))
            .toList();
    change(
        i,
        "settles of position",
        p -> up ? p.withSettles(values, p.down()) : p.withSettles(p.up(), values));
  }

  private Grid alarmGrid() {
    return new Grid(
            "alarms",
            "No alarm bands yet. Add under, normal and over.",
            List.of(
                Column.typed(
                    "band",
                    120,
                    false,
                    i -> plan().alarms().get(i).name(),
                    (i, t) -> alarm(i, a -> new AlarmBand(t.strip(), a.from(), a.to()))),
                Column.typed(
                    "from",
                    100,
                    true,
                    i -> typed(plan().alarms().get(i).from()),
                    (i, t) -> alarm(i, a -> new AlarmBand(a.name(), quantity(t), a.to()))),
                Column.typed(
                    "to",
                    100,
                    true,
                    i -> typed(plan().alarms().get(i).to()),
                    (i, t) -> alarm(i, a -> new AlarmBand(a.name(), a.from(), quantity(t)))),
                Column.shown("as peak", 170, true, this::peak),
                Column.shown("at the converter", 190, true, this::atConverter)),
            i -> false)
        .onDelete(
            i -> {
              var next = new ArrayList<>(plan().alarms());
              next.remove(i);
              edit("take out alarm band", "", p -> p.withAlarms(next));
              return true;
            });
  }

  private static String typed(Value v) {
    return v == null ? "" : v.typed();
  }

  private Value quantity(String text) {
    return text.isBlank() ? null : Value.typed(text, desk.channel().orElseThrow().unit());
  }

  private void alarm(int i, UnaryOperator<AlarmBand> change) {
    var next = new ArrayList<>(plan().alarms());
    next.set(i, change.apply(next.get(i)));
    edit("alarm band", "", p -> p.withAlarms(next));
  }

  /** An alternating voltage stated in RMS has its peak beside it, so that nobody mixes them up. */
  private String peak(int i) {
    Channel c = desk.channel().orElseThrow();
    if (!(c.design().sensor() instanceof AcVoltage ac)) return "";
    AlarmBand a = plan().alarms().get(i);
    double factor = ac.peakPerStated();
    return ends(a, v -> Numbers.fixed(v * factor, 0), " V");
  }

  private String atConverter(int i) {
    SignalPath path = desk.analysis().design().path().orElse(null);
    if (path == null) return "";
    return ends(plan().alarms().get(i), v -> Numbers.fixed(path.output(v), 3), " V");
  }

  private static String ends(AlarmBand a, DoubleFunction<String> write, String unit) {
    if (a.from() == null && a.to() == null) return "";
    if (a.from() == null) return "below " + write.apply(a.to().number()) + unit;
    if (a.to() == null) return "above " + write.apply(a.from().number()) + unit;
    return write.apply(a.from().number()) + " … " + write.apply(a.to().number()) + unit;
  }

  private Grid switchGrid() {
    return new Grid(
            "switches",
            "No switch on this mechanism. Add an end-of-travel contact where there is one.",
            List.of(
                Column.typed(
                    "switch",
                    130,
                    false,
                    i -> contact(i).name(),
                    (i, t) ->
                        contact(
                            i,
                            s -> new SwitchPoint(t.strip(), s.at(), s.window(), s.up(), s.down()))),
                Column.typed(
                    "must change at",
                    110,
                    true,
                    i -> contact(i).at().typed(),
                    (i, t) ->
                        contact(
                            i,
                            s ->
                                new SwitchPoint(
                                    s.name(), quantity(t), s.window(), s.up(), s.down()))),
                Column.typed(
                    "± window",
                    90,
                    true,
                    i -> contact(i).window().typed(),
                    (i, t) ->
                        contact(
                            i,
                            s -> new SwitchPoint(s.name(), s.at(), quantity(t), s.up(), s.down()))),
                Column.typed(
                    "seen, up",
                    90,
                    true,
                    i -> typed(contact(i).up()),
                    (i, t) ->
                        contact(
                            i,
                            s ->
                                new SwitchPoint(
                                    s.name(), s.at(), s.window(), quantity(t), s.down()))),
                Column.typed(
                    "seen, down",
                    90,
                    true,
                    i -> typed(contact(i).down()),
                    (i, t) ->
                        contact(
                            i,
                            s ->
                                new SwitchPoint(
                                    s.name(), s.at(), s.window(), s.up(), quantity(t)))),
                Column.shown("signal there", 130, true, this::signalThere)),
            i -> false)
        .onDelete(
            i -> {
              var next = new ArrayList<>(plan().switches());
              next.remove(i);
              edit("take out switch", "", p -> p.withSwitches(next));
              return true;
            });
  }

  private SwitchPoint contact(int i) {
    return plan().switches().get(i);
  }

  private void contact(int i, UnaryOperator<SwitchPoint> change) {
    var next = new ArrayList<>(plan().switches());
    next.set(i, change.apply(next.get(i)));
    edit("switch", "", p -> p.withSwitches(next));
  }

  private String signalThere(int i) {
    SignalPath path = desk.analysis().design().path().orElse(null);
    return path == null ? "" : Numbers.fixed(path.output(contact(i).at().number()), 3) + " V";
  }

  private void add() {
    Channel c = desk.channel().orElseThrow();
    switch (part) {
      case POSITIONS -> {
        var next = new ArrayList<>(plan().positions());
        double volts =
            next.isEmpty()
                ? c.design().converter().reference().number() / 5
                : next.getLast().centre().number() + 0.5;
        next.add(BandPosition.of("position " + (next.size() + 1), Value.of(volts)));
        edit("add position", "", p -> p.withPositions(next));
      }
      case ALARMS -> {
        var next = new ArrayList<>(plan().alarms());
        if (next.isEmpty()) {
          Span w = c.definition().working();
          Value low = Value.of(w.at(0.2));
          Value high = Value.of(w.at(0.8));
          next.add(new AlarmBand("low", null, low));
          next.add(new AlarmBand("in range", low, high));
          next.add(new AlarmBand("high", high, null));
        } else {
          next.add(new AlarmBand("band " + (next.size() + 1), next.getLast().to(), null));
        }
        edit("add alarm band", "", p -> p.withAlarms(next));
      }
      case SWITCHES -> {
        var next = new ArrayList<>(plan().switches());
        Span w = c.definition().working();
        next.add(
            new SwitchPoint(
                "contact " + (next.size() + 1),
                Value.of(w.low()),
                Value.of(w.width() / 50),
                null,
                null));
        edit("add switch", "", p -> p.withSwitches(next));
      }
    }
  }

  /** The stations as the path brings them to the converter. */
  private void takeFromSensor() {
    Channel c = desk.channel().orElseThrow();
    SignalPath path = desk.analysis().design().path().orElse(null);
    if (!(c.design().sensor() instanceof SteppedSensor s) || path == null) return;
    var next = new ArrayList<BandPosition>();
    for (int i = 0; i < s.positions().size(); i++) {
      double volts = Math.rint(path.output(i + 1.0) * 1e4) / 1e4;
      next.add(BandPosition.of(s.positions().get(i).name(), Value.of(volts)));
    }
    edit("take stations from the sensor", "", p -> p.withPositions(next));
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
    for (EntryField f : List.of(dwell, lever, turn, hysteresis)) f.field().setMaxWidth(46);
    for (EntryField f : List.of(dwell, lever, turn, hysteresis)) f.field().setEditable(editable);
    for (Grid g : List.of(positions, alarms, switches)) g.editable(editable);
    add.setDisable(!editable);
    fromSensor.setDisable(!editable);
    fields.getChildren().setAll(parts, add);
    boolean stepped = c.design().sensor() instanceof SteppedSensor;
    switch (part) {
      case POSITIONS -> {
        if (stepped) fields.getChildren().add(fromSensor);
        fields
            .getChildren()
            .addAll(new Label("Dwell"), dwell, new Label("Lever"), lever, new Label("Turn"), turn);
        table.getChildren().setAll(positions);
      }
      case ALARMS -> {
        fields.getChildren().addAll(new Label("Hysteresis"), hysteresis);
        table.getChildren().setAll(alarms);
      }
      case SWITCHES -> table.getChildren().setAll(switches);
    }
    positions.show(p.positions().size());
    alarms.show(p.alarms().size());
    switches.show(p.switches().size());
    boolean ruled = part == Part.POSITIONS && !p.positions().isEmpty();
    ruler.setVisible(ruled);
    ruler.setManaged(ruled);
    if (ruled) ruler.show(p, judged, range);
    sentence.setText(sentence(c, p));
    probe();
  }

  private String sentence(Channel c, BandPlan p) {
    return switch (part) {
      case POSITIONS ->
          p.positions().size() < 2
              ? ""
              : "Suggested half window %s: half the smallest spacing less the largest scatter. %s %% of the converter's range is used."
                  .formatted(
                      volts(Math.max(0, judged.suggested())),
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

  void probe() {
    desk.probeState().ifPresent(s -> ruler.probe(s.readOut().output()));
  }

  void switched() {
    for (Grid g : List.of(positions, alarms, switches)) g.clearWrong();
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
