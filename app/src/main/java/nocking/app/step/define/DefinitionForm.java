package nocking.app.step.define;

import java.util.List;
import java.util.Set;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.app.control.DropDown;
import nocking.app.control.EntryField;
import nocking.app.control.Focus;
import nocking.app.control.Segments;
import nocking.app.desk.Desk;
import nocking.channel.Channel;
import nocking.channel.Definition;
import nocking.channel.Overload;
import nocking.channel.QuantityKind;
import nocking.channel.UnitChange;
import nocking.quantity.Ends;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * What the channel is for: tag, quantity, unit, range, tolerance, rest, and what the sensor bears.
 */
final class DefinitionForm extends VBox {
  private static final Set<QuantityKind> BORNE =
      Set.of(QuantityKind.PRESSURE, QuantityKind.WEIGHT, QuantityKind.FORCE, QuantityKind.TORQUE);

  private final Desk desk;
  private final EntryField tag;
  private final EntryField name;
  private final EntryField unit;
  private final EntryField range;
  private final EntryField tolerance;
  private final EntryField rest;
  private final EntryField atmosphere;
  private final EntryField proof;
  private final EntryField burst;
  private final ComboBox<QuantityKind> kind = new DropDown<>();
  private final Segments<Boolean> gauge;
  private final HBox gaugeRow;
  private final VBox borne = new VBox(4);
  private boolean showing;

  DefinitionForm(Desk desk) {
    this.desk = desk;
    setSpacing(8);
    tag = entry("define-tag", "Tag", false, this::takeTag).whenDone();
    name = entry("define-name", "Name", false, t -> define("name", d -> d.withName(t.strip())));
    unit = entry("define-unit", "Unit", false, this::takeUnit).whenDone().prompt("none");
    range =
        entry("define-range", "Working range", true, this::takeRange)
            .help("Two values with … or .. or 'to' between them, for example 4 … 14.");
    tolerance =
        entry("define-tolerance", "Must be within", true, this::takeTolerance)
            .prompt("no limit")
            .help("The maximum permissible error; a percentage is one of the working range.");
    rest =
        entry(
                "define-rest",
                "At rest",
                true,
                t -> define("rest", d -> d.withRest(optional(t, d.quantityUnit()))))
            .help(
                "The quantity when nothing is done to the sensor; when empty the low end, for an"
                    + " absolute pressure the ambient one.");
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
    atmosphere =
        entry("define-atmosphere", "Ambient", true, this::takeAtmosphere)
            .help("Pressure of the air here and now; 0 gauge is this much absolute.");
    proof =
        entry("define-proof", "Overload limit", true, t -> takeOverload(t, true))
            .prompt("not known")
            .help("What the sensor bears and still measures as before, from its datasheet.");
    burst =
        entry("define-burst", "Burst limit", true, t -> takeOverload(t, false))
            .prompt("not known")
            .help("Where the sensor may break open, from its datasheet.");
    getChildren()
        .setAll(
            tag, name, row("Measures", kind), unit, gaugeRow, atmosphere, range, tolerance, rest);
    borne.getChildren().setAll(proof, burst);
  }

  void askTag() {
    Focus.on(tag.field());
  }

  /** What the sensor bears, to stand among the values of its datasheet. */
  VBox borne() {
    return borne;
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

  private Channel channel() {
    return desk.channel().orElseThrow();
  }

  private void define(String what, UnaryOperator<Definition> change) {
    if (showing) return;
    desk.edit("change " + what, "define." + what, c -> c.define(change));
  }

  private void takeTag(String text) {
    String wanted = text.strip();
    desk.book().requireTag(wanted, channel().id());
    define("tag", d -> d.withTag(wanted));
  }

  private void takeUnit(String text) {
    Unit to = Unit.of(text);
    if (to.symbol().equals(channel().definition().unit())) return;
    desk.edit(
        "change unit",
        "define.unit",
        c -> SensorStart.inUnit(c, to).orElseGet(() -> UnitChange.apply(c, to)));
  }

  private void takeRange(String text) {
    Ends ends = Ends.typed(text, channel().unit());
    define("working range", d -> d.withRange(ends.from(), ends.to()));
  }

  private void takeTolerance(String text) {
    define(
        "tolerance",
        d ->
            d.withTolerance(
                text.isBlank()
                    ? null
                    : Value.tolerance(text, d.quantityUnit().difference(), d.working().width())));
  }

  private void takeAtmosphere(String text) {
    Value kPa = Value.typed(text, Unit.of("kPa"));
    desk.edit(
        "change ambient pressure",
        "define.atmosphere",
        c -> c.design(d -> d.withSurroundings(d.surroundings().withAtmosphere(kPa))));
  }

  private void takeOverload(String text, boolean ofProof) {
    Overload now = channel().design().overload();
    Value typed = optional(text, channel().unit());
    Value p = ofProof ? typed : now == null ? null : now.proof();
    Value b = ofProof ? (now == null ? null : now.burst()) : typed;
    Overload next = p == null && b == null ? null : new Overload(p, b);
    desk.edit(
        "change overload limit",
        ofProof ? "define.proof" : "define.burst",
        c -> c.design(d -> d.withOverload(next)));
  }

  private static Value optional(String text, Unit of) {
    return text.isBlank() ? null : Value.typed(text, of);
  }

  private void takeKind(QuantityKind now) {
    if (showing || now == null) return;
    desk.edit("change quantity", "", c -> measuring(c, now));
  }

  /** A channel that is still empty takes the usual unit of the quantity as well. */
  private static Channel measuring(Channel c, QuantityKind now) {
    Definition d = c.definition().measuring(now);
    boolean fresh = c.design().sensor() == null && c.calibration().points().points().isEmpty();
    return c.define(same -> fresh && !now.usualUnit().isEmpty() ? d.withUnit(now.usualUnit()) : d);
  }

  void refresh() {
    showing = true;
    Channel c = channel();
    Definition d = c.definition();
    boolean edit = desk.editable();
    tag.show(d.tag(), "");
    name.show(d.name(), "");
    unit.show(d.unit(), "");
    range.show(d.low().typed() + " … " + d.high().typed(), d.unit());
    tolerance.show(d.tolerance(), d.quantityUnit().difference());
    rest.show(d.rest(), d.quantityUnit());
    rest.prompt(desk.analysis().design().reading(c.design().rest()));
    Overload o = c.design().overload();
    proof.show(o == null ? null : o.proof(), d.quantityUnit());
    burst.show(o == null ? null : o.burst(), d.quantityUnit());
    borne.setVisible(c.design().sensor() != null && (o != null || BORNE.contains(d.kind())));
    borne.setManaged(borne.isVisible());
    for (EntryField e : List.of(tag, name, unit, range, tolerance, rest, proof, burst)) {
      e.field().setEditable(edit);
    }
    kind.setValue(d.kind());
    kind.setDisable(!edit);
    boolean pressure = d.gauge() != null;
    gaugeRow.setVisible(pressure);
    gaugeRow.setManaged(pressure);
    gaugeRow.setDisable(!edit);
    if (pressure) gauge.show(d.gauge());
    atmosphere.setVisible(pressure);
    atmosphere.setManaged(pressure);
    atmosphere.show(c.design().surroundings().atmosphere(), Unit.of("kPa"));
    atmosphere.field().setEditable(edit);
    showing = false;
  }
}
