package nocking.app.step.check;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.analysis.LiveReading;
import nocking.app.control.Column;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.control.PlotView;
import nocking.app.control.Segments;
import nocking.app.control.StateSign;
import nocking.app.desk.Desk;
import nocking.app.step.BlockPaste;
import nocking.app.step.Sheet;
import nocking.book.exchange.CheckColumns;
import nocking.book.exchange.ColumnException;
import nocking.channel.Channel;
import nocking.check.CheckPoint;
import nocking.check.CheckRow;
import nocking.check.CheckTable;
import nocking.check.CheckTable.Measured;
import nocking.check.Verdict;
import nocking.converter.Converter;
import nocking.diagnosis.MeasuringCaution;
import nocking.path.TestPoint;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Sentence;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.report.plot.Axis;
import nocking.report.plot.Layer;
import nocking.report.plot.Plot;
import nocking.report.plot.Role;
import nocking.wiring.Place;

/** The view of the seventh stage. */
public final class CheckSheet implements Sheet {
  private static final int FIVE = 5;

  private final Desk desk;
  private final Grid grid;
  private final Segments<Measured> measured;
  private final Paper paper;
  private final Paper plotPaper;
  private final PlotView plot = new PlotView("check-plot", "Error against applied");
  private final Button five = new Button("Five inputs over the range");
  private final Label nodes = Paper.caption("");
  private final Label caution = Paper.caption("");
  private final HBox verdict = new HBox(6);
  private final VBox root;
  private List<CheckRow> rows = List.of();

  public CheckSheet(Desk desk) {
    this.desk = desk;
    measured =
        new Segments<>(
            "measured", List.of(Measured.values()), Measured::brief, this::takeMeasuredAs);
    grid =
        new Grid(
                "checks",
                "No check inputs yet. Type the first one below, or take five over the range.",
                List.of(
                    Column.typed("applied", 95, true, this::applied, this::takeApplied),
                    Column.shown("expected V", 95, true, i -> row(i, this::expected)),
                    Column.shown(
                        "raw", 65, true, i -> row(i, r -> String.valueOf(r.expectedCode()))),
                    Column.shown(
                            "should read",
                            106,
                            true,
                            i -> row(i, r -> reading(r.expectedReading())))
                        .keepingItsWidth(),
                    Column.typed("measured", 95, true, this::measured, this::takeMeasured),
                    Column.shown(
                        "error",
                        85,
                        true,
                        i -> done(i, r -> Numbers.signed(r.error(), decimals() + 1))),
                    Column.shown(
                        "% of span",
                        80, true, i -> done(i, r -> Numbers.signed(r.percentOfSpan(), 2))),
                    Column.shown("mV", 70, true, i -> done(i, this::millivolts)),
                    Column.shown(
                            "verdict",
                            85,
                            false,
                            i -> done(i, r -> r.fault() ? "fault" : word(r.verdict())))
                        .styled(i -> isRow(i) ? style(rows.get(i).verdict()) : "")
                        .signed(
                            i ->
                                isRow(i) && !Double.isNaN(rows.get(i).measured())
                                    ? StateSign.of(rows.get(i).verdict())
                                    : null)),
                i -> !isRow(i))
            .onPaste(BlockPaste.said(desk, this::paste))
            .onDelete(this::remove);
    grid.table().getSelectionModel().selectedIndexProperty().addListener(o -> showNodes());
    five.setId("check-five");
    five.setOnAction(e -> takeFive());
    var as = new Label("Measured is a");
    verdict.setId("check-verdict");
    verdict.setAlignment(Pos.CENTER_LEFT);
    caution.setId("check-caution");
    caution.getStyleClass().add("caution-line");
    caution.setMaxWidth(Double.MAX_VALUE);
    var line = new HBox(10, five, as, measured, verdict);
    line.setAlignment(Pos.CENTER_LEFT);
    paper = new Paper("Expected against measured", line, caution, grid, nodes);
    VBox.setVgrow(grid, Priority.ALWAYS);
    plotPaper = new Paper("Error against applied", plot);
    VBox.setVgrow(plot, Priority.ALWAYS);
    VBox.setVgrow(paper, Priority.ALWAYS);
    VBox.setVgrow(plotPaper, Priority.ALWAYS);
    paper.setPrefHeight(300);
    plotPaper.setPrefHeight(240);
    root = new VBox(12, paper, plotPaper);
  }

  private boolean isRow(int i) {
    return i < rows.size();
  }

  private CheckTable sheet() {
    return desk.channel().orElseThrow().acceptance().check();
  }

  private int decimals() {
    return desk.analysis().design().decimals();
  }

  private String row(int i, Function<CheckRow, String> of) {
    return isRow(i) ? of.apply(rows.get(i)) : "";
  }

  private String done(int i, Function<CheckRow, String> of) {
    return isRow(i) && !Double.isNaN(rows.get(i).measured()) ? of.apply(rows.get(i)) : "";
  }

  private String expected(CheckRow r) {
    Measured as = sheet().measured();
    if (as.ofSensor()) return Numbers.trimmed(r.expected(as), 6);
    return Numbers.fixed(
        r.expectedNodes().getLast(),
        Numbers.decimalsFor(desk.channel().orElseThrow().design().converter().step()) - 1);
  }

  private String reading(double v) {
    return Numbers.fixed(v, decimals()).replace('-', '−');
  }

  private String applied(int i) {
    return i < sheet().points().size() ? sheet().points().get(i).applied().typed() : "";
  }

  private String measured(int i) {
    if (i >= sheet().points().size()) return "";
    Value v = sheet().points().get(i).measured();
    return v == null ? "" : v.typed();
  }

  private static String word(Verdict v) {
    return v == Verdict.OPEN ? "no tolerance" : v.name().toLowerCase(Locale.ROOT);
  }

  private static String style(Verdict v) {
    return v == Verdict.PASS ? "text-pass" : v == Verdict.FAIL ? "text-fail" : "";
  }

  private Unit measuredUnit() {
    return sheet().measured().unit(desk.channel().orElseThrow().unit());
  }

  /** What is measured already is offered, too, whatever the sensor has become. */
  private static List<Measured> offered(Channel c) {
    var list = new ArrayList<>(Measured.of(c.design().sensor()));
    Measured now = c.acceptance().check().measured();
    if (!list.contains(now)) list.add(now);
    return list;
  }

  private String millivolts(CheckRow r) {
    return Double.isNaN(r.millivolts()) ? "–" : Numbers.signed(r.millivolts(), 1);
  }

  private void takeApplied(int i, String text) {
    Value v = Value.typed(text, desk.channel().orElseThrow().unit());
    if (i < sheet().points().size()) {
      Value m = sheet().points().get(i).measured();
      desk.edit(
          "change check input",
          "",
          c ->
              c.acceptance(a -> a.withCheck(c.acceptance().check().with(i, new CheckPoint(v, m)))));
    } else {
      desk.edit(
          "add a check input",
          "",
          c ->
              c.acceptance(a -> a.withCheck(c.acceptance().check().plus(new CheckPoint(v, null)))));
    }
  }

  private void takeMeasured(int i, String text) {
    if (i >= sheet().points().size()) {
      throw new QuantityException("type the applied value of this row first");
    }
    Value v = text.isBlank() ? null : Value.typed(text, measuredUnit());
    Value applied = sheet().points().get(i).applied();
    desk.edit(
        "enter measured value",
        "",
        c ->
            c.acceptance(
                a -> a.withCheck(c.acceptance().check().with(i, new CheckPoint(applied, v)))));
  }

  /**
   * Values keep their meaning only in their own unit, so entered ones are taken out with the
   * change.
   */
  private void takeMeasuredAs(Measured as) {
    if (as == sheet().measured()) return;
    boolean entered = sheet().points().stream().anyMatch(p -> p.measured() != null);
    List<CheckPoint> cleared =
        sheet().points().stream().map(p -> new CheckPoint(p.applied(), null)).toList();
    desk.edit(
        "measure as " + as.title(),
        "",
        c -> c.acceptance(a -> a.withCheck(new CheckTable(as, cleared))));
    if (entered)
      desk.say(
          "The measured values were in another unit and are out. Undo brings them back.", false);
    refresh();
  }

  private boolean remove(int i) {
    if (i >= sheet().points().size()) return false;
    return desk.edit(
        "remove check input",
        "",
        c -> c.acceptance(a -> a.withCheck(c.acceptance().check().without(i))));
  }

  private void takeFive() {
    Span working = desk.channel().orElseThrow().definition().working();
    var points = new ArrayList<>(sheet().points());
    for (int i = 0; i < FIVE; i++) {
      double x = working.at(i / (FIVE - 1.0));
      points.add(new CheckPoint(Value.of(Double.parseDouble(Numbers.significant(x, 6))), null));
    }
    desk.edit(
        "add five check inputs",
        "",
        c ->
            c.acceptance(
                a -> a.withCheck(new CheckTable(c.acceptance().check().measured(), points))));
  }

  private void paste(int row, int column, String block) {
    try {
      CheckTable next = CheckColumns.with(desk.channel().orElseThrow(), row, column > 0, block);
      desk.edit("paste check values", "", c -> c.acceptance(a -> a.withCheck(next)));
    } catch (ColumnException | QuantityException e) {
      throw new QuantityException(Sentence.capital(e.getMessage()) + ". Nothing was pasted.");
    }
  }

  private void showNodes() {
    int i = grid.selectedRow();
    if (i < 0 || !isRow(i)) {
      nodes.setText(rows.isEmpty() ? "" : "Select a row to see what every test point should read.");
      return;
    }
    List<TestPoint> points = desk.analysis().design().path().orElseThrow().points();
    var words =
        new StringBuilder(
            "At " + desk.analysis().design().amount(rows.get(i).applied()) + " expect ");
    for (int k = 0; k < rows.get(i).expectedNodes().size(); k++) {
      if (k > 0) words.append(", ");
      words
          .append("TP")
          .append(k + 1)
          .append(" = ")
          .append(
              Numbers.engineering(
                  rows.get(i).expectedNodes().get(k), points.get(k).unit().symbol(), 5));
    }
    words.append('.');
    desk.live()
        .now()
        .filter(LiveReading::read)
        .ifPresent(r -> words.append(beside(r, rows.get(i))));
    nodes.setText(words.toString());
  }

  /** The row that is chosen takes it, or else the first that is not measured. */
  @Override
  public boolean live(LiveReading r) {
    int row = grid.selectedRow();
    if (row < 0 || row >= sheet().points().size()) {
      row = 0;
      while (row < sheet().points().size() && sheet().points().get(row).measured() != null) row++;
    }
    if (row >= sheet().points().size()) {
      throw new QuantityException("There is no check input that is not measured yet");
    }
    Measured as = sheet().measured();
    if (!as.ofSensor()) r.requireConverter();
    Converter k = desk.channel().orElseThrow().design().converter();
    takeMeasured(
        row,
        switch (as) {
          case VOLTS -> r.value(k.step()).typed();
          case COUNTS -> String.valueOf(k.code(r.volts()));
          case READING -> Numbers.fixed(r.quantity(), decimals() + 1);
          case OHMS, MILLIAMPERES -> r.value(as.raw().orElseThrow()).typed();
        });
    return true;
  }

  /** What a meter reads beside what the chosen input expects. */
  private String beside(LiveReading r, CheckRow row) {
    double step = desk.channel().orElseThrow().design().converter().step();
    return switch (r.unit()) {
      case OHMS -> ofSensor(r, row.expected(Measured.OHMS));
      case MILLIAMPERES -> ofSensor(r, row.expected(Measured.MILLIAMPERES));
      case VOLTS, COUNTS ->
          r.place().kind() == Place.Kind.SIGNAL_AT_RECEIVER
              ? " The meter reads %s V, %s mV off."
                  .formatted(
                      r.value(step).typed(),
                      Numbers.signed(1000 * (r.volts() - row.expectedNodes().getLast()), 1))
              // What is expected between the two ends is not worked out here.
              : " The meter reads %s.".formatted(r.says(desk.analysis()));
    };
  }

  private static String ofSensor(LiveReading r, double expected) {
    return " The meter reads %s, %s off."
        .formatted(r.unit().amount(r.raw()), r.unit().signed(r.raw() - expected));
  }

  @Override
  public void live() {
    showNodes();
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
    rows = a.acceptance().rows();
    measured.offer(offered(c));
    measured.show(c.acceptance().check().measured());
    measured.setDisable(!desk.editable());
    five.setDisable(!desk.editable());
    grid.editable(desk.editable());
    boolean path = a.design().path().isPresent();
    grid.show(path ? c.acceptance().check().points().size() + (desk.editable() ? 1 : 0) : 0);
    String u = c.definition().unit();
    var columns = grid.table().getColumns();
    columns.get(0).setText("applied " + u);
    Measured as = c.acceptance().check().measured();
    String before = as.raw().map(MeasuringCaution::before).orElse("");
    caution.setText(before);
    caution.setVisible(!before.isEmpty());
    caution.setManaged(!before.isEmpty());
    columns.get(1).setText("expected " + (as.ofSensor() ? measuredUnit().symbol() : "V"));
    columns.get(3).setText("should read " + u);
    columns
        .get(4)
        .setText(
            "measured "
                + (c.acceptance().check().measured() == Measured.READING
                    ? u
                    : measuredUnit().symbol()));
    columns.get(5).setText("error " + u);
    double tolerance = c.definition().toleranceOrNaN();
    paper.note(
        !path
            ? "define the sensor first"
            : Double.isNaN(tolerance)
                ? "no tolerance is stated in Define"
                : "tolerance ±%s %s, simple acceptance"
                    .formatted(Numbers.trimmed(tolerance, 3), u));
    verdict.getChildren().clear();
    if (!rows.isEmpty() && a.acceptance().verdict() != Verdict.OPEN) {
      var text = new Label(a.acceptance().verdict() == Verdict.PASS ? "all inputs pass" : "fails");
      text.getStyleClass().addAll("strong", style(a.acceptance().verdict()));
      verdict.getChildren().addAll(StateSign.of(a.acceptance().verdict()), text);
    }
    List<CheckRow> entered = rows.stream().filter(r -> !Double.isNaN(r.measured())).toList();
    plot.setVisible(!entered.isEmpty());
    plotPaper.note(
        entered.isEmpty()
            ? "enter measured values: their errors appear here"
            : "tolerance as a band");
    if (!entered.isEmpty()) plot.show(plotOf(a, entered));
    showNodes();
    probe();
  }

  private static Plot plotOf(Analysis a, List<CheckRow> entered) {
    Channel c = a.channel();
    double tolerance = c.definition().toleranceOrNaN();
    double worst = entered.stream().mapToDouble(r -> Math.abs(r.error())).max().orElse(0);
    double half = 1.2 * Math.max(worst, Double.isNaN(tolerance) ? 0 : 1.25 * tolerance);
    if (!(half > 0)) half = 1e-9;
    Span working = c.definition().working();
    Axis x =
        new Axis(
            "applied, " + c.definition().unit(), Axis.padded(working.low(), working.high(), 0.03));
    var layers = new ArrayList<Layer>();
    if (!Double.isNaN(tolerance)) {
      layers.add(new Layer.Across(Role.TOLERANCE, new Span(-tolerance, tolerance)));
    }
    layers.add(
        new Layer.Line(
            Role.QUIET, new double[] {x.span().low(), x.span().high()}, new double[] {0, 0}, 0));
    for (Verdict v : Verdict.values()) {
      List<CheckRow> of = entered.stream().filter(r -> r.verdict() == v).toList();
      if (of.isEmpty()) continue;
      Role role = v == Verdict.PASS ? Role.PASS : v == Verdict.FAIL ? Role.FAIL : Role.OTHER;
      layers.add(
          new Layer.Points(
              role,
              of.stream().mapToDouble(CheckRow::applied).toArray(),
              of.stream().mapToDouble(CheckRow::error).toArray()));
    }
    return new Plot(x, new Axis("error, " + c.definition().unit(), new Span(-half, half)), layers);
  }

  @Override
  public void probe() {
    plot.dark(desk.dark());
    plot.probe(desk.probe(), x -> Double.NaN);
  }
}
