package nocking.app.step.collect;

import java.time.Instant;
import java.time.ZoneId;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.ColumnConstraints;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.analysis.JobAdoption;
import nocking.analysis.Jobs;
import nocking.app.control.Paper;
import nocking.app.control.StateSign;
import nocking.app.control.WheelScroll;
import nocking.app.desk.BenchRuns;
import nocking.app.desk.Desk;
import nocking.procedure.JobRecord;
import nocking.procedure.Procedure;
import nocking.procedure.Taken;
import nocking.run.RunPlan;
import nocking.run.StoredRun;

/** The record of a procedure as it grows, what can be taken over from it, and those before. */
final class JobPanel {
  private static final DateTimeFormatter WHEN = DateTimeFormatter.ofPattern("yyyy-MM-dd HH:mm");
  private static final int EARLIER = 6;

  private final Desk desk;
  private final Label says = new Label();
  private final GridPane lines = new GridPane(12, 3);
  private final FlowPane offers = new FlowPane(8, 6);
  private final Label earlierTitle = Paper.subtitle("Before");
  private final VBox earlier = new VBox(2);
  private final Paper paper;
  private JobRecord shown;
  private List<StoredRun> among = List.of();
  private List<Job> stored;
  private List<Object> offered = List.of();
  private List<String> earlierIds = List.of();

  JobPanel(Desk desk) {
    this.desk = desk;
    says.setId("job-says");
    says.setWrapText(true);
    says.setMinHeight(Region.USE_PREF_SIZE);
    lines.setId("job-lines");
    var what = new ColumnConstraints();
    what.setMinWidth(140);
    var value = new ColumnConstraints();
    var note = new ColumnConstraints();
    note.setHgrow(Priority.ALWAYS);
    lines.getColumnConstraints().addAll(what, value, note);
    var content = new VBox(8, says, lines, offers, earlierTitle, earlier);
    var scroll = WheelScroll.of(content);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    paper = new Paper("Record", scroll);
    paper.setMinHeight(130);
    VBox.setVgrow(paper, Priority.ALWAYS);
  }

  Node node() {
    return paper;
  }

  /** A procedure of which something is to be shown. */
  private record Job(
      String run, RunPlan plan, List<Taken> taken, boolean over, Optional<StoredRun> stored) {
    static Job of(StoredRun r) {
      return new Job(r.id(), r.plan(), r.progress().taken(), !r.unfinished(), Optional.of(r));
    }
  }

  /** The one under way; else the newest of the kind that is planned. */
  private Optional<Job> job() {
    String id = desk.channel().orElseThrow().id();
    BenchRuns runs = desk.runs();
    Optional<String> wanted = runs.draft(id).map(RunPlan::procedure).map(Procedure::title);
    Optional<Job> live =
        runs.now()
            .filter(n -> runs.reads(id))
            .map(n -> new Job(runs.id(), n.plan(), n.taken(), !runs.running(), Optional.empty()));
    if (runs.running() && live.isPresent()) {
      return live.filter(j -> j.plan.procedure() != null);
    }
    if (stored == null || !runs.all(id).equals(among)) {
      among = runs.all(id);
      stored = among.stream().filter(r -> r.plan().procedure() != null).map(Job::of).toList();
    }
    // What has just ended is not read from the book yet.
    return live.filter(j -> stored.stream().noneMatch(k -> k.run.equals(j.run)))
        .filter(j -> j.plan.procedure() != null && sort(j.plan).equals(wanted))
        .or(() -> stored.stream().filter(j -> sort(j.plan).equals(wanted)).findFirst());
  }

  private static Optional<String> sort(RunPlan plan) {
    return Optional.ofNullable(plan.procedure()).map(Procedure::title);
  }

  /** True where there is a procedure to show; false where set points are. */
  boolean refresh() {
    Optional<Job> job = job();
    paper.setVisible(job.isPresent());
    paper.setManaged(job.isPresent());
    if (job.isEmpty()) return false;
    Job j = job.get();
    paper.note(j.plan.title());
    JobRecord record =
        j.stored
            .map(r -> Jobs.record(r, desk.analysis()))
            .orElseGet(() -> Jobs.record(j.plan, j.taken, desk.analysis()));
    if (!record.equals(shown)) show(record);
    shown = record;
    offer(j);
    showEarlier(j);
    return true;
  }

  private void show(JobRecord record) {
    says.setText(record.says());
    says.setGraphic(StateSign.of(record.verdict()));
    lines.getChildren().clear();
    int row = 0;
    for (JobRecord.Line l : record.lines()) {
      lines.addRow(row++, label(l.what(), "caption"), label(l.value(), "mono"), note(l));
    }
  }

  private static Label label(String text, String style) {
    var l = new Label(text);
    l.getStyleClass().add(style);
    l.setMinWidth(Region.USE_PREF_SIZE);
    return l;
  }

  private static Label note(JobRecord.Line l) {
    Label note = label(l.note(), "caption");
    note.setWrapText(true);
    note.setMinWidth(60);
    return note;
  }

  private void offer(Job j) {
    Procedure p = j.plan.procedure();
    List<JobAdoption.Offer> all =
        j.over && desk.editable()
            ? JobAdoption.offers(p, j.taken, desk.analysis(), j.run)
            : List.of();
    List<String> labels = all.stream().map(JobAdoption.Offer::label).toList();
    offers.setVisible(!all.isEmpty());
    offers.setManaged(!all.isEmpty());
    // A button of another run or channel may have the same words, and not the same change.
    List<Object> of = List.of(j.run, labels, desk.analysis());
    if (of.equals(offered)) return;
    offered = of;
    offers.getChildren().clear();
    for (int i = 0; i < all.size(); i++) {
      JobAdoption.Offer o = all.get(i);
      var b = new Button(o.label());
      b.setId("job-offer-" + i);
      if (i == 0) b.getStyleClass().add("primary");
      b.setOnAction(e -> desk.edit(p.title(), "", o.change()));
      offers.getChildren().add(b);
    }
  }

  private void showEarlier(Job now) {
    String id = desk.channel().orElseThrow().id();
    List<StoredRun> before =
        desk.runs().over(id).stream()
            .filter(r -> r.plan().procedure() != null && !r.id().equals(now.run))
            .limit(EARLIER)
            .toList();
    earlierTitle.setVisible(!before.isEmpty());
    earlierTitle.setManaged(!before.isEmpty());
    List<String> ids = before.stream().map(StoredRun::id).toList();
    if (ids.equals(earlierIds)) return;
    earlierIds = ids;
    earlier.getChildren().setAll(before.stream().map(this::line).map(Paper::caption).toList());
  }

  private String line(StoredRun r) {
    String when = WHEN.format(Instant.ofEpochMilli(r.began()).atZone(ZoneId.systemDefault()));
    String says = Jobs.record(r, desk.analysis()).says();
    return "%s · %s · %s".formatted(when, r.plan().procedure().title(), says);
  }
}
