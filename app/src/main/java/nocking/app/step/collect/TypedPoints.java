package nocking.app.step.collect;

import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.function.ToDoubleFunction;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.analysis.LiveReading;
import nocking.analysis.SummedPoints;
import nocking.app.control.Column;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.control.Segments;
import nocking.app.control.WheelScroll;
import nocking.app.desk.Background;
import nocking.app.desk.Desk;
import nocking.app.step.BlockPaste;
import nocking.app.step.Files;
import nocking.app.step.InHand;
import nocking.book.exchange.ColumnException;
import nocking.book.exchange.ColumnFile;
import nocking.channel.Channel;
import nocking.converter.Converter;
import nocking.diagnosis.MeasuringCaution;
import nocking.points.Increments;
import nocking.points.PointSet;
import nocking.points.PointSum;
import nocking.points.RawScale;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Sentence;
import nocking.quantity.Value;

/** Reference points that are typed, pasted or imported, and those that came of runs. */
final class TypedPoints {
  private static final String STAYS =
      "A point that is left out stays in the record with its reason.";

  private final Desk desk;
  private final Files files;
  private final Grid grid;
  private final Segments<RawUnit> raw;
  private final Label readAs = new Label("Read as");
  private final Label caution = Paper.caption("");
  private final Segments<Boolean> appliedAs;
  private final InHand<Boolean> steps;
  private final Paper pointsPaper;
  private final TextField reason = new TextField();
  private final InHand.Field because;
  private final Button leave = new Button("Leave out");
  private final Button bring = new Button("Bring back");
  private final Button remove = new Button("Remove row");
  private final Button load = new Button("Import CSV…");
  private final TextField sumOf = new TextField();
  private final InHand.Field partsOfSum;
  private final Button addUp = new Button("Add up");
  private final Label sumOfOthers =
      Paper.caption("Or the sum of channels that were read together:");
  private final HBox sumRow = new HBox(6, sumOf, addUp);
  private final Label sums = Paper.caption("");
  private final Label why = Paper.caption("");
  private final VBox right = new VBox(12);
  private final ImportPanel importPanel;
  private final HBox root;

  /**
   * @param looks chooses among the parts of the stage
   */
  TypedPoints(Desk desk, Files files, Region looks) {
    this.desk = desk;
    this.files = files;
    steps = new InHand<>(desk, false);
    because = InHand.of(desk, reason);
    partsOfSum = InHand.of(desk, sumOf);
    importPanel = new ImportPanel(desk, p -> asSaid(p, set().points().size()), this::closeImport);
    appliedAs =
        new Segments<>(
            "applied-as",
            List.of(false, true),
            each -> each ? "steps" : "total",
            each -> steps.set(each));
    appliedAs.show(false);
    appliedAs.setAccessibleHelp(
        "Total: what was applied in all. Steps: what each pour or block added; they are added up.");
    raw = new Segments<>("raw", List.of(RawUnit.values()), RawUnit::brief, this::takeRaw);
    grid =
        new Grid(
                "points",
                "No reference points yet. Type the first one below, paste a block, or import a file.",
                List.of(
                    Column.shown("#", 28, true, this::number),
                    Column.typed("applied", 74, true, this::applied, this::takeApplied),
                    Column.typed("readings", 184, true, this::readings, this::takeReadings),
                    Column.shown("mean", 68, true, i -> statistic(i, p -> p.mean(), 0)),
                    Column.shown("s", 74, true, i -> statistic(i, p -> p.standardDeviation(), 1)),
                    Column.typed("dir", 46, false, this::direction, this::takeDirection),
                    Column.shown("error", 70, true, this::error)),
                this::isQuiet)
            .onPaste(BlockPaste.said(desk, this::paste))
            .onDelete(this::removeRow);
    grid.table().widthProperty().addListener((o, before, width) -> columnsFor(width.doubleValue()));
    grid.table().getSelectionModel().selectedIndexProperty().addListener(o -> actions());
    caution.setId("points-caution");
    caution.getStyleClass().add("caution-line");
    caution.setMaxWidth(Double.MAX_VALUE);
    pointsPaper = new Paper("Reference points", caution, grid, sums);
    VBox.setVgrow(grid, Priority.ALWAYS);
    VBox.setVgrow(pointsPaper, Priority.ALWAYS);
    HBox.setHgrow(right, Priority.ALWAYS);
    right.getChildren().add(pointsPaper);

    load.setId("collect-import");
    load.getStyleClass().add("primary");
    load.setOnAction(
        e -> files.toOpen("Column file", "*.csv", "*.txt", "*.tsv").ifPresent(this::open));
    sumOf.setId("points-sum");
    sumOf.setPromptText("SP-V1 + SP-V2");
    sumOf.setAccessibleText("Channels that were read together, whose readings are added up");
    sumOf.setOnAction(e -> addUp());
    addUp.setId("points-add-up");
    addUp.setMinWidth(Region.USE_PREF_SIZE);
    addUp.setOnAction(e -> addUp());
    addUp.disableProperty().bind(sumOf.textProperty().isEmpty());
    HBox.setHgrow(sumOf, Priority.ALWAYS);
    reason.setId("leave-reason");
    reason.setPromptText("because …");
    reason.setAccessibleText("Reason for leaving the point out");
    reason.textProperty().addListener(o -> actions());
    leave.setId("leave-out");
    leave.setOnAction(e -> leaveOut());
    bring.setId("bring-back");
    bring.setOnAction(
        e -> change(grid.selectedRow(), "bring the point back", p -> p.withLeftOut(null)));
    remove.setId("remove-row");
    remove.setOnAction(e -> removeRow(grid.selectedRow()));
    raw.setAccessibleText("Read as");
    var rawRow = new HBox(8, readAs, raw);
    rawRow.setAlignment(Pos.CENTER_LEFT);
    var appliedRow = new HBox(8, new Label("Applied"), appliedAs);
    appliedRow.setAlignment(Pos.CENTER_LEFT);
    var left =
        new Paper(
            "",
            rawRow,
            appliedRow,
            Paper.caption(
                "Several readings of one point go into one cell, set apart by semicolons. Mean and"
                    + " standard deviation follow."),
            Paper.subtitle("From a file or a spreadsheet"),
            load,
            Paper.caption(
                "Or copy a block in a spreadsheet and paste it into the table: applied first, then"
                    + " one or more readings."),
            sumOfOthers,
            sumRow,
            Paper.subtitle("The selected point"),
            reason,
            new FlowPane(6, 6, leave, bring, remove),
            why);
    left.head(looks);
    var leftScroll = WheelScroll.of(left);
    leftScroll.setMinWidth(226);
    leftScroll.setMaxWidth(226);
    root = new HBox(12, leftScroll, right);
  }

  /** A narrow window keeps what is typed and shows fewer statistics. */
  private void columnsFor(double width) {
    grid.table().getColumns().get(4).setVisible(width > NARROW);
    grid.table().getColumns().get(5).setVisible(width > NARROW);
  }

  private PointSet set() {
    return desk.channel().orElseThrow().calibration().points();
  }

  private boolean isRow(int i) {
    return i < set().points().size();
  }

  private ReferencePoint point(int i) {
    return set().points().get(i);
  }

  private String number(int i) {
    return isRow(i) ? String.valueOf(i + 1) : "+";
  }

  private String applied(int i) {
    return isRow(i) ? point(i).applied().typed() : "";
  }

  private String readings(int i) {
    return isRow(i) ? point(i).typedReadings() : "";
  }

  private String direction(int i) {
    return isRow(i) ? (point(i).down() ? "down" : "up") : "";
  }

  private boolean isQuiet(int i) {
    return !isRow(i) || point(i).leftOut() != null;
  }

  /** Digits of a reading are the converter's; a spread gets one more. */
  private String statistic(int i, ToDoubleFunction<ReferencePoint> of, int more) {
    if (!isRow(i)) return "";
    double v = of.applyAsDouble(point(i));
    if (Double.isNaN(v)) return "";
    return switch (set().raw()) {
      case COUNTS -> Numbers.fixed(v, 1 + more);
      case VOLTS ->
          Numbers.fixed(
              v,
              Numbers.decimalsFor(desk.channel().orElseThrow().design().converter().step())
                  - 1
                  + more);
      case OHMS, MILLIAMPERES -> Numbers.trimmed(v, more == 0 ? 6 : 2);
    };
  }

  private String error(int i) {
    if (!isRow(i) || point(i).readings().isEmpty()) return "";
    if (point(i).leftOut() != null) return "left out";
    Analysis a = desk.analysis();
    return a.calibration()
        .curve()
        .map(
            c ->
                Numbers.signed(
                    c.quantity(a.calibration().volts(point(i))) - point(i).applied().number(),
                    a.design().decimals() + 1))
        .orElse("");
  }

  private void change(int i, String what, UnaryOperator<ReferencePoint> how) {
    if (i < 0 || !isRow(i)) return;
    desk.edit(
        what,
        "",
        c ->
            c.calibration(
                k ->
                    k.withPoints(
                        c.calibration()
                            .points()
                            .with(i, how.apply(c.calibration().points().points().get(i))))));
  }

  private void takeApplied(int i, String text) {
    Value v = Value.typed(text, desk.channel().orElseThrow().unit());
    if (isRow(i)) change(i, "change applied value", p -> p.withApplied(v));
    else append(asSaid(List.of(ReferencePoint.of(v)), i).getFirst());
  }

  /**
   * What is new in the table: as it is, or as totals where each step was written down by itself.
   *
   * @param row at which it will stand; the total goes on from the row above
   */
  private List<ReferencePoint> asSaid(List<ReferencePoint> points, int row) {
    if (!steps.get()) return points;
    double start = row == 0 ? 0 : point(row - 1).applied().number();
    return Increments.totals(points, start);
  }

  /** How many other channels have points that might be read together with this one's. */
  private long others(Channel own) {
    return desk.book().channels().stream()
        .filter(c -> !c.id().equals(own.id()) && !c.calibration().points().points().isEmpty())
        .filter(c -> c.unit().dimension().equals(own.unit().dimension()))
        .count();
  }

  /** Points of other channels, added up; those that are here already come once. */
  private void addUp() {
    String tags = sumOf.getText();
    if (tags.isBlank()) return;
    try {
      addUp(tags, SummedPoints.of(desk.book(), tags, desk.channel().orElseThrow()));
    } catch (QuantityException e) {
      desk.say(Sentence.capital(e.getMessage()) + ". The points are as they were.", true);
    }
  }

  private void addUp(String tags, PointSum sum) {
    List<ReferencePoint> points = sum.points().points();
    int known = set().holds(points);
    if (known == points.size()) {
      throw new QuantityException("all %d points are here already".formatted(known));
    }
    boolean done =
        desk.edit(
            "add up " + tags.strip(),
            "",
            c ->
                c.calibration(
                    k ->
                        k.withPoints(
                            new PointSet(sum.points().raw(), c.calibration().points().points())
                                .plus(points))));
    if (!done) return;
    sumOf.clear();
    desk.say(SummedPoints.says(sum, known) + ".", false);
  }

  private void append(ReferencePoint p) {
    desk.edit(
        "add a point",
        "",
        c -> c.calibration(k -> k.withPoints(c.calibration().points().plus(List.of(p)))));
  }

  /** The chosen point, or else the last one, takes a reading more. */
  boolean live(LiveReading r) {
    RawUnit raw = set().raw();
    if (!raw.ofSensor()) requireConverter(r);
    int chosen = grid.selectedRow();
    int row = chosen >= 0 && isRow(chosen) ? chosen : set().points().size() - 1;
    if (row < 0) throw new QuantityException("Type what is applied first; the reading goes there");
    Converter k = desk.channel().orElseThrow().design().converter();
    Value v =
        switch (raw) {
          case VOLTS -> r.value(k.step());
          case COUNTS -> Value.of(k.code(r.volts()));
          case OHMS, MILLIAMPERES -> r.value(raw);
        };
    var next = new ArrayList<>(point(row).readings());
    next.add(v);
    change(row, "take a reading", p -> p.withReadings(next));
    return true;
  }

  /** What a meter reads of the sensor itself has its own list. */
  private static void requireConverter(LiveReading r) {
    if (r.unit().ofSensor()) {
      throw new QuantityException(
          "The meter reads %s of the sensor itself; choose %s above the points first"
              .formatted(r.unit().title(), r.unit().title()));
    }
    r.requireConverter();
  }

  private void takeReadings(int i, String text) {
    List<Value> values = ReferencePoint.parseReadings(text, set().raw().unit());
    if (!isRow(i)) throw new QuantityException("type the applied value of this row first");
    change(i, "change readings", p -> p.withReadings(values));
  }

  private void takeDirection(int i, String text) {
    String t = text.strip().toLowerCase(Locale.ROOT);
    if (!t.equals("up") && !t.equals("down")) {
      throw new QuantityException("read '" + text + "', expected up or down");
    }
    change(i, "change direction", p -> p.withDown(t.equals("down")));
  }

  /**
   * Beside volts and counts what the sensor gives by itself, and what the points are in already.
   */
  private static List<RawUnit> offered(Channel c) {
    var list = new ArrayList<>(List.of(RawUnit.VOLTS, RawUnit.COUNTS));
    RawScale.own(c.design().sensor()).ifPresent(list::add);
    RawUnit now = c.calibration().points().raw();
    if (!list.contains(now)) list.add(now);
    return list;
  }

  private void takeRaw(RawUnit unit) {
    Channel c = desk.channel().orElseThrow();
    if (unit == c.calibration().points().raw()) return;
    desk.edit(
        "read points as " + unit.title(),
        "",
        ch ->
            ch.calibration(
                k -> k.withPoints(new PointSet(unit, ch.calibration().points().points()))));
    refresh();
  }

  private void leaveOut() {
    String why = reason.getText().strip();
    change(grid.selectedRow(), "leave the point out", p -> p.withLeftOut(why));
    reason.clear();
  }

  private boolean removeRow(int i) {
    if (i < 0 || !isRow(i)) return false;
    return desk.edit(
        "remove point " + (i + 1),
        "",
        c -> c.calibration(k -> k.withPoints(c.calibration().points().without(i))));
  }

  /** A block from a spreadsheet: into existing rows where it is put on them, else as new points. */
  private void paste(int row, int column, String text) {
    try {
      PointBlock block = PointBlock.of(text, column == READINGS, desk.channel().orElseThrow());
      List<ReferencePoint> pasted =
          column == READINGS
              ? block.points()
              : asSaid(block.points(), Math.min(row, set().points().size()));
      if (column == READINGS && row >= set().points().size()) {
        throw new QuantityException(
            "Readings need a point to belong to: paste the applied values with them, or enter those"
                + " first. Nothing was pasted.");
      }
      int before = set().points().size();
      int known = row >= before ? set().holds(pasted) : 0;
      boolean done =
          desk.edit(
              pasted.size() == 1 ? "paste a point" : "paste %d points".formatted(pasted.size()),
              "",
              c ->
                  c.calibration(
                      k -> k.withPoints(block.into(c.calibration().points(), row, pasted))));
      if (done) desk.say(block.says(before, row, known), false);
    } catch (ColumnException e) {
      throw new QuantityException(e.getMessage());
    }
  }

  private static final int READINGS = 2;
  private static final double NARROW = 440;

  private void open(Path file) {
    Background.run(() -> attempt(file), this::preview);
  }

  /** A file that was read, or the sentence why not. */
  private record Attempt(ColumnFile file, String problem) {}

  private static Attempt attempt(Path file) {
    try {
      return new Attempt(ColumnFile.read(file), "");
    } catch (ColumnException e) {
      return new Attempt(null, Sentence.capital(e.getMessage()) + ". The channel is as it was.");
    }
  }

  private void preview(Attempt read) {
    if (read.file == null) {
      desk.say(read.problem, true);
      return;
    }
    importPanel.show(read.file);
    right.getChildren().setAll(importPanel);
  }

  private void closeImport() {
    right.getChildren().setAll(pointsPaper);
  }

  private void actions() {
    if (desk.channel().isEmpty()) return;
    int i = grid.selectedRow();
    boolean row = i >= 0 && isRow(i) && desk.editable();
    boolean out = row && point(i).leftOut() != null;
    leave.setDisable(!row || out || reason.getText().isBlank());
    bring.setDisable(!out);
    remove.setDisable(!row);
    reason.setDisable(!row || out);
    why.setText(i >= 0 && isRow(i) ? standing(i) : STAYS);
  }

  /** Why a point counts or does not, where there is something to say. */
  private String standing(int i) {
    ReferencePoint p = point(i);
    if (p.leftOut() != null) {
      return "Point %d is left out because: %s".formatted(i + 1, p.leftOut());
    }
    return p.doubt().map(d -> "Point %d counts although %s".formatted(i + 1, d)).orElse(STAYS);
  }

  Node node() {
    return root;
  }

  void switched() {
    grid.clearWrong();
    grid.table().getSelectionModel().clearSelection();
    closeImport();
    appliedAs.show(steps.get());
    because.switched();
    partsOfSum.switched();
  }

  void refresh() {
    Channel c = desk.channel().orElseThrow();
    List<RawUnit> offered = offered(c);
    // With a third choice there is no room for words that say little.
    readAs.setVisible(offered.size() == 2);
    readAs.setManaged(offered.size() == 2);
    raw.offer(offered);
    raw.show(c.calibration().points().raw());
    String before = MeasuringCaution.before(c.calibration().points().raw());
    caution.setText(before);
    caution.setVisible(!before.isEmpty());
    caution.setManaged(!before.isEmpty());
    raw.setDisable(!desk.editable());
    load.setDisable(!desk.editable());
    boolean others = others(c) > 1;
    for (Node n : List.of(sumOfOthers, sumRow)) {
      n.setVisible(others);
      n.setManaged(others);
    }
    sumRow.setDisable(!desk.editable());
    grid.editable(desk.editable());
    grid.show(c.calibration().points().points().size() + (desk.editable() ? 1 : 0));
    var columns = grid.table().getColumns();
    columns.get(1).setText("applied " + c.definition().unit());
    columns.get(2).setText("readings " + c.calibration().points().raw().unit().symbol());
    columns.get(6).setText("error " + c.definition().unit());
    int all = c.calibration().points().points().size();
    int counting = c.calibration().points().counting().size();
    pointsPaper.note(
        all == 0
            ? ""
            : "%d of %d count; error against %s"
                .formatted(
                    counting,
                    all,
                    desk.analysis()
                        .calibration()
                        .curve()
                        .map(k -> k.title().toLowerCase(Locale.ROOT))
                        .orElse("nothing yet")));
    sums.setText(
        all == 0
            ? ""
            : "F2 or Enter edits, Tab goes on, Ctrl+V pastes a block, Delete removes the row, Ctrl+Z brings it back.");
    actions();
  }
}
