package nocking.app.stage.wire;

import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.paint.Color;
import javafx.scene.shape.Rectangle;
import nocking.analysis.Analysis;
import nocking.app.control.EntryField;
import nocking.app.control.Grid;
import nocking.app.control.Grid.Column;
import nocking.app.control.Paper;
import nocking.app.desk.Desk;
import nocking.app.stage.StageView;
import nocking.channel.Channel;
import nocking.fault.PinExpectation;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.wiring.Pin;

/** The view of the third stage. */
public final class WireStage implements StageView {
  private static final Map<String, String> COLOURS =
      Map.ofEntries(
          Map.entry("brown", "#9C5A2A"),
          Map.entry("blue", "#2A5CA8"),
          Map.entry("black", "#23282A"),
          Map.entry("white", "#FFFFFF"),
          Map.entry("red", "#B3282D"),
          Map.entry("green", "#2F7D4A"),
          Map.entry("yellow", "#E6C333"),
          Map.entry("grey", "#8A8F90"),
          Map.entry("gray", "#8A8F90"),
          Map.entry("orange", "#D97B29"),
          Map.entry("violet", "#7A4FA3"),
          Map.entry("pink", "#DE8FA8"));
  private static final int LONGEST = 60;

  private final Desk desk;
  private final Grid grid;
  private final EntryField supply;
  private final Label rest = Paper.caption("");
  private final VBox root;
  private List<PinExpectation> rows = List.of();

  public WireStage(Desk desk) {
    this.desk = desk;
    supply =
        new EntryField("wire-supply", "Sensor supply", true, this::takeSupply, desk::seal)
            .prompt("not stated")
            .help("Volts between the supply and ground pins.");
    grid =
        new Grid(
                "pins",
                "Define the sensor first: the expected voltages follow from the path.",
                List.of(
                    Column.shown("pin", 110, false, this::name),
                    Column.typed("wire", 120, false, i -> pin(i, Pin::wire), this::takeWire)
                        .signed(this::swatch),
                    Column.typed(
                        "to terminal", 110, false, i -> pin(i, Pin::terminal), this::takeTerminal),
                    Column.shown("at rest", 95, true, i -> volts(rows.get(i).atRest())),
                    Column.shown("at low end", 95, true, i -> volts(rows.get(i).atLow())),
                    Column.shown("at high end", 95, true, i -> volts(rows.get(i).atHigh())),
                    Column.typed("measured", 95, true, this::measured, this::takeMeasured),
                    Column.shown("off by", 90, true, this::difference)),
                i -> false)
            .onPaste(
                (row, column, block) -> {
                  throw new QuantityException("type the pins one by one");
                });
    grid.setMinHeight(150);
    var paper = new Paper("Pins and what they must read", supply, grid, rest);
    paper.note("against ground, worked out from the path");
    supply.setMaxWidth(300);
    VBox.setVgrow(grid, Priority.ALWAYS);
    VBox.setVgrow(paper, Priority.ALWAYS);
    var order =
        new Paper(
            "Before and after power",
            Paper.caption(
                "1  Without power: continuity of every wire, and no short from supply to ground."),
            Paper.caption(
                "2  Ground first, supply last: a signal wire without ground may carry the supply."),
            Paper.caption(
                "3  After power, at rest: supply, then ground, then signal must read as above. A"
                    + " short spike when a live plug goes in is normal, and so is a resting output of"
                    + " a few hundred millivolts."),
            Paper.caption(
                "4  Measure live points with one probe at a time. Local codes and the maker's"
                    + " instructions come first."));
    root = new VBox(12, paper, order);
  }

  private String name(int i) {
    PinExpectation e = rows.get(i);
    return e.pin() < 0 ? e.name() : (e.pin() + 1) + " " + e.name();
  }

  private String pin(int i, Function<Pin, String> of) {
    PinExpectation e = rows.get(i);
    return e.pin() < 0 ? "" : of.apply(desk.channel().orElseThrow().wiring().pins().get(e.pin()));
  }

  private Node swatch(int i) {
    if (rows.get(i).pin() < 0) return null;
    String colour = COLOURS.get(pin(i, Pin::wire).toLowerCase(Locale.ROOT).strip());
    var r = new Rectangle(20, 9);
    r.setArcWidth(8);
    r.setArcHeight(8);
    r.getStyleClass().add("swatch");
    r.setFill(colour == null ? Color.TRANSPARENT : Color.web(colour));
    return r;
  }

  private static String volts(double v) {
    if (Double.isNaN(v)) return "not stated";
    return v == 0 ? "0 V" : Numbers.engineering(v, "V", 4).replace('-', '−');
  }

  private String measured(int i) {
    PinExpectation e = rows.get(i);
    if (e.pin() < 0) return "";
    Value v = desk.channel().orElseThrow().wiring().pins().get(e.pin()).measured();
    return v == null ? "" : v.typed();
  }

  private String difference(int i) {
    PinExpectation e = rows.get(i);
    if (e.pin() < 0) return "";
    Value v = desk.channel().orElseThrow().wiring().pins().get(e.pin()).measured();
    if (v == null || Double.isNaN(e.atRest())) return "";
    return Numbers.signed(1000 * (v.number() - e.atRest()), 0) + " mV";
  }

  private void edit(int i, String what, UnaryOperator<Pin> change) {
    int index = rows.get(i).pin();
    if (index < 0) throw new QuantityException("a test point has no wire of its own");
    desk.edit(
        what,
        "",
        c -> c.withWiring(c.wiring().with(index, change.apply(c.wiring().pins().get(index)))));
  }

  private void takeWire(int i, String text) {
    edit(i, "change wire colour", p -> p.withWire(shortText(text)));
  }

  private void takeTerminal(int i, String text) {
    edit(i, "change terminal", p -> p.withTerminal(shortText(text)));
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

  private void takeSupply(String text) {
    Value v = text.isBlank() ? null : Value.typed(text, Unit.VOLT);
    if (desk.analysis().channel().sensor() != null
        && desk.analysis().channel().sensor().ratiometricSupply().isPresent()) {
      return;
    }
    desk.edit("change supply", "wire.supply", c -> c.withWiring(c.wiring().withSupply(v)));
  }

  @Override
  public Node node() {
    return root;
  }

  @Override
  public void switched() {
    grid.clearWrong();
  }

  @Override
  public void refresh() {
    Analysis a = desk.analysis();
    Channel c = a.channel();
    boolean own = c.sensor() != null && c.sensor().ratiometricSupply().isPresent();
    Value shown = own ? Value.of(a.supply().orElseThrow()) : c.wiring().supply();
    supply.show(shown, Unit.VOLT);
    supply.field().setEditable(desk.editable() && !own);
    rows = a.pins();
    grid.editable(desk.editable());
    grid.show(rows.size());
    rest.setText(
        rows.isEmpty()
            ? ""
            : "At rest means %s. The range ends are %s and %s. %s"
                .formatted(
                    a.amount(c.definition().restOrLow()),
                    a.amount(c.definition().low().number()),
                    a.amount(c.definition().high().number()),
                    own ? "The supply is stated by the sensor." : ""));
  }
}
