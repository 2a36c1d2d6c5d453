package nocking.app.step.collect;

import java.util.Optional;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.control.TextField;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.analysis.RunExpectation;
import nocking.app.control.EntryField;
import nocking.app.desk.BenchRuns;
import nocking.app.desk.Desk;
import nocking.procedure.Step;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Act;
import nocking.run.Outlook;
import nocking.run.RunChannel;
import nocking.run.RunPlan;
import nocking.run.RunProgress.Phase;
import nocking.run.RunSnapshot;
import nocking.run.SettleRule;
import nocking.run.Sweep;
import nocking.run.Target;

/** What the hands must do now, in large letters, with the value that is being waited for. */
final class RunCue extends VBox {
  /** What the frame of a cue takes on each side. */
  private static final double EDGE = 13;

  private final Desk desk;
  private final Label where = label("cue-text");
  private final Label what = label("cue-what");
  private final Label how = label("cue-text");
  private final Label value = label("cue-live");
  private final Label state = label("cue-value");
  private final Label expected = label("cue-text");
  private final Label warned = label("cue-text");
  private final ProgressBar progress = new ProgressBar(0);
  private final EntryField byEye;
  private final EntryField pour;
  private final EntryField reads;
  private final Button poured = new Button("Poured");
  private final HBox pours;
  private final StepCue steps;
  private final TextField reason = new TextField();
  private final Button take = button("run-take", "Record now", Act.Kind.TAKE);
  private final Button hold = button("run-hold", "Hold", Act.Kind.HOLD);
  private final Button go = button("run-go", "Go on", Act.Kind.GO);
  private final Button skip = button("run-skip", "Skip", Act.Kind.SKIP);
  private final Button repeat = button("run-repeat", "Repeat", Act.Kind.REPEAT);
  private final Button note = button("run-note", "Note", Act.Kind.NOTE);
  private final Button stop = button("run-stop", "Stop", Act.Kind.STOP);
  private final FlowPane controls = new FlowPane(6, 6, go, take, hold, skip, repeat, note, stop);
  private final HBox row;
  private double volume;
  private String volumeFor = "";

  RunCue(Desk desk) {
    this.desk = desk;
    setId("run-cue");
    where.setId("run-where");
    what.setId("run-what");
    how.setId("run-how");
    warned.setId("run-warning");
    warned.getStyleClass().add("cue-bad");
    getStyleClass().add("cue");
    setSpacing(4);
    byEye =
        new EntryField(
                "run-by-eye",
                "Reference reads",
                true,
                t -> {
                  Unit unit = Unit.of(desk.runs().now().orElseThrow().plan().unit());
                  desk.runs().typed(Value.typed(t, unit).number());
                },
                () -> {})
            .whenDone();
    pour =
        new EntryField(
                "run-pour",
                "This pour was",
                true,
                t -> volume = Value.typed(t, Unit.of(now().plan().unit())).number(),
                () -> {})
            .whenDone();
    reads =
        new EntryField("run-reads", "Meter reads", true, this::typed, () -> {})
            .whenDone()
            .help("What the meter shows now; each number with Enter behind it is one reading.");
    poured.setId("run-poured");
    poured.getStyleClass().add("cue-button");
    poured.setMinWidth(USE_PREF_SIZE);
    poured.setOnAction(
        e -> {
          desk.runs().typed(now().total() + volume);
          requestFocus();
        });
    pours = new HBox(10, pour, poured);
    pours.setAlignment(Pos.CENTER_LEFT);
    steps = new StepCue(desk, this::requestFocus);
    reason.setId("run-reason");
    reason.setPromptText("because …");
    reason.setAccessibleText("Reason for what is done, or a note");
    reason.getStyleClass().add("cue-field");
    reason.setPrefColumnCount(6);
    reason.setMinWidth(90);
    value.setWrapText(false);
    value.setMinWidth(USE_PREF_SIZE);
    progress.setMaxWidth(Double.MAX_VALUE);
    progress.setMinHeight(6);
    progress.setPrefHeight(6);
    var live = new HBox(16, value, state);
    live.setAlignment(Pos.CENTER_LEFT);
    // The reason stands behind what it is for, on the same line where there is room.
    controls.getChildren().add(reason);
    controls.prefWrapLengthProperty().bind(widthProperty().subtract(2 * EDGE));
    row = new HBox(controls);
    HBox.setHgrow(controls, Priority.ALWAYS);
    getChildren()
        .addAll(
            where, what, how, live, expected, warned, byEye, reads, pours, steps, progress, row);
    setMinHeight(USE_PREF_SIZE);
  }

  private static Label label(String style) {
    var l = new Label();
    l.getStyleClass().add(style);
    l.setWrapText(true);
    return l;
  }

  private Button button(String id, String text, Act.Kind kind) {
    var b = new Button(text);
    b.setId(id);
    b.getStyleClass().add("cue-button");
    b.setMinWidth(USE_PREF_SIZE);
    b.setOnAction(
        e -> {
          desk.runs().ask(kind, reason.getText());
          reason.clear();
          // A button that goes would hand Space on to its neighbour.
          takeKeys();
        });
    return b;
  }

  void refresh() {
    String id = desk.channel().orElseThrow().id();
    Optional<RunSnapshot> now = desk.runs().now().filter(n -> desk.runs().reads(id));
    setVisible(now.isPresent());
    setManaged(now.isPresent());
    now.ifPresent(n -> show(n, BenchRuns.place(n.plan(), id)));
  }

  private void show(RunSnapshot n, int channel) {
    RunPlan plan = n.plan();
    boolean running = desk.runs().running();
    int all = n.targets().size();
    where.setText(n.target().map(t -> where(n, t, all)).orElse(plan.title()));
    Optional<Step> step = running ? n.step() : Optional.empty();
    what.setText(step.map(s -> StepCue.what(n, s)).orElse(what(n, running)));
    String does = step.map(s -> StepCue.how(n, s)).orElse(how(n));
    how.setText(n.trouble().isEmpty() ? does : n.trouble() + ". It is tried again.");
    steps.show(n);
    boolean taken = running && plan.procedure() == null && !n.points().isEmpty();
    String slip =
        taken ? RunExpectation.slip(desk.analysis(), plan, channel, n.points().getLast()) : "";
    String warning = n.warning().isEmpty() ? n.doubted() ? "" : slip : n.warning() + ".";
    warned.setText(warning);
    show(warned, running && !warning.isEmpty());
    how.getStyleClass().remove("cue-bad");
    if (!n.trouble().isEmpty()) how.getStyleClass().add("cue-bad");
    value.setText(n.last().map(s -> live(s, plan, channel)).orElse("–"));
    state.setText(state(n, channel));
    String against =
        plan.procedure() != null
            ? step.flatMap(s -> n.last().map(l -> StepCue.wanted(s, l.raw().get(channel))))
                .orElse("")
            : n.last()
                .map(
                    l ->
                        RunExpectation.beside(
                            desk.analysis(), plan, channel, l.applied(), l.raw().get(channel)))
                .orElse("");
    expected.setText(against);
    show(expected, !against.isEmpty());
    progress.setProgress(n.done());
    boolean hand = running && plan.reference().byHand();
    boolean pouring = plan.kind() == RunPlan.Kind.POURS;
    show(byEye, hand && plan.kind() == RunPlan.Kind.POINTS);
    boolean typing = running && plan.typed() && !n.hands();
    asks(typing && (n.phase() == Phase.SETTLING || n.phase() == Phase.AVERAGING));
    // Who types the readings has nothing to wait for.
    boolean nothing = n.last().map(s -> Double.isNaN(s.raw().get(channel))).orElse(true);
    show(value, !(plan.typed() && nothing));
    reads.show("", plan.channels().get(channel).meter().unit());
    show(pours, hand && pouring && n.phase() == Phase.APPROACHING);
    if (pouring && n.target().isPresent()) {
      String of = "%s %d %d".formatted(desk.runs().id(), n.next(), n.points().size());
      if (!of.equals(volumeFor)) volume = n.toCome();
      volumeFor = of;
      pour.show(Numbers.trimmed(volume, 6), plan.unit());
    }
    if (plan.reference().byHand()) byEye.show("", plan.unit());
    show(row, running);
    boolean held = n.phase() == Phase.HELD;
    boolean doubted = n.doubted();
    show(hold, !held);
    show(go, held);
    go.setText(doubted ? "Look again" : "Go on");
    repeat.setDisable(n.points().isEmpty());
    show(take, doubted || !plan.typed());
    take.setText(doubted ? "Take all the same" : "Record now");
    take.setDisable(!doubted && (held || n.hands() || n.phase() == Phase.AVERAGING));
    skip.setDisable(held && !doubted);
  }

  /** Asks for a reading, and then for the next place: the keys follow what is asked for. */
  private void asks(boolean reading) {
    boolean here = isFocusWithin() && !reason.isFocused();
    boolean before = reads.isVisible();
    show(reads, reading);
    if (!here || reading == before) return;
    if (reading) reads.field().requestFocus();
    else if (byEye.isVisible()) byEye.field().requestFocus();
  }

  /** The keys come here: to the field that is asked for, where all is typed. */
  void takeKeys() {
    boolean typed = desk.runs().now().map(n -> n.plan().typed()).orElse(false);
    if (typed && byEye.isVisible()) byEye.field().requestFocus();
    else requestFocus();
  }

  private void typed(String text) {
    if (text.isBlank()) return;
    String id = desk.channel().orElseThrow().id();
    RunPlan plan = now().plan();
    Unit unit = Unit.of(plan.channels().get(BenchRuns.place(plan, id)).meter().unit());
    desk.runs().typed(id, Value.typed(text, unit).number());
    // The next one is typed over it.
    Platform.runLater(() -> reads.field().clear());
  }

  /** One key records, or says that the hands are done. */
  void go() {
    Optional<RunSnapshot> now = desk.runs().now();
    if (now.map(RunSnapshot::hands).orElse(false)) {
      steps.done();
    } else if (!now.map(RunSnapshot::doubted).orElse(false)) {
      // One key is no yes to what something speaks against: that takes its button.
      desk.runs().ask(Act.Kind.TAKE, "");
    }
  }

  private static String where(RunSnapshot n, Target t, int all) {
    return n.step().isPresent()
        ? "Step %d of %d · %s".formatted(n.next() + 1, all, n.plan().title())
        : "Point %d of %d · %s · %s"
            .formatted(n.next() + 1, all, t.down() ? "down" : "up", n.plan().title());
  }

  private static void show(Node node, boolean yes) {
    node.setVisible(yes);
    node.setManaged(yes);
  }

  private RunSnapshot now() {
    return desk.runs().now().orElseThrow();
  }

  private static String pouring(RunSnapshot n, String to) {
    boolean pump = n.plan().reference().settable();
    String pour = Numbers.trimmed(n.toCome(), 5) + " " + n.plan().unit();
    return switch (n.phase()) {
      case APPROACHING ->
          pump ? "Pumping to " + to : n.toCome() > 0 ? "Pour " + pour : "Empty it to " + to;
      case SETTLING -> "Wait until it is calm";
      default -> "Do not touch: reading " + to;
    };
  }

  private static String what(RunSnapshot n, boolean running) {
    String to = n.target().map(t -> amount(t, n)).orElse("");
    if (!running && n.phase() != Phase.DONE && n.phase() != Phase.STOPPED) return "Broken off";
    boolean pours = n.plan().kind() == RunPlan.Kind.POURS;
    if (pours && n.phase().ordinal() < Phase.HELD.ordinal()) return pouring(n, to);
    return switch (n.phase()) {
      case APPROACHING -> n.plan().reference().settable() ? "Going to " + to : "Bring it to " + to;
      case SETTLING -> (n.plan().typed() ? "Read the meter at " : "Hold at ") + to;
      case AVERAGING -> "Do not touch: reading " + to;
      case HELD -> n.doubted() ? "Is that so, at " + to + "?" : "Held before " + to;
      case STOPPED -> "Stopped";
      case DONE ->
          n.plan().procedure() == null ? "All points are taken" : "Done: the record is below";
    };
  }

  private static String amount(Target t, RunSnapshot n) {
    if (n.plan().kind() == RunPlan.Kind.POURS) {
      return (Numbers.trimmed(t.setPoint(), 6) + " " + n.plan().unit()).strip();
    }
    int decimals = Math.max(0, Numbers.decimalsFor(n.plan().band()) - 1);
    return (Numbers.fixed(t.setPoint(), decimals) + " " + n.plan().unit()).strip();
  }

  private static String halved(RunSnapshot n) {
    return n.halved()
        ? " Less than planned, since it bends: a straight line would be off by more than %s %s."
            .formatted(n.plan().straight().typed(), n.plan().unit())
        : "";
  }

  private static String how(RunSnapshot n) {
    String left = n.left() > 0 ? " About %s left.".formatted(time(n.left())) : "";
    return switch (n.phase()) {
      case APPROACHING -> {
        String at =
            n.last()
                .filter(s -> Double.isFinite(s.applied()))
                .map(
                    s ->
                        "The reference reads %s %s."
                            .formatted(Numbers.trimmed(s.applied(), 6), n.plan().unit()))
                .orElse(
                    n.plan().kind() == RunPlan.Kind.POURS
                        ? "In all %s %s are in."
                            .formatted(Numbers.trimmed(n.total(), 6), n.plan().unit())
                        : "Type what the reference reads once it is there.");
        if (n.plan().kind() == RunPlan.Kind.POURS) yield at + halved(n);
        yield at + " It counts from ±%s.".formatted(Numbers.trimmed(n.plan().band(), 3));
      }
      case SETTLING ->
          n.plan().typed()
              ? "Once it stands, type what the meter reads, with Enter."
              : "Keep both at the same place; records by itself." + left;
      case AVERAGING -> "%d of %d readings.%s".formatted(n.averaged(), n.plan().average(), left);
      case HELD ->
          n.doubted()
              ? "Nothing is taken without your yes. Put it right and look again, or take it as it is, marked."
              : "Go on when you are ready; the point settles anew.";
      case STOPPED, DONE ->
          n.plan().procedure() != null
              ? "What came of it is kept with the channel."
              : "The points are in the table of this channel, with what they came of.";
    };
  }

  private static String time(double seconds) {
    return seconds < 90
        ? "%.0f s".formatted(Math.ceil(seconds))
        : "%.0f min".formatted(Math.ceil(seconds / 60));
  }

  private static String live(Sweep s, RunPlan plan, int channel) {
    double v = s.raw().get(channel);
    RunChannel c = plan.channels().get(channel);
    if (!Double.isFinite(v)) return "no reading";
    return c.raw().amount(v);
  }

  private static String state(RunSnapshot n, int channel) {
    RunSnapshot.Channel at = n.channels().get(channel);
    RunChannel c = n.plan().channels().get(channel);
    if (c.settle() instanceof SettleRule.Rest r) return toCome(at.outlook(), r, c);
    if (!(c.settle() instanceof SettleRule.Stable s) || !Double.isFinite(at.slope())) return "";
    return "slope %s %s\ns %s %s"
        .formatted(
            small(Math.abs(at.slope()), c) + "/s",
            compared(Math.abs(at.slope()), s.slope(), c, "/s"),
            small(at.deviation(), c),
            compared(at.deviation(), s.deviation(), c, ""));
  }

  /** What may still come, with what is not known of it: three lines, so that nothing jumps. */
  private static String toCome(Outlook o, SettleRule.Rest r, RunChannel c) {
    String comes =
        o.known()
            ? small(o.toCome(), c).replace('-', '−') + " ± " + small(2 * o.error(), c)
            : "not known yet";
    String lag = Double.isFinite(o.lag()) ? Numbers.significant(o.lag(), 2) + " s" : "–";
    return "to come %s\nwithin ±%s\nlag %s".formatted(comes, small(r.within(), c), lag);
  }

  private static String compared(double v, double limit, RunChannel c, String per) {
    return (v <= limit ? "≤ " : "> ") + small(limit, c) + per;
  }

  private static String small(double v, RunChannel c) {
    return switch (c.raw()) {
      case VOLTS -> Numbers.significant(v * 1000, 2) + " mV";
      case COUNTS -> Numbers.significant(v, 2);
      case OHMS -> Numbers.significant(v, 2) + " Ω";
      case MILLIAMPERES -> Numbers.significant(v * 1000, 2) + " µA";
    };
  }
}
