package nocking.app.stage.diagnose;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.function.UnaryOperator;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.GridPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.EntryField;
import nocking.app.control.Grid;
import nocking.app.control.Grid.Column;
import nocking.app.control.Paper;
import nocking.app.control.PlotView;
import nocking.app.control.Segments;
import nocking.app.control.WheelScroll;
import nocking.app.desk.Desk;
import nocking.app.desk.Latest;
import nocking.app.stage.BlockPaste;
import nocking.app.stage.StageView;
import nocking.channel.Channel;
import nocking.diagnosis.Diagnosis;
import nocking.diagnosis.Diagnostician;
import nocking.diagnosis.Explanation;
import nocking.diagnosis.MeasuringCaution;
import nocking.diagnosis.NextMeasurement;
import nocking.diagnosis.Observation;
import nocking.diagnosis.Ranking;
import nocking.diagnosis.TwoFaults;
import nocking.fault.Subject;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Sentence;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.report.plot.Plot;
import nocking.weighing.FaultKind;
import nocking.weighing.Meter;
import nocking.weighing.Weighing;
import nocking.wiring.Place;
import nocking.wiring.Seen;

/** What was seen, which faults explain it, and what to measure next. */
public final class DiagnoseView implements StageView {
  private static final int SHOWN = 8;

  /** What stands in the lower sheet. */
  private enum Look {
    ELSEWHERE("Over the range"),
    READINGS("Readings"),
    PRIORS("Weights");

    private final String title;

    Look(String title) {
      this.title = title;
    }
  }

  /** A channel's engine with what it weighs by. */
  private record Engine(Channel channel, Weighing weighing, Diagnostician engine) {}

  /**
   * What the engine found.
   *
   * @param two what two faults at once would explain; empty while that is looked for
   */
  private record Found(
      Ranking ranking,
      List<Explanation> leading,
      Optional<NextMeasurement> next,
      List<String> alike,
      Plot plot,
      Optional<TwoFaults> two) {
    Found with(TwoFaults pairs) {
      return new Found(ranking, leading, next, alike, plot, Optional.of(pairs));
    }
  }

  private final Desk desk;
  private final Latest work = new Latest();
  private final Grid seen;
  private final SeenEntry entry = new SeenEntry(this::addSeen);
  private final EntryField accuracy;
  private final EntryField counts;
  private final EntryField input;
  private final Button pins = new Button("Take the pins");
  private final VBox cue = new VBox(5);
  private final ExplanationList explanations = new ExplanationList(this::look);
  private final Label verdict = new Label();
  private final PlotView plot = new PlotView("diagnose-plot", "What the display would show");
  private final GridPane readings = new GridPane();
  private final Label caution = Paper.caption("");
  private final PriorsPanel priorsPanel;
  private final VBox lower = new VBox(6);
  private final Segments<Look> looks;
  private final HBox root;
  private Look look = Look.ELSEWHERE;
  private Engine engine;
  private Found found;
  private Explanation looked;
  private List<Place> places = List.of();

  public DiagnoseView(Desk desk) {
    this.desk = desk;
    seen = BlockPaste.into(seenGrid(), desk);
    accuracy =
        new EntryField("diagnose-accuracy", "Accuracy ±", false, this::takeAccuracy, desk::seal)
            .help("Percent of reading and last digits, for example 0.5 % + 2.")
            .bare();
    counts =
        new EntryField("diagnose-counts", "Counts", true, this::takeCounts, desk::seal)
            .help("Counts of the meter's display, for example 6000.")
            .bare();
    input =
        new EntryField("diagnose-input", "Input resistance", true, this::takeInput, desk::seal)
            .help("What a voltage range of the meter draws through, for example 10M.")
            .bare();
    cue.setId("diagnose-next");
    cue.getStyleClass().add("cue");
    verdict.setId("diagnose-verdict");
    verdict.setWrapText(true);
    verdict.getStyleClass().add("caption");
    verdict.setMinHeight(Region.USE_PREF_SIZE);
    priorsPanel = new PriorsPanel(desk);
    caution.getStyleClass().add("caution-line");
    var meterRow = row(new Label("Meter"), accuracy, counts, input);
    accuracy.field().setMaxWidth(78);
    counts.field().setMaxWidth(48);
    input.field().setMaxWidth(50);
    var below = WheelScroll.of(new VBox(6, cue, caution, meterRow));
    below.setFitToWidth(true);
    below.setMinHeight(120);
    pins.setId("diagnose-pins");
    pins.getStyleClass().add("tiny");
    pins.setOnAction(e -> takePins());
    var left = new Paper("What was seen", seen, entry, below);
    left.corner(pins);
    left.setMinWidth(324);
    left.setPrefWidth(324);
    left.setMaxWidth(350);
    VBox.setVgrow(below, Priority.ALWAYS);
    var explained = new Paper("Explanations", WheelScroll.of(explanations), verdict);
    explained.note("how well each agrees with all that was seen");
    VBox.setVgrow(explained, Priority.ALWAYS);
    explained.setMinHeight(180);
    explained.setPrefHeight(250);
    looks =
        new Segments<>(
            "diagnose-look",
            List.of(Look.values()),
            l -> l.title,
            l -> {
              look = l;
              showLower();
            });
    looks.show(look);
    readings.setHgap(14);
    readings.setVgap(4);
    var lowerSheet = new Paper("", lower);
    lowerSheet.head(looks);
    VBox.setVgrow(lower, Priority.ALWAYS);
    VBox.setVgrow(lowerSheet, Priority.ALWAYS);
    lowerSheet.setMinHeight(180);
    lowerSheet.setPrefHeight(230);
    lower.setMinHeight(0);
    var right = new VBox(12, explained, lowerSheet);
    HBox.setHgrow(right, Priority.ALWAYS);
    right.setMinWidth(0);
    var columns = new HBox(12, left, right);
    columns.setFillHeight(true);
    root = columns;
  }

  private Grid seenGrid() {
    return new Grid(
            "seen",
            "Nothing yet. Begin with what the display says at a known input.",
            List.of(
                Column.shown("where", 146, false, i -> list().get(i).place().title()),
                Column.typed("at", 80, true, i -> at(list().get(i)), this::takeAt),
                Column.typed("seen", 74, true, i -> shown(list().get(i)), this::takeValue)),
            i -> false)
        .onDelete(
            i -> {
              var next = new ArrayList<>(list());
              next.remove(i);
              desk.observe("take out what was seen", next);
              return true;
            });
  }

  private List<Seen> list() {
    return desk.channel().map(c -> c.wiring().seen()).orElse(List.of());
  }

  private String at(Seen s) {
    return s.at() == null ? "?" : withUnit(s.at(), desk.channel().orElseThrow().unit());
  }

  private String shown(Seen s) {
    Unit unit = s.place().unit(desk.channel().orElseThrow().unit());
    if (!s.jumping()) return withUnit(s.value(), unit);
    return withUnit(s.value(), unit) + " … " + withUnit(s.until(), unit) + ", jumping";
  }

  /** What was typed, with its unit where only a number was. */
  private static String withUnit(Value v, Unit unit) {
    boolean bare = v.typed().matches("[-+−]?[0-9.]+");
    return bare ? (v.typed() + " " + unit.symbol()).strip() : v.typed();
  }

  private void change(int i, Seen next) {
    var all = new ArrayList<>(list());
    all.set(i, next);
    desk.observe("change what was seen", all);
  }

  private void takeAt(int i, String text) {
    Seen s = list().get(i);
    boolean unknown = text.isBlank() || text.strip().equals("?");
    Value at = unknown ? null : Value.typed(text, desk.channel().orElseThrow().unit());
    var next = new Seen(s.place(), at, s.value(), s.until());
    Diagnosis.requireInput(desk.channel().orElseThrow(), next);
    change(i, next);
  }

  private void takeValue(int i, String text) {
    Seen s = list().get(i);
    Unit unit = s.place().unit(desk.channel().orElseThrow().unit());
    change(i, Seen.typed(s.place(), s.at(), text, unit));
  }

  /** What the pins read at rest counts as seen, once it is taken. */
  private void takePins() {
    Channel c = desk.channel().orElseThrow();
    var next = new ArrayList<>(list());
    for (Seen s : Diagnosis.ofPins(c)) if (places.contains(s.place())) next.add(s);
    desk.observe("take what the pins read", next);
  }

  private boolean addSeen(Seen s) {
    Diagnosis.requireInput(desk.channel().orElseThrow(), s);
    var next = new ArrayList<>(list());
    next.add(s);
    return desk.observe("add what was seen", next);
  }

  private void takeAccuracy(String text) {
    String[] both = text.replace("digits", "").split("\\+");
    if (both.length != 2 || !both[0].contains("%")) {
      throw new QuantityException("read '" + text + "', expected for example 0.5 % + 2");
    }
    double percent = QuantityParser.value(both[0].replace("%", "").strip(), Unit.ONE);
    double digits = QuantityParser.value(both[1].strip(), Unit.ONE);
    use(m -> new Meter(percent, digits, m.counts(), m.inputResistance()));
  }

  private void takeCounts(String text) {
    double v = QuantityParser.value(text.replace(" ", ""), Unit.ONE);
    if (v != Math.rint(v) || v > 1e8) {
      throw new QuantityException("read '" + text + "', expected a whole number of counts");
    }
    use(m -> new Meter(m.percent(), m.digits(), (int) v, m.inputResistance()));
  }

  private void takeInput(String text) {
    double v = QuantityParser.value(text, Unit.OHM);
    use(m -> new Meter(m.percent(), m.digits(), m.counts(), v));
  }

  private void use(UnaryOperator<Meter> change) {
    Weighing w = desk.book().weighing();
    Meter next = change.apply(w.meter());
    desk.editBook("change the meter", "meter", b -> b.withWeighing(w.withMeter(next)));
  }

  @Override
  public Node node() {
    return root;
  }

  @Override
  public void switched() {
    seen.clearWrong();
    entry.clear();
    engine = null;
    found = null;
    looked = null;
  }

  @Override
  public void refresh() {
    Analysis a = desk.analysis();
    Channel c = a.channel();
    Weighing weighing = desk.book().weighing();
    Meter meter = weighing.meter();
    accuracy.show(
        Numbers.trimmed(meter.percent(), 4) + " % + " + Numbers.trimmed(meter.digits(), 4), "");
    counts.show(Numbers.trimmed(meter.counts(), 8), "");
    input.show(Numbers.compact(meter.inputResistance(), "", 4).strip(), "Ω");
    for (EntryField f : List.of(accuracy, counts, input)) {
      f.field().setEditable(desk.writable());
    }
    caution.setText(MeasuringCaution.of(c, null));
    boolean measured =
        desk.writable() && a.design().path().isPresent() && !Diagnosis.ofPins(c).isEmpty();
    pins.setVisible(measured);
    pins.setManaged(measured);
    seen.editable(desk.writable());
    seen.show(c.wiring().seen().size());
    double high = 30 + 25.0 * Math.clamp(c.wiring().seen().size(), 2, 5);
    seen.setMinHeight(high);
    seen.setPrefHeight(high);
    Optional<Subject> subject = a.wiring().subject();
    if (subject.isEmpty()) {
      found = null;
      places = List.of();
      entry.show(places, c.unit(), false);
      showFound();
      return;
    }
    boolean same =
        engine != null && sameCircuit(engine.channel, c) && engine.weighing.equals(weighing);
    if (!same) {
      // The circuit is solved anew; what was seen changes nothing in it.
      engine = new Engine(c, weighing, Diagnostician.of(subject.get(), weighing));
      places = engine.engine.places();
    }
    entry.show(places, c.unit(), desk.writable());
    entry.suggest(lastInput());
    Diagnostician own = engine.engine;
    boolean dark = desk.dark();
    List<Observation> observed = c.wiring().seen().stream().map(Diagnosis::observed).toList();
    work.run(() -> find(own, observed, a, dark), f -> take(c, own, f));
  }

  private static boolean sameCircuit(Channel a, Channel b) {
    return a.wiring(w -> w.withSeen(List.of())).equals(b.wiring(w -> w.withSeen(List.of())));
  }

  private static Found find(
      Diagnostician engine, List<Observation> observed, Analysis a, boolean dark) {
    Ranking r = engine.rank(observed);
    List<Explanation> leading = observed.isEmpty() ? List.of() : r.leading(SHOWN);
    Optional<NextMeasurement> next = engine.next(r);
    List<String> alike =
        observed.isEmpty()
            ? List.of()
            : engine.indistinguishable(r.best(), r).stream().map(e -> e.fault().says()).toList();
    return new Found(
        r, leading, next, alike, ElsewherePlot.of(engine, leading, observed, a), Optional.empty());
  }

  private void take(Channel c, Diagnostician own, Found f) {
    if (desk.channel().filter(now -> now == c).isEmpty()) return;
    found = f;
    looked =
        f.leading.stream()
            .filter(e -> looked != null && e.fault().same(looked.fault()))
            .findFirst()
            .orElse(f.leading.isEmpty() ? null : f.leading.getFirst());
    showFound();
    if (!f.ranking.unexplained()) return;
    // Every two faults take their time; the single ones stand meanwhile.
    work.run(
        () -> own.twoAtOnce(f.ranking),
        two -> {
          if (found != f) return;
          found = f.with(two);
          showFound();
        });
  }

  /** The input of the last line that has one, else the probe. */
  private String lastInput() {
    for (Seen s : list().reversed()) if (s.at() != null) return s.at().typed();
    return Numbers.fixed(desk.probe(), desk.analysis().design().decimals());
  }

  private void look(Explanation e) {
    looked = e;
    showFound();
  }

  private void showFound() {
    explanations.show(found == null ? List.of() : found.leading, looked);
    verdict.setText(words());
    showCue();
    showLower();
  }

  private String words() {
    if (found == null) {
      return places.isEmpty()
          ? "Define the sensor first: the faults are worked out from the path."
          : "";
    }
    if (found.ranking.observations().isEmpty()) {
      return "Add what the display says at a known input, then what the meter says along the way."
          + " Every fault of the circuit and the usual slips in the numbers are weighed against it.";
    }
    if (found.ranking.noneFits()) {
      return "None of these faults explains what was seen by itself. "
          + twoFaults("Look for a reading that was written down wrong; the nearest are listed.");
    }
    if (found.ranking.somethingElse()) {
      return "Something that is not on this list is likelier than anything on it. "
          + twoFaults("Look for a wrong reference, or a part that is not drawn.");
    }
    Channel channel = desk.channel().orElseThrow();
    if (found.ranking.nothingWrong(Diagnosis.tolerance(channel))) {
      return "Nothing seen so far is wrong: it is all within tolerance.";
    }
    String alike =
        found.alike.isEmpty()
            ? ""
            : " No measurement here tells the first from: "
                + String.join("; ", found.alike.stream().limit(4).toList())
                + (found.alike.size() > 4 ? " …" : ".");
    String family =
        found.ranking.best().fault().kind() == FaultKind.NONE
            ? "What was seen fits a sound channel best."
            : "Look at the " + found.ranking.best().fault().kind().family().title() + " first.";
    return family + alike;
  }

  private String twoFaults(String otherwise) {
    if (found.two.isEmpty()) return "Looking whether two at once do …";
    return found.two.get().says().orElse("No two of them stand out either. " + otherwise);
  }

  private void showCue() {
    cue.getChildren().clear();
    Optional<NextMeasurement> next = found == null ? Optional.empty() : found.next;
    if (next.isEmpty()) {
      var none =
          new Label(
              found == null || found.ranking.observations().isEmpty()
                  ? "Enter the complaint first."
                  : "Nothing that can be measured here says more.");
      none.setWrapText(true);
      none.getStyleClass().add("cue-text");
      cue.getChildren().add(none);
      return;
    }
    NextMeasurement n = next.get();
    Analysis a = desk.analysis();
    boolean display = n.place().equals(Place.DISPLAY);
    var headline = new Label(display ? "Read the display" : "Measure the " + n.place().title());
    headline.getStyleClass().add("cue-title");
    headline.setWrapText(true);
    headline.setMinHeight(Region.USE_PREF_SIZE);
    String how =
        n.place().live()
            ? "live, with " + a.design().amount(n.at()) + " at the sensor."
            : display
                ? "with " + a.design().amount(n.at()) + " at the sensor."
                : "with the plug off, at " + a.design().amount(n.at()) + ".";
    var text = new Label(how + " It tells them apart best:");
    text.setWrapText(true);
    text.setMinHeight(Region.USE_PREF_SIZE);
    text.getStyleClass().add("cue-text");
    cue.getChildren().addAll(headline, text);
    n.predictions().stream().limit(3).forEach(p -> cue.getChildren().add(cueLine(n, p, a)));
    var enter = new Button("Enter it");
    enter.setId("diagnose-enter");
    enter.getStyleClass().add("cue-button");
    enter.setDisable(!desk.writable());
    enter.setOnAction(e -> entry.ready(n.place(), Numbers.fixed(n.at(), a.design().decimals())));
    cue.getChildren().add(enter);
  }

  private static HBox cueLine(NextMeasurement n, NextMeasurement.Prediction p, Analysis a) {
    String fault = p.fault().name();
    var name = new Label(Sentence.capital(fault));
    name.getStyleClass().add("cue-text");
    name.setMaxWidth(Double.MAX_VALUE);
    name.setMinWidth(0);
    HBox.setHgrow(name, Priority.ALWAYS);
    var value = new Label(shown(n.place(), p.value(), a));
    value.getStyleClass().add("cue-value");
    value.setMinWidth(Region.USE_PREF_SIZE);
    var line = new HBox(8, name, value);
    line.getStyleClass().add("cue-line");
    return line;
  }

  private static String shown(Place place, double value, Analysis a) {
    return place.equals(Place.DISPLAY) && !Double.isNaN(value)
        ? a.design().amount(value)
        : Diagnosis.reading(place, value, a.channel().unit()).replace('-', '−');
  }

  private void showLower() {
    switch (look) {
      case ELSEWHERE -> {
        plot.dark(desk.dark());
        if (found != null && found.plot != null) plot.show(found.plot);
        boolean has = found != null && found.plot != null;
        lower.getChildren().setAll(has ? plot : Paper.caption("There is nothing to compare yet."));
        VBox.setVgrow(plot, Priority.ALWAYS);
      }
      case READINGS -> {
        showReadings();
        lower.getChildren().setAll(WheelScroll.of(readings));
      }
      case PRIORS -> {
        priorsPanel.refresh();
        lower.getChildren().setAll(priorsPanel);
        VBox.setVgrow(priorsPanel, Priority.ALWAYS);
      }
    }
  }

  /** Expected against observed for the explanation that is looked at. */
  private void showReadings() {
    readings.getChildren().clear();
    if (found == null || looked == null) {
      readings.add(Paper.caption("There is nothing to compare yet."), 0, 0);
      return;
    }
    Analysis a = desk.analysis();
    String[] head = {"where", "at", "seen", "by this explanation"};
    for (int i = 0; i < head.length; i++) {
      var l = new Label(head[i]);
      l.getStyleClass().add("quiet");
      readings.add(l, i, 0);
    }
    List<Observation> observed = found.ranking.observations();
    for (int i = 0; i < observed.size(); i++) {
      Observation o = observed.get(i);
      readings.add(new Label(o.place().title()), 0, i + 1);
      readings.add(number(o.inputKnown() ? a.design().amount(o.at()) : "?"), 1, i + 1);
      readings.add(number(shown(o.place(), o.value(), a)), 2, i + 1);
      double e = looked.expected().get(i);
      readings.add(number(o.inputKnown() ? shown(o.place(), e, a) : ""), 3, i + 1);
    }
    readings.add(Paper.caption(looked.fault().line()), 0, observed.size() + 1, 4, 1);
  }

  private static Label number(String text) {
    var l = new Label(text);
    l.getStyleClass().add("mono");
    l.setAlignment(Pos.CENTER_RIGHT);
    return l;
  }

  /** A row of controls that breaks where it is narrow. */
  static FlowPane row(Node... nodes) {
    var flow = new FlowPane(8, 6, nodes);
    flow.setAlignment(Pos.CENTER_LEFT);
    return flow;
  }
}
