package nocking.app.step.diagnose;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.analysis.LiveReading;
import nocking.app.control.Paper;
import nocking.app.control.PlotView;
import nocking.app.control.Segments;
import nocking.app.control.WheelScroll;
import nocking.app.desk.Desk;
import nocking.app.desk.Latest;
import nocking.app.step.Sheet;
import nocking.channel.Channel;
import nocking.diagnosis.Diagnosis;
import nocking.diagnosis.Diagnostician;
import nocking.diagnosis.Explanation;
import nocking.diagnosis.Inquiry;
import nocking.diagnosis.MeasuredValue;
import nocking.diagnosis.MeasuringCaution;
import nocking.fault.Subject;
import nocking.prior.PriorWeights;
import nocking.report.plot.Plot;
import nocking.wiring.Observation;
import nocking.wiring.Place;

/** What was seen, which faults explain it, and what to measure next. */
public final class DiagnoseSheet implements Sheet {
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
  private record Engine(Channel channel, PriorWeights priorWeights, Diagnostician engine) {}

  /** What was found, and how it looks over the range. */
  private record Found(Inquiry inquiry, Plot plot) {}

  private final Desk desk;
  private final Latest work = new Latest();
  private final ObservationGrid seen;
  private final ObservationEntry entry;
  private final Cue cue;
  private final MeterBar meter;
  private final Button pins = new Button("Take the pins");
  private final ExplanationList explanations = new ExplanationList(this::look);
  private final Label verdict = new Label();
  private final PlotView plot = new PlotView("diagnose-plot", "What the display would show");
  private final ReadingsTable readings = new ReadingsTable();
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

  public DiagnoseSheet(Desk desk) {
    this.desk = desk;
    seen = new ObservationGrid(desk);
    entry = new ObservationEntry(seen::add);
    cue = new Cue(desk, entry);
    meter = new MeterBar(desk);
    verdict.setId("diagnose-verdict");
    verdict.setWrapText(true);
    verdict.getStyleClass().add("caption");
    verdict.setMinHeight(Region.USE_PREF_SIZE);
    priorsPanel = new PriorsPanel(desk);
    caution.getStyleClass().add("caution-line");
    var below = WheelScroll.of(new VBox(6, cue, caution, meter));
    below.setFitToWidth(true);
    below.setMinHeight(120);
    pins.setId("diagnose-pins");
    pins.getStyleClass().add("tiny");
    pins.setOnAction(e -> takePins());
    var left = new Paper("What was seen", seen.grid(), entry, below);
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

  /** What the pins read at rest counts as seen, once it is taken. */
  private void takePins() {
    Channel c = desk.channel().orElseThrow();
    var next = new ArrayList<>(seen.list());
    for (Observation s : Diagnosis.ofPins(c)) if (places.contains(s.place())) next.add(s);
    desk.observe("take what the pins read", next);
  }

  /** What the meter reads counts as seen where it is. */
  @Override
  public boolean live(LiveReading r) {
    double step = desk.channel().orElseThrow().design().converter().step();
    entry.take(r.place(), r.value(step));
    return true;
  }

  @Override
  public Node node() {
    return root;
  }

  @Override
  public void switched() {
    seen.grid().clearWrong();
    entry.clear();
    engine = null;
    found = null;
    looked = null;
  }

  @Override
  public void refresh() {
    Analysis a = desk.analysis();
    Channel c = a.channel();
    PriorWeights priorWeights = desk.book().priorWeights();
    meter.refresh();
    caution.setText(MeasuringCaution.of(c, null));
    boolean measured =
        desk.writable() && a.design().path().isPresent() && !Diagnosis.ofPins(c).isEmpty();
    pins.setVisible(measured);
    pins.setManaged(measured);
    seen.refresh(c);
    Optional<Subject> subject = a.wiring().subject();
    if (subject.isEmpty()) {
      found = null;
      places = List.of();
      entry.show(places, c, false);
      showFound();
      return;
    }
    boolean same =
        engine != null
            && sameCircuit(engine.channel, c)
            && engine.priorWeights.equals(priorWeights);
    if (!same) {
      // The circuit is solved anew; what was seen changes nothing in it.
      engine = new Engine(c, priorWeights, Diagnostician.of(subject.get(), priorWeights));
      places = engine.engine.places();
    }
    entry.show(places, c, desk.writable());
    entry.suggest(lastInput());
    Diagnostician own = engine.engine;
    List<MeasuredValue> observed = c.wiring().seen().stream().map(Diagnosis::observed).toList();
    work.run(() -> find(own, observed, a), f -> take(c, own, f));
  }

  private static boolean sameCircuit(Channel a, Channel b) {
    return a.wiring(w -> w.withObservations(List.of()))
        .equals(b.wiring(w -> w.withObservations(List.of())));
  }

  private static Found find(Diagnostician engine, List<MeasuredValue> observed, Analysis a) {
    var inquiry = Inquiry.of(engine, observed);
    return new Found(inquiry, ElsewherePlot.of(engine, inquiry.leading(), observed, a));
  }

  private void take(Channel c, Diagnostician own, Found f) {
    if (desk.channel().filter(now -> now == c).isEmpty()) return;
    found = f;
    looked =
        f.inquiry.leading().stream()
            .filter(e -> looked != null && e.fault().same(looked.fault()))
            .findFirst()
            .orElse(f.inquiry.leading().isEmpty() ? null : f.inquiry.leading().getFirst());
    showFound();
    if (!f.inquiry.ranking().unexplained()) return;
    // Every two faults take their time; the single ones stand meanwhile.
    work.run(
        () -> own.twoAtOnce(f.inquiry.ranking()),
        two -> {
          if (found != f) return;
          found = new Found(f.inquiry.with(two), f.plot);
          showFound();
        });
  }

  /** The input of the last line that has one, else the probe. */
  private String lastInput() {
    for (Observation s : seen.list().reversed()) if (s.at() != null) return s.at().typed();
    return desk.analysis().design().reading(desk.probe());
  }

  private void look(Explanation e) {
    looked = e;
    showFound();
  }

  private void showFound() {
    explanations.show(found == null ? List.of() : found.inquiry.leading(), looked);
    verdict.setText(words());
    cue.show(found == null ? null : found.inquiry);
    showLower();
  }

  private String words() {
    if (found != null) {
      return found.inquiry.says(Diagnosis.tolerance(desk.channel().orElseThrow()));
    }
    return places.isEmpty()
        ? "Define the sensor first: the faults are worked out from the path."
        : "";
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
        readings.show(found == null ? null : found.inquiry, looked, desk.analysis());
        lower.getChildren().setAll(WheelScroll.of(readings));
      }
      case PRIORS -> {
        priorsPanel.refresh();
        lower.getChildren().setAll(priorsPanel);
        VBox.setVgrow(priorsPanel, Priority.ALWAYS);
      }
    }
  }
}
