package nocking.app.step.table;

import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.IntConsumer;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.app.control.DropDown;
import nocking.app.control.EntryField;
import nocking.app.control.Segments;
import nocking.app.desk.Desk;
import nocking.points.RawScale;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.table.Outside;
import nocking.table.ReceiverShape;
import nocking.table.TableSpec;

/** What the receiver wants: its shape, columns, arithmetic and demands. */
final class ReceiverForm extends VBox {
  private final Desk desk;
  private final TableEdits edits;
  private final DropDown<ReceiverShape> shape = new DropDown<>();
  private final EntryField cells;
  private final EntryField rawDecimals;
  private final EntryField outDecimals;
  private final EntryField rawBits;
  private final EntryField outBits;
  private final EntryField fullScale;
  private final EntryField lowEnd;
  private final EntryField highEnd;
  private final EntryField rawAxis;
  private final Segments<RawUnit> axis;
  private final Segments<Boolean> order;
  private final Segments<Boolean> arithmetic;
  private final Segments<Outside> outside;
  private final CheckBox refusesEqual = new CheckBox("refuses equal raw values");
  private final TextField newName = new TextField();
  private final Button keep = new Button("Keep");
  private boolean showing;

  ReceiverForm(Desk desk, TableEdits edits) {
    super(8);
    this.desk = desk;
    this.edits = edits;
    shape.setId("table-shape");
    shape.setAccessibleText("Receiver's shape");
    shape.titled(ReceiverShape::name);
    shape.setPromptText("its own");
    shape.setMaxWidth(Double.MAX_VALUE);
    HBox.setHgrow(shape, Priority.ALWAYS);
    shape.valueProperty().addListener((o, before, now) -> take(now));
    cells = whole("table-cells", "Cells", v -> edits.change("cells", x -> x.withCells(v)));
    rawDecimals =
        whole(
            "table-raw-decimals",
            "Raw decimals",
            v -> edits.change("raw decimals", x -> x.withRawDecimals(v)));
    outDecimals =
        whole(
            "table-out-decimals",
            "Output decimals",
            v -> edits.change("output decimals", x -> x.withOutDecimals(v)));
    rawBits =
        whole(
            "table-raw-bits", "Raw bits", v -> edits.arithmetic("raw bits", x -> x.withRawBits(v)));
    outBits =
        whole(
            "table-out-bits",
            "Output bits",
            v -> edits.arithmetic("output bits", x -> x.withOutBits(v)));
    fullScale =
        whole(
                "table-full-scale",
                "Full scale",
                v -> edits.arithmetic("full scale", x -> x.withFullScale(v)))
            .prompt("in the quantity")
            .help("Output at the upper end of the range, counted from 0 at its lower end");
    lowEnd = end("table-low-end", "First cell at", true);
    highEnd = end("table-high-end", "Last cell at", false);
    rawAxis =
        new EntryField(
                "table-raw-axis",
                "Fixed axis",
                false,
                t -> edits.demands("fixed axis", d -> d.withRawAxis(numbers(t))),
                desk::seal)
            .whenDone()
            .prompt("0 0.5 1 … 5")
            .help("Raw values that the receiver dictates, with spaces between them");
    axis =
        new Segments<>(
            "table-axis",
            List.of(RawUnit.values()),
            RawUnit::brief,
            u -> edits.choose("raw column", s -> s.withAxis(u)));
    order =
        new Segments<>(
            "table-order",
            List.of(false, true),
            d -> d ? "falling" : "rising",
            d -> edits.choose("table order", s -> s.withDescending(d)));
    arithmetic =
        new Segments<>(
            "table-arithmetic",
            List.of(false, true),
            w -> w ? "integers" : "straight lines",
            w -> edits.choose("arithmetic", s -> s.with(s.arithmetic().withWhole(w))));
    outside =
        new Segments<>(
            "table-outside",
            List.of(Outside.values()),
            Outside::key,
            v -> edits.choose("outside the ends", s -> s.with(s.arithmetic().withOutside(v))));
    refusesEqual.setId("table-refuses-equal");
    refusesEqual.setOnAction(
        e -> edits.demands("equal raw values", d -> d.withRefusesEqual(refusesEqual.isSelected())));
    newName.setId("table-shape-name");
    newName.setPromptText("keep as a shape named …");
    newName.setAccessibleText("Name of a new receiver's shape");
    HBox.setHgrow(newName, Priority.ALWAYS);
    newName.setMinWidth(60);
    keep.setId("table-shape-keep");
    keep.getStyleClass().add("tiny");
    keep.setMinWidth(USE_PREF_SIZE);
    keep.setOnAction(e -> keep());
    newName.setOnAction(e -> keep());
    newName
        .textProperty()
        .addListener((o, b, t) -> keep.setDisable(t.isBlank() || !desk.writable()));
    keep.setDisable(true);
    getChildren()
        .addAll(
            new FormRow("Shape", shape),
            cells,
            new FormRow("Raw column", axis),
            new FormRow("Order", order),
            rawDecimals,
            outDecimals,
            new FormRow("Looks up by", arithmetic),
            rawBits,
            outBits,
            fullScale,
            new FormRow("Outside", outside),
            lowEnd,
            highEnd,
            rawAxis,
            refusesEqual,
            new HBox(6, newName, keep));
  }

  private EntryField whole(String id, String title, IntConsumer setter) {
    return new EntryField(
        id,
        title,
        true,
        text -> {
          // Outputs in the quantity have no full scale; everything else is a number.
          boolean none = text.isBlank() && id.equals("table-full-scale");
          double v = none ? 0 : QuantityParser.value(text, Unit.ONE);
          if (v != Math.rint(v)) {
            throw new QuantityException("read " + text + ", expected a whole number");
          }
          if (edits.asked()) setter.accept((int) Math.clamp(v, -1, 1_000_000_001));
        },
        desk::seal);
  }

  private EntryField end(String id, String title, boolean low) {
    return new EntryField(
            id,
            title,
            true,
            t -> {
              if (!edits.asked()) return;
              Value v = t.isBlank() ? null : Value.typed(t, edits.spec().axis().unit());
              edits.demands(
                  title.toLowerCase(Locale.ROOT),
                  d -> d.withEnds(low ? v : d.lowEnd(), low ? d.highEnd() : v));
            },
            desk::seal)
        .prompt("any");
  }

  private List<Double> numbers(String text) {
    if (text.isBlank() || !edits.asked()) return List.of();
    Unit unit = edits.spec().axis().unit();
    return Arrays.stream(text.strip().split("[\\s;]+"))
        .map(t -> QuantityParser.value(t, unit))
        .toList();
  }

  private void take(ReceiverShape chosen) {
    if (showing || chosen == null || !edits.asked()) return;
    edits.choose("receiver's shape", chosen::over);
  }

  private void keep() {
    String name = newName.getText().strip();
    if (name.isEmpty() || !edits.asked()) return;
    if (ReceiverShape.SHIPPED.stream().anyMatch(s -> s.name().equals(name))) {
      desk.say("%s is a shape that every book has; choose another name.".formatted(name), true);
      return;
    }
    var made = new ReceiverShape(name, edits.spec());
    try {
      desk.asOne(
          "keep the shape " + name,
          () -> {
            desk.editBook("keep the shape " + name, "", b -> b.with(made));
            edits.demands("receiver's shape", d -> d.withShape(name));
          });
      newName.clear();
      desk.say("The shape %s is in the book for every channel.".formatted(name), false);
    } catch (QuantityException e) {
      desk.say(e.getMessage() + ".", true);
    }
  }

  void refresh() {
    TableSpec s = edits.spec();
    boolean editable = desk.editable();
    showing = true;
    List<ReceiverShape> all = desk.book().allShapes();
    if (!shape.getItems().equals(all)) shape.getItems().setAll(all);
    // A shape of which something was changed since is no longer that one.
    shape.setValue(
        all.stream()
            .filter(k -> k.name().equals(s.demands().shape()) && k.over(s).equals(s))
            .findFirst()
            .orElse(null));
    showing = false;
    shape.setDisable(!editable);
    cells.show(String.valueOf(s.cells()), "");
    rawDecimals.show(String.valueOf(s.rawDecimals()), "");
    outDecimals.show(String.valueOf(s.outDecimals()), "");
    rawBits.show(String.valueOf(s.arithmetic().rawBits()), "bit");
    outBits.show(String.valueOf(s.arithmetic().outBits()), "bit");
    fullScale.show(
        s.arithmetic().fullScale() == 0 ? "" : String.valueOf(s.arithmetic().fullScale()), "");
    Unit unit = s.axis().unit();
    lowEnd.show(s.demands().lowEnd(), unit);
    highEnd.show(s.demands().highEnd(), unit);
    rawAxis.show(
        s.demands().rawAxis().stream().map(Numbers::plain).collect(Collectors.joining(" ")),
        s.demands().rawAxis().isEmpty() ? "" : unit.symbol());
    axis.offer(offered(s.axis()));
    axis.show(s.axis());
    order.show(s.descending());
    arithmetic.show(s.arithmetic().whole());
    outside.show(s.arithmetic().outside());
    refusesEqual.setSelected(s.demands().refusesEqual());
    boolean whole = s.arithmetic().whole();
    for (EntryField f : List.of(rawBits, outBits, fullScale)) {
      f.setVisible(whole);
      f.setManaged(whole);
    }
    for (EntryField f :
        List.of(
            cells,
            rawDecimals,
            outDecimals,
            rawBits,
            outBits,
            fullScale,
            lowEnd,
            highEnd,
            rawAxis)) {
      f.field().setEditable(editable);
    }
    rawDecimals.field().setEditable(editable && s.axis() != RawUnit.COUNTS);
    outDecimals.field().setEditable(editable && s.arithmetic().fullScale() == 0);
    for (Node n : List.of(axis, order, arithmetic, outside, refusesEqual)) n.setDisable(!editable);
  }

  /** What the sensor cannot give is no column, unless it is one already. */
  private List<RawUnit> offered(RawUnit now) {
    Optional<RawUnit> own = RawScale.own(desk.channel().orElseThrow().design().sensor());
    boolean unknown = desk.channel().orElseThrow().design().sensor() == null;
    return Arrays.stream(RawUnit.values())
        .filter(u -> !u.ofSensor() || unknown || u == now || own.filter(u::equals).isPresent())
        .toList();
  }
}
