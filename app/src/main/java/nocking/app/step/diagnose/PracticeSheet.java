package nocking.app.step.diagnose;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;
import java.util.function.Function;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.TextField;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.util.StringConverter;
import nocking.analysis.Analysis;
import nocking.app.control.Column;
import nocking.app.control.DropDown;
import nocking.app.control.Grid;
import nocking.app.control.NumberField;
import nocking.app.control.Paper;
import nocking.app.control.Row;
import nocking.app.control.Segments;
import nocking.app.control.WheelScroll;
import nocking.app.desk.Background;
import nocking.app.desk.Desk;
import nocking.app.desk.Latest;
import nocking.app.desk.Store;
import nocking.app.step.Sheet;
import nocking.channel.Channel;
import nocking.channel.PracticeResult;
import nocking.diagnosis.Exercise;
import nocking.diagnosis.Exercise.Difficulty;
import nocking.diagnosis.MeasuredValue;
import nocking.diagnosis.PracticeCourse;
import nocking.diagnosis.PracticeRound;
import nocking.fault.Fault;
import nocking.fault.Subject;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Sentence;
import nocking.wiring.Place;

/** One fault hidden in a copy of the channel, to be found by measuring; the channel stays. */
public final class PracticeSheet implements Sheet {

  private static final Clock CLOCK = Clock.systemDefaultZone();

  private final Desk desk;
  private final Random seeds;
  private final Latest work = new Latest();
  private final TextField learner = new TextField();
  private final Segments<Difficulty> difficulty;
  private final Button start = new Button("Hide a fault");
  private final Button five = new Button("Course of five");
  private final ComboBox<Place> where = new DropDown<>();
  private final TextField at = new TextField();
  private final Button measure = new Button("Measure");
  private final Grid readings;
  private final ComboBox<Fault> name = new DropDown<>();
  private final Button answer = new Button("That is it");
  private final VBox cue = new VBox(5);
  private final PracticeOutcome outcome = new PracticeOutcome();
  private final Grid history;
  private final Label reason = new Label();
  private final HBox root;
  private Difficulty chosen = Difficulty.EASY;
  private PracticeRound round;
  private boolean over;
  private Optional<PracticeCourse> course = Optional.empty();
  private Instant begun = Instant.EPOCH;
  private List<PracticeResult> results = List.of();
  private Store ofStore;

  public PracticeSheet(Desk desk) {
    this(desk, new Random());
  }

  /**
   * @param seeds where the hidden faults come from; a seeded one in tests
   */
  public PracticeSheet(Desk desk, Random seeds) {
    this.desk = desk;
    this.seeds = seeds;
    learner.setId("practice-learner");
    learner.setPromptText("your name");
    learner.setAccessibleText("Learner's name");
    difficulty =
        new Segments<>(
            "practice-level",
            List.of(Difficulty.values()),
            d -> d.name().charAt(0) + d.name().substring(1).toLowerCase(Locale.ROOT),
            d -> {
              chosen = d;
              show();
            });
    difficulty.show(chosen);
    start.setId("practice-start");
    start.getStyleClass().add("primary");
    start.setOnAction(e -> begin(Optional.empty()));
    five.setId("practice-course");
    five.setOnAction(
        e -> begin(Optional.of(course.filter(c -> !c.over()).orElse(PracticeCourse.BEGUN))));
    where.setId("practice-where");
    where.setMaxWidth(Double.MAX_VALUE);
    where.setConverter(new Titles<>(this::title));
    at.setId("practice-at");
    NumberField.of(at);
    at.setAccessibleText("Input at the sensor");
    at.setOnAction(e -> measure());
    measure.setId("practice-measure");
    measure.setOnAction(e -> measure());
    measure.setMinWidth(Region.USE_PREF_SIZE);
    name.setId("practice-name");
    name.setPromptText("which fault is it?");
    name.setMaxWidth(Double.MAX_VALUE);
    name.setVisibleRowCount(14);
    name.setConverter(new Titles<>(Fault::name));
    answer.setId("practice-answer");
    answer.getStyleClass().add("primary");
    answer.setMinWidth(Region.USE_PREF_SIZE);
    answer.setOnAction(e -> judge());
    cue.getStyleClass().add("cue");
    cue.setId("practice-cue");
    reason.setId("practice-reason");
    reason.getStyleClass().add("text-fail");
    reason.setWrapText(true);
    readings =
        new Grid(
            "practice-readings",
            "What you measure is listed here. The first line is what was complained of.",
            List.of(
                Column.shown("where", 190, false, i -> title(seen().get(i).place())),
                Column.shown("at", 90, true, i -> amount(seen().get(i).at())),
                Column.shown("shows", 110, true, i -> reading(seen().get(i)))),
            i -> false);
    history =
        new Grid(
            "practice-history",
            "Nobody has practised in this book yet.",
            List.of(
                Column.shown("learner", 74, false, i -> results.get(i).learner()).keepingItsWidth(),
                Column.shown("channel", 68, false, i -> results.get(i).channel()).fromWidth(460),
                Column.shown("hidden", 130, false, i -> results.get(i).hidden()),
                Column.shown(
                    "used/plan",
                    74,
                    true,
                    i -> results.get(i).measurements() + " / " + results.get(i).planned()),
                Column.shown(
                    "time",
                    46,
                    true,
                    i ->
                        results
                            .get(i)
                            .effort()
                            .map(e -> PracticeCourse.time(e.seconds()))
                            .orElse("")),
                Column.shown("score", 50, true, i -> "" + results.get(i).score())),
            i -> !results.get(i).right());
    root = build();
  }

  private HBox build() {
    var who = new Row(new Label("Learner"), learner, difficulty, start, five);
    var line = new HBox(8, where, new Label("at"), at, measure);
    line.setAlignment(Pos.CENTER_LEFT);
    HBox.setHgrow(where, Priority.ALWAYS);
    at.setPrefColumnCount(6);
    at.setMinWidth(70);
    var naming = new HBox(8, name, answer);
    naming.setAlignment(Pos.CENTER_LEFT);
    HBox.setHgrow(name, Priority.ALWAYS);
    var left =
        new Paper(
            "Find the fault",
            who,
            cue,
            Paper.subtitle("Measure"),
            line,
            reason,
            readings,
            Paper.subtitle("Name it"),
            naming);
    left.note("in a copy; the channel itself is never touched");
    VBox.setVgrow(readings, Priority.ALWAYS);
    readings.setMinHeight(76);
    HBox.setHgrow(left, Priority.ALWAYS);
    left.setMinWidth(0);
    left.setPrefWidth(400);
    ScrollPane read = WheelScroll.of(outcome);
    read.setFitToWidth(true);
    VBox.setVgrow(read, Priority.ALWAYS);
    var result = new Paper("Afterwards", read);
    result.setMinHeight(160);
    result.setPrefHeight(280);
    VBox.setVgrow(result, Priority.ALWAYS);
    var table = new Paper("Results in this book", history);
    VBox.setVgrow(history, Priority.ALWAYS);
    VBox.setVgrow(table, Priority.ALWAYS);
    table.setMinHeight(120);
    var right = new VBox(12, result, table);
    right.setMinWidth(0);
    right.setPrefWidth(400);
    HBox.setHgrow(right, Priority.ALWAYS);
    return new HBox(12, left, right);
  }

  /** Shows a choice by its title. */
  private static final class Titles<T> extends StringConverter<T> {
    private final Function<T, String> title;

    private Titles(Function<T, String> title) {
      this.title = title;
    }

    @Override
    public String toString(T t) {
      return t == null ? "" : title.apply(t);
    }

    @Override
    public T fromString(String s) {
      throw new UnsupportedOperationException("choices are not typed");
    }
  }

  private String title(Place p) {
    return analysis().channel().wiring().plan().title(p);
  }

  private List<MeasuredValue> seen() {
    return round == null ? List.of() : round.exercise().seen();
  }

  private Analysis analysis() {
    return desk.analysis();
  }

  private String amount(double x) {
    return analysis().design().amount(x);
  }

  /** What a sound channel's display shows there. */
  private double meant(double x) {
    return analysis().receiver().believed().isPresent() ? analysis().receiver().shownAt(x) : x;
  }

  private String reading(MeasuredValue o) {
    return ReadingsTable.shown(o.place(), o.value(), analysis());
  }

  /** Hides a fault in a copy of what the channel is now. */
  private void begin(Optional<PracticeCourse> of) {
    Analysis a = analysis();
    Channel c = a.channel();
    Optional<Subject> subject = a.wiring().subject();
    if (subject.isEmpty()) return;
    if (learner.getText().isBlank()) {
      say("Type your name first: results are kept by name.");
      learner.requestFocus();
      return;
    }
    say("");
    long seed = seeds.nextLong();
    course = of;
    course.ifPresent(
        k -> {
          chosen = k.level();
          difficulty.show(chosen);
        });
    Difficulty level = chosen;
    int decimals = a.design().decimals();
    Subject s = subject.get();
    work.run(() -> PracticeRound.hide(s, decimals, level, seed), made -> started(c, made));
  }

  private void started(Channel c, Optional<PracticeRound> made) {
    if (desk.channel().filter(now -> now == c).isEmpty()) return;
    if (made.isEmpty()) {
      say("No fault of this level shows at the display of this channel.");
      return;
    }
    round = made.get();
    begun = CLOCK.instant();
    over = false;
    outcome.getChildren().clear();
    name.setValue(null);
    name.getItems().setAll(round.names());
    where.getItems().setAll(round.engine().places());
    where.setValue(where.getItems().get(Math.min(1, where.getItems().size() - 1)));
    at.setText(Numbers.fixed(round.exercise().complaintAt(), analysis().design().decimals()));
    show();
    where.requestFocus();
  }

  private void measure() {
    if (round == null || over || where.getValue() == null) return;
    Channel c = round.channel();
    try {
      double x = QuantityParser.value(at.getText(), c.unit());
      round.requireInput(x);
      say("");
      Place place = where.getValue();
      Exercise e = round.exercise();
      work.run(() -> e.measure(place, x), o -> show());
    } catch (QuantityException e) {
      say(e.getMessage());
    }
  }

  private void judge() {
    Fault named = name.getValue();
    if (round == null || over) return;
    if (named == null) {
      say("Choose which fault it is.");
      return;
    }
    say("");
    PracticeRound r = round;
    work.run(() -> r.judge(named), o -> judged(r, named, o));
  }

  private void judged(PracticeRound r, Fault named, PracticeRound.Outcome o) {
    if (round != r) return;
    over = true;
    PracticeResult result =
        r.result(
            learner.getText(),
            chosen,
            named,
            o,
            LocalDate.now(CLOCK).toString(),
            (int) Math.max(0, Duration.between(begun, CLOCK.instant()).toSeconds()));
    desk.store().addPractice(result);
    loadHistory();
    course = course.map(k -> k.plus(result));
    outcome.explain(r, result, o, analysis());
    course.ifPresent(outcome::explain);
    show();
  }

  /** The disk is not waited for on the interface thread. */
  private void loadHistory() {
    Store store = desk.store();
    Background.run(
        () -> store.practice().reversed(),
        found -> {
          if (store != desk.store()) return;
          results = found;
          history.show(results.size());
        });
  }

  private void say(String sentence) {
    reason.setText(sentence);
    reason.setVisible(!sentence.isEmpty());
    reason.setManaged(!sentence.isEmpty());
  }

  private void show() {
    boolean running = round != null && !over;
    boolean possible = desk.channel().isPresent() && analysis().design().path().isPresent();
    start.setDisable(!possible);
    start.setText(round == null ? "Hide a fault" : "Hide another");
    five.setDisable(!possible || running);
    Optional<PracticeCourse> left = course.filter(k -> !k.over() && !k.done().isEmpty());
    five.setText(
        left.map(k -> "Next, %d of %d".formatted(k.done().size() + 1, PracticeCourse.LEVELS.size()))
            .orElse("Course of five"));
    for (Node n : List.of(where, at, measure, name, answer)) n.setDisable(!running);
    readings.show(seen().size());
    cue.getChildren().setAll(cue(running, possible));
    if (round == null) {
      outcome.explainTheGame();
    }
  }

  private List<Label> cue(boolean running, boolean possible) {
    String title;
    String text;
    if (!possible) {
      title = "Define the sensor first";
      text = "A fault can only be hidden in a channel that has a circuit.";
    } else if (running) {
      MeasuredValue o = seen().getFirst();
      title = "The display says " + amount(o.value());
      text =
          "and it should say about %s. Measure where you like, then name the fault. %d so far."
              .formatted(amount(meant(o.at())), round.exercise().measurements());
    } else {
      title = round == null ? "One fault, and a meter" : "Named";
      text =
          "%s. The meter is a hand-held one; fewer measurements score higher."
              .formatted(Sentence.capital(chosen.title()));
    }
    var headline = new Label(title);
    headline.getStyleClass().add("cue-title");
    headline.setWrapText(true);
    headline.setMinHeight(Region.USE_PREF_SIZE);
    var words = new Label(text);
    words.getStyleClass().add("cue-text");
    words.setWrapText(true);
    words.setMinHeight(Region.USE_PREF_SIZE);
    return List.of(headline, words);
  }

  @Override
  public Node node() {
    return root;
  }

  @Override
  public void switched() {
    round = null;
    course = Optional.empty();
    over = false;
  }

  @Override
  public void refresh() {
    // An edit of the channel ends what was begun on a copy of the former one.
    if (round != null && desk.channel().filter(c -> c == round.channel()).isEmpty()) switched();
    if (reason.getText().isEmpty()) say("");
    if (ofStore != desk.store()) {
      ofStore = desk.store();
      loadHistory();
    }
    show();
  }
}
