package nocking.app.step.collect;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Consumer;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.StringConverter;
import nocking.analysis.RunDraft;
import nocking.app.control.DropDown;
import nocking.app.control.EntryField;
import nocking.app.control.Paper;
import nocking.app.control.Segments;
import nocking.app.desk.BenchRuns;
import nocking.app.desk.Desk;
import nocking.app.desk.StandIn;
import nocking.bench.simulated.Fault;
import nocking.bench.simulated.Scene;
import nocking.channel.Channel;
import nocking.channel.Hazard;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.run.Conditions;
import nocking.run.Course;
import nocking.run.Instrument;
import nocking.run.Purpose;
import nocking.run.RunChannel;
import nocking.run.RunPlan;
import nocking.run.SetPoints;
import nocking.run.SettleRule;
import nocking.run.Unsettled;

/** What a run is going to do: the left side of the view of a run. */
final class RunForm {
  private static final String BY_EYE = "read by eye";
  private static final Unit SECOND = Unit.of("s");
  private static final double MILLI = 1000;
  private static final double TITLE = 76;
  private static final double GAP = 5;

  /** Seconds that a surface usually takes to calm. */
  private static final double CALM = 20;

  private final Desk desk;
  private final Map<String, Set<String>> with = new HashMap<>();
  private final Map<String, String> reference = new HashMap<>();
  private final Map<String, String> meter = new HashMap<>();
  private final EntryField setPoints;
  private final DropDown<RunPlan.Kind> kind;
  private final EntryField calm;
  private final DropDown<Course> course;
  private final EntryField deviation;
  private final EntryField slope;
  private final EntryField window;
  private final EntryField average;
  private final EntryField giveUp;
  private final DropDown<Unsettled> then;
  private final DropDown<Purpose> purpose;
  private final DropDown<String> referenceChoice;
  private final DropDown<String> meterChoice;
  private final Segments<StandIn.Pace> pace;
  private final HBox paceRow;
  private final DropDown<Fault> fault;
  private final HBox faultRow;
  private final FlowPane others = new FlowPane(10, 4);
  private final Label othersTitle = Paper.subtitle("Read with it");
  private final EntryField operator;
  private final EntryField ambient;
  private final EntryField place;
  private final EntryField sensorPlace;
  private final Label caution = Paper.caption("");
  private final Label problem = Paper.caption("");
  private final Button begin = new Button("Begin the run");
  private final PlacesPanel places;
  private final VBox instruments;
  private final VBox planned;
  private final Paper paper;
  private StandIn.Pace chosenPace = StandIn.Pace.TEN;
  private boolean showing;

  RunForm(Desk desk, Region looks) {
    this.desk = desk;
    setPoints =
        field(
            "run-set-points",
            "Set points",
            t -> edit(p -> p.withSetPoints(SetPoints.parse(t, Unit.of(p.unit())))));
    kind =
        choice("run-kind", List.of(RunPlan.Kind.values()), RunPlan.Kind::title, this::chooseKind);
    calm =
        field(
            "run-calm",
            "Calm for",
            t -> {
              var rule = new SettleRule.Dwell(Value.typed(t, SECOND).number());
              edit(p -> p.withChannels(p.channels().stream().map(c -> ruled(c, rule)).toList()));
            });
    course =
        choice(
            "run-course", List.of(Course.values()), Course::title, v -> edit(p -> p.withCourse(v)));
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
    referenceChoice = choice("run-reference", List.of(), s -> s, v -> chosen(reference, v));
    meterChoice = choice("run-meter", List.of(), s -> s, v -> chosen(meter, v));
    pace =
        new Segments<>(
            "run-pace",
            List.of(StandIn.Pace.values()),
            StandIn.Pace::title,
            v -> {
              chosenPace = v;
              refresh();
            });
    fault =
        choice(
            "run-fault",
            List.of(Fault.values()),
            f -> f.name().toLowerCase(Locale.ROOT).replace('_', ' '),
            v -> desk.runs().standIn().ifPresent(b -> b.fault(channel().tag(), v)));
    faultRow = row("Trouble", fault);
    paceRow = new HBox(8, new Label("Its time"), pace);
    paceRow.setAlignment(Pos.CENTER_LEFT);
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
                t -> edit(p -> p.withChannels(p.channels().stream().map(c -> at(c, t)).toList())),
                () -> {})
            .whenDone();
    for (EntryField f : List.of(setPoints, operator, ambient, place, sensorPlace)) {
      f.getStyleClass().add("short");
    }
    operator.prompt("initials");
    ambient.prompt("21 °C");
    place.prompt("depth or port");
    sensorPlace.prompt("depth or port");
    begin.setId("run-begin");
    begin.getStyleClass().add("primary");
    begin.setOnAction(e -> plan().ifPresent(desk.runs()::begin));
    caution.getStyleClass().add("caution");
    problem.getStyleClass().add("text-fail");
    problem.setId("run-problem");
    places =
        new PlacesPanel(desk, (at, repeats) -> edit(p -> p.withSetPoints(at).withRepeats(repeats)));
    instruments =
        new VBox(
            GAP,
            Paper.subtitle("Instruments"),
            row("Reference", referenceChoice),
            row("Meter", meterChoice),
            paceRow);
    planned =
        new VBox(
            GAP,
            othersTitle,
            others,
            Paper.subtitle("Plan"),
            row("What", kind),
            setPoints,
            row("Direction", course),
            calm,
            deviation,
            slope,
            window,
            average,
            giveUp,
            row("and then", then),
            row("Purpose", purpose),
            Paper.subtitle("Which points?"),
            places,
            Paper.subtitle("Conditions"),
            operator,
            ambient,
            place,
            sensorPlace);
    paper = new Paper("", begin, problem, instruments, faultRow, planned, caution);
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
    var box = new DropDown<T>();
    box.setId(id);
    box.getItems().setAll(choices);
    box.setMaxWidth(Double.MAX_VALUE);
    box.setConverter(
        new StringConverter<>() {
          @Override
          public String toString(T v) {
            return v == null ? "" : title.apply(v);
          }

          @Override
          public T fromString(String s) {
            return null;
          }
        });
    box.valueProperty()
        .addListener(
            (o, before, now) -> {
              if (!showing && now != null) chosen.accept(now);
            });
    return box;
  }

  private static HBox row(String title, DropDown<?> box) {
    var label = new Label(title);
    label.getStyleClass().add("entry-label");
    label.setLabelFor(box);
    label.setMinWidth(TITLE);
    box.setAccessibleText(title);
    HBox.setHgrow(box, Priority.ALWAYS);
    var row = new HBox(6, label, box);
    row.setAlignment(Pos.CENTER_LEFT);
    return row;
  }

  private static double milli(String t) {
    return Value.typed(t, Unit.of("mV")).number() / MILLI;
  }

  /** Millivolts in a second; the seconds may be typed behind them. */
  private static double milliPerSecond(String t) {
    return milli(t.strip().endsWith("/s") ? t.strip().substring(0, t.strip().length() - 2) : t);
  }

  private static int whole(String t) {
    double v = Value.typed(t, Unit.ONE).number();
    if (v != Math.rint(v))
      throw new QuantityException("read '%s', expected a whole number".formatted(t));
    return (int) v;
  }

  private static RunChannel at(RunChannel c, String place) {
    return new RunChannel(c.channel(), c.tag(), c.raw(), c.meter(), c.settle(), place);
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
    return new RunChannel(c.channel(), c.tag(), c.raw(), c.meter(), rule, c.place());
  }

  private static RunChannel ruled(RunChannel c, SettleRule rule) {
    return new RunChannel(c.channel(), c.tag(), c.raw(), c.meter(), rule, c.place());
  }

  /** Pours settle by a wait, set points by scatter and slope. */
  private void chooseKind(RunPlan.Kind kind) {
    plan()
        .filter(p -> p.kind() != kind)
        .ifPresent(
            p -> {
              RunPlan next =
                  kind == RunPlan.Kind.POURS
                      ? RunDraft.pours(p, CALM)
                      : RunDraft.plan(
                              List.of(desk.analysis()),
                              p.reference(),
                              List.of(p.channels().getFirst().meter()))
                          .withSetPoints(p.setPoints());
              desk.runs().draft(channel().id(), next);
              refresh();
            });
  }

  private void chosen(Map<String, String> of, String name) {
    of.put(channel().id(), name);
    refresh();
  }

  private Optional<Scene> scene() {
    return Scene.of(channel().tag());
  }

  private static String simulated(Scene s) {
    return "simulated " + s.name();
  }

  /** What can be the reference: what the book has for the quantity, the stand-in, an eye. */
  private List<String> references() {
    var list = new ArrayList<String>();
    scene().map(RunForm::simulated).ifPresent(list::add);
    for (Instrument i : desk.book().instruments()) {
      if (fits(i, channel().unit())) list.add(i.name());
    }
    list.add(BY_EYE);
    return list;
  }

  private List<String> meters() {
    var list = new ArrayList<String>();
    scene().map(RunForm::simulated).ifPresent(list::add);
    for (Instrument i : desk.book().instruments()) {
      if (!i.byHand() && fits(i, Unit.VOLT)) list.add(i.name());
    }
    return list;
  }

  private static boolean fits(Instrument i, Unit unit) {
    try {
      return Unit.of(i.unit()).dimension().equals(unit.dimension());
    } catch (QuantityException e) {
      return false;
    }
  }

  private String referenceName() {
    List<String> all = references();
    String name = reference.get(channel().id());
    return all.contains(name) ? name : all.getFirst();
  }

  private Optional<String> meterName() {
    List<String> all = meters();
    String name = meter.get(channel().id());
    return all.contains(name) ? Optional.of(name) : all.stream().findFirst();
  }

  /** The plan as it stands, at the instruments as they are chosen; empty without a meter. */
  Optional<RunPlan> plan() {
    Optional<String> meterName = meterName();
    if (meterName.isEmpty() || desk.analysis().design().path().isEmpty()) return Optional.empty();
    Optional<Scene> scene = scene();
    String refName = referenceName();
    boolean stand =
        scene.isPresent()
            && (refName.equals(simulated(scene.get()))
                || meterName.get().equals(simulated(scene.get())));
    Optional<StandIn> bench = stand ? desk.runs().setUp(scene.get(), chosenPace) : Optional.empty();
    if (stand && bench.isEmpty()) return Optional.empty();
    Instrument ref =
        refName.equals(BY_EYE)
            ? Instrument.byHand(BY_EYE, channel().unit())
            : desk.book().instrument(refName).orElseGet(() -> bench.orElseThrow().reference());
    RunPlan draft =
        desk.runs()
            .draft(
                channel().id(),
                () ->
                    RunDraft.plan(
                        List.of(desk.analysis()),
                        ref,
                        List.of(meter(channel(), meterName.get(), bench))));
    var read = new ArrayList<RunChannel>();
    for (Channel c : together()) {
      Instrument m = meter(c, meterName.get(), bench);
      int at = BenchRuns.place(draft, c.id());
      RunChannel now =
          at >= 0
              ? draft.channels().get(at)
              : RunDraft.channel(desk.analysis(c), m, RunDraft.USUAL_LAG);
      read.add(new RunChannel(c.id(), c.tag(), now.raw(), m, now.settle(), now.place()));
    }
    return Optional.of(draft.withReference(ref).withChannels(read));
  }

  private Instrument meter(Channel c, String name, Optional<StandIn> bench) {
    return desk.book()
        .instrument(name)
        .or(() -> bench.flatMap(b -> b.meter(c.tag())))
        .orElseThrow(() -> new QuantityException("no meter reads " + c.tag()));
  }

  /** Channels that can be read from the same stimulus at the same bench. */
  private List<Channel> fellows() {
    boolean stand =
        meterName().flatMap(m -> scene().filter(s -> m.equals(simulated(s)))).isPresent();
    if (!stand) return List.of();
    Set<String> tags =
        scene().orElseThrow().sensors().stream().map(s -> s.tag()).collect(Collectors.toSet());
    return desk.book().channels().stream()
        .filter(c -> c != channel() && tags.contains(c.tag()) && !c.journal().locked())
        .filter(c -> c.unit().dimension().equals(channel().unit().dimension()))
        .filter(c -> desk.analysis(c).design().path().isPresent())
        .limit(RunPlan.MOST_CHANNELS - 1L)
        .toList();
  }

  private List<Channel> together() {
    var list = new ArrayList<Channel>();
    list.add(channel());
    Set<String> chosen = with.getOrDefault(channel().id(), Set.of());
    for (Channel c : fellows()) if (chosen.contains(c.id())) list.add(c);
    return list;
  }

  Node node() {
    return paper;
  }

  void switched() {
    problem.setText("");
  }

  void refresh() {
    showing = true;
    referenceChoice.getItems().setAll(references());
    referenceChoice.setValue(referenceName());
    meterChoice.getItems().setAll(meters());
    meterChoice.setValue(meterName().orElse(null));
    showing = false;
    pace.show(chosenPace);
    boolean stand =
        scene().isPresent()
            && (isSimulated(referenceName()) || meterName().map(this::isSimulated).orElse(false));
    visible(stand, paceRow, faultRow);
    showFellows();
    show();
    news();
  }

  private boolean isSimulated(String name) {
    return scene().map(s -> name.equals(simulated(s))).orElse(false);
  }

  private void showFellows() {
    List<Channel> fellows = fellows();
    others.getChildren().clear();
    for (Channel c : fellows) {
      var box = new CheckBox(c.tag());
      box.setId("run-with-" + c.tag());
      box.setSelected(with.getOrDefault(channel().id(), Set.of()).contains(c.id()));
      box.setOnAction(
          e -> {
            Set<String> chosen = with.computeIfAbsent(channel().id(), k -> new LinkedHashSet<>());
            if (box.isSelected()) chosen.add(c.id());
            else chosen.remove(c.id());
          });
      others.getChildren().add(box);
    }
    visible(!fellows.isEmpty(), othersTitle, others);
  }

  private void show() {
    caution.setText(cautions());
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
    setPoints.show(SetPoints.text(p.setPoints()), p.unit());
    kind.setValue(p.kind());
    course.setValue(p.course());
    then.setValue(p.then());
    purpose.setValue(p.purpose());
    showing = false;
    SettleRule rule = p.channels().getFirst().settle();
    visible(rule instanceof SettleRule.Dwell, calm);
    visible(rule instanceof SettleRule.Stable, deviation, slope, window);
    if (rule instanceof SettleRule.Dwell d) calm.show(Numbers.trimmed(d.seconds(), 4), "s");
    if (rule instanceof SettleRule.Stable s) {
      deviation.show(Numbers.trimmed(MILLI * s.deviation(), 3), "mV");
      slope.show(Numbers.trimmed(MILLI * s.slope(), 3), "mV/s");
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
        : desk.runs().running() && meterName().isPresent()
            ? "A run is under way at another bench."
            : "No meter: add one under instruments.";
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

  private String cautions() {
    var list = new ArrayList<String>();
    scene().ifPresent(s -> list.add(s.caution()));
    for (Hazard h : channel().definition().hazards()) list.add(h.caution());
    return String.join(" ", list);
  }

  /** The run has begun or ended. */
  void news() {
    showing = true;
    fault.setValue(desk.runs().standIn().map(b -> b.fault(channel().tag())).orElse(Fault.NONE));
    showing = false;
    boolean running = desk.runs().running();
    begin.setDisable(running || !desk.editable() || plan().isEmpty());
    begin.setText(running ? "A run is under way" : "Begin the run");
    instruments.setDisable(running);
    planned.setDisable(running);
  }
}
