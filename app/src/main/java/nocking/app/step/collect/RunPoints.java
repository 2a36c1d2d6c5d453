package nocking.app.step.collect;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.Column;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.desk.BenchRuns;
import nocking.app.desk.Desk;
import nocking.fit.Curve;
import nocking.quantity.Numbers;
import nocking.run.RunPlan;
import nocking.run.RunPoint;
import nocking.run.RunProgress;
import nocking.run.RunSnapshot;
import nocking.run.StoredRun;
import nocking.run.Target;

/** The points of the run under way, or of the newest one, those to come among them. */
final class RunPoints {
  /** A line: a point that is done with, or one to come. */
  private record Row(int number, Target target, RunPoint point, String superseded, boolean now) {}

  private final Desk desk;
  private final Grid grid;
  private final Paper paper;
  private List<Row> rows = List.of();
  private RunPlan plan;
  private int channel;
  private int shownAt = -1;
  private Analysis shownFor;
  private final Button takeOver = new Button("Take over");
  private StoredRun over;

  RunPoints(Desk desk) {
    this.desk = desk;
    grid =
        new Grid(
            "run-points",
            "No run yet. Choose the instruments on the left and begin.",
            List.of(
                Column.shown("#", 34, true, i -> String.valueOf(rows.get(i).number)),
                Column.shown("applied", 84, true, this::applied),
                Column.shown("mean", 84, true, this::mean),
                Column.shown("s", 70, true, this::deviation),
                Column.shown("dir", 50, false, i -> rows.get(i).target.down() ? "down" : "up"),
                Column.shown("error", 160, false, this::error)),
            i -> rows.get(i).point == null || !rows.get(i).superseded.isEmpty());
    grid.editable(false);
    VBox.setVgrow(grid, Priority.ALWAYS);
    takeOver.setId("run-take-over");
    takeOver.setOnAction(e -> desk.runs().takeOver(over));
    paper = new Paper("Points of the run", grid).corner(takeOver);
    paper.setMinHeight(130);
  }

  Node node() {
    return paper;
  }

  void refresh() {
    String id = desk.channel().orElseThrow().id();
    BenchRuns runs = desk.runs();
    List<StoredRun> ofPoints =
        runs.over(id).stream().filter(r -> r.plan().procedure() == null).toList();
    over = ofPoints.stream().findFirst().orElse(null);
    boolean offered =
        over != null && !runs.running() && runs.waiting(id).isEmpty() && lacks(over.id());
    takeOver.setVisible(offered);
    takeOver.setManaged(offered);
    takeOver.setDisable(!desk.editable());
    Optional<StoredRun> stored =
        runs.waiting(id)
            .filter(r -> r.plan().procedure() == null)
            .or(() -> ofPoints.stream().findFirst());
    boolean live = runs.now().map(n -> n.plan().procedure() == null).orElse(false);
    if (runs.reads(id) && live) {
      RunSnapshot n = runs.now().orElseThrow();
      show(n.plan(), id, rows(n.targets(), n.points(), n.superseded(), n.next()));
    } else if (stored.isPresent()) {
      RunProgress p = stored.get().progress();
      var superseded = new ArrayList<String>();
      for (int i = 0; i < p.points().size(); i++) superseded.add(p.superseded(i));
      show(stored.get().plan(), id, rows(p.targets(), p.points(), superseded, p.next()));
    } else {
      rows = List.of();
      paper.note("");
      grid.show(0);
    }
  }

  /** True where the channel has none of the points of a run. */
  private boolean lacks(String run) {
    return desk.channel().orElseThrow().calibration().points().points().stream()
        .noneMatch(p -> p.taken() != null && p.taken().run().equals(run));
  }

  private static List<Row> rows(
      List<Target> targets, List<RunPoint> points, List<String> superseded, int next) {
    var list = new ArrayList<Row>();
    for (int i = 0; i < points.size(); i++) {
      RunPoint p = points.get(i);
      list.add(new Row(p.target() + 1, targets.get(p.target()), p, superseded.get(i), false));
    }
    for (int i = next; i < targets.size(); i++) {
      list.add(new Row(i + 1, targets.get(i), null, "", i == next));
    }
    return list;
  }

  private void show(RunPlan plan, String id, List<Row> now) {
    // A sweep that completes nothing changes nothing here.
    if (now.equals(rows) && plan.equals(this.plan) && desk.analysis() == shownFor) return;
    shownFor = desk.analysis();
    this.plan = plan;
    channel = BenchRuns.place(plan, id);
    rows = now;
    var columns = grid.table().getColumns();
    columns.get(1).setText(("applied " + plan.unit()).strip());
    String raw = plan.channels().get(channel).raw().unit().symbol();
    columns.get(2).setText("mean " + raw);
    columns.get(5).setText(("error " + plan.unit()).strip());
    paper.note("%s · %s".formatted(plan.title(), plan.purpose().title()));
    grid.show(rows.size());
    int here = (int) now.stream().filter(r -> r.point != null).count();
    if (here != shownAt) grid.table().scrollTo(Math.max(0, here - 1));
    shownAt = here;
  }

  private List<Double> readings(int i) {
    RunPoint p = rows.get(i).point;
    return p == null ? List.of() : p.readings().get(channel);
  }

  private String applied(int i) {
    Row r = rows.get(i);
    // A pour may become an eighth of what was planned.
    int share = plan.kind() == RunPlan.Kind.POURS ? 100 : 10;
    int decimals = Numbers.decimalsFor(plan.band() / share);
    return r.point == null
        ? Numbers.trimmed(r.target.setPoint(), 6)
        : Numbers.fixed(r.point.applied(), decimals);
  }

  private String mean(int i) {
    return readings(i).isEmpty() ? "" : Numbers.fixed(rows.get(i).point.mean(channel), 4);
  }

  private String deviation(int i) {
    if (readings(i).size() < 2) return "";
    return Numbers.fixed(rows.get(i).point.standardDeviation(channel), 5);
  }

  private String error(int i) {
    Row r = rows.get(i);
    if (r.point == null) return r.now ? "under way" : "";
    if (!r.superseded.isEmpty()) return r.superseded;
    if (r.point.how() == RunPoint.How.SKIPPED) return "skipped";
    if (readings(i).isEmpty()) return "no reading";
    String not = r.point.how() == RunPoint.How.NOT_SETTLED ? ", not settled" : "";
    Optional<Curve> curve = desk.analysis().calibration().curve();
    double volts =
        desk.analysis()
            .calibration()
            .scaleOf(plan.channels().get(channel).raw())
            .map(k -> k.volts(r.point.mean(channel)))
            .orElse(Double.NaN);
    return curve
            .filter(c -> Double.isFinite(volts))
            .map(
                c ->
                    Numbers.signed(
                        c.quantity(volts) - r.point.applied(),
                        desk.analysis().design().decimals() + 1))
            .orElse("–")
        + not;
  }
}
