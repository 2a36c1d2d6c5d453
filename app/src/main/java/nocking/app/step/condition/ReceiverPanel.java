package nocking.app.step.condition;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.Column;
import nocking.app.control.EntryField;
import nocking.app.control.Grid;
import nocking.app.control.PlotView;
import nocking.app.desk.Desk;
import nocking.app.step.Curves;
import nocking.channel.Channel;
import nocking.channel.Receiver;
import nocking.channel.SensorCard;
import nocking.channel.StoredCurve;
import nocking.path.SignalPath;
import nocking.quantity.Sentence;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.report.plot.Axis;
import nocking.report.plot.Layer;
import nocking.report.plot.Plot;
import nocking.report.plot.Role;
import nocking.sensor.TablePoint;
import nocking.table.DisplayLimits;
import nocking.view.Belief;

/** What the receiver goes by while the path is changed, and what its display cannot go beyond. */
final class ReceiverPanel extends VBox {
  private static final int MOST_ROWS = 64;

  private final Desk desk;
  private final Button own = new Button("This channel's curve");
  private final Button keep = new Button("The curve as it stands now");
  private final Button points = new Button("Points typed in");
  private final MenuButton card = new MenuButton("A card");
  private final Label goesBy = new Label();
  private final Label says = new Label();
  private final EntryField limits;
  private final Grid grid;
  private final Button add = new Button("Add a row");
  private final VBox rows;
  private final PlotView plot = new PlotView("belief-plot", "What the receiver believes");

  ReceiverPanel(Desk desk) {
    this.desk = desk;
    setSpacing(8);
    own.setId("receiver-own");
    own.setOnAction(e -> edit("receiver follows", r -> r.withStored(null)));
    keep.setId("receiver-keep");
    keep.setOnAction(e -> store("receiver keeps its curve", StoredCurve.asItStands(channel())));
    points.setId("receiver-points");
    points.setOnAction(e -> startPoints());
    card.setId("receiver-card");
    card.setOnShowing(e -> listCards());
    var choices = new FlowPane(6, 6, new Label("It goes by"), own, keep, points, card);
    choices.setAlignment(Pos.CENTER_LEFT);
    goesBy.setId("receiver-goes-by");
    goesBy.setWrapText(true);
    goesBy.setMinHeight(Region.USE_PREF_SIZE);
    says.setId("receiver-says");
    says.getStyleClass().add("result-line");
    says.setMaxWidth(Double.MAX_VALUE);
    says.setWrapText(true);
    says.setMinHeight(Region.USE_PREF_SIZE);
    limits =
        new EntryField("receiver-limits", "Display shows", false, this::takeLimits, desk::seal)
            .prompt("no limits")
            .help(
                "Least and largest reading that the display can show, for example 0 … 100; it"
                    + " stands still at either. Empty where it has no limits.");
    grid =
        new Grid(
            "receiver-rows",
            "No points.",
            List.of(
                Column.typed("V", 70, true, i -> row(i).output().typed(), this::takeVolts),
                Column.typed("shown", 80, true, i -> row(i).at().typed(), this::takeShown)),
            i -> false);
    grid.onDelete(this::remove);
    grid.setMinHeight(96);
    VBox.setVgrow(grid, Priority.ALWAYS);
    add.setId("receiver-add");
    add.setOnAction(e -> addRow());
    rows = new VBox(6, grid, add);
    rows.setMinWidth(190);
    rows.setPrefWidth(190);
    rows.setMaxWidth(190);
    HBox.setHgrow(plot, Priority.ALWAYS);
    VBox.setVgrow(plot, Priority.ALWAYS);
    var lower = new HBox(12, rows, plot);
    VBox.setVgrow(lower, Priority.ALWAYS);
    getChildren().addAll(choices, goesBy, says, limits, lower);
  }

  private Channel channel() {
    return desk.channel().orElseThrow();
  }

  private List<TablePoint> typed() {
    StoredCurve s = channel().receiver().stored();
    return s == null ? List.of() : s.rows();
  }

  private TablePoint row(int i) {
    return typed().get(i);
  }

  private void edit(String what, UnaryOperator<Receiver> change) {
    desk.edit(what, "", c -> c.receiver(change));
  }

  private void store(String what, StoredCurve curve) {
    edit(what, r -> r.withStored(curve));
  }

  /** The points begin where the present curve has the ends of the working range. */
  private void startPoints() {
    if (!typed().isEmpty()) return;
    Analysis a = desk.analysis();
    Optional<SignalPath> path = a.design().path();
    if (path.isEmpty()) {
      desk.say("There is no path yet whose ends the points could begin with.", true);
      return;
    }
    Span w = a.channel().definition().working();
    store(
        "receiver goes by points",
        StoredCurve.between(
            a.channel().unit(),
            w.low(),
            path.get().output(w.low()),
            w.high(),
            path.get().output(w.high())));
  }

  private void listCards() {
    card.getItems().clear();
    Channel c = channel();
    for (SensorCard k : desk.book().cards()) {
      if (!Unit.of(k.unit()).dimension().equals(c.unit().dimension())) continue;
      var item = new MenuItem(k.name());
      item.setOnAction(e -> store("receiver goes by " + k.name(), StoredCurve.ofCard(k, c)));
      card.getItems().add(item);
    }
    if (card.getItems().isEmpty()) {
      var none = new MenuItem("no card in the book measures this");
      none.setDisable(true);
      card.getItems().add(none);
    }
  }

  private void change(String what, List<TablePoint> next) {
    store(what, StoredCurve.through(channel().unit(), next));
  }

  private void takeVolts(int i, String text) {
    var next = new ArrayList<>(typed());
    next.set(i, new TablePoint(next.get(i).at(), Value.typed(text, Unit.VOLT)));
    change("receiver's points", next);
  }

  private void takeShown(int i, String text) {
    var next = new ArrayList<>(typed());
    next.set(i, new TablePoint(Value.typed(text, channel().unit()), next.get(i).output()));
    change("receiver's points", next);
  }

  private boolean remove(int i) {
    if (typed().size() <= 2) return false;
    var next = new ArrayList<>(typed());
    next.remove(i);
    change("take out a point of the receiver", next);
    return true;
  }

  /** A further row goes on as the last two do. */
  private void addRow() {
    List<TablePoint> now = typed();
    if (now.size() < 2 || now.size() >= MOST_ROWS) return;
    TablePoint a = now.get(now.size() - 2);
    TablePoint b = now.getLast();
    var next = new ArrayList<>(now);
    next.add(
        TablePoint.of(
            2 * b.at().number() - a.at().number(), 2 * b.output().number() - a.output().number()));
    change("receiver's points", next);
  }

  private void takeLimits(String text) {
    if (text.isBlank()) {
      edit("no display limits", r -> r.withLimits(null));
      return;
    }
    DisplayLimits next = DisplayLimits.typed(text, channel().unit());
    desk.edit("display limits", "receiver.limits", c -> c.receiver(r -> r.withLimits(next)));
  }

  void refresh() {
    Channel c = channel();
    StoredCurve stored = c.receiver().stored();
    boolean edit = desk.editable();
    own.setDisable(!edit || stored == null);
    keep.setDisable(!edit || c.design().sensor() == null);
    points.setDisable(!edit || !typed().isEmpty());
    card.setDisable(!edit);
    DisplayLimits l = c.receiver().limits();
    limits.show(l == null ? "" : says(l), c.definition().unit());
    limits.field().setEditable(edit);
    goesBy.setText(
        stored == null
            ? "The receiver goes by this channel's curve: what it shows is what is true. Let it"
                + " keep a curve of its own before the path is changed under it."
            : Sentence.capital(stored.origin()) + behind(stored) + ".");
    boolean byPoints = !typed().isEmpty();
    rows.setVisible(byPoints);
    rows.setManaged(byPoints);
    grid.editable(edit);
    grid.table().getColumns().get(1).setText("shown, " + c.definition().unit());
    grid.show(typed().size());
    add.setDisable(!edit);
    Analysis a = desk.analysis();
    Optional<Belief> belief = a.receiver().belief();
    boolean told = belief.isPresent() || a.receiver().storedProblem().isPresent();
    says.setVisible(told);
    says.setManaged(told);
    says.setText(
        belief
            .map(b -> says(a, b))
            .orElseGet(() -> a.receiver().storedProblem().map(Sentence::capital).orElse("")));
    plot.setVisible(belief.isPresent());
    if (belief.isPresent()) plot.show(plotOf(a));
    probe();
  }

  private static String says(DisplayLimits l) {
    return ((l.low() == null ? "" : l.low().typed())
            + " … "
            + (l.high() == null ? "" : l.high().typed()))
        .strip();
  }

  private static String behind(StoredCurve s) {
    if (!s.rows().isEmpty()) return ", volts at the converter";
    if (s.stages().isEmpty()) return ", straight at the converter";
    return ", behind "
        + s.stages().stream()
            .map(t -> t.title().toLowerCase(Locale.ROOT))
            .collect(Collectors.joining(", "));
  }

  private static String says(Analysis a, Belief b) {
    String worst =
        Double.isNaN(b.believedThere())
            ? "shows nothing at " + a.design().amount(b.worstAt())
            : "off by %s at %s"
                .formatted(a.design().error(b.worst()), a.design().amount(b.worstAt()));
    return b.says(a.design()) + " · " + worst;
  }

  /** What is believed over what is true, beside the line on which both are the same. */
  private static Plot plotOf(Analysis a) {
    Channel c = a.channel();
    Span w = c.definition().working();
    double[] x = Curves.along(w);
    double[] y = Curves.of(a.receiver()::shownAt, x);
    double low = w.low();
    double high = w.high();
    for (double v : y) {
      if (Double.isNaN(v)) continue;
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
    String unit = c.definition().unit();
    var layers =
        List.<Layer>of(
            new Layer.Line(
                Role.QUIET, new double[] {w.low(), w.high()}, new double[] {w.low(), w.high()}, 1),
            new Layer.Line(Role.CURVE, x, y, 0));
    return new Plot(
        new Axis("true %s, %s".formatted(c.definition().kind().title(), unit), w),
        new Axis("believed, " + unit, Axis.padded(low, high, 0.05)),
        layers);
  }

  void probe() {
    plot.dark(desk.dark());
    Analysis a = desk.analysis();
    plot.probe(
        desk.probe(),
        x -> a.receiver().belief().isPresent() ? a.receiver().shownAt(x) : Double.NaN);
  }
}
