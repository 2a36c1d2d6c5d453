package nocking.app.shell;

import java.util.List;
import java.util.Optional;
import java.util.function.IntConsumer;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.LineTo;
import javafx.scene.shape.MoveTo;
import javafx.scene.shape.Path;
import nocking.analysis.Analysis;
import nocking.analysis.LiveReading;
import nocking.analysis.ProbeInput;
import nocking.app.control.EntryField;
import nocking.app.desk.Desk;
import nocking.channel.Channel;
import nocking.channel.Definition;
import nocking.channel.WorkStep;
import nocking.path.PathState;
import nocking.path.SignalPath;
import nocking.path.TestPoint;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.view.Belief;
import nocking.view.ProbeState;

/**
 * The signal path as a copper trace on the bench mat. Pads show live values, elements ride on the
 * line and can be dragged along it, and below lies the probe.
 */
final class PathStrip extends VBox {
  private static final double PITCH = 16;

  private final Desk desk;
  private final Path grid = new Path();
  private final Label title = new Label();
  private static final double PROBE_WIDTH = 66;
  private static final double NAME_WIDTH = 126;

  private final Label corner = new Label();
  private final PathTrace trace;
  private final ProbeRail rail;
  private final EntryField probeValue;
  private Span[] jobVolts = new Span[0];

  /**
   * @param open called with the element that was clicked: 0 the sensor, 1 … n the stages, n + 1 the
   *     converter, n + 2 the model
   */
  PathStrip(Desk desk, IntConsumer open) {
    this.desk = desk;
    trace = new PathTrace(desk, open);
    rail = new ProbeRail(desk);
    getStyleClass().add("strip");
    setId("strip");
    setPadding(new Insets(6, 16, 4, 16));
    title.getStyleClass().add("title");
    corner.getStyleClass().add("title");
    corner.setId("strip-corner");
    var gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    probeValue =
        new EntryField(
            "probe-value",
            "Probe",
            false,
            text -> desk.probe(ProbeInput.typed(channel(), text)),
            desk::seal);
    probeValue.bare().help("Type the input that the probe stands at, with any unit.");
    probeValue.getStyleClass().add("probe-value");
    probeValue.setMinWidth(132);
    probeValue.setMaxWidth(132);
    var word = new Label("Probe");
    word.setMinWidth(Region.USE_PREF_SIZE);
    word.setPadding(new Insets(3, 0, 0, 0));
    var lower = new HBox(8, word, probeValue, rail);
    lower.setAlignment(Pos.TOP_LEFT);
    HBox.setHgrow(rail, Priority.ALWAYS);
    grid.getStyleClass().add("mat-grid");
    grid.setManaged(false);
    grid.setMouseTransparent(true);
    title.setMinWidth(0);
    corner.setMinWidth(Region.USE_PREF_SIZE);
    var scroll = new ScrollPane(trace);
    scroll.setFitToWidth(true);
    scroll.setFitToHeight(true);
    scroll.setVbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    scroll.setFocusTraversable(false);
    scroll.setMinHeight(PathTrace.HEIGHT + 2);
    getChildren().addAll(grid, new HBox(12, title, gap, corner), scroll, lower);
    setMinHeight(Region.USE_PREF_SIZE);
    widthProperty().addListener(o -> mat());
    heightProperty().addListener(o -> mat());
  }

  /** The mat's grid, one line every 16 pixels, as a single path. */
  private void mat() {
    grid.getElements().clear();
    for (double x = PITCH + 0.5; x < getWidth(); x += PITCH) {
      grid.getElements().addAll(new MoveTo(x, 0), new LineTo(x, getHeight()));
    }
    for (double y = PITCH + 0.5; y < getHeight(); y += PITCH) {
      grid.getElements().addAll(new MoveTo(0, y), new LineTo(getWidth(), y));
    }
  }

  private Channel channel() {
    return desk.channel().orElseThrow();
  }

  /** Shows the channel anew: rebuilt only when its elements are others. */
  void refresh() {
    if (desk.channel().isEmpty()) return;
    Channel c = channel();
    Analysis a = desk.analysis();
    Definition d = c.definition();
    String kind = d.gauge() == null ? "" : d.gauge() ? " gauge" : " absolute";
    title.setText(
        "%s · %s · %s…%s %s%s"
            .formatted(
                d.tag(),
                d.name().isBlank() ? d.kind().title() : d.name(),
                end(c, d.low()),
                end(c, d.high()),
                d.unit(),
                kind));
    title.setTooltip(new Tooltip(title.getText()));
    trace.show(c, a);
    spans(a);
    rail.show(d.working(), c.design().stations());
    probe();
  }

  /** An end of the working range, as a station where there is one. */
  private static String end(Channel c, Value end) {
    return c.design()
        .station(end.number())
        .orElseGet(() -> Numbers.trimmed(end.number(), 5).replace('-', '−'));
  }

  /** Marks the element whose sheet is open. */
  void choose(int element) {
    trace.choose(element);
  }

  /** Volts that each test point takes over the working range. */
  private void spans(Analysis a) {
    Optional<SignalPath> path = a.design().path();
    if (path.isEmpty()) {
      jobVolts = new Span[0];
      return;
    }
    Span working = a.channel().definition().working();
    PathState low = path.get().at(working.low());
    PathState high = path.get().at(working.high());
    jobVolts = new Span[low.nodes().size()];
    for (int i = 0; i < jobVolts.length; i++) {
      jobVolts[i] = Span.between(low.nodes().get(i).value(), high.nodes().get(i).value());
    }
  }

  /** Moves everything that follows the probe. */
  void probe() {
    if (desk.channel().isEmpty()) return;
    Channel c = channel();
    Analysis a = desk.analysis();
    double x = desk.probe();
    String unit = c.definition().unit();
    rail.place(x);
    probeValue.field().setMaxWidth(c.design().stations().isEmpty() ? PROBE_WIDTH : NAME_WIDTH);
    probeValue.field().setPrefWidth(c.design().stations().isEmpty() ? PROBE_WIDTH : NAME_WIDTH);
    probeValue.show(
        c.design().stations().isEmpty()
            ? a.design().reading(x).replace('−', '-')
            : c.design().station(x).orElse(""),
        unit);
    List<Pad> pads = trace.pads();
    pads.getFirst()
        .show(
            c.design().station(x).orElse((a.design().reading(x) + " " + unit).strip()),
            x,
            c.definition().working(),
            c.definition().working(),
            false);
    Optional<ProbeState> state = a.at(x);
    if (state.isEmpty()) {
      pads.subList(1, pads.size()).forEach(Pad::blank);
      corner.setText("");
      return;
    }
    ProbeState s = state.get();
    for (int i = 0; i < s.readOut().nodes().size(); i++) node(i, s.readOut().nodes().get(i));
    int codes = c.design().converter().codes();
    double reference = c.design().converter().reference().number();
    Span job = jobVolts[jobVolts.length - 1];
    pads.get(pads.size() - 2)
        .show(
            String.valueOf(s.readOut().code()),
            s.readOut().code(),
            new Span(0, codes - 1.0),
            new Span(
                job.low() / reference * codes, Math.max(job.low(), job.high()) / reference * codes),
            s.readOut().code() == 0 || s.readOut().code() == codes - 1);
    pads.getLast()
        .show(
            c.design()
                .station(s.display())
                .orElse((a.design().reading(s.display()) + " " + unit).strip()),
            s.display(),
            c.definition().working(),
            c.definition().working(),
            s.limited());
    live();
  }

  /** In the corner stands what a meter reads, or else how far the reading is off. */
  void live() {
    if (desk.channel().isEmpty()) return;
    Analysis a = desk.analysis();
    Optional<LiveReading> now = desk.live().now();
    corner.getStyleClass().removeAll("live", "live-bad");
    rail.live(now.map(LiveReading::quantity).orElse(Double.NaN));
    String trouble = desk.live().trouble();
    if (now.isPresent() || !trouble.isEmpty()) {
      boolean bad = now.map(LiveReading::fault).orElse(true);
      corner.getStyleClass().add(bad ? "live-bad" : "live");
      corner.setText("live " + now.map(r -> r.says(a)).orElse(trouble));
      return;
    }
    corner.setText(
        a.at(desk.probe())
            .map(
                s -> a.receiver().belief().map(b -> believes(a, s, b)).orElseGet(() -> error(a, s)))
            .orElse(""));
  }

  private static String error(Analysis a, ProbeState s) {
    String unit = a.channel().definition().unit();
    return "%s %s %s · 1 count = %s %s"
        .formatted(
            a.channel().calibration().byDesign() ? "error" : "fitted line against design",
            Numbers.signed(s.error(), a.design().decimals() + 1),
            unit,
            Numbers.significant(s.countsWorth(), 2),
            unit);
  }

  /** The true value, what the receiver takes it for, and how the two go together. */
  private static String believes(Analysis a, ProbeState s, Belief b) {
    String unit = a.channel().definition().unit();
    String relation =
        b.straight(a.channel().definition().working())
            ? "gain %s, offset %s %s"
                .formatted(
                    Numbers.significant(b.gain(), 3),
                    Numbers.signed(b.offset(), a.design().decimals()),
                    unit)
            : "not in proportion";
    return "true %s, the receiver believes %s · %s"
        .formatted(a.design().amount(s.reading()), a.design().amount(s.display()), relation);
  }

  private void node(int i, PathState.Node node) {
    TestPoint point = node.point();
    Span job = jobVolts[i];
    Span usable = point.usable();
    // A node without a limit of its own is drawn against a little more than the job uses.
    Span shown =
        usable.width() > 1e5
            ? new Span(
                job.low() - 0.25 * Math.max(job.width(), 1e-9),
                job.high() + 0.25 * Math.max(job.width(), 1e-9))
            : usable;
    trace
        .pads()
        .get(i + 1)
        .show(
            Numbers.engineering(node.value(), point.unit().symbol(), 4).replace('-', '−'),
            node.value(),
            shown,
            job,
            node.clipped());
  }

  /** Opens the stage of the work that an element belongs to. */
  static WorkStep stepOf(int element, int stages) {
    return element == 0
        ? WorkStep.DEFINE
        : element == stages + 2 ? WorkStep.FIT : WorkStep.CONDITION;
  }
}
