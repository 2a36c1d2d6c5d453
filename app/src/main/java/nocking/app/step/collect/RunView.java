package nocking.app.step.collect;

import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import javafx.scene.Node;
import javafx.scene.control.ButtonBase;
import javafx.scene.control.ComboBoxBase;
import javafx.scene.control.Label;
import javafx.scene.control.TextInputControl;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.app.control.Paper;
import nocking.app.control.WheelScroll;
import nocking.app.desk.BenchRuns;
import nocking.app.desk.Desk;
import nocking.channel.Hazard;
import nocking.diagnosis.MeasuringCaution;
import nocking.quantity.Unit;
import nocking.run.RunPlan;
import nocking.run.RunSnapshot;

/** A run: its plan, what the hands must do now, how it settles, and the points that came of it. */
final class RunView {
  private static final double FORM = 282;
  private static final long FOLLOW = 250_000_000;

  private final Desk desk;
  private final RunForm form;
  private final RunOffer offer;
  private final RunCue cue;
  private final TraceView trace = new TraceView();
  private final Paper tracePaper = new Paper("How it settles", trace);
  private final RunPoints points;
  private final JobPanel job;
  private final Label caution = Paper.caption("");
  private final HBox root;
  private long followed;

  RunView(Desk desk, Region looks) {
    this.desk = desk;
    cue = new RunCue(desk);
    form = new RunForm(desk, looks, this::planned, cue::takeKeys);
    offer = new RunOffer(desk, form::plan, cue::takeKeys);
    points = new RunPoints(desk);
    job = new JobPanel(desk);
    VBox.setVgrow(trace, Priority.ALWAYS);
    tracePaper.setMinHeight(142);
    tracePaper.setPrefHeight(156);
    VBox.setVgrow(points.node(), Priority.ALWAYS);
    caution.setId("run-caution");
    caution.getStyleClass().add("caution-line");
    caution.setMinHeight(Region.USE_PREF_SIZE);
    caution.setMaxWidth(Double.MAX_VALUE);
    var right = new VBox(12, offer, cue, caution, tracePaper, points.node(), job.node());
    HBox.setHgrow(right, Priority.ALWAYS);
    var left = WheelScroll.of(form.node());
    left.setMinWidth(FORM);
    left.setMaxWidth(FORM);
    root = new HBox(12, left, right);
    root.addEventHandler(KeyEvent.KEY_PRESSED, this::record);
  }

  /** Space records or says that hands are done, unless it goes into a field or presses a button. */
  private void record(KeyEvent e) {
    boolean taken =
        e.getTarget() instanceof TextInputControl
            || e.getTarget() instanceof ButtonBase
            || e.getTarget() instanceof ComboBoxBase;
    if (e.getCode() != KeyCode.SPACE || taken || !desk.runs().running()) return;
    cue.go();
    e.consume();
  }

  Node node() {
    return root;
  }

  void switched() {
    form.switched();
  }

  void refresh() {
    form.refresh();
    news();
  }

  /** What to heed where the work is done: of the procedure, the bench and the channel. */
  private void warn() {
    var list = new ArrayList<String>();
    form.plan().map(RunPlan::procedure).ifPresent(p -> list.add(p.caution()));
    form.plan().stream()
        .flatMap(p -> p.channels().stream())
        .map(c -> MeasuringCaution.before(c.meter().stands()))
        .distinct()
        .forEach(list::add);
    form.scene().ifPresent(s -> list.add(s.caution()));
    List<Hazard> hazards = desk.channel().orElseThrow().definition().hazards();
    if (form.scene().isEmpty()) hazards.forEach(h -> list.add(h.caution()));
    String all = list.stream().filter(c -> !c.isEmpty()).collect(Collectors.joining(" "));
    caution.setText(all);
    caution.setVisible(!all.isEmpty());
    caution.setManaged(!all.isEmpty());
  }

  /** The run has gone on. */
  void news() {
    String id = desk.channel().orElseThrow().id();
    BenchRuns runs = desk.runs();
    form.news();
    offer.refresh();
    cue.refresh();
    boolean reads = runs.reads(id);
    // What is typed is one number, and has settled in the eye of who reads it.
    boolean settles = reads && !runs.now().orElseThrow().plan().typed();
    tracePaper.setVisible(settles);
    tracePaper.setManaged(settles);
    if (settles) drawTrace(id);
    if (reads && runs.running()) follow();
    results();
  }

  /** What is planned is another: so are its cautions and what was done of its kind. */
  private void planned() {
    if (desk.channel().isEmpty()) return;
    warn();
    results();
  }

  private void results() {
    boolean procedure = job.refresh();
    points.node().setVisible(!procedure);
    points.node().setManaged(!procedure);
    if (!procedure) points.refresh();
  }

  /** The probe goes where the reference is, a few times a second. */
  private void follow() {
    RunSnapshot now = desk.runs().now().orElseThrow();
    long at = System.nanoTime();
    if (now.last().isEmpty() || at - followed < FOLLOW) return;
    followed = at;
    double applied = now.last().get().applied();
    if (!Double.isFinite(applied) || now.plan().kind() == RunPlan.Kind.PROCEDURE) return;
    Unit unit = desk.channel().orElseThrow().unit();
    desk.probe(Unit.of(now.plan().unit()).convert(applied, unit));
  }

  private void drawTrace(String id) {
    RunSnapshot now = desk.runs().now().orElseThrow();
    RunPlan plan = now.plan();
    int channel = BenchRuns.place(plan, id);
    tracePaper.note(
        "%s, %s"
            .formatted(
                plan.channels().get(channel).tag(), trace.says(plan.channels().get(channel))));
    trace.show(desk.runs().trace().orElseThrow(), now, channel);
  }
}
