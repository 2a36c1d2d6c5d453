package nocking.app.step.define;

import java.util.ArrayList;
import java.util.List;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.Clipboard;
import javafx.scene.layout.HBox;
import javafx.scene.layout.VBox;
import nocking.analysis.EndResistors;
import nocking.app.control.Column;
import nocking.app.control.EntryField;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.desk.Desk;
import nocking.app.step.BlockPaste;
import nocking.app.step.ElementForm;
import nocking.book.exchange.ColumnException;
import nocking.book.exchange.ColumnFile;
import nocking.book.exchange.SensorTable;
import nocking.channel.Channel;
import nocking.element.Measurand;
import nocking.element.Signal;
import nocking.parts.Assortment;
import nocking.parts.PreferredSeries;
import nocking.path.SensorCurve;
import nocking.quantity.Ends;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.sensor.FormulaSensor;
import nocking.sensor.NtcBeta;
import nocking.sensor.NtcSteinhart;
import nocking.sensor.Potentiometer;
import nocking.sensor.Sensor;
import nocking.sensor.SteppedSensor;
import nocking.sensor.TablePoint;
import nocking.sensor.TableSensor;

/** The sensor's own values: the fields of its model, and a table or a formula where it has one. */
final class SensorSheet extends VBox {
  private final Desk desk;
  private final ElementForm form;
  private final EntryField formula;
  private final Grid rows;
  private final Label rowsNote = Paper.caption("");
  private final HBox rowButtons = new HBox(6);
  private final EntryField points;
  private final EntryField inside;
  private Class<?> shape;

  SensorSheet(Desk desk) {
    this.desk = desk;
    setSpacing(4);
    form = new ElementForm(desk, "sensor");
    formula =
        new EntryField("sensor-formula", "Output =", false, this::takeFormula, desk::seal)
            .help(
                "The output for the quantity x, with + − * / ^, brackets, exp, ln, log, sqrt, sin,"
                    + " cos, tan, atan and pi. It must not turn back inside its range.");
    points =
        new EntryField("sensor-points", "From points", false, this::takePoints, desk::seal)
            .whenDone()
            .prompt("0: 32.65k, 25: 10k, …")
            .help(
                "Temperatures and resistances of the datasheet, for example 0: 32650, 25: 10k, 100:"
                    + " 680. Two points give beta; three or more give the Steinhart-Hart"
                    + " constants, by least squares when there are more than three.");
    inside =
        new EntryField("sensor-inside", "Keep inside", false, this::takeInside, desk::seal)
            .whenDone()
            .prompt("0.5 … 4.5 V")
            .help(
                "Volts that the wiper may use, for example 0.5 … 4.5: the resistors above and below"
                    + " the track are chosen so that a broken wire can be told from a true end.");
    rows =
        new Grid(
            "sensor-rows",
            "Paste the table of the datasheet here.",
            List.of(
                Column.typed("quantity", 90, true, this::first, this::takeFirst),
                Column.typed("output", 100, true, this::second, this::takeSecond)),
            i -> false);
    rows.onPaste(BlockPaste.said(desk, (row, column, block) -> paste(block)));
    rows.onDelete(this::removeRow);
    rows.setPrefHeight(210);
    rows.setMinHeight(150);
    var add = new Button("Add a row");
    add.setId("sensor-add-row");
    add.setOnAction(e -> addRow());
    var pasted = new Button("Paste a table");
    pasted.setId("sensor-paste");
    pasted.setOnAction(e -> pasteClipboard());
    rowButtons.getChildren().setAll(add, pasted);
  }

  private Sensor sensor() {
    return desk.channel().orElseThrow().design().sensor();
  }

  void clear() {
    form.clear();
    shape = null;
  }

  void refresh() {
    Channel c = desk.channel().orElseThrow();
    Sensor s = c.design().sensor();
    if (s == null) {
      clear();
      getChildren().clear();
      return;
    }
    if (s.getClass() != shape) {
      shape = s.getClass();
      getChildren().clear();
      switch (s) {
        case FormulaSensor _ -> getChildren().add(formula);
        case TableSensor _, SteppedSensor _ -> getChildren().addAll(rows, rowsNote, rowButtons);
        case NtcBeta _, NtcSteinhart _ -> getChildren().add(points);
        case Potentiometer _ -> getChildren().add(inside);
        default -> {}
      }
      getChildren().add(form);
    }
    form.show(
        s, c.id() + ".sensor", this::sensor, e -> ch -> ch.design(d -> d.withSensor((Sensor) e)));
    if (s instanceof FormulaSensor f) {
      formula.show(f.formula(), f.signal().unit().symbol());
      formula.field().setEditable(desk.editable());
    }
    points.field().setEditable(desk.editable());
    points.show("", "");
    inside.field().setEditable(desk.editable());
    inside.show("", "");
    boolean table = s instanceof TableSensor || s instanceof SteppedSensor;
    if (table) {
      titles(s);
      rows.editable(desk.editable());
      rowButtons.setDisable(!desk.editable());
      rows.show(size(s));
      rowsNote.setText(
          "%d rows. Ctrl+V takes a whole table with its units; Delete removes a row."
              .formatted(size(s)));
    }
  }

  private void titles(Sensor s) {
    String unit = desk.channel().orElseThrow().definition().unit();
    var columns = rows.table().getColumns();
    boolean stepped = s instanceof SteppedSensor;
    columns.get(0).setText(stepped ? "position" : unit.isEmpty() ? "quantity" : unit);
    columns.get(1).setText(stepped ? "V" : s.signal().unit().symbol());
  }

  private static int size(Sensor s) {
    return switch (s) {
      case TableSensor t -> t.points().size();
      case SteppedSensor p -> p.positions().size();
      default -> 0;
    };
  }

  private String first(int i) {
    return switch (sensor()) {
      case TableSensor t -> t.points().get(i).at().typed();
      case SteppedSensor p -> p.positions().get(i).name();
      default -> "";
    };
  }

  private String second(int i) {
    return switch (sensor()) {
      case TableSensor t -> t.points().get(i).output().typed();
      case SteppedSensor p -> p.positions().get(i).output().typed();
      default -> "";
    };
  }

  private Unit unit() {
    return desk.channel().orElseThrow().unit();
  }

  private void takeFirst(int i, String text) {
    switch (sensor()) {
      case TableSensor t -> {
        var next = new ArrayList<>(t.points());
        next.set(i, new TablePoint(Value.typed(text, unit()), next.get(i).output()));
        edit(table(t, next, t.signal()));
      }
      case SteppedSensor p -> {
        var next = new ArrayList<>(p.positions());
        next.set(i, new SteppedSensor.Position(text.strip(), next.get(i).output()));
        edit(new SteppedSensor(next, p.sourceResistance()));
      }
      default -> throw new IllegalStateException("no rows");
    }
  }

  private void takeSecond(int i, String text) {
    Value output = Value.typed(text, sensor().signal().unit());
    switch (sensor()) {
      case TableSensor t -> {
        var next = new ArrayList<>(t.points());
        next.set(i, new TablePoint(next.get(i).at(), output));
        edit(table(t, next, t.signal()));
      }
      case SteppedSensor p -> {
        var next = new ArrayList<>(p.positions());
        next.set(i, new SteppedSensor.Position(next.get(i).name(), output));
        edit(new SteppedSensor(next, p.sourceResistance()));
      }
      default -> throw new IllegalStateException("no rows");
    }
  }

  private static TableSensor table(TableSensor t, List<TablePoint> points, Signal signal) {
    return new TableSensor(points, t.interpolation(), signal, t.sourceResistance());
  }

  private void edit(Sensor s) {
    desk.edit("change table", "", c -> c.design(d -> d.withSensor(s)));
  }

  private boolean removeRow(int i) {
    return switch (sensor()) {
      case TableSensor t when t.points().size() > 2 -> {
        var next = new ArrayList<>(t.points());
        next.remove(i);
        yield desk.edit(
            "remove row", "", c -> c.design(d -> d.withSensor(table(t, next, t.signal()))));
      }
      case SteppedSensor p when p.positions().size() > 2 -> {
        var next = new ArrayList<>(p.positions());
        next.remove(i);
        yield desk.edit(
            "remove position",
            "",
            c -> c.design(d -> d.withSensor(new SteppedSensor(next, p.sourceResistance()))));
      }
      default -> false;
    };
  }

  /** A further row goes on as the last two do. */
  private void addRow() {
    switch (sensor()) {
      case TableSensor t -> {
        int n = t.points().size();
        TablePoint a = t.points().get(n - 2);
        TablePoint b = t.points().get(n - 1);
        var next = new ArrayList<>(t.points());
        next.add(
            TablePoint.of(
                2 * b.at().number() - a.at().number(),
                2 * b.output().number() - a.output().number()));
        edit(table(t, next, t.signal()));
      }
      case SteppedSensor p -> {
        int n = p.positions().size();
        double step =
            p.positions().get(n - 1).output().number() - p.positions().get(n - 2).output().number();
        var next = new ArrayList<>(p.positions());
        next.add(
            new SteppedSensor.Position(
                String.valueOf(n + 1),
                Value.of(p.positions().get(n - 1).output().number() + step)));
        edit(new SteppedSensor(next, p.sourceResistance()));
      }
      default -> throw new IllegalStateException("no rows");
    }
  }

  private void pasteClipboard() {
    String text = Clipboard.getSystemClipboard().getString();
    if (text == null || text.isBlank()) {
      desk.say("The clipboard holds no text. Copy the table from the datasheet first.", true);
      return;
    }
    try {
      paste(text);
    } catch (QuantityException e) {
      desk.say(e.getMessage(), true);
    }
  }

  /** A pasted table takes the place of the rows; its units are converted and said. */
  private void paste(String block) {
    if (!(sensor() instanceof TableSensor t)) {
      throw new QuantityException("a table can be pasted into a table only");
    }
    try {
      SensorTable read =
          SensorTable.of(ColumnFile.parse(block, "the pasted table"), unit(), t.signal());
      TableSensor next = table(t, read.points(), read.signal());
      // A table that turns back is refused before it takes the place of a sound one.
      SensorCurve.of(new Measurand("x", unit()), next);
      if (desk.edit("paste table", "", c -> c.design(d -> d.withSensor(next)))) {
        desk.say("Taken in: " + read.says() + ".", false);
      }
    } catch (ColumnException e) {
      throw new QuantityException(e.getMessage());
    }
  }

  private void takeFormula(String text) {
    FormulaSensor f = (FormulaSensor) sensor();
    var next = new FormulaSensor(text, f.signal(), f.from(), f.to(), f.sourceResistance());
    Channel c = desk.channel().orElseThrow();
    SensorCurve.of(new Measurand(c.definition().kind().symbol(), c.unit()), next);
    desk.edit("change formula", c.id() + ".formula", ch -> ch.design(d -> d.withSensor(next)));
  }

  /** Points of a thermistor: two for β, three or more for the Steinhart–Hart constants. */
  private void takePoints(String text) {
    if (text.isBlank()) return;
    var list = new ArrayList<TablePoint>();
    for (String pair : text.split("[,;]")) {
      String[] both = pair.split(":");
      if (both.length != 2) {
        throw new QuantityException(
            "read '" + pair.strip() + "', expected temperature: resistance");
      }
      double t = Value.typed(both[0], unit()).number();
      list.add(
          new TablePoint(
              Value.of(unit().convert(t, Unit.CELSIUS)), Value.typed(both[1], Unit.OHM)));
    }
    Sensor next = list.size() == 2 ? byBeta(list) : NtcSteinhart.through(list);
    desk.edit("thermistor from points", "", c -> c.design(d -> d.withSensor(next)));
    desk.say(
        "%s through %d points."
            .formatted(list.size() == 2 ? "Beta" : "Three constants", list.size()),
        false);
  }

  /** End resistors that leave room for fault limits at both ends. */
  private void takeInside(String text) {
    if (text.isBlank()) return;
    Span volts = Ends.typed(text, Unit.VOLT).span();
    EndResistors found =
        EndResistors.choose(
            desk.channel().orElseThrow(), volts, Assortment.of(PreferredSeries.E24));
    if (desk.edit("choose end resistors", "", c -> found.channel())) {
      desk.say("%s: %s.".formatted(found.solution().text(), found.solution().note()), false);
    }
  }

  private static Sensor byBeta(List<TablePoint> p) {
    double t0 = p.get(0).at().number();
    double r0 = p.get(0).output().number();
    double beta = NtcBeta.betaBetween(t0, r0, p.get(1).at().number(), p.get(1).output().number());
    return NtcBeta.of(r0, t0, Double.parseDouble(Numbers.significant(beta, 6)));
  }
}
