package nocking.app.step.wire;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.StackPane;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.scene.shape.Rectangle;
import nocking.analysis.Analysis;
import nocking.analysis.LiveReading;
import nocking.app.control.Column;
import nocking.app.control.EntryField;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.control.Segments;
import nocking.app.control.WheelScroll;
import nocking.app.desk.Desk;
import nocking.app.step.BlockPaste;
import nocking.app.step.Exports;
import nocking.app.step.Sheet;
import nocking.channel.Channel;
import nocking.fault.PinExpectation;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.report.wiring.WiringSketch;
import nocking.wiring.Pin;
import nocking.wiring.WireColour;
import nocking.wiring.WirePlan;

/** The view of the third stage: the pins, and below them one of five looks at the wires. */
public final class WireSheet implements Sheet {
  private static final int LONGEST = 60;

  /** What stands below the pins. */
  private enum Look {
    FAULTS("Faults"),
    DRAWING("Drawing"),
    BEFORE("Before power"),
    STEPS("Steps"),
    BANDS("Bands"),
    SUPPLY("Supply");

    private final String title;

    Look(String title) {
      this.title = title;
    }
  }

  /** Where the table is narrower the volts over the range are left out; the drawing has them. */
  private static final double RANGE_FROM = 690;

  /** Least height of the lower sheet; where the window is lower, the stage scrolls. */
  private static final double LOWER_LEAST = 236;

  private final Desk desk;
  private final Grid grid;
  private final EntryField supply;
  private final SupplyPanel onSupply;
  private final Paper pinsPaper;
  private final FaultPanel faults;
  private final SketchPane drawing = new SketchPane("wiring-drawing");
  private final PairsPanel pairs;
  private final BandsPanel bands;
  private final MenuButton add = new MenuButton("Add a wire");
  private final MenuButton sheet;
  private final Segments<Look> looks;
  private final StackPane body = new StackPane();
  private final ScrollPane root;
  private final VBox drawingBox;
  private final EntryField joints;
  private final StepsPanel steps;
  private Look look = Look.FAULTS;
  private List<PinExpectation> rows = List.of();
  private String of = "";

  public WireSheet(Desk desk, Exports exports) {
    this.desk = desk;
    sheet = new WirePages(desk, exports).menu();
    faults = new FaultPanel(desk);
    pairs = new PairsPanel(desk);
    steps = new StepsPanel(desk);
    bands = new BandsPanel(desk, exports);
    supply =
        new EntryField("wire-supply", "Sensor supply", true, this::takeSupply, desk::seal)
            .prompt("none")
            .help("Volts between the supply and ground pins.")
            .bare();
    onSupply = new SupplyPanel(desk);
    StackPane.setAlignment(onSupply, Pos.TOP_LEFT);
    grid = BlockPaste.into(pinGrid(), desk);
    add.setId("wire-add");
    add.getStyleClass().add("tiny");
    for (Pin.Function f : Pin.Function.values()) {
      var item = new MenuItem(f.title() + " wire");
      item.setId("wire-add-" + f.title());
      item.setOnAction(e -> addWire(f));
      add.getItems().add(item);
    }
    pinsPaper = new Paper("Pins at rest", grid);
    var supplyBox = new HBox(6, Paper.caption("Supply"), supply);
    supplyBox.setAlignment(Pos.CENTER_LEFT);
    pinsPaper.corner(supplyBox, add, sheet);
    looks =
        new Segments<>(
            "wire-look",
            List.of(Look.values()),
            l -> l.title,
            l -> {
              look = l;
              refresh();
            });
    looks.show(look);
    var scroll = WheelScroll.of(drawing);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    joints =
        new EntryField("wire-joints", "Places between", false, this::takeJoints, desk::seal)
            .whenDone()
            .prompt("from the sensor on: splice, terminal strip")
            .help(
                "Names of the places between the sensor and the receiver where every wire can be"
                    + " measured, with commas between them.");
    drawingBox = new VBox(6, joints, scroll);
    var lower = new Paper("", body);
    lower.head(looks);
    VBox.setVgrow(body, Priority.ALWAYS);
    VBox.setVgrow(lower, Priority.ALWAYS);
    pinsPaper.setMinHeight(Region.USE_PREF_SIZE);
    lower.setMinHeight(LOWER_LEAST);
    root = WheelScroll.of(new VBox(12, pinsPaper, lower));
    root.setFitToHeight(true);
  }

  private Grid pinGrid() {
    return new Grid(
            "pins",
            "Define the sensor first: the expected voltages follow from the path.",
            List.of(
                Column.shown("pin", 66, false, this::name).keepingItsWidth(),
                Column.typed("wire", 78, false, i -> pin(i, Pin::wire), this::takeWire)
                    .signed(this::swatch)
                    .keepingItsWidth(),
                Column.typed("plug", 44, false, i -> pin(i, Pin::position), this::takePosition),
                Column.typed("terminal", 58, false, i -> pin(i, Pin::terminal), this::takeTerminal)
                    .keepingItsWidth(),
                Column.typed("length", 46, true, this::length, this::takeLength),
                Column.shown("at rest", 112, true, i -> rows.get(i).atRestSays()).keepingItsWidth(),
                Column.shown("over the range", 110, true, i -> rows.get(i).rangeSays())
                    .keepingItsWidth()
                    .fromWidth(RANGE_FROM),
                Column.typed("measured", 70, true, this::measured, this::takeMeasured),
                Column.shown("verdict", 98, true, this::verdict).styled(this::verdictStyle)),
            i -> false)
        .onDelete(this::takeOut);
  }

  private WirePlan plan() {
    return desk.channel().orElseThrow().wiring().plan();
  }

  private String name(int i) {
    PinExpectation e = rows.get(i);
    if (e.pin() < 0) return e.name();
    return (e.pin() + 1) + " " + e.name();
  }

  private String pin(int i, Function<Pin, String> of) {
    PinExpectation e = rows.get(i);
    return e.pin() < 0 ? "" : of.apply(plan().pins().get(e.pin()));
  }

  private String length(int i) {
    return pin(i, p -> p.length() == null ? "" : p.length().typed() + " m");
  }

  private Node swatch(int i) {
    if (rows.get(i).pin() < 0) return null;
    List<String> colours = WireColour.of(pin(i, Pin::wire));
    var r = new Rectangle(20, 9);
    r.setArcWidth(8);
    r.setArcHeight(8);
    r.getStyleClass().add("swatch");
    r.setFill(colours.isEmpty() ? Color.TRANSPARENT : Color.web(colours.getFirst()));
    if (colours.size() < 2) return r;
    var second = new Rectangle(20, 3);
    second.setFill(Color.web(colours.get(1)));
    return new StackPane(r, second);
  }

  private Value measuredAt(int i) {
    PinExpectation e = rows.get(i);
    return e.pin() < 0 ? null : plan().pins().get(e.pin()).measured();
  }

  private String measured(int i) {
    Value v = measuredAt(i);
    return v == null ? "" : v.typed();
  }

  private String verdict(int i) {
    PinExpectation e = rows.get(i);
    Value v = measuredAt(i);
    if (v == null || e.window() == null) return "";
    if (e.window().contains(v.number())) return "in";
    double off = v.number() - e.atRest();
    return Numbers.engineering(Math.abs(off), "V", 2) + (off < 0 ? " low" : " high");
  }

  private String verdictStyle(int i) {
    String v = verdict(i);
    return v.isEmpty() ? "" : v.equals("in") ? "text-pass" : "text-fail";
  }

  private void edit(int i, String what, UnaryOperator<Pin> change) {
    int index = rows.get(i).pin();
    if (index < 0) throw new QuantityException("a test point has no wire of its own");
    desk.edit(
        what,
        "",
        c ->
            c.wiring(
                w ->
                    w.withPlan(
                        w.plan().with(index, change.apply(c.wiring().plan().pins().get(index))))));
  }

  private void takeWire(int i, String text) {
    edit(i, "change wire colour", p -> p.withWire(shortText(text)));
  }

  private void takePosition(int i, String text) {
    edit(i, "change position at the connector", p -> p.withPosition(shortText(text)));
  }

  private void takeTerminal(int i, String text) {
    edit(i, "change terminal", p -> p.withTerminal(shortText(text)));
  }

  private void takeLength(int i, String text) {
    Value v = text.isBlank() ? null : Value.typed(text, Unit.of("m"));
    edit(i, "change length of wire", p -> p.withLength(v));
  }

  private static String shortText(String text) {
    if (text.length() > LONGEST) {
      throw new QuantityException(
          "read %d characters, expected at most %d".formatted(text.length(), LONGEST));
    }
    return text.strip();
  }

  private void takeMeasured(int i, String text) {
    Value v = text.isBlank() ? null : Value.typed(text, Unit.VOLT);
    edit(i, "enter pin voltage", p -> p.withMeasured(v));
  }

  private boolean takeOut(int i) {
    int index = rows.get(i).pin();
    if (index < 0 || plan().pins().size() < 2) return false;
    var next = new ArrayList<>(plan().pins());
    next.remove(index);
    desk.edit("take out wire", "", c -> c.wiring(w -> w.withPlan(w.plan().withPins(next))));
    return true;
  }

  private void addWire(Pin.Function function) {
    var next = new ArrayList<>(plan().pins());
    next.add(Pin.of(function, "", ""));
    desk.edit("add wire", "", c -> c.wiring(w -> w.withPlan(w.plan().withPins(next))));
  }

  private void takeJoints(String text) {
    List<String> names =
        Arrays.stream(text.split(",")).map(String::strip).filter(n -> !n.isEmpty()).toList();
    if (names.equals(plan().joints())) return;
    desk.edit(
        "change places between", "", c -> c.wiring(w -> w.withPlan(w.plan().withJoints(names))));
  }

  private void takeSupply(String text) {
    if (ownSupply()) return;
    Value v = text.isBlank() ? null : Value.typed(text, Unit.VOLT);
    desk.edit(
        "change supply", "wire.supply", c -> c.wiring(w -> w.withPlan(w.plan().withSupply(v))));
  }

  private boolean ownSupply() {
    Channel c = desk.channel().orElseThrow();
    return c.design().sensor() != null && c.design().sensor().ratiometricSupply().isPresent();
  }

  /** Bands take where a position settles; else the signal's wire takes it. */
  @Override
  public boolean live(LiveReading r) {
    if (look == Look.BANDS && bands.live(r)) return true;
    r.requireConverter();
    int signal = plan().indexOf(Pin.Function.SIGNAL);
    for (int i = 0; i < rows.size(); i++) {
      if (signal < 0 || rows.get(i).pin() != signal) continue;
      double step = desk.channel().orElseThrow().design().converter().step();
      takeMeasured(i, r.value(step).typed());
      return true;
    }
    throw new QuantityException("There is no signal wire that could take it: add one");
  }

  @Override
  public Node node() {
    return root;
  }

  @Override
  public void switched() {
    grid.clearWrong();
    pairs.switched();
    faults.switched();
    bands.switched();
  }

  /** A selector is about its bands before it is about its faults. */
  private void chooseLook(Channel c) {
    if (c.id().equals(of)) return;
    of = c.id();
    boolean selector = !c.wiring().bands().positions().isEmpty();
    if (look == Look.FAULTS && selector || look == Look.BANDS && !selector) {
      look = selector ? Look.BANDS : Look.FAULTS;
      looks.show(look);
    }
  }

  @Override
  public void live() {
    if (look == Look.BANDS) bands.probe();
  }

  @Override
  public void probe() {
    if (look == Look.BANDS) bands.probe();
  }

  @Override
  public void refresh() {
    Analysis a = desk.analysis();
    Channel c = a.channel();
    chooseLook(c);
    boolean own = ownSupply();
    supply.show(
        own ? Value.of(a.wiring().supply().orElseThrow()) : c.wiring().plan().supply(), Unit.VOLT);
    supply.field().setEditable(desk.editable() && !own);
    joints.show(String.join(", ", c.wiring().plan().joints()), "");
    joints.field().setEditable(desk.editable());
    add.setDisable(!desk.editable());
    rows = a.wiring().pins();
    grid.editable(desk.editable());
    grid.show(rows.size());
    // As high as its rows, so that the faults have the rest.
    double high = 30 + 25.0 * Math.clamp(rows.size(), 2, 5);
    grid.setMinHeight(high);
    grid.setPrefHeight(high);
    grid.setMaxHeight(high + 40);
    pinsPaper.note(
        rows.isEmpty() ? "" : a.design().amount(c.design().rest()) + " · one probe at a time");
    Node shown =
        switch (look) {
          case FAULTS -> faults;
          case DRAWING -> drawingBox;
          case BEFORE -> pairs;
          case STEPS -> steps;
          case BANDS -> bands;
          case SUPPLY -> onSupply;
        };
    if (body.getChildren().isEmpty() || body.getChildren().getFirst() != shown) {
      body.getChildren().setAll(shown);
    }
    switch (look) {
      case FAULTS -> faults.refresh();
      case DRAWING ->
          drawing.show(
              WiringSketch.of(c, rows),
              "Wires of " + c.tag() + " from the sensor's connector to the receiver's terminals");
      case BEFORE -> pairs.refresh();
      case STEPS -> steps.refresh();
      case BANDS -> bands.refresh();
      case SUPPLY -> onSupply.refresh();
    }
  }
}
