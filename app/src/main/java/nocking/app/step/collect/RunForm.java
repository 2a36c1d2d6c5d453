package nocking.app.step.collect;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.analysis.Jobs;
import nocking.analysis.RunDraft;
import nocking.analysis.UsualLag;
import nocking.app.control.DropDown;
import nocking.app.control.EntryField;
import nocking.app.control.Paper;
import nocking.app.desk.Desk;
import nocking.bench.simulated.Scene;
import nocking.channel.Channel;
import nocking.points.RawUnit;
import nocking.procedure.Procedure;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Conditions;
import nocking.run.Course;
import nocking.run.Purpose;
import nocking.run.RunChannel;
import nocking.run.RunPlan;
import nocking.run.SetPoints;
import nocking.run.SettleRule;
import nocking.run.Unsettled;

/** What a run is going to do: the left side of the view of a run. */
final class RunForm {
  private static final Unit SECOND = Unit.of("s");
  private static final double GAP = 5;

  private final Desk desk;
  private final InstrumentChoice choice;
  private final ProcedureFields procedure;
  private final EntryField setPoints;
  private final DropDown<String> kind;
  private final EntryField straight;
  private final EntryField calm;
  private final DropDown<Course> course;
  private final EntryField within;
  private final EntryField lag;
  private final Label lagSource = Paper.caption("");
  private final EntryField deviation;
  private final EntryField slope;
  private final EntryField window;
  private final EntryField average;
  private final EntryField giveUp;
  private final DropDown<Unsettled> then;
  private final DropDown<Purpose> purpose;
  private final EntryField operator;
  private final EntryField ambient;
  private final EntryField place;
  private final EntryField sensorPlace;
  private final CheckBox beep = new CheckBox("Beep when it needs me");
  private final Label problem = Paper.caption("");
  private final Button begin = new Button("Begin the run");
  private final Node whichPoints = Paper.subtitle("Which points?");
  private final PlacesPanel places;
  private final VBox points;
  private final VBox planned;
  private final Paper paper;
  private final Runnable changed;
  private RawUnit raw = RawUnit.VOLTS;
  private boolean showing;

  /**
   * @param changed called when the plan has changed
   * @param begun called when a run was begun
   */
  RunForm(Desk desk, Region looks, Runnable changed, Runnable begun) {
    this.desk = desk;
    this.changed = changed;
    setPoints =
        field(
            "run-set-points",
            "Set points",
            t -> edit(p -> p.withSetPoints(SetPoints.parse(t, Unit.of(p.unit())))));
    choice = new InstrumentChoice(desk, this::refresh);
    procedure = new ProcedureFields(p -> edit(plan -> plan.withProcedure(p)));
    kind = choice("run-kind", List.of(), k -> k, this::chooseKind);
    straight =
        field(
                "run-straight",
                "Halve beyond",
                t ->
                    edit(
                        p ->
                            p.withStraight(t.isBlank() ? null : Value.typed(t, Unit.of(p.unit())))))
            .help(
                "Where a straight line between two pours would be off by more, as far as what was"
                    + " read tells, the next pour is halved. Nothing for pours as planned.");
    calm =
        field(
            "run-calm",
            "Calm for",
            t -> {
              var rule = new SettleRule.Dwell(Value.typed(t, SECOND).number());
              edit(
                  p -> p.withChannels(p.channels().stream().map(c -> c.withSettle(rule)).toList()));
            });
    course =
        choice(
            "run-course", List.of(Course.values()), Course::title, v -> edit(p -> p.withCourse(v)));
    within = field("run-within", "Settled within", t -> rest(milli(t), null));
    lag = field("run-lag", "Usual lag", t -> rest(null, Value.typed(t, SECOND).number()));
    deviation = field("run-deviation", "Settled when s ≤", t -> settle(milli(t), null, null));
    slope = field("run-slope", "and slope ≤", t -> settle(null, milliPerSecond(t), null));
    window = field("run-window", "over", t -> settle(null, null, Value.typed(t, SECOND).number()));
    average = field("run-average", "Average", t -> edit(p -> p.withAverage(whole(t))));
    giveUp =
        field(
            "run-give-up",
            "Give up after",
            t -> edit(p -> p.withGiveUp(60 * Value.typed(t, Unit.of("min")).number())));
    then =
        choice(
            "run-then",
            List.of(Unsettled.values()),
            Unsettled::title,
            v -> edit(p -> p.withThen(v)));
    purpose =
        choice(
            "run-purpose",
            List.of(Purpose.values()),
            Purpose::title,
            v -> edit(p -> p.withPurpose(v)));
    operator =
        words(
            "run-operator",
            "Operator",
            (c, t) -> new Conditions(t, c.ambient(), c.supply(), c.referencePlace(), c.note()));
    ambient =
        words(
            "run-ambient",
            "Ambient",
            (c, t) -> new Conditions(c.operator(), t, c.supply(), c.referencePlace(), c.note()));
    place =
        words(
            "run-place",
            "Reference at",
            (c, t) -> new Conditions(c.operator(), c.ambient(), c.supply(), t, c.note()));
    sensorPlace =
        new EntryField(
                "run-sensor-place",
                "Sensor at",
                false,
                t ->
                    edit(
                        p ->
                            p.withChannels(
                                p.channels().stream().map(c -> c.withPlace(t)).toList())),
                () -> {})
            .whenDone();
    for (EntryField f : List.of(setPoints, operator, ambient, place, sensorPlace)) {
      f.getStyleClass().add("short");
    }
    operator.prompt("initials");
    ambient.prompt("21 °C");
    straight.prompt("as planned");
    place.prompt("depth or port");
    sensorPlace.prompt("depth or port");
    beep.setId("run-beep");
    beep.setOnAction(e -> desk.runs().beep().on(beep.isSelected()));
    lagSource.setId("run-lag-source");
    lagSource.setWrapText(true);
    begin.setId("run-begin");
    begin.getStyleClass().add("primary");
    begin.setOnAction(
        e -> {
          plan().ifPresent(desk.runs()::begin);
          begun.run();
        });
    problem.getStyleClass().add("text-fail");
    problem.setId("run-problem");
    places =
        new PlacesPanel(desk, (at, repeats) -> edit(p -> p.withSetPoints(at).withRepeats(repeats)));
    points = new VBox(GAP, setPoints, straight, row("Direction", course), whichPoints, places);
    planned =
        new VBox(
            GAP,
            choice.fellows(),
            Paper.subtitle("Plan"),
            row("What", kind),
            procedure,
            points,
            Paper.subtitle("A reading"),
            calm,
            within,
            lag,
            lagSource,
            deviation,
            slope,
            window,
            average,
            giveUp,
            row("and then", then),
            row("Purpose", purpose),
            beep,
            Paper.subtitle("Conditions"),
            operator,
            ambient,
            place,
            sensorPlace);
    paper = new Paper("", begin, problem, choice.instruments(), choice.trouble(), planned);
    paper.head(looks);
  }

  private EntryField field(String id, String title, EntryField.Taker taker) {
    return new EntryField(id, title, true, taker, () -> {}).whenDone();
  }

  private interface Saying {
    Conditions of(Conditions before, String text);
  }

  private EntryField words(String id, String title, Saying saying) {
    return new EntryField(
            id,
            title,
            false,
            t -> edit(p -> p.withConditions(saying.of(p.conditions(), t))),
            () -> {})
        .whenDone();
  }

  private <T> DropDown<T> choice(
      String id, List<T> choices, Function<T, String> title, Consumer<T> chosen) {
    var box = new DropDown<T>().titled(title);
    box.setId(id);
    box.getItems().setAll(choices);
    box.setMaxWidth(Double.MAX_VALUE);
    box.valueProperty()
        .addListener(
            (o, before, now) -> {
              if (!showing && now != null) chosen.accept(now);
            });
    return box;
  }

  private static HBox row(String title, DropDown<?> box) {
    return InstrumentChoice.row(title, box);
  }

  /** Small amounts of it: millivolts, microamperes, ohms. */
  private Unit small() {
    return switch (raw) {
      case VOLTS -> Unit.of("mV");
      case COUNTS -> Unit.COUNTS;
      case OHMS -> Unit.OHM;
      case MILLIAMPERES -> Unit.of("µA");
    };
  }

  private double milli(String t) {
    return small().convert(Value.typed(t, small()).number(), raw.unit());
  }

  private double shown(double v) {
    return raw.unit().convert(v, small());
  }

  /** Millivolts in a second; the seconds may be typed behind them. */
  private double milliPerSecond(String t) {
    return milli(t.strip().endsWith("/s") ? t.strip().substring(0, t.strip().length() - 2) : t);
  }

  private static int whole(String t) {
    double v = Value.typed(t, Unit.ONE).number();
    if (v != Math.rint(v))
      throw new QuantityException("read '%s', expected a whole number".formatted(t));
    return (int) v;
  }

  private Channel channel() {
    return desk.channel().orElseThrow();
  }

  private void edit(UnaryOperator<RunPlan> change) {
    plan()
        .ifPresent(
            p -> {
              desk.runs().draft(channel().id(), change.apply(p));
              show();
            });
  }

  private void settle(Double deviation, Double slope, Double window) {
    edit(
        p ->
            p.withChannels(
                p.channels().stream().map(c -> settled(c, deviation, slope, window)).toList()));
  }

  private static RunChannel settled(RunChannel c, Double deviation, Double slope, Double window) {
    if (!(c.settle() instanceof SettleRule.Stable s)) return c;
    var rule =
        new SettleRule.Stable(
            deviation == null ? s.deviation() : deviation,
            slope == null ? s.slope() : slope,
            window == null ? s.window() : window);
    return c.withSettle(rule);
  }

  private void rest(Double within, Double lag) {
    edit(
        p ->
            p.withChannels(
                p.channels().stream()
                    .map(c -> c.settle() instanceof SettleRule.Rest r ? rest(c, r, within, lag) : c)
                    .toList()));
  }

  private static RunChannel rest(RunChannel c, SettleRule.Rest r, Double within, Double lag) {
    return c.withSettle(
        new SettleRule.Rest(
            within == null ? r.within() : within,
            lag == null ? r.lag() : lag,
            r.creep(),
            r.sensitivity()));
  }

  /** What can be done: set points, pours, and the procedures of the channel. */
  private List<String> kinds() {
    var list = new ArrayList<String>();
    list.add(RunPlan.Kind.POINTS.title());
    list.add(RunPlan.Kind.POURS.title());
    for (Procedure p : Jobs.of(desk.analysis())) list.add(p.title());
    return list;
  }

  private static String kind(RunPlan p) {
    return p.procedure() == null ? p.kind().title() : p.procedure().title();
  }

  /** Pours settle by a wait, all else by what may still come. */
  private void chooseKind(String title) {
    plan()
        .filter(p -> !kind(p).equals(title))
        .ifPresent(
            p -> {
              RunPlan fresh =
                  RunDraft.plan(
                      List.of(desk.analysis()),
                      p.reference(),
                      List.of(p.channels().getFirst().meter()));
              RunPlan points = p.procedure() == null ? fresh.withSetPoints(p.setPoints()) : fresh;
              RunPlan next =
                  Jobs.of(desk.analysis()).stream()
                      .filter(k -> k.title().equals(title))
                      .findFirst()
                      .map(k -> Jobs.plan(fresh, k, channel()))
                      .orElse(
                          title.equals(RunPlan.Kind.POURS.title())
                              ? RunDraft.pours(points, desk.analysis())
                              : points);
              desk.runs().draft(channel().id(), next.withConditions(p.conditions()));
              refresh();
            });
  }

  /** The plan as it stands, at the instruments as they are chosen; empty without a path. */
  Optional<RunPlan> plan() {
    return choice.plan();
  }

  Node node() {
    return paper;
  }

  void switched() {
    problem.setText("");
  }

  void refresh() {
    choice.refresh();
    show();
    news();
    changed.run();
  }

  private void show() {
    Optional<RunPlan> plan = plan();
    String wrong = plan.isPresent() ? mistakes(plan.get()) : whyNot();
    problem.setText(wrong);
    problem.setVisible(!wrong.isEmpty());
    problem.setManaged(!wrong.isEmpty());
    planned.setVisible(plan.isPresent());
    planned.setManaged(plan.isPresent());
    if (plan.isEmpty()) return;
    places.refresh();
    RunPlan p = plan.get();
    showing = true;
    visible(p.procedure() == null, points);
    procedure.show(p.procedure(), channel().unit());
    setPoints.show(SetPoints.text(p.setPoints()), p.unit());
    boolean pours = p.kind() == RunPlan.Kind.POURS;
    visible(pours && p.course() == Course.UP, straight);
    // What a vessel's shape is, the pours will tell.
    visible(!pours, whichPoints, places);
    straight.show(p.straight() == null ? "" : p.straight().typed(), p.unit());
    kind.getItems().setAll(kinds());
    kind.setValue(kind(p));
    course.setValue(p.course());
    then.setValue(p.then());
    purpose.setValue(p.purpose());
    showing = false;
    raw = p.channels().getFirst().raw();
    SettleRule rule = p.channels().getFirst().settle();
    visible(rule instanceof SettleRule.Dwell && !p.typed(), calm);
    visible(rule instanceof SettleRule.Stable && !p.typed(), deviation, slope, window);
    visible(rule instanceof SettleRule.Rest && !p.typed(), within, lag, lagSource);
    if (rule instanceof SettleRule.Dwell d) calm.show(Numbers.trimmed(d.seconds(), 4), "s");
    if (rule instanceof SettleRule.Rest r) {
      within.show(Numbers.significant(shown(r.within()), 2), small().symbol());
      lag.show(Numbers.trimmed(r.lag(), 3), "s");
      UsualLag usual = UsualLag.of(channel());
      lagSource.setText(
          "Usually %s s: %s. What is seen takes its place."
              .formatted(Numbers.trimmed(usual.seconds(), 3), usual.source()));
    }
    if (rule instanceof SettleRule.Stable s) {
      deviation.show(Numbers.trimmed(shown(s.deviation()), 3), small().symbol());
      slope.show(Numbers.trimmed(shown(s.slope()), 3), small().symbol() + "/s");
      window.show(Numbers.trimmed(s.window(), 4), "s");
    }
    average.show(String.valueOf(p.average()), "rdgs");
    giveUp.show(Numbers.trimmed(p.giveUp() / 60, 4), "min");
    operator.show(p.conditions().operator(), "");
    ambient.show(p.conditions().ambient(), "");
    place.show(p.conditions().referencePlace(), "");
    sensorPlace.show(p.channels().getFirst().place(), "");
  }

  private static void visible(boolean yes, Node... nodes) {
    for (Node n : nodes) {
      n.setVisible(yes);
      n.setManaged(yes);
    }
  }

  private String whyNot() {
    return desk.analysis().design().path().isEmpty()
        ? "Define the sensor and its path first: " + desk.analysis().whyNoCircuit() + "."
        : "A run is under way at another bench.";
  }

  /** What is wrong before anything was measured. */
  private static String mistakes(RunPlan p) {
    String sensor = p.channels().getFirst().place();
    String ref = p.conditions().referencePlace();
    return !sensor.isEmpty() && !ref.isEmpty() && !sensor.equals(ref)
        ? "The reference is at %s and the sensor at %s: they may not feel the same."
            .formatted(ref, sensor)
        : "";
  }

  /** The bench that can stand in for what is planned. */
  Optional<Scene> scene() {
    return choice.scene();
  }

  /** The run has begun or ended. */
  void news() {
    choice.news();
    beep.setSelected(desk.runs().beep().on());
    boolean running = desk.runs().running();
    begin.setDisable(running || !desk.editable() || plan().isEmpty());
    begin.setText(running ? "A run is under way" : "Begin the run");
    planned.setDisable(running);
  }
}
