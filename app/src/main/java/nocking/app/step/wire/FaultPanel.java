package nocking.app.step.wire;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.EntryField;
import nocking.app.control.Segments;
import nocking.app.control.WheelScroll;
import nocking.app.desk.Background;
import nocking.app.desk.Desk;
import nocking.channel.Channel;
import nocking.diagnosis.Diagnosis;
import nocking.fault.FaultMatrix;
import nocking.fault.FaultRow;
import nocking.fault.FaultyPath;
import nocking.prior.FaultKind;
import nocking.quantity.Sentence;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.wiring.Place;
import nocking.wiring.Thresholds;

/** The fault matrix: the ruler, what is chosen on it, and the thresholds. */
final class FaultPanel extends VBox {

  /** Which rows are shown. */
  private enum Part {
    WIRES("Wires", FaultKind.Family.WIRE),
    PARTS("Parts", FaultKind.Family.PART),
    SENSOR("Sensor and curve", FaultKind.Family.SENSOR);

    private final String title;
    private final FaultKind.Family family;

    Part(String title, FaultKind.Family family) {
      this.title = title;
      this.family = family;
    }

    boolean holds(FaultRow r) {
      FaultKind.Family f = r.fault().kind().family();
      return f == FaultKind.Family.NONE
          || f == family
          || this == SENSOR && f == FaultKind.Family.NUMBERS;
    }
  }

  private final Desk desk;
  private final FaultPicture picture = new FaultPicture(this::describe);
  private final Label detail = new Label();
  private final EntryField low;
  private final EntryField high;
  private final Button use = new Button();
  private final Segments<Part> parts;
  private Part part = Part.WIRES;
  private Channel of;
  private Analysis analysis;
  private Optional<FaultMatrix> matrix = Optional.empty();
  private List<FaultRow> shown = List.of();

  FaultPanel(Desk desk) {
    this.desk = desk;
    setSpacing(6);
    parts =
        new Segments<>(
            "fault-part",
            List.of(Part.values()),
            p -> p.title,
            p -> {
              part = p;
              draw();
            });
    parts.show(part);
    low =
        new EntryField("fault-low", "below", true, t -> limit(t, true), desk::seal)
            .prompt("none")
            .help("Volts at the converter below which a reading is a fault.")
            .bare();
    high =
        new EntryField("fault-high", "above", true, t -> limit(t, false), desk::seal)
            .prompt("none")
            .help("Volts at the converter above which a reading is a fault.")
            .bare();
    use.setId("fault-use");
    use.getStyleClass().add("tiny");
    use.setOnAction(e -> useProposal());
    var top =
        new FlowPane(8, 6, parts, new Label("Fault below"), low, new Label("above"), high, use);
    top.setAlignment(Pos.CENTER_LEFT);
    detail.setId("fault-detail");
    detail.setWrapText(true);
    detail.setMinHeight(USE_PREF_SIZE);
    detail.setAlignment(Pos.TOP_LEFT);
    detail.getStyleClass().add("caption");
    ScrollPane scroll = WheelScroll.of(picture);
    scroll.setFitToWidth(true);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    getChildren().addAll(top, scroll, detail);
  }

  private void limit(String text, boolean below) {
    Value v = text.isBlank() ? null : Value.typed(text, Unit.VOLT);
    Thresholds now = desk.channel().orElseThrow().wiring().plan().thresholds();
    Value other = now == null ? null : below ? now.high() : now.low();
    Thresholds next =
        v == null && other == null
            ? null
            : below ? new Thresholds(v, other) : new Thresholds(other, v);
    desk.edit(
        "fault threshold",
        below ? "wire.fault-low" : "wire.fault-high",
        c -> c.wiring(w -> w.withPlan(w.plan().withThresholds(next))));
  }

  private void useProposal() {
    matrix
        .flatMap(m -> m.thresholds().thresholds())
        .ifPresent(
            t ->
                desk.edit(
                    "use these thresholds",
                    "",
                    c -> c.wiring(w -> w.withPlan(w.plan().withThresholds(t)))));
  }

  void refresh() {
    Analysis a = desk.analysis();
    Channel c = a.channel();
    Thresholds t = c.wiring().plan().thresholds();
    low.show(t == null ? null : t.low(), Unit.VOLT);
    high.show(t == null ? null : t.high(), Unit.VOLT);
    low.field().setEditable(desk.editable());
    high.field().setEditable(desk.editable());
    if (c == of) return;
    of = c;
    // Some hundreds of circuits are solved: not on the interface thread.
    Background.run(() -> a.wiring().faults(), found -> take(a, found));
  }

  private void take(Analysis a, Optional<FaultMatrix> found) {
    if (a.channel() != of) return;
    analysis = a;
    matrix = found;
    draw();
  }

  private void draw() {
    if (analysis == null) return;
    Optional<Thresholds> proposed = matrix.flatMap(m -> m.thresholds().thresholds());
    Thresholds set = analysis.channel().wiring().plan().thresholds();
    boolean offer = proposed.isPresent() && !proposed.get().equals(set) && desk.editable();
    use.setVisible(offer);
    use.setManaged(offer);
    use.setText("Use proposal");
    use.setAccessibleText(proposed.map(p -> "Use " + p.says()).orElse(""));
    picture.setVisible(matrix.isPresent());
    picture.setManaged(matrix.isPresent());
    if (matrix.isEmpty()) {
      detail.setText("Define the sensor first: every fault is worked out from the path.");
      shown = List.of();
      return;
    }
    shown = matrix.get().rows().stream().filter(part::holds).toList();
    picture.show(analysis, matrix.get(), shown);
  }

  private void describe(int row) {
    if (row >= shown.size() || matrix.isEmpty()) return;
    FaultRow r = shown.get(row);
    var words = new ArrayList<String>();
    List<Place> places = matrix.get().places();
    for (int i = 0; i < places.size(); i++) {
      FaultyPath.Reading at = r.atRest().get(i);
      if (Double.isNaN(at.value())) continue;
      String value =
          at.floats()
              ? "floats"
              : places.get(i).equals(Place.DISPLAY)
                  ? analysis.design().amount(at.value())
                  : Diagnosis.reading(places.get(i), at.value(), analysis.channel().unit());
      words.add(places.get(i).title() + " " + value);
    }
    String alike =
        r.confusedWith().isEmpty() || r.fault().kind() == FaultKind.NONE
            ? ""
            : " Looks the same: "
                + String.join(", ", r.confusedWith().stream().limit(5).toList())
                + (r.confusedWith().size() > 5 ? " …" : "")
                + ".";
    String harm =
        r.harm().any()
            ? " %s. The maker's rating and local codes decide."
                .formatted(Sentence.capital(r.harm().says()))
            : "";
    String note = r.note().isEmpty() ? "" : " It " + r.note() + ".";
    detail.setText(
        "%s%s: %s, code %d.%s%s"
            .formatted(
                r.fault().line(),
                harm.isEmpty() ? ", at rest" : "." + harm + " At rest",
                String.join(" · ", words),
                r.code(),
                r.floating() ? " A pull-down settles it." : alike,
                r.floating() ? "" : note));
  }

  /** Nothing is known of another channel yet. */
  void switched() {
    if (of != null && desk.channel().filter(c -> c == of).isPresent()) return;
    of = null;
    analysis = null;
    matrix = Optional.empty();
    shown = List.of();
    picture.setVisible(false);
    picture.setManaged(false);
    detail.setText("");
  }
}
