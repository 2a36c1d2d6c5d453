package nocking.app.stage.define;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.regex.Pattern;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ToggleButton;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.EntryField;
import nocking.app.control.Paper;
import nocking.app.control.PlotView;
import nocking.app.control.Segments;
import nocking.app.control.WheelScroll;
import nocking.app.desk.Desk;
import nocking.app.stage.Curves;
import nocking.app.stage.ElementForm;
import nocking.app.stage.StageView;
import nocking.channel.Channel;
import nocking.channel.Definition;
import nocking.channel.Hazard;
import nocking.channel.QuantityKind;
import nocking.channel.UnitChange;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.report.plot.Axis;
import nocking.report.plot.Layer;
import nocking.report.plot.Plot;
import nocking.report.plot.Role;
import nocking.sensor.Sensor;

/** The view of the first stage. */
public final class DefineStage implements StageView {
  private static final Pattern RANGE =
      Pattern.compile("\\s*(.+?)\\s*(?:…|\\.\\.\\.?|\\bto\\b)\\s*(.+?)\\s*");

  private final Desk desk;
  private final EntryField tag;
  private final EntryField name;
  private final EntryField unit;
  private final EntryField range;
  private final EntryField tolerance;
  private final EntryField rest;
  private final ComboBox<QuantityKind> kind = new ComboBox<>();
  private final Segments<Boolean> gauge;
  private final HBox gaugeRow;
  private final FlowPane chips = new FlowPane(6, 6);
  private final FlowPane hazards = new FlowPane(10, 5);
  private final ElementForm sensorForm;
  private final Label sensorTitle = Paper.subtitle("");
  private final Paper plotPaper;
  private final PlotView plot = new PlotView("define-plot", "Sensor output over its range");
  private final VBox empty = new VBox(12);
  private final GridPane facts = new GridPane(14, 5);
  private final HBox root;
  private boolean showing;

  public DefineStage(Desk desk) {
    this.desk = desk;
    tag = entry("define-tag", "Tag", false, this::takeTag).whenDone();
    name = entry("define-name", "Name", false, t -> define("name", d -> d.withName(t.strip())));
    unit = entry("define-unit", "Unit", false, this::takeUnit).whenDone();
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
                    "tolerance", d -> d.withTolerance(optional(t, d.quantityUnit().difference()))));
    rest =
        entry(
                "define-rest",
                "At rest",
                true,
                t -> define("rest", d -> d.withRest(optional(t, d.quantityUnit()))))
            .prompt("low end")
            .help("The quantity when nothing is done to the sensor; the low end when empty.");
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
    sensorForm = new ElementForm(desk, "sensor");
    for (Sensor model : Sensor.models()) chips.getChildren().add(chip(model));
    for (Hazard h : Hazard.values()) hazards.getChildren().add(hazard(h));

    var left =
        new Paper(
            "Channel",
            tag,
            name,
            row("Measures", kind),
            unit,
            gaugeRow,
            range,
            tolerance,
            rest,
            Paper.subtitle("What do you have?"),
            chips,
            sensorTitle,
            sensorForm,
            Paper.subtitle("What can hurt someone here?"),
            hazards);
    var leftScroll = WheelScroll.of(left);
    leftScroll.setMinWidth(296);
    leftScroll.setPrefWidth(296);
    leftScroll.setMaxWidth(296);
    var offers = new FlowPane(8, 8);
    for (Sensor model : Sensor.models()) {
      var offer = new Button(capital(model.inHand()));
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
    var factsPaper = new Paper("What follows from it", facts);
    var middle = new VBox(12, plotPaper, factsPaper);
    HBox.setHgrow(middle, Priority.ALWAYS);
    root = new HBox(12, leftScroll, middle);
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

  private CheckBox hazard(Hazard h) {
    var box = new CheckBox(h.title());
    box.setId("hazard-" + h.name().toLowerCase(Locale.ROOT).replace('_', '-'));
    box.setOnAction(
        e ->
            define(
                "hazards",
                d -> {
                  var next = new ArrayList<>(d.hazards());
                  if (box.isSelected()) next.add(h);
                  else next.remove(h);
                  return d.withHazards(next);
                }));
    return box;
  }

  private void define(String what, UnaryOperator<Definition> change) {
    if (showing) return;
    desk.edit("change " + what, "define." + what, c -> c.define(change));
  }

  private void takeTag(String text) {
    String wanted = text.strip();
    Channel c = desk.channel().orElseThrow();
    if (wanted.isEmpty()) throw new QuantityException("a channel needs a tag");
    Optional<Channel> same = desk.book().byTag(wanted);
    if (same.isPresent() && !same.get().id().equals(c.id())) {
      throw new QuantityException("%s is taken by another channel".formatted(same.get().tag()));
    }
    define("tag", d -> d.withTag(wanted));
  }

  private void takeUnit(String text) {
    Unit to = Unit.of(text);
    if (to.symbol().equals(desk.channel().orElseThrow().definition().unit())) return;
    desk.edit("change unit", "define.unit", c -> UnitChange.apply(c, to));
  }

  private void takeRange(String text) {
    var m = RANGE.matcher(text);
    if (!m.matches()) {
      throw new QuantityException("read '" + text + "', expected two values, for example 4 … 14");
    }
    Unit of = desk.channel().orElseThrow().unit();
    Value low = Value.typed(m.group(1), of);
    Value high = Value.typed(m.group(2), of);
    define("working range", d -> d.withRange(low, high));
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
          Definition d = c.definition().withKind(now);
          boolean fresh = c.sensor() == null && c.points().points().isEmpty();
          return c.withDefinition(
              fresh && !now.usualUnit().isEmpty() ? d.withUnit(now.usualUnit()) : d);
        });
  }

  /** A new model starts from the channel's own range, so that it is at once a sensible one. */
  private void chooseModel(Sensor model) {
    Channel c = desk.channel().orElseThrow();
    if (c.sensor() != null && c.sensor().model().equals(model.model())) return;
    desk.edit("choose sensor", "", ch -> ch.withSensor(SensorStart.of(model, ch)));
  }

  @Override
  public Node node() {
    return root;
  }

  @Override
  public void switched() {
    sensorForm.clear();
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
    for (Node n : chips.getChildren()) {
      var chip = (ToggleButton) n;
      chip.setSelected(c.sensor() != null && chip.getId().equals("have-" + c.sensor().model()));
      chip.setDisable(!edit);
    }
    for (int i = 0; i < Hazard.values().length; i++) {
      var box = (CheckBox) hazards.getChildren().get(i);
      box.setSelected(d.hazards().contains(Hazard.values()[i]));
      box.setDisable(!edit);
    }
    sensorTitle.setManaged(c.sensor() != null);
    sensorTitle.setText(c.sensor() == null ? "" : "From the datasheet: " + c.sensor().inHand());
    if (c.sensor() == null) {
      sensorForm.clear();
    } else {
      sensorForm.show(
          c.sensor(),
          c.id() + ".sensor",
          () -> desk.channel().orElseThrow().sensor(),
          e -> ch -> ch.withSensor((Sensor) e));
    }
    draw(desk.analysis());
    showing = false;
    probe();
  }

  private void draw(Analysis a) {
    facts.getChildren().clear();
    Channel c = a.channel();
    Optional<SignalPath> path = a.path();
    plot.setVisible(path.isPresent());
    plot.setManaged(path.isPresent());
    boolean none = c.sensor() == null;
    empty.setVisible(none);
    empty.setManaged(none);
    empty.setDisable(!desk.editable());
    if (path.isEmpty()) {
      plotPaper.note(c.sensor() == null ? "" : a.pathProblem().orElse(""));
      var nothing =
          Paper.caption(
              "Sensitivity, used range and the worth of one count follow from the sensor.");
      facts.addRow(0, nothing);
      return;
    }
    Span working = c.definition().working();
    Span rated = c.sensor().rated();
    double share = Math.min(1, overlap(working, rated) / rated.width());
    plotPaper.note(
        "working range: %s %% of the sensor is used".formatted(Numbers.fixed(100 * share, 0)));
    plot.show(plotOf(c, path.get(), working, rated));
    SignalPath p = path.get();
    String u = c.definition().unit();
    double middle = working.middle();
    double perUnit =
        (p.at(working.high()).nodes().getFirst().value()
                - p.at(working.low()).nodes().getFirst().value())
            / working.width();
    fact(0, "Sensitivity at the sensor", Numbers.engineering(perUnit, "V", 4) + " per " + u);
    fact(
        1,
        "Output over the job",
        "%s … %s"
            .formatted(
                Numbers.engineering(p.at(working.low()).nodes().getFirst().value(), "V", 4),
                Numbers.engineering(p.at(working.high()).nodes().getFirst().value(), "V", 4)));
    fact(2, "Rated range", "%s … %s".formatted(a.amount(rated.low()), a.amount(rated.high())));
    fact(3, "Used of it", Numbers.fixed(100 * share, 0) + " %");
    fact(4, "One count of the converter", a.error(p.countsWorth(middle)));
    fact(5, "Error of 0.5 % of the rated range", "±" + a.error(0.005 * rated.width()));
  }

  private static String capital(String words) {
    return Character.toUpperCase(words.charAt(0)) + words.substring(1);
  }

  private static double overlap(Span a, Span b) {
    return Math.max(0, Math.min(a.high(), b.high()) - Math.max(a.low(), b.low()));
  }

  private void fact(int row, String what, String value) {
    var label = new Label(what);
    label.getStyleClass().add("quiet");
    var text = new Label(value);
    text.getStyleClass().add("mono");
    text.setId("fact-" + row);
    facts.addRow(row, label, text);
  }

  private static Plot plotOf(Channel c, SignalPath p, Span working, Span rated) {
    Span all =
        new Span(Math.min(working.low(), rated.low()), Math.max(working.high(), rated.high()));
    double[] x = Curves.along(rated);
    double[] y = Curves.of(v -> p.at(v).nodes().getFirst().value(), x);
    double low = Math.min(y[0], y[y.length - 1]);
    double high = Math.max(y[0], y[y.length - 1]);
    double[] endX = {x[0], x[x.length - 1]};
    double[] endY = {y[0], y[y.length - 1]};
    Span ySpan = low >= 0 ? new Span(0, high * 1.08) : Axis.padded(low, high, 0.05);
    return new Plot(
        new Axis(
            "%s, %s".formatted(c.definition().kind().title(), c.definition().unit()),
            Axis.padded(all.low(), all.high(), 0.02)),
        new Axis("TP1, V", ySpan),
        List.of(
            new Layer.Upright(Role.SHADE, working),
            new Layer.Line(Role.CURVE, x, y, 0),
            new Layer.Points(Role.POINT, endX, endY)));
  }

  @Override
  public void probe() {
    Analysis a = desk.analysis();
    plot.dark(desk.dark());
    plot.probe(
        desk.probe(),
        x -> a.path().map(p -> p.at(x).nodes().getFirst().value()).orElse(Double.NaN));
  }
}
