package nocking.app.stage.diagnose;

import java.time.LocalDate;
import java.util.ArrayList;
import java.util.Comparator;
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
import nocking.app.control.Segments;
import nocking.app.control.WheelScroll;
import nocking.app.desk.Background;
import nocking.app.desk.Desk;
import nocking.app.desk.Latest;
import nocking.app.desk.Store;
import nocking.app.stage.StageView;
import nocking.channel.Channel;
import nocking.channel.PracticeResult;
import nocking.diagnosis.Diagnosis;
import nocking.diagnosis.Diagnostician;
import nocking.diagnosis.Exercise;
import nocking.diagnosis.Exercise.Difficulty;
import nocking.diagnosis.Explanation;
import nocking.diagnosis.Observation;
import nocking.diagnosis.Ranking;
import nocking.fault.Fault;
import nocking.fault.FaultCatalogue;
import nocking.fault.Subject;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Sentence;
import nocking.quantity.Span;
import nocking.weighing.Meter;
import nocking.weighing.Weighing;
import nocking.wiring.Place;

/** One fault hidden in a copy of the channel, to be found by measuring; the channel stays. */
public final class PracticeView implements StageView {

  /** What is under way. */
  private record Round(
      Channel channel, Exercise exercise, Diagnostician engine, List<Fault> faults) {}

  private final Desk desk;
  private final Random seeds;
  private final Latest work = new Latest();
  private final TextField learner = new TextField();
  private final Segments<Difficulty> difficulty;
  private final Button start = new Button("Hide a fault");
  private final ComboBox<Place> where = new DropDown<>();
  private final TextField at = new TextField();
  private final Button measure = new Button("Measure");
  private final Grid readings;
  private final ComboBox<Fault> name = new DropDown<>();
  private final Button answer = new Button("That is it");
  private final VBox cue = new VBox(5);
  private final VBox outcome = new VBox(5);
  private final Grid history;
  private final Label reason = new Label();
  private final HBox root;
  private Difficulty chosen = Difficulty.EASY;
  private Round round;
  private boolean over;
  private List<PracticeResult> results = List.of();
  private Store ofStore;

  public PracticeView(Desk desk) {
    this(desk, new Random());
  }

  /**
   * @param seeds where the hidden faults come from; a seeded one in tests
   */
  public PracticeView(Desk desk, Random seeds) {
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
    start.setOnAction(e -> begin());
    where.setId("practice-where");
    where.setMaxWidth(Double.MAX_VALUE);
    where.setConverter(new Titles<>(Place::title));
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
    outcome.setId("practice-outcome");
    reason.setId("practice-reason");
    reason.getStyleClass().add("text-fail");
    reason.setWrapText(true);
    readings =
        new Grid(
            "practice-readings",
            "What you measure is listed here. The first line is what was complained of.",
            List.of(
                Column.shown("where", 190, false, i -> seen().get(i).place().title()),
                Column.shown("at", 90, true, i -> amount(seen().get(i).at())),
                Column.shown("shows", 110, true, i -> reading(seen().get(i)))),
            i -> false);
    history =
        new Grid(
            "practice-history",
            "Nobody has practised in this book yet.",
            List.of(
                Column.shown("learner", 74, false, i -> results.get(i).learner()),
                Column.shown("channel", 60, false, i -> results.get(i).channel()),
                Column.shown("hidden", 150, false, i -> results.get(i).hidden()),
                Column.shown(
                    "used / plan",
                    78,
                    true,
                    i -> results.get(i).measurements() + " / " + results.get(i).planned()),
                Column.shown("score", 54, true, i -> "" + results.get(i).score())),
            i -> !results.get(i).right());
    root = build();
  }

  private HBox build() {
    var who = DiagnoseView.row(new Label("Learner"), learner, difficulty, start);
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

  private List<Observation> seen() {
    return round == null ? List.of() : round.exercise.seen();
  }

  private Analysis analysis() {
    return desk.analysis();
  }

  private String amount(double x) {
    return analysis().design().amount(x);
  }

  private String reading(Observation o) {
    return o.place().equals(Place.DISPLAY)
        ? amount(o.value())
        : Diagnosis.reading(o.place(), o.value(), analysis().channel().unit()).replace('-', '−');
  }

  /** Hides a fault in a copy of what the channel is now. */
  private void begin() {
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
    Difficulty level = chosen;
    int decimals = a.design().decimals();
    Subject s = subject.get();
    work.run(
        () ->
            Exercise.hide(s, Meter.HAND_HELD, decimals, level, seed)
                .map(e -> new Round(c, e, Diagnostician.of(s, Weighing.USUAL), names(s, level))),
        made -> started(c, made));
  }

  /** Every fault that may be named, in the order of their names. */
  private static List<Fault> names(Subject s, Difficulty level) {
    return FaultCatalogue.of(s).stream()
        .filter(f -> f.kind().inChannel() && !f.kind().loose() && level.holds(f))
        .sorted(Comparator.comparing(Fault::name))
        .toList();
  }

  private void started(Channel c, Optional<Round> made) {
    if (desk.channel().filter(now -> now == c).isEmpty()) return;
    if (made.isEmpty()) {
      say("No fault of this level shows at the display of this channel.");
      return;
    }
    round = made.get();
    over = false;
    outcome.getChildren().clear();
    name.setValue(null);
    name.getItems().setAll(round.faults);
    where.getItems().setAll(round.engine.places());
    where.setValue(where.getItems().get(Math.min(1, where.getItems().size() - 1)));
    at.setText(Numbers.fixed(round.exercise.complaintAt(), analysis().design().decimals()));
    show();
    where.requestFocus();
  }

  private void measure() {
    if (round == null || over || where.getValue() == null) return;
    Channel c = round.channel;
    try {
      double x = QuantityParser.value(at.getText(), c.unit());
      Span w = c.definition().working();
      Span allowed = new Span(w.low() - 0.1 * w.width(), w.high() + 0.1 * w.width());
      if (!allowed.contains(x)) {
        throw new QuantityException(
            "%s lies outside the range %s … %s"
                .formatted(amount(x), amount(w.low()), amount(w.high())));
      }
      say("");
      Place place = where.getValue();
      Exercise e = round.exercise;
      work.run(() -> e.measure(place, x), o -> show());
    } catch (QuantityException e) {
      say(e.getMessage());
    }
  }

  private record Judged(
      boolean right, List<Observation> plan, Ranking ranking, List<String> alike) {}

  private void judge() {
    Fault named = name.getValue();
    if (round == null || over) return;
    if (named == null) {
      say("Choose which fault it is.");
      return;
    }
    say("");
    Round r = round;
    work.run(
        () -> {
          Ranking ranking = r.engine.rank(r.exercise.seen());
          List<Observation> plan = r.exercise.plan(r.engine);
          List<String> alike =
              ranking
                  .of(r.exercise.hidden())
                  .map(e -> r.engine.indistinguishable(e, ranking))
                  .orElse(List.of())
                  .stream()
                  .map(e -> e.fault().name())
                  .toList();
          return new Judged(r.exercise.right(named, r.engine), plan, ranking, alike);
        },
        j -> judged(r, named, j));
  }

  private void judged(Round r, Fault named, Judged j) {
    if (round != r) return;
    over = true;
    var result =
        new PracticeResult(
            learner.getText().strip(),
            r.channel.tag(),
            chosen.name().toLowerCase(Locale.ROOT),
            r.exercise.hidden().says(),
            named.name(),
            j.right,
            Math.max(1, r.exercise.measurements()),
            Math.max(1, j.plan.size()),
            LocalDate.now().toString());
    desk.store().addPractice(result);
    loadHistory();
    explain(r, result, j);
    show();
  }

  private void explain(Round r, PracticeResult result, Judged j) {
    var headline =
        new Label(
            j.right
                ? "Right: %s. Score %d.".formatted(result.hidden(), result.score())
                : "It was %s.".formatted(result.hidden()));
    headline.setId("practice-verdict");
    headline.setWrapText(true);
    headline.setMinHeight(Region.USE_PREF_SIZE);
    headline.getStyleClass().add(j.right ? "text-pass" : "text-fail");
    outcome.getChildren().setAll(headline);
    outcome
        .getChildren()
        .add(
            Paper.caption(
                "You used %d measurement%s; the engine's own plan needs %d: %s."
                    .formatted(
                        r.exercise.measurements(),
                        r.exercise.measurements() == 1 ? "" : "s",
                        j.plan.size(),
                        j.plan.isEmpty() ? "the display says enough" : plan(j.plan))));
    if (!j.alike.isEmpty()) {
      outcome
          .getChildren()
          .add(
              Paper.caption(
                  "No measurement here tells it from: "
                      + String.join(", ", j.alike.stream().limit(5).toList())
                      + "; any of them counts."));
    }
    var leading = new ArrayList<String>();
    for (Explanation e : j.ranking.leading(4)) {
      leading.add(e.fault().says() + " " + ExplanationList.percent(e.probability()));
    }
    outcome
        .getChildren()
        .add(Paper.caption("After your readings: " + String.join(" · ", leading) + "."));
    outcome.getChildren().add(Paper.caption(lesson(r.exercise.hidden())));
  }

  private String plan(List<Observation> list) {
    return String.join(
        ", then ",
        list.stream()
            .map(o -> "%s at %s (%s)".formatted(o.place().title(), amount(o.at()), reading(o)))
            .toList());
  }

  /** What to remember of a family of faults. */
  private static String lesson(Fault f) {
    return switch (f.kind().family()) {
      case WIRE ->
          "Wires show by comparing both ends: what stands at the sensor must arrive at the receiver, and the grounds must agree.";
      case PART ->
          "A part shows between two test points: the node before it is right and the node behind it is not.";
      case SENSOR ->
          "A sensor is suspected last: supply and ground right at its own pins, and its output still wrong.";
      case NUMBERS ->
          "Every voltage is right and only the display is wrong: the fault is in the receiver's numbers, not on the bench.";
      case NONE, MEASURING, UNLISTED -> "";
    };
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
    for (Node n : List.of(where, at, measure, name, answer)) n.setDisable(!running);
    readings.show(seen().size());
    cue.getChildren().setAll(cue(running, possible));
    if (round == null) {
      outcome
          .getChildren()
          .setAll(
              Paper.caption("1  Hide a fault: the display of a copy of this channel goes wrong."),
              Paper.caption("2  Measure where you like, at any input; every measurement counts."),
              Paper.caption(
                  "3  Name it. The explanation and the engine's own plan come here, and the score:"
                      + " its number of measurements over yours."));
    }
  }

  private List<Label> cue(boolean running, boolean possible) {
    String title;
    String text;
    if (!possible) {
      title = "Define the sensor first";
      text = "A fault can only be hidden in a channel that has a circuit.";
    } else if (running) {
      Observation o = seen().getFirst();
      title = "The display says " + amount(o.value());
      text =
          "and it should say about %s. Measure where you like, then name the fault. %d so far."
              .formatted(amount(o.at()), round.exercise.measurements());
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
    over = false;
  }

  @Override
  public void refresh() {
    // An edit of the channel ends what was begun on a copy of the former one.
    if (round != null && desk.channel().filter(c -> c == round.channel).isEmpty()) switched();
    if (reason.getText().isEmpty()) say("");
    if (ofStore != desk.store()) {
      ofStore = desk.store();
      loadHistory();
    }
    show();
  }
}
