package nocking.app.shell;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.IntConsumer;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.geometry.Side;
import javafx.scene.control.Button;
import javafx.scene.control.ContextMenu;
import javafx.scene.control.Label;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.input.KeyCode;
import javafx.scene.input.MouseEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Pane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import javafx.scene.shape.Line;
import javafx.scene.shape.LineTo;
import javafx.scene.shape.MoveTo;
import javafx.scene.shape.Path;
import javafx.scene.shape.Rectangle;
import nocking.analysis.Analysis;
import nocking.analysis.ProbeInput;
import nocking.app.control.EntryField;
import nocking.app.desk.Desk;
import nocking.channel.Channel;
import nocking.channel.Definition;
import nocking.channel.WorkStep;
import nocking.fit.Curve;
import nocking.path.ReadOut;
import nocking.path.SignalPath;
import nocking.path.TestPoint;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.stage.Stage;
import nocking.view.ProbeState;

/**
 * The signal path as a copper trace on the bench mat. Pads show live values, elements ride on the
 * line and can be dragged along it, and below lies the probe.
 */
final class PathStrip extends VBox {
  private static final double LINE = 38;
  private static final double TRACE_HEIGHT = 100;

  private static final double PITCH = 16;
  private static final double FEWEST_PITCH = 172;

  private final Desk desk;
  private final Path grid = new Path();
  private final IntConsumer open;
  private final Label title = new Label();
  private static final double PROBE_WIDTH = 66;
  private static final double NAME_WIDTH = 126;

  private final Label corner = new Label();
  private final Pane trace = new Pane();
  private final Line copper = new Line();
  private final Rectangle drop = new Rectangle(4, 30);
  private final ProbeRail rail;
  private final EntryField probeValue;
  private final List<Pad> pads = new ArrayList<>();
  private final List<VBox> cards = new ArrayList<>();
  private final List<Button> inserts = new ArrayList<>();
  private List<Object> shape = List.of();
  private Span[] jobVolts = new Span[0];
  private int dragged = -1;
  private double pressedAt;

  /**
   * @param open called with the element that was clicked: 0 the sensor, 1 … n the stages, n + 1 the
   *     converter, n + 2 the model
   */
  PathStrip(Desk desk, IntConsumer open) {
    this.desk = desk;
    this.open = open;
    rail = new ProbeRail(desk);
    getStyleClass().add("strip");
    setId("strip");
    setPadding(new Insets(6, 16, 4, 16));
    title.getStyleClass().add("title");
    corner.getStyleClass().add("title");
    corner.setId("strip-corner");
    var gap = new Region();
    HBox.setHgrow(gap, Priority.ALWAYS);
    copper.getStyleClass().add("trace");
    drop.getStyleClass().add("drop-mark");
    drop.setVisible(false);
    trace.setMinHeight(TRACE_HEIGHT);
    trace.setPrefHeight(TRACE_HEIGHT);
    trace.widthProperty().addListener(o -> place());
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
    scroll.setMinHeight(TRACE_HEIGHT + 2);
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
    List<Object> now = new ArrayList<>();
    now.add(c.id());
    now.add(c.design().sensor() == null ? "" : c.design().sensor().model());
    c.design().stages().forEach(s -> now.add(s.title()));
    now.add(desk.editable());
    if (!now.equals(shape)) {
      shape = now;
      rebuild(c);
    }
    fillCards(c, a);
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

  private void rebuild(Channel c) {
    pads.clear();
    cards.clear();
    inserts.clear();
    int n = c.design().stages().size();
    pads.add(new Pad("quantity"));
    for (int i = 0; i <= n; i++) pads.add(new Pad("TP" + (i + 1)));
    pads.add(new Pad("raw"));
    pads.add(new Pad("reading"));
    for (int i = 0; i <= n + 2; i++) cards.add(card(i, n));
    if (desk.editable() && c.design().sensor() != null) {
      for (int i = 0; i <= n; i++) inserts.add(insert(i));
    }
    for (var list : List.of(pads, cards, inserts)) list.forEach(node -> node.setManaged(false));
    // A long path keeps its readable pitch and scrolls.
    trace.setMinWidth(Pad.WIDTH + (pads.size() - 1) * FEWEST_PITCH);
    trace.getChildren().setAll(copper);
    trace.getChildren().addAll(pads);
    trace.getChildren().addAll(cards);
    trace.getChildren().addAll(inserts);
    trace.getChildren().add(drop);
    place();
  }

  private VBox card(int index, int stages) {
    var name = new Label();
    name.getStyleClass().add("title");
    var summary = new Label();
    summary.getStyleClass().add("summary");
    var box = new VBox(name, summary);
    box.setId("element-" + index);
    box.getStyleClass().add("element");
    box.setAlignment(Pos.CENTER);
    box.setFocusTraversable(true);
    box.setOnKeyPressed(
        e -> {
          boolean stage = index >= 1 && index <= stages;
          if (e.getCode() == KeyCode.ENTER || e.getCode() == KeyCode.SPACE) open.accept(index);
          else if (e.getCode() == KeyCode.DELETE && stage) remove(index - 1);
          else if (e.isAltDown() && e.getCode() == KeyCode.LEFT && stage)
            move(index - 1, index - 2);
          else if (e.isAltDown() && e.getCode() == KeyCode.RIGHT && stage) move(index - 1, index);
          else return;
          e.consume();
        });
    boolean stage = index >= 1 && index <= stages;
    box.setOnMousePressed(e -> pressedAt = trace.sceneToLocal(e.getSceneX(), 0).getX());
    if (stage) {
      box.setOnMouseDragged(e -> drag(e, index - 1));
      box.setAccessibleHelp(
          "Enter opens the element, Delete takes it out, Alt with left or right moves it.");
    }
    box.setOnMouseReleased(
        e -> {
          if (dragged >= 0) drop(e);
          else open.accept(index);
        });
    return box;
  }

  private void drag(MouseEvent e, int stage) {
    double x = trace.sceneToLocal(e.getSceneX(), 0).getX();
    if (dragged < 0 && Math.abs(x - pressedAt) < 8) return;
    if (!desk.editable()) return;
    dragged = stage;
    int target = targetAt(x);
    drop.setVisible(true);
    drop.setX(padCentre(target + 1) - 2);
    drop.setY(LINE - 15);
  }

  /** Place among the stages that a horizontal position stands for. */
  private int targetAt(double x) {
    int n = channel().design().stages().size();
    int best = 0;
    for (int i = 0; i <= n; i++) {
      if (Math.abs(padCentre(i + 1) - x) < Math.abs(padCentre(best + 1) - x)) best = i;
    }
    return best;
  }

  private void drop(MouseEvent e) {
    int target = targetAt(trace.sceneToLocal(e.getSceneX(), 0).getX());
    int from = dragged;
    dragged = -1;
    drop.setVisible(false);
    move(from, target > from ? target - 1 : target);
  }

  private void move(int from, int to) {
    int n = channel().design().stages().size();
    if (to < 0 || to >= n || to == from) return;
    String what = "move " + channel().design().stages().get(from).title().toLowerCase(Locale.ROOT);
    desk.edit(what, "", c -> c.design(d -> d.moveStage(from, to)));
  }

  private void remove(int stage) {
    String what =
        "take out " + channel().design().stages().get(stage).title().toLowerCase(Locale.ROOT);
    desk.edit(what, "", c -> c.design(d -> d.removeStage(stage)));
  }

  private Button insert(int place) {
    var b = new Button("+");
    b.setId("insert-" + place);
    b.getStyleClass().add("insert");
    b.setAccessibleText("Insert a stage here");
    b.setOnAction(e -> insertMenu(place).show(b, Side.BOTTOM, 0, 0));
    return b;
  }

  /** What can stand there, in its groups. */
  private ContextMenu insertMenu(int place) {
    var menu = new ContextMenu();
    for (List<Stage> group : desk.channel().orElseThrow().design().stagesThatFit(place)) {
      if (!menu.getItems().isEmpty()) menu.getItems().add(new SeparatorMenuItem());
      group.forEach(kind -> menu.getItems().add(insertItem(place, kind)));
    }
    if (menu.getItems().isEmpty()) {
      var none = new MenuItem("No stage can stand here");
      none.setDisable(true);
      menu.getItems().add(none);
    }
    return menu;
  }

  private MenuItem insertItem(int place, Stage kind) {
    var item = new MenuItem(kind.title());
    item.setId("insert-" + kind.title().toLowerCase(Locale.ROOT).replace(' ', '-'));
    item.setOnAction(
        e -> {
          boolean done =
              desk.edit(
                  "insert " + kind.title().toLowerCase(Locale.ROOT),
                  "",
                  c -> c.design(d -> d.insertStage(place, kind)));
          if (done) open.accept(place + 1);
        });
    return item;
  }

  private double padCentre(int pad) {
    double usable = trace.getWidth() - Pad.WIDTH;
    return Pad.WIDTH / 2 + usable * pad / Math.max(1, pads.size() - 1);
  }

  private void place() {
    if (pads.isEmpty() || trace.getWidth() < 100) return;
    copper.setStartX(padCentre(0));
    copper.setEndX(padCentre(pads.size() - 1));
    copper.setStartY(LINE);
    copper.setEndY(LINE);
    for (int i = 0; i < pads.size(); i++) {
      Pad p = pads.get(i);
      p.resizeRelocate(padCentre(i) - Pad.WIDTH / 2, 8, Pad.WIDTH, TRACE_HEIGHT - 8);
    }
    double pitch = pads.size() < 2 ? 0 : padCentre(1) - padCentre(0);
    double width = Math.clamp(pitch - 84, 60, 140);
    for (int i = 0; i < cards.size(); i++) {
      double centre = (padCentre(i) + padCentre(i + 1)) / 2;
      cards.get(i).resizeRelocate(centre - width / 2, LINE - 21, width, 42);
    }
    for (int i = 0; i < inserts.size(); i++) {
      inserts.get(i).resizeRelocate(padCentre(i + 1) + 12, 4, 18, 18);
    }
  }

  private void fillCards(Channel c, Analysis a) {
    boolean sensor = c.design().sensor() != null;
    fill(
        0,
        sensor ? c.design().sensor().title() : "No sensor yet",
        sensor ? c.design().sensor().summary() : "define it first");
    int n = c.design().stages().size();
    for (int i = 0; i < n; i++)
      fill(i + 1, c.design().stages().get(i).title(), c.design().stages().get(i).summary());
    fill(n + 1, c.design().converter().title(), c.design().converter().summary());
    String model = a.calibration().curve().map(Curve::title).orElse("Design equation");
    String of =
        c.calibration().adopted() == null || c.calibration().adopted().isDesign()
            ? "as it is"
            : c.calibration().adopted().points() + " points";
    fill(n + 2, model.replace("Least-squares line", "Best line").replace(" equation", ""), of);
  }

  private void fill(int card, String name, String summary) {
    VBox box = cards.get(card);
    ((Label) box.getChildren().get(0)).setText(name);
    ((Label) box.getChildren().get(1)).setText(summary);
    box.setAccessibleText(name + ", " + summary);
  }

  /** Marks the element whose sheet is open. */
  void choose(int element) {
    for (int i = 0; i < cards.size(); i++) {
      cards.get(i).getStyleClass().remove("chosen");
      if (i == element) cards.get(i).getStyleClass().add("chosen");
    }
  }

  /** Volts that each test point takes over the working range. */
  private void spans(Analysis a) {
    Optional<SignalPath> path = a.design().path();
    if (path.isEmpty()) {
      jobVolts = new Span[0];
      return;
    }
    Span working = a.channel().definition().working();
    ReadOut low = path.get().at(working.low());
    ReadOut high = path.get().at(working.high());
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
                .station(s.reading())
                .orElse((a.design().reading(s.reading()) + " " + unit).strip()),
            s.reading(),
            c.definition().working(),
            c.definition().working(),
            false);
    boolean measured = c.calibration().adopted() != null && !c.calibration().adopted().isDesign();
    corner.setText(
        "%s %s %s · 1 count = %s %s"
            .formatted(
                measured ? "fitted line against design" : "error",
                Numbers.signed(s.error(), a.design().decimals() + 1),
                unit,
                Numbers.significant(s.countsWorth(), 2),
                unit));
  }

  private void node(int i, ReadOut.Node node) {
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
    pads.get(i + 1)
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
