package nocking.app.step.condition;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Hyperlink;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.analysis.PartSearch;
import nocking.analysis.PartSearch.Found;
import nocking.analysis.PartSearch.Goal;
import nocking.analysis.PartSearch.Offer;
import nocking.app.control.Column;
import nocking.app.control.DropDown;
import nocking.app.control.EntryField;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.control.PlotView;
import nocking.app.desk.Background;
import nocking.app.desk.Desk;
import nocking.channel.Channel;
import nocking.parts.Assortment;
import nocking.parts.PartLimit;
import nocking.parts.PartSize;
import nocking.parts.PreferredSeries;
import nocking.parts.Solution;
import nocking.quantity.Ends;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.ResistorCode;
import nocking.quantity.Sentence;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.report.plot.Axis;
import nocking.report.plot.Layer;
import nocking.report.plot.Plot;
import nocking.report.plot.Role;
import nocking.stage.Divider;
import nocking.stage.PartChoice;
import nocking.stage.Stage;

/**
 * What is wanted of a stage, and ranked parts that do it, as a list and as a picture of error
 * against worst case; what the drawer has is marked.
 */
final class PartsPanel extends VBox {
  private static final double FIELD_WIDTH = 226;

  /** Percent of error that the picture shows at least; less than that is none. */
  private static final double LEAST_ERROR = 0.01;

  private final Desk desk;
  private final EntryField to;
  private final EntryField pivot;
  private final EntryField total;
  private final EntryField power;
  private final EntryField volts;
  private final EntryField never;
  private final PlotView picture =
      new PlotView("wanted-picture", "Error of the candidates against their worst case");
  private final ComboBox<PreferredSeries> series = new DropDown<>();
  private final ComboBox<Integer> parts = new DropDown<>();
  private final Button choose = new Button("Choose parts");
  private final Button stock = new Button("From the drawer");
  private final Label note = Paper.caption("");
  private final Grid grid;
  private final FlowPane fields = new FlowPane(4, 4);
  private final HBox found;
  private int stage = -1;
  private String channel = "";
  private double toStart = Double.NaN;
  private double toEnd = Double.NaN;
  private Span window = new Span(10e3, 50e3);
  private double perPart = Double.POSITIVE_INFINITY;
  private double perVolts = Double.POSITIVE_INFINITY;
  private double limit = Double.POSITIVE_INFINITY;
  private List<Offer> offers = List.of();
  private boolean tracks;

  PartsPanel(Desk desk, Runnable openDrawer) {
    this.desk = desk;
    setSpacing(5);
    to =
        new EntryField("wanted-to", "Output", true, this::takeTo, () -> {})
            .prompt("0.2 … 3.1")
            .help(
                "Volts that this stage shall give at the start and at the end of the working range,"
                    + " for example 0.2 … 3.1; the second may be the smaller.");
    pivot =
        new EntryField("condition-pivot", "Pivot at", true, this::takePivot, desk::seal)
            .prompt("none")
            .help("Input at which the output should stand at the virtual ground or mid-scale.");
    total =
        new EntryField("wanted-total", "Total", true, this::takeTotal, () -> {})
            .help("Window for both resistors together, for example 10k … 50k.");
    power =
        new EntryField("wanted-power", "Power, most", true, this::takePower, () -> {})
            .prompt("any")
            .help("Watts that a single part may take; empty for any.");
    volts =
        new EntryField("wanted-volts", "Volts, most", true, this::takeVolts, () -> {})
            .prompt("any")
            .help("Volts that may stand across a single part; empty for any.");
    never =
        new EntryField("wanted-never", "Never above", true, this::takeNever, () -> {})
            .prompt("no limit")
            .help(
                "Volts that the output may not pass, whatever the parts do inside their"
                    + " tolerances; empty for no limit.");
    for (EntryField f : List.of(to, pivot, total, power, volts, never)) {
      f.setPrefWidth(FIELD_WIDTH);
      f.setMaxWidth(FIELD_WIDTH);
      f.getStyleClass().add("short");
    }
    series.setId("wanted-series");
    series.setAccessibleText("Preferred series");
    series.getItems().setAll(PreferredSeries.values());
    series.setValue(PreferredSeries.E96);
    parts.setId("wanted-parts");
    parts.setAccessibleText("Most single resistors");
    parts.getItems().setAll(1, 2, 3, 4, 5, 6);
    parts.setValue(2);
    choose.setId("wanted-choose");
    choose.getStyleClass().add("primary");
    choose.setOnAction(e -> search(false));
    stock.setId("wanted-stock");
    stock.setOnAction(e -> search(true));
    var drawer = new Hyperlink("Drawer…");
    drawer.setId("wanted-drawer");
    drawer.setOnAction(e -> openDrawer.run());
    grid =
        new Grid(
            "wanted-grid",
            "Say what is wanted, then choose.",
            List.of(
                Column.shown("parts", 104, false, i -> words(solution(i))),
                Column.shown("error", 70, true, i -> percent(solution(i).error())),
                Column.shown("worst", 60, true, i -> worst(solution(i))),
                Column.shown("have", 44, false, i -> atHand(solution(i)) ? "yes" : "")),
            i -> false);
    grid.setMinHeight(120);
    grid.table()
        .getSelectionModel()
        .selectedIndexProperty()
        .addListener((o, before, now) -> describe(now.intValue()));
    picture.setMinSize(158, 120);
    picture.setPrefWidth(158);
    picture.setMaxHeight(260);
    HBox.setHgrow(grid, Priority.ALWAYS);
    found = new HBox(6, grid, picture);
    VBox.setVgrow(found, Priority.ALWAYS);
    var take = new Button("Put it in");
    take.setId("wanted-take");
    take.setOnAction(e -> take(grid.selectedRow()));
    note.setId("wanted-note");
    var choices = new FlowPane(6, 6, new Label("Series"), series, new Label("parts"), parts);
    choices.getChildren().addAll(choose, stock, drawer);
    choices.setAlignment(Pos.CENTER_LEFT);
    getChildren().addAll(fields, choices, found, note, take);
  }

  private Solution solution(int i) {
    return offers.get(i).solution();
  }

  private static String words(Solution s) {
    return String.join(
        " / ", s.parts().stream().map(p -> p.network().text().replace(" + ", "+")).toList());
  }

  private static String value(Solution s) {
    return s.value() >= 1000 ? ResistorCode.of(s.value()) : Numbers.trimmed(s.value(), 5);
  }

  /** True where every single part lies in the drawer, often enough. */
  private boolean atHand(Solution s) {
    // Tracks are potentiometers, and the drawer holds resistors.
    return !tracks
        && Assortment.holds(
            desk.book().stock(),
            s.parts().stream().flatMap(p -> p.network().parts().stream()).toList());
  }

  private static String percent(double v) {
    return Numbers.signed(100 * v, 2) + " %";
  }

  private static String worst(Solution s) {
    return "±" + Numbers.significant(100 * s.worstCase(), 2);
  }

  private void describe(int i) {
    draw(i);
    if (i < 0 || i >= offers.size()) return;
    Solution s = solution(i);
    String watts =
        Double.isNaN(s.watts())
            ? ""
            : ", hottest part %s, %s"
                .formatted(Numbers.engineering(s.watts(), "W", 2), PartSize.saysWatts(s.watts()));
    note.setText(
        "%s: %s, worst case ±%s %%%s%s"
            .formatted(
                s.text(),
                value(s),
                Numbers.fixed(100 * s.worstCase(), 2),
                watts,
                s.note().isEmpty() ? "" : "; " + s.note()));
  }

  /** Every candidate by what it misses and by what its parts may add; the chosen one is named. */
  private void draw(int chosen) {
    picture.setVisible(!offers.isEmpty());
    if (offers.isEmpty()) return;
    int n = offers.size();
    double[] x = IntStream.range(0, n).mapToDouble(i -> 100 * solution(i).error()).toArray();
    double[] y = IntStream.range(0, n).mapToDouble(i -> 100 * solution(i).worstCase()).toArray();
    int[] own = IntStream.range(0, n).filter(i -> atHand(solution(i))).toArray();
    int[] other = IntStream.range(0, n).filter(i -> !atHand(solution(i))).toArray();
    var layers = new ArrayList<Layer>();
    layers.add(new Layer.Points(Role.QUIET, at(x, other), at(y, other)));
    layers.add(new Layer.Points(Role.PASS, at(x, own), at(y, own)));
    if (chosen >= 0 && chosen < n) layers.add(new Layer.Mark(x[chosen], y[chosen], ""));
    double low = Math.min(-LEAST_ERROR, Arrays.stream(x).min().orElse(0));
    double high = Math.max(LEAST_ERROR, Arrays.stream(x).max().orElse(0));
    double top = Arrays.stream(y).max().orElse(1);
    picture.show(
        new Plot(
            new Axis("error, %", Axis.padded(low, high, 0.08)),
            new Axis("worst case, ±%", new Span(0, Math.max(top * 1.15, 1e-6))),
            layers));
  }

  private static double[] at(double[] all, int[] which) {
    return Arrays.stream(which).mapToDouble(i -> all[i]).toArray();
  }

  void dark(boolean v) {
    picture.dark(v);
  }

  private void takeNever(String text) {
    double v = text.isBlank() ? Double.POSITIVE_INFINITY : Value.typed(text, Unit.VOLT).number();
    if (!(v > 0)) throw new QuantityException("a limit must be above 0 V");
    limit = v;
  }

  private void takeTo(String text) {
    Ends ends = Ends.typed(text, Unit.VOLT);
    toStart = ends.from().number();
    toEnd = ends.to().number();
  }

  private void takeTotal(String text) {
    window = Ends.typed(text, Unit.OHM, new Span(0, Double.POSITIVE_INFINITY));
  }

  private void takePower(String text) {
    double w = text.isBlank() ? Double.POSITIVE_INFINITY : Value.typed(text, Unit.of("W")).number();
    if (!(w > 0)) throw new QuantityException("a power must be above 0 W");
    perPart = w;
  }

  private void takeVolts(String text) {
    double v = text.isBlank() ? Double.POSITIVE_INFINITY : Value.typed(text, Unit.VOLT).number();
    if (!(v > 0)) throw new QuantityException("a voltage must be above 0 V");
    perVolts = v;
  }

  private void takePivot(String text) {
    Channel c = desk.channel().orElseThrow();
    Value v = text.isBlank() ? null : Value.typed(text, c.unit());
    desk.edit("change pivot wanted", "condition.pivot", ch -> ch.define(d -> d.withPivot(v)));
  }

  private void search(boolean fromStock) {
    Channel c = desk.channel().orElseThrow();
    int index = stage;
    if (index < 0 || index >= c.design().stages().size()) return;
    var goal =
        new Goal(toStart, toEnd, window, parts.getValue(), new PartLimit(perPart, perVolts), limit);
    PreferredSeries chosen = series.getValue();
    var drawer = desk.book().stock();
    choose.setDisable(true);
    stock.setDisable(true);
    note.setText("Searching…");
    Background.run(
        () -> {
          try {
            Assortment a = fromStock ? Assortment.of(drawer) : Assortment.of(chosen);
            return new Outcome(Optional.of(PartSearch.of(c, index, a, goal)), "");
          } catch (QuantityException e) {
            return new Outcome(Optional.empty(), e.getMessage() + ".");
          }
        },
        outcome ->
            show(outcome, fromStock ? "the drawer" : tracks ? "usual tracks" : chosen.name()));
  }

  /** What was found, or the sentence why not. */
  private record Outcome(Optional<Found> found, String problem) {}

  private void show(Outcome outcome, String from) {
    choose.setDisable(false);
    stock.setDisable(tracks || desk.book().stock().isEmpty());
    offers = outcome.found.map(Found::offers).orElse(List.of());
    grid.show(offers.size());
    draw(-1);
    if (outcome.found.isEmpty()) {
      note.setText(Sentence.capital(outcome.problem));
      return;
    }
    Found f = outcome.found.get();
    note.setText(
        offers.isEmpty()
            ? f.instead().isEmpty()
                ? "Nothing from %s does it: widen the window, allow more parts or a higher limit."
                    .formatted(from)
                : "Nothing from %s does it; %s.".formatted(from, f.instead())
            : "%d from %s, the best first%s."
                .formatted(
                    offers.size(),
                    from,
                    f.exact() ? "; nothing comes nearer" : "; not every circuit was looked at"));
    if (!offers.isEmpty()) grid.table().getSelectionModel().select(0);
  }

  private void take(int i) {
    if (i < 0 || i >= offers.size()) return;
    Offer o = offers.get(i);
    if (desk.edit("put in " + o.solution().text(), "", o.apply())) {
      desk.say("In the path: %s. Undo takes it out again.".formatted(o.solution().text()), false);
    }
  }

  void switched() {
    stage = -1;
    channel = "";
    offers = List.of();
    grid.show(0);
  }

  /** Shows what can be wanted of a stage; hidden where it has no parts to choose. */
  void refresh(int index) {
    Channel c = desk.channel().orElseThrow();
    boolean any = index < c.design().stages().size();
    pivot.show(c.definition().pivot(), c.unit());
    pivot.field().setEditable(desk.editable());
    if (!any || c.design().stages().get(index).parts() == PartChoice.NONE) {
      fields.getChildren().setAll(pivot);
      parts(false);
      return;
    }
    parts(true);
    Stage s = c.design().stages().get(index);
    boolean other = index != stage || !c.id().equals(channel);
    stage = index;
    channel = c.id();
    if (other) {
      offers = List.of();
      grid.show(0);
      note.setText("");
      suggest(c, index);
    }
    fields.getChildren().clear();
    if (s.parts().bySpan()) fields.getChildren().add(to);
    fields.getChildren().add(pivot);
    if (s.parts().limited()) fields.getChildren().add(never);
    if (s instanceof Divider) fields.getChildren().add(total);
    if (s instanceof Divider || s.parts() == PartChoice.RESISTANCE) {
      fields.getChildren().addAll(power, volts);
    }
    tracks = s.parts() == PartChoice.BLEND;
    series.setDisable(tracks);
    parts.setDisable(tracks);
    stock.setDisable(tracks || desk.book().stock().isEmpty());
  }

  private void parts(boolean shown) {
    for (Node n : getChildren().subList(1, getChildren().size())) {
      n.setVisible(shown || n == note);
      n.setManaged(shown || n == note);
    }
    if (!shown) note.setText("Of this element no part is chosen: open a stage with resistors.");
  }

  /** The converter's range stands in the fields to begin with, as far as the stage can fill it. */
  private void suggest(Channel c, int index) {
    desk.analysis()
        .design()
        .path()
        .ifPresent(
            p -> {
              double[] out = PartSearch.fillingTheConverter(c, p, index);
              toStart = out[0];
              toEnd = out[1];
            });
    to.show(Numbers.trimmed(toStart, 3) + " … " + Numbers.trimmed(toEnd, 3), "V");
    total.show(ResistorCode.of(window.low()) + " … " + ResistorCode.of(window.high()), "Ω");
    never.show(Double.isInfinite(limit) ? "" : Numbers.plain(limit), "V");
    power.show(Double.isInfinite(perPart) ? "" : Numbers.plain(perPart), "W");
    volts.show(Double.isInfinite(perVolts) ? "" : Numbers.plain(perVolts), "V");
  }
}
