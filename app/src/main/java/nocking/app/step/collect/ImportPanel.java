package nocking.app.step.collect;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.app.control.Column;
import nocking.app.control.DropDown;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.desk.Desk;
import nocking.book.exchange.ColumnException;
import nocking.book.exchange.ColumnFile;
import nocking.book.exchange.PointsCsv;
import nocking.channel.Channel;
import nocking.points.PointSet;
import nocking.points.RawUnit;
import nocking.points.ReferencePoint;

/** Shows what was recognised in a file before anything of it is taken. */
final class ImportPanel extends VBox {
  private static final int SHOWN = 200;

  private final Desk desk;
  private final Runnable close;
  private final Paper paper = new Paper("Import");
  private final Label recognised = Paper.caption("");
  private final Label problem = new Label();
  private final ComboBox<String> applied = new DropDown<>();
  private final ComboBox<String> reading = new DropDown<>();
  private final Button take = new Button("Import");
  private ColumnFile file;
  private final UnaryOperator<List<ReferencePoint>> asSaid;
  private List<ReferencePoint> ready = List.of();
  private RawUnit raw = RawUnit.VOLTS;

  /**
   * @param asSaid makes totals of what was read where it is steps
   */
  ImportPanel(Desk desk, UnaryOperator<List<ReferencePoint>> asSaid, Runnable close) {
    this.desk = desk;
    this.asSaid = asSaid;
    this.close = close;
    setId("import-panel");
    VBox.setVgrow(this, Priority.ALWAYS);
    VBox.setVgrow(paper, Priority.ALWAYS);
    recognised.setId("import-recognised");
    problem.setId("import-problem");
    problem.getStyleClass().add("text-fail");
    problem.setWrapText(true);
    applied.setId("import-applied");
    applied.setAccessibleText("Column of the applied value");
    reading.setId("import-reading");
    reading.setAccessibleText("Column of the readings");
    applied.setOnAction(e -> prepare());
    reading.setOnAction(e -> prepare());
    take.setId("import-take");
    take.getStyleClass().add("primary");
    take.setOnAction(e -> take());
    var cancel = new Button("Cancel");
    cancel.setId("import-cancel");
    cancel.setOnAction(e -> close.run());
    var choice = new HBox(8, new Label("Applied"), applied, new Label("Readings"), reading);
    choice.setAlignment(Pos.CENTER_LEFT);
    paper.getChildren().addAll(recognised, choice, problem, new HBox(8, take, cancel));
    getChildren().add(paper);
  }

  void show(ColumnFile read) {
    file = null;
    paper.title("Import " + read.source());
    recognised.setText("Recognised: " + read.says() + ".");
    Channel c = desk.channel().orElseThrow();
    PointsCsv.Mapping guess = PointsCsv.guess(read, c);
    applied.getItems().setAll(read.header());
    applied.getSelectionModel().select(guess.applied());
    var choices = new ArrayList<String>();
    if (guess.readings().size() > 1) choices.add(ALL);
    choices.addAll(read.header());
    reading.getItems().setAll(choices);
    if (guess.readings().isEmpty()) reading.getSelectionModel().clearSelection();
    else if (guess.readings().size() > 1) reading.getSelectionModel().select(ALL);
    else reading.getSelectionModel().select(read.header().get(guess.readings().getFirst()));
    paper.getChildren().removeIf(n -> n instanceof Grid);
    Grid preview = preview(read);
    VBox.setVgrow(preview, Priority.ALWAYS);
    paper.getChildren().add(preview);
    file = read;
    prepare();
  }

  private static final String ALL = "all others";

  private static Grid preview(ColumnFile read) {
    var columns = new ArrayList<Column>();
    columns.add(Column.shown("row", 40, true, i -> String.valueOf(read.rows().get(i).line())));
    for (int k = 0; k < read.header().size(); k++) {
      int column = k;
      String unit =
          k < read.units().size() && !read.units().get(k).isBlank()
              ? ", " + read.units().get(k)
              : "";
      columns.add(
          Column.shown(
              read.header().get(k) + unit, 90, true, i -> read.text(read.rows().get(i), column)));
    }
    var grid = new Grid("import-preview", "", columns, i -> false);
    grid.editable(false);
    grid.show(Math.min(SHOWN, read.rows().size()));
    return grid;
  }

  private void prepare() {
    if (file == null) return;
    Channel c = desk.channel().orElseThrow();
    ready = List.of();
    problem.setText("");
    try {
      PointsCsv.Mapping mapping = mapping(c);
      raw = PointsCsv.rawUnit(file, mapping, c.calibration().points().raw());
      if (!c.calibration().points().points().isEmpty() && raw != c.calibration().points().raw()) {
        throw new ColumnException(
            "%s holds %s, but the points here are in %s"
                .formatted(
                    file.source(),
                    raw.unit().symbol(),
                    c.calibration().points().raw().unit().symbol()));
      }
      ready = asSaid.apply(PointsCsv.read(file, mapping, c.unit(), raw));
    } catch (ColumnException e) {
      problem.setText(e.getMessage() + ".");
    }
    take.setText(
        ready.isEmpty()
            ? "Import"
            : "Import %d point%s".formatted(ready.size(), ready.size() == 1 ? "" : "s"));
    take.setDisable(ready.isEmpty());
  }

  private String takenIn(int points, int known) {
    String alike =
        known == 0 ? "" : " %d of them like points that were here already.".formatted(known);
    return "%d point%s from %s taken in.%s"
        .formatted(points, points == 1 ? "" : "s", file.source(), alike);
  }

  private PointsCsv.Mapping mapping(Channel c) {
    PointsCsv.Mapping guess = PointsCsv.guess(file, c);
    int x = Math.max(0, applied.getSelectionModel().getSelectedIndex());
    String chosen = reading.getValue();
    if (chosen == null) throw new ColumnException(file.source() + " has one column, expected two");
    List<Integer> readings =
        chosen.equals(ALL)
            ? IntStream.range(0, file.header().size())
                .filter(i -> i != x && i != guess.direction() && i != guess.leftOut())
                .boxed()
                .toList()
            : List.of(file.header().indexOf(chosen));
    return new PointsCsv.Mapping(x, readings, guess.direction(), guess.leftOut());
  }

  private void take() {
    List<ReferencePoint> points = ready;
    RawUnit unit = raw;
    int known = desk.channel().orElseThrow().calibration().points().holds(points);
    if (known == points.size()) {
      String all = known == 1 ? "The one point of %s is" : "All %d points of %s are";
      String which =
          known == 1 ? all.formatted(file.source()) : all.formatted(known, file.source());
      desk.say(which + " here already; nothing was taken in.", true);
      close.run();
      return;
    }
    boolean done =
        desk.edit(
            "import %d points".formatted(points.size()),
            "",
            c ->
                c.calibration(
                    k ->
                        k.withPoints(
                            new PointSet(unit, c.calibration().points().points()).plus(points))));
    if (done) desk.say(takenIn(points.size(), known), false);
    close.run();
  }
}
