package nocking.app.step.condition;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.function.Consumer;
import java.util.function.UnaryOperator;
import javafx.application.Platform;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ProgressBar;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.EntryField;
import nocking.app.control.PlotView;
import nocking.app.control.Segments;
import nocking.app.desk.Background;
import nocking.app.desk.Desk;
import nocking.app.step.Curves;
import nocking.channel.Channel;
import nocking.channel.Surroundings;
import nocking.path.ParameterRef;
import nocking.quantity.Ends;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.report.plot.Axis;
import nocking.report.plot.Layer;
import nocking.report.plot.Plot;
import nocking.report.plot.Role;
import nocking.tolerance.Budget;
import nocking.tolerance.BudgetPoint;
import nocking.tolerance.ErrorModel;
import nocking.tolerance.Errors;
import nocking.tolerance.MonteCarlo;
import nocking.tolerance.Sampled;
import nocking.tolerance.Share;

/** The error budget: bands over the range, and which part matters; a click on one opens it. */
final class ErrorPanel extends VBox {
  private static final int STEPS = 17;
  private static final int DRAWN_AT = 9;
  private static final long SEED = 1;

  /** Before or after a two-point calibration. */
  private enum When {
    BEFORE("as built"),
    AFTER("calibrated");

    private final String title;

    When(String title) {
      this.title = title;
    }
  }

  private final Desk desk;
  private final Consumer<ParameterRef> open;
  private final PlotView plot = new PlotView("error-plot", "Error of the reading over the range");
  private final VBox bars = new VBox(3);
  private final Label sentence = new Label();
  private final EntryField ambient;
  private final EntryField reference;
  private final Button draw = new Button("Draw 200 000");
  private final ProgressBar progress = new ProgressBar(0);
  private final Segments<When> when;
  private When shown = When.BEFORE;
  private Channel of;
  private List<BudgetPoint> points = List.of();
  private List<MonteCarlo.Result> drawn = List.of();
  private AtomicBoolean cancelled = new AtomicBoolean();
  private boolean running;

  ErrorPanel(Desk desk, Consumer<ParameterRef> open) {
    this.desk = desk;
    this.open = open;
    setSpacing(6);
    when =
        new Segments<>(
            "error-when",
            List.of(When.values()),
            w -> w.title,
            w -> {
              shown = w;
              show();
            });
    when.show(shown);
    ambient =
        new EntryField("error-ambient", "Ambient", true, this::takeAmbient, desk::seal)
            .help("Coldest and warmest surroundings of the parts, for example 5 … 35.");
    reference =
        new EntryField("error-reference", "Reference ±", true, this::takeReference, desk::seal)
            .prompt("not known")
            .help("Expanded uncertainty (k = 2) of the reference that the calibration uses.");
    draw.setId("error-draw");
    draw.getStyleClass().add("tiny");
    draw.setOnAction(e -> drawOrCancel());
    progress.setId("error-progress");
    progress.setPrefWidth(80);
    progress.setVisible(false);
    var top = new FlowPane(8, 6, when, draw, progress);
    top.setAlignment(Pos.CENTER_LEFT);
    var around =
        new FlowPane(
            8, 6, new Label("Ambient"), ambient.bare(), new Label("Reference ±"), reference.bare());
    around.setAlignment(Pos.CENTER_LEFT);
    ambient.field().setMaxWidth(96);
    ambient.field().setPrefColumnCount(9);
    reference.field().setMaxWidth(96);
    reference.field().setPrefColumnCount(9);
    sentence.setId("error-sentence");
    sentence.setWrapText(true);
    sentence.setMinHeight(USE_PREF_SIZE);
    sentence.getStyleClass().add("caption");
    bars.setId("error-bars");
    bars.setMinWidth(178);
    bars.setPrefWidth(178);
    var body = new HBox(12, plot, bars);
    HBox.setHgrow(plot, Priority.ALWAYS);
    VBox.setVgrow(body, Priority.ALWAYS);
    plot.setMinHeight(150);
    getChildren().addAll(top, around, sentence, body);
  }

  private void takeAmbient(String text) {
    Ends ends = Ends.typed(text, Unit.CELSIUS);
    around("ambient range", s -> s.withAmbient(ends.from(), ends.to()));
  }

  private void takeReference(String text) {
    Unit unit = desk.channel().orElseThrow().unit().difference();
    Value v = text.isBlank() ? null : Value.typed(text, unit);
    around("reference uncertainty", s -> s.withReference(v));
  }

  private void around(String what, UnaryOperator<Surroundings> change) {
    desk.edit(
        "change " + what,
        "condition." + what,
        c -> c.design(d -> d.withSurroundings(change.apply(c.design().surroundings()))));
  }

  void refresh() {
    Analysis a = desk.analysis();
    Channel c = a.channel();
    Surroundings s = c.design().surroundings();
    ambient.show(s.coldest().typed() + " … " + s.warmest().typed(), "°C");
    ambient.field().setEditable(desk.editable());
    reference.show(s.reference(), c.unit().difference());
    reference.field().setEditable(desk.editable());
    if (c == of) return;
    of = c;
    drawn = List.of();
    cancelled.set(true);
    if (a.design().errorModel().isEmpty()) {
      points = List.of();
      show();
      return;
    }
    ErrorModel model = a.design().errorModel().get();
    Background.run(() -> Budget.at(model, inputs(model, STEPS)), found -> take(c, found));
  }

  private static double[] inputs(ErrorModel m, int n) {
    double[] x = new double[n];
    for (int i = 0; i < n; i++) x[i] = m.working().at((double) i / (n - 1));
    return x;
  }

  private void take(Channel c, List<BudgetPoint> found) {
    // A later edit has its own budget under way.
    if (c != of) return;
    points = found;
    show();
  }

  private void drawOrCancel() {
    if (running) {
      cancelled.set(true);
      return;
    }
    Analysis a = desk.analysis();
    if (a.design().errorModel().isEmpty()) return;
    ErrorModel model = a.design().errorModel().get();
    Channel c = a.channel();
    var stop = new AtomicBoolean();
    cancelled = stop;
    running = true;
    draw.setText("Cancel");
    progress.setProgress(0);
    progress.setVisible(true);
    double[] told = {0};
    Background.run(
        () ->
            MonteCarlo.run(
                model,
                inputs(model, DRAWN_AT),
                MonteCarlo.DRAWS,
                SEED,
                done -> {
                  if (done - told[0] < 0.02) return;
                  told[0] = done;
                  Platform.runLater(() -> progress.setProgress(done));
                },
                stop::get),
        results -> finished(c, results));
  }

  private void finished(Channel c, List<MonteCarlo.Result> results) {
    running = false;
    draw.setText("Draw 200 000");
    progress.setVisible(false);
    if (c != of || results.isEmpty()) return;
    drawn = results;
    show();
  }

  private Errors errors(BudgetPoint p) {
    return shown == When.BEFORE ? p.before() : p.after();
  }

  private Sampled sampled(MonteCarlo.Result r) {
    return shown == When.BEFORE ? r.before() : r.after();
  }

  private void show() {
    plot.setVisible(!points.isEmpty());
    bars.getChildren().clear();
    draw.setDisable(points.isEmpty());
    if (points.isEmpty()) {
      sentence.setText("There is no path yet whose errors could be added up.");
      return;
    }
    boolean any =
        points.stream()
            .anyMatch(p -> p.before().ranking().stream().anyMatch(r -> r.owner().isPresent()));
    BudgetPoint worst =
        points.stream().max(Comparator.comparingDouble(p -> errors(p).worstCase())).orElseThrow();
    Analysis a = desk.analysis();
    sentence.setText(
        (any
                    ? "Worst case ±%s at %s, u = %s"
                    : "No part has a tolerance yet: type it behind the value, 4k7 ±1%% 50ppm. Now ±%s at %s, u = %s")
                .formatted(
                    a.design().error(errors(worst).worstCase()),
                    a.design().amount(worst.quantity()),
                    a.design().error(errors(worst).standard()))
            + drawnSays(a)
            + ".");
    rank(errors(worst).ranking());
    bars.getChildren().add(legend());
    plot.show(plotOf(a));
  }

  private String drawnSays(Analysis a) {
    return drawn.stream()
        .max(Comparator.comparingDouble(r -> sampled(r).high() - sampled(r).low()))
        .map(
            r ->
                "; 95 %% of %s draws within %s … %s"
                    .formatted(
                        "200 000",
                        Numbers.significant(sampled(r).low(), 2).replace('-', '−'),
                        a.design().error(sampled(r).high())))
        .orElse("");
  }

  private void rank(List<Share> ranking) {
    var title = new Label("Which part matters");
    title.getStyleClass().add("subtitle");
    bars.getChildren().add(title);
    for (Share s : ranking.stream().limit(7).toList()) {
      var name = new Label(s.name());
      name.getStyleClass().add("mono");
      name.setMinWidth(Region.USE_PREF_SIZE);
      var bar = new Region();
      bar.getStyleClass().add("share-bar");
      bar.setMinWidth(Math.max(1, 38 * s.share()));
      bar.setMaxWidth(Math.max(1, 38 * s.share()));
      bar.setMinHeight(9);
      bar.setMaxHeight(9);
      var gap = new Region();
      HBox.setHgrow(gap, Priority.ALWAYS);
      var percent = new Label(Numbers.fixed(100 * s.share(), s.share() < 0.1 ? 1 : 0) + " %");
      percent.getStyleClass().add("mono");
      percent.setMinWidth(Region.USE_PREF_SIZE);
      var row = new HBox(6, name, bar, gap, percent);
      row.setAlignment(Pos.CENTER_LEFT);
      if (s.owner().isPresent()) {
        var button = new Button("", row);
        button.setId("share-" + s.name());
        button.getStyleClass().setAll("share-row");
        button.setAccessibleText("%s, %s".formatted(s.name(), percent.getText()));
        button.setMaxWidth(Double.MAX_VALUE);
        row.setPrefWidth(170);
        button.setOnAction(e -> open.accept(s.owner().get()));
        bars.getChildren().add(button);
      } else {
        row.getStyleClass().add("share-row");
        bars.getChildren().add(row);
      }
    }
  }

  private Label legend() {
    var l =
        new Label(
            "Line: worst case. Dashes: 2u." + (drawn.isEmpty() ? "" : " Squares: 95 % of draws."));
    l.getStyleClass().add("caption");
    l.setWrapText(true);
    return l;
  }

  private Plot plotOf(Analysis a) {
    double[] x = points.stream().mapToDouble(BudgetPoint::quantity).toArray();
    double[] worst = points.stream().mapToDouble(p -> errors(p).worstCase()).toArray();
    double[] two = points.stream().mapToDouble(p -> 2 * errors(p).standard()).toArray();
    double tolerance = a.channel().definition().toleranceOrNaN();
    double top = Arrays.stream(worst).max().orElse(1);
    // A tolerance far outside the errors would press them into one line.
    boolean near = tolerance < 3 * top;
    if (near) top = Math.max(top, tolerance);
    var layers = new ArrayList<Layer>();
    if (near) {
      layers.add(new Layer.Across(Role.TOLERANCE, new Span(-tolerance, tolerance)));
    }
    for (int sign : new int[] {-1, 1}) {
      layers.add(new Layer.Line(Role.CURVE, x, times(worst, sign), 0));
      layers.add(new Layer.Line(Role.OTHER, x, times(two, sign), 1));
    }
    if (!drawn.isEmpty()) {
      double[] at = drawn.stream().mapToDouble(MonteCarlo.Result::quantity).toArray();
      layers.add(
          new Layer.Points(
              Role.POINT, at, drawn.stream().mapToDouble(r -> sampled(r).low()).toArray()));
      layers.add(
          new Layer.Points(
              Role.POINT, at, drawn.stream().mapToDouble(r -> sampled(r).high()).toArray()));
    }
    Span w = a.channel().definition().working();
    String unit = a.channel().definition().unit();
    return new Plot(
        new Axis("%s, %s".formatted(a.channel().definition().kind().title(), unit), w),
        new Axis("error, " + unit, new Span(-1.25 * top, 1.25 * top)),
        layers);
  }

  private static double[] times(double[] v, double k) {
    return Curves.of(y -> k * y, v);
  }

  void probe() {
    plot.dark(desk.dark());
    plot.probe(desk.probe(), x -> Double.NaN);
  }
}
