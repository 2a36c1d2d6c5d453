package nocking.app.step.table;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.Column;
import nocking.app.control.EntryField;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.control.PlotView;
import nocking.app.control.Segments;
import nocking.app.control.WheelScroll;
import nocking.app.desk.Desk;
import nocking.app.step.Exports;
import nocking.app.step.Files;
import nocking.app.step.Sheet;
import nocking.channel.Channel;
import nocking.element.Signal;
import nocking.firmware.TableSource;
import nocking.path.GeneratedEquation;
import nocking.points.RawUnit;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.report.PdfPages;
import nocking.report.page.SettingsSheet;
import nocking.report.plot.Axis;
import nocking.report.plot.Layer;
import nocking.report.plot.Plot;
import nocking.report.plot.Role;
import nocking.sensor.Sensor;
import nocking.table.Cell;
import nocking.table.LinearTable;
import nocking.table.TableError;
import nocking.table.TableSpec;
import nocking.view.TableOutcome;

/** The view of the sixth stage. */
public final class TableSheet implements Sheet {
  private final Desk desk;
  private final Exports saving;
  private final EntryField cells;
  private final EntryField rawDecimals;
  private final EntryField outDecimals;
  private final Segments<RawUnit> axis;
  private final Segments<Boolean> order;
  private final Grid grid;
  private final Paper tablePaper;
  private final Paper plotPaper;
  private final PlotView plot = new PlotView("table-plot", "Error between the cells");
  private final Label worst = new Label();
  private final Button start = new Button("Make a table");
  private final FlowPane exports;
  private final Button settings = new Button("Settings sheet…");
  private final VBox form;
  private final HBox root;
  private List<Cell> rows = List.of();

  public TableSheet(Desk desk, Files files) {
    this.desk = desk;
    saving = new Exports(desk, files);
    cells = whole("table-cells", "Cells", TableSpec::withCells);
    rawDecimals = whole("table-raw-decimals", "Raw decimals", TableSpec::withRawDecimals);
    outDecimals = whole("table-out-decimals", "Output decimals", TableSpec::withOutDecimals);
    axis =
        new Segments<>(
            "table-axis",
            List.of(RawUnit.values()),
            RawUnit::title,
            u -> change("raw column", s -> s.withAxis(u)));
    order =
        new Segments<>(
            "table-order",
            List.of(false, true),
            d -> d ? "falling" : "rising",
            d -> change("table order", s -> s.withDescending(d)));
    grid =
        new Grid(
            "cells",
            "No table yet. Say how many cells the receiver holds.",
            List.of(
                Column.shown("cell", 36, true, i -> String.valueOf(i + 1)),
                Column.shown("raw", 76, true, i -> raw(rows.get(i))),
                Column.shown("output", 80, true, i -> out(rows.get(i)))),
            i -> false);
    start.setId("table-start");
    start.getStyleClass().add("primary");
    start.setOnAction(e -> start());
    var csv = new Button("Export CSV…");
    csv.setId("table-csv");
    csv.setOnAction(e -> export("Column file", ".csv"));
    var header = new Button("Export C array…");
    header.setId("table-c");
    header.setOnAction(e -> export("C header", ".h"));
    settings.setId("table-settings");
    settings.setOnAction(e -> exportSettings());
    exports = new FlowPane(6, 6, csv, header);
    form =
        new VBox(
            8,
            cells,
            row("Raw column", axis),
            row("Order", order),
            rawDecimals,
            outDecimals,
            Paper.caption(
                "Equal steps of raw over the working range, straight lines between the cells."),
            Paper.subtitle("For the receiver"),
            exports);
    var left = new Paper("Receiver", start, form, settings);
    var leftScroll = WheelScroll.of(left);
    leftScroll.setMinWidth(292);
    leftScroll.setMaxWidth(292);
    worst.getStyleClass().add("result-line");
    worst.setId("table-worst");
    worst.setMaxWidth(Double.MAX_VALUE);
    worst.setMinHeight(Region.USE_PREF_SIZE);
    worst.setWrapText(true);
    tablePaper = new Paper("Cells", grid);
    plotPaper = new Paper("Between the cells", plot, worst);
    VBox.setVgrow(grid, Priority.ALWAYS);
    VBox.setVgrow(plot, Priority.ALWAYS);
    VBox.setVgrow(tablePaper, Priority.ALWAYS);
    VBox.setVgrow(plotPaper, Priority.ALWAYS);
    tablePaper.setPrefHeight(230);
    plotPaper.setPrefHeight(290);
    var right = new VBox(12, plotPaper, tablePaper);
    HBox.setHgrow(right, Priority.ALWAYS);
    root = new HBox(12, leftScroll, right);
  }

  /** Takes a whole number into the table's shape. */
  @FunctionalInterface
  private interface Whole {
    TableSpec with(TableSpec spec, int value);
  }

  private EntryField whole(String id, String title, Whole setter) {
    return new EntryField(
        id,
        title,
        true,
        text -> {
          double v = QuantityParser.value(text, Unit.ONE);
          if (v != Math.rint(v)) {
            throw new QuantityException("read " + text + ", expected a whole number");
          }
          change(title.toLowerCase(Locale.ROOT), s -> setter.with(s, (int) Math.clamp(v, -1, 1e6)));
        },
        desk::seal);
  }

  private static HBox row(String title, Node control) {
    var label = new Label(title);
    label.setMinWidth(92);
    var row = new HBox(6, label, control);
    row.setAlignment(Pos.CENTER_LEFT);
    return row;
  }

  private void change(String what, UnaryOperator<TableSpec> how) {
    Channel c = desk.channel().orElseThrow();
    if (c.receiver().table() == null) return;
    TableSpec next = how.apply(c.receiver().table());
    desk.edit("change " + what, "table." + what, ch -> ch.receiver(r -> r.withTable(next)));
  }

  private void start() {
    int decimals = Math.min(9, desk.analysis().design().decimals() + 1);
    TableSpec usual = TableSpec.DEFAULT.withOutDecimals(decimals);
    // Without a path there is no volt to count in; a receiver that wants ohms needs none.
    TableSpec spec =
        desk.analysis().calibration().curve().isEmpty() ? usual.withAxis(RawUnit.OHMS) : usual;
    desk.edit("make a table", "", c -> c.receiver(r -> r.withTable(spec)));
  }

  private static boolean possible(Analysis a) {
    Sensor sensor = a.channel().design().sensor();
    return a.calibration().curve().isPresent()
        || sensor != null && sensor.signal() == Signal.RESISTANCE;
  }

  private String raw(Cell c) {
    return Numbers.fixed(c.raw(), spec().rawDecimals());
  }

  private String out(Cell c) {
    return Numbers.fixed(c.out(), spec().outDecimals()).replace('-', '−');
  }

  private TableSpec spec() {
    return desk.channel().orElseThrow().receiver().table();
  }

  private void export(String kind, String ending) {
    Analysis a = desk.analysis();
    Optional<LinearTable> table = a.receiver().table().table();
    if (table.isEmpty()) return;
    Channel c = a.channel();
    TableSource source =
        new TableSource(
            GeneratedEquation.identifier(c.tag()),
            c.tag() + " " + c.definition().name(),
            c.definition().unit(),
            spec().axis(),
            spec().descending(),
            spec().rawDecimals(),
            spec().outDecimals(),
            a.receiver().limits().orElse(null),
            c.receiver().limits());
    String text =
        ending.equals(".csv")
            ? source.csv(table.get())
            : source.header(table.get(), a.receiver().table().error().orElseThrow());
    saving.write(kind, source.name() + "_table" + ending, ending, text);
  }

  private void exportSettings() {
    Analysis a = desk.analysis();
    String name = a.channel().tag().replaceAll("[^A-Za-z0-9-]", "_") + "-settings.pdf";
    saving.writeBytes("Settings sheet", name, ".pdf", () -> PdfPages.of(SettingsSheet.html(a)));
  }

  @Override
  public Node node() {
    return root;
  }

  @Override
  public void refresh() {
    Analysis a = desk.analysis();
    TableSpec s = a.channel().receiver().table();
    boolean none = s == null;
    start.setVisible(none);
    start.setManaged(none);
    start.setDisable(!desk.editable() || !possible(a));
    form.setVisible(!none);
    form.setManaged(!none);
    String u = a.channel().definition().unit();
    if (!none) {
      cells.show(String.valueOf(s.cells()), "");
      rawDecimals.show(String.valueOf(s.rawDecimals()), "");
      outDecimals.show(String.valueOf(s.outDecimals()), "");
      axis.show(s.axis());
      order.show(s.descending());
      for (EntryField e : List.of(cells, rawDecimals, outDecimals)) {
        e.field().setEditable(desk.editable());
      }
      rawDecimals.field().setEditable(desk.editable() && s.axis() != RawUnit.COUNTS);
      axis.setDisable(!desk.editable());
      order.setDisable(!desk.editable());
      grid.table().getColumns().get(1).setText("raw " + s.axis().unit().symbol());
      grid.table().getColumns().get(2).setText("output " + u);
    }
    TableOutcome outcome = a.receiver().table();
    exports.setDisable(outcome.table().isEmpty());
    settings.setDisable(a.calibration().curve().isEmpty());
    rows = outcome.table().map(t -> t.ordered(s.descending())).orElse(List.of());
    grid.show(rows.size());
    tablePaper.note(
        a.calibration().curve().map(c -> c.title().toLowerCase(Locale.ROOT)).orElse(""));
    boolean made = outcome.error().isPresent();
    plot.setVisible(made);
    plotPaper.note(made ? "table − curve" : "");
    worst.setVisible(made || !none);
    if (!made) {
      worst.setText(none ? "" : outcome.problem());
      return;
    }
    TableError e = outcome.error().get();
    worst.setText(
        "worst %s %s at raw %s    RMS %s %s"
            .formatted(
                Numbers.significant(e.worst(), 2),
                u,
                Numbers.fixed(e.worstAt(), s.rawDecimals()),
                Numbers.significant(e.rms(), 2),
                u));
    plot.show(plotOf(a, e, s));
    probe();
  }

  private static Plot plotOf(Analysis a, TableError e, TableSpec s) {
    double tolerance = a.channel().definition().toleranceOrNaN();
    // A table far better than the tolerance is drawn on its own scale: the band would hide its
    // shape.
    boolean band = !Double.isNaN(tolerance) && e.worst() > 0.08 * tolerance;
    double half = 1.25 * Math.max(e.worst(), band ? tolerance : 0);
    if (!(half > 0)) half = 1e-9;
    var layers = new ArrayList<Layer>();
    if (band) layers.add(new Layer.Across(Role.TOLERANCE, new Span(-tolerance, tolerance)));
    layers.add(new Layer.Line(Role.OTHER, e.raw(), e.errors(), 0));
    List<Cell> cells = a.receiver().table().table().orElseThrow().cells();
    double[] x = cells.stream().mapToDouble(Cell::raw).toArray();
    double[] y = new double[x.length];
    int at = 0;
    for (int i = 0; i < x.length; i++) {
      while (at < e.raw().length - 1 && e.raw()[at] < x[i] - 1e-12) at++;
      y[i] = e.errors()[at];
    }
    layers.add(new Layer.Points(Role.POINT, x, y));
    return new Plot(
        new Axis("raw, " + s.axis().unit().symbol(), Axis.padded(x[0], x[x.length - 1], 0.02)),
        new Axis("error, " + a.channel().definition().unit(), new Span(-half, half)),
        layers);
  }

  @Override
  public void probe() {
    plot.dark(desk.dark());
    TableSpec s = desk.channel().map(c -> c.receiver().table()).orElse(null);
    if (s == null) return;
    desk.probeState()
        .ifPresent(
            p ->
                plot.probe(
                    desk.analysis().receiver().rawOf(p.readOut().output()), x -> Double.NaN));
  }
}
