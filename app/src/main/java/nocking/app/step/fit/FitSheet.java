package nocking.app.step.fit;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.input.KeyCode;
import javafx.scene.input.KeyEvent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.Column;
import nocking.app.control.DropDown;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.control.PlotView;
import nocking.app.control.Segments;
import nocking.app.desk.Desk;
import nocking.app.desk.Latest;
import nocking.app.step.Sheet;
import nocking.channel.Adopted;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.fit.Coefficient;
import nocking.fit.Fit;
import nocking.fit.Recommendation;
import nocking.fit.Trim;
import nocking.quantity.Numbers;

/** The view of the fifth stage. */
public final class FitSheet implements Sheet {
  /** Errors from here on do not fit their column. */
  private static final double WIDE = 1e5;

  /** Points from which on nothing is fitted on the interface thread. */
  private static final int MANY = 2000;

  /** Candidates that are seen without scrolling. */
  private static final int ROWS = 6;

  /** From here on there is room for the root of the mean square, too. */
  private static final double WIDE_LIST = 430;

  /** A narrow window shows the figures that decide and leaves out the others. */
  private static final double NARROW = 390;

  private final Desk desk;
  private final Grid grid;
  private final Grid coefficients;
  private final Label reason = new Label();
  private final Label problems = Paper.caption("");
  private final Button adopt = new Button("Adopt");
  private final Button collect = new Button("Collect points");
  private final Paper candidates;
  private final Paper plotPaper;
  private final Paper designPaper;
  private final Segments<FitLook> look;
  private final DropDown<String> beside = new DropDown<>();
  private final PointPick pick;
  private final Label second = Paper.caption("");
  private final Label otherWay = Paper.caption("");
  private FitLook seen = FitLook.RESIDUALS;
  private boolean showing;
  private boolean filling;
  private final PlotView residuals = new PlotView("fit-plot", "Residuals of the chosen model");
  private final PlotView against = new PlotView("design-plot", "Design against measurement");
  private final HBox root;
  private List<Fit> fits = List.of();
  private final Label trimSays = Paper.caption("");
  private final Button trimOff = new Button("Take the trim off");
  private final HBox trim = new HBox(8, trimSays, trimOff);
  private String chosen = "";
  private String advised = "";
  private final Latest work = new Latest();
  private final Latest drawing = new Latest();

  /** True when the points have changed since the fit was adopted. */
  private boolean stale;

  /** True once someone has chosen; until then what is advised is shown. */
  private boolean picked;

  /** The analysis whose curved models were asked for. */
  private Analysis asked;

  public FitSheet(Desk desk) {
    this.desk = desk;
    grid =
        new Grid(
            "fits",
            "There are no points yet. The design equation serves meanwhile.",
            List.of(
                Column.shown("model", 150, false, i -> fits.get(i).curve().title())
                    .styled(i -> isAdopted(fits.get(i)) ? "strong" : ""),
                Column.shown("", 46, false, i -> "").signed(this::spark).keepingItsWidth(),
                Column.shown("worst", 60, true, i -> error(fits.get(i).worstError()))
                    .styled(i -> verdict(fits.get(i).worstError())),
                Column.shown("RMS", 58, true, i -> error(fits.get(i).rms())).fromWidth(WIDE_LIST),
                Column.shown("unseen", 62, true, i -> error(fits.get(i).leaveOneOut()))
                    .styled(i -> verdict(fits.get(i).leaveOneOut())),
                Column.shown("", 66, false, i -> mark(fits.get(i)))),
            i -> false);
    grid.table()
        .getSelectionModel()
        .selectedIndexProperty()
        .addListener(
            (o, b, now) -> {
              // A row that is marked while the list is filled is nobody's choice.
              if (!filling) choose(now.intValue());
            });
    grid.setMinHeight(Region.USE_PREF_SIZE);
    grid.setMaxHeight(Region.USE_PREF_SIZE);
    grid.table()
        .addEventFilter(
            KeyEvent.KEY_PRESSED,
            e -> {
              if (e.getCode() == KeyCode.ENTER && !adopt.isDisabled()) adopt();
            });
    reason.setId("fit-reason");
    reason.setWrapText(true);
    reason.setMinHeight(Region.USE_PREF_SIZE);
    adopt.setId("fit-adopt");
    adopt.getStyleClass().add("primary");
    adopt.setOnAction(e -> adopt());
    collect.setOnAction(e -> desk.step(WorkStep.COLLECT));
    coefficients =
        new Grid(
            "coefficients",
            "The design equation has no fitted constants.",
            List.of(
                Column.shown("constant", 110, false, i -> name(i)),
                Column.shown(
                    "value",
                    130,
                    true,
                    i -> Numbers.significant(c(i).value(), 9).replace('-', '−')),
                Column.shown("s.e.", 90, true, i -> standardError(c(i))).fromWidth(NARROW)),
            i -> false);
    coefficients.setPrefHeight(96);
    coefficients.setMinHeight(84);
    trimOff.setId("trim-off");
    trimOff.getStyleClass().add("tiny");
    trimOff.setOnAction(
        e -> desk.edit("take the trim off", "", c -> c.calibration(k -> k.withTrim(null))));
    trimSays.setId("trim-says");
    trim.setAlignment(Pos.CENTER_LEFT);
    candidates =
        new Paper(
            "Candidates",
            grid,
            reason,
            second,
            new HBox(8, adopt, collect),
            trim,
            Paper.subtitle("Constants"),
            coefficients,
            problems);
    candidates.setMinWidth(404);
    candidates.setPrefWidth(436);
    candidates.setMaxWidth(436);
    look =
        new Segments<>(
            "fit-look",
            List.of(FitLook.values()),
            FitLook::title,
            v -> {
              seen = v;
              showChosen();
            });
    look.show(seen);
    beside.setId("fit-beside");
    beside.setAccessibleText("Model to compare with");
    beside.titled(this::besideTitle);
    beside.setPrefWidth(178);
    beside.setPromptText("compare with");
    beside
        .valueProperty()
        .addListener(
            (o, before, now) -> {
              if (!showing) showChosen();
            });
    pick = new PointPick(desk, residuals);
    residuals.onPick((x, y, dx, dy) -> seen == FitLook.RESIDUALS && pick.pick(x, y, dx, dy));
    plotPaper = new Paper("Residuals", residuals, pick, otherWay).head(look, beside);
    otherWay.setId("fit-other-way");
    designPaper = new Paper("Design against measurement", against);
    for (PlotView p : List.of(residuals, against)) VBox.setVgrow(p, Priority.ALWAYS);
    for (Paper p : List.of(plotPaper, designPaper)) VBox.setVgrow(p, Priority.ALWAYS);
    var right = new VBox(12, plotPaper, designPaper);
    HBox.setHgrow(right, Priority.ALWAYS);
    root = new HBox(12, candidates, right);
  }

  private String error(double v) {
    if (Double.isNaN(v)) return "–";
    int decimals = desk.analysis().design().decimals() + 1;
    // What is far out needs no digits behind the point.
    while (decimals > 0 && v >= WIDE / Math.pow(10, decimals)) decimals--;
    return v >= WIDE ? Numbers.significant(v, 2) : Numbers.fixed(v, decimals);
  }

  private String verdict(double v) {
    double tolerance = desk.analysis().channel().definition().toleranceOrNaN();
    return Double.isNaN(tolerance) || Double.isNaN(v) || v <= tolerance ? "" : "text-fail";
  }

  private Coefficient c(int i) {
    return fit().orElseThrow().inRaw().get(i);
  }

  private String name(int i) {
    String u = desk.analysis().channel().definition().unit();
    String own = c(i).name();
    return own.matches("b[01]") ? own + (own.equals("b0") ? ", " + u : ", " + u + "/V") : own;
  }

  private static String standardError(Coefficient c) {
    return Double.isNaN(c.standardError()) ? "–" : Numbers.significant(c.standardError(), 2);
  }

  private String mark(Fit f) {
    if (isAdopted(f)) return "adopted";
    if (!f.monotone()) return "turns";
    return f.model().equals(advised) ? "advised" : "";
  }

  private boolean isAdopted(Fit f) {
    Adopted a = desk.analysis().channel().calibration().adopted();
    return a != null && a.model().equals(f.model());
  }

  private static boolean many(Analysis a) {
    return a.channel().calibration().points().points().size() > MANY;
  }

  /** The chosen one, which may not be among those that are known yet. */
  private Optional<Fit> fit() {
    return fits.stream()
        .filter(f -> f.model().equals(chosen))
        .findFirst()
        .or(
            () ->
                many(desk.analysis())
                    ? Optional.empty()
                    : desk.analysis().calibration().fit(chosen));
  }

  private void choose(int row) {
    if (row < 0 || row >= fits.size() || fits.get(row).model().equals(chosen)) return;
    chosen = fits.get(row).model();
    picked = true;
    showChosen();
  }

  private void adopt() {
    Analysis a = desk.analysis();
    Optional<Fit> f = fit();
    String model = f.map(Fit::model).orElse(Adopted.DESIGN_MODEL);
    String title = f.map(x -> x.curve().title()).orElse("design equation");
    desk.edit("adopt " + title.toLowerCase(Locale.ROOT), "", c -> a.calibration().adopting(model));
  }

  @Override
  public Node node() {
    return root;
  }

  @Override
  public void switched() {
    chosen = "";
    picked = false;
    pick.forget();
    showing = true;
    beside.setValue(null);
    showing = false;
  }

  @Override
  public void refresh() {
    Analysis a = desk.analysis();
    Channel c = a.channel();
    if (asked != a) {
      // Of many points even a line is not fitted within a frame.
      fits = many(a) ? List.of() : a.calibration().straightFits();
      advised = "";
      stale = false;
      reason.setText(fits.isEmpty() && !many(a) ? "" : "The curved models are being fitted …");
      problems.setText("");
      second.setText("");
      second.setVisible(false);
      second.setManaged(false);
      asked = a;
      work.run(() -> Candidates.of(a), all -> show(a, all));
    }
    double tolerance = c.definition().toleranceOrNaN();
    candidates.note(
        Double.isNaN(tolerance)
            ? "no tolerance is stated"
            : "tolerance ±%s %s".formatted(Numbers.trimmed(tolerance, 3), c.definition().unit()));
    showCandidates(c);
    Trim trimmed = c.calibration().trim();
    trim.setVisible(trimmed != null);
    trim.setManaged(trimmed != null);
    trimOff.setDisable(!desk.editable());
    trimSays.setText(
        trimmed == null
            ? ""
            : "On top of it: " + trimmed.says(c.definition().unit(), a.design().decimals() + 1));
    boolean none = fits.isEmpty();
    collect.setVisible(none);
    collect.setManaged(none);
    showChosen();
  }

  /** The curved models are there, unless something else has become of the channel meanwhile. */
  private void show(Analysis a, Candidates all) {
    if (asked != a) return;
    fits = all.fits();
    stale = all.stale();
    advised = all.best().filter(Recommendation::holds).map(Recommendation::model).orElse("");
    reason.setText(
        all.best()
            .map(Recommendation::reason)
            .orElse(
                fits.isEmpty()
                    ? "Collect reference points first, or adopt the design equation as it is."
                    : "One point cannot tell the models apart."));
    problems.setText(all.problems());
    second.setText(all.second());
    second.setVisible(!all.second().isEmpty());
    second.setManaged(!all.second().isEmpty());
    if (desk.channel().isEmpty()) return;
    showCandidates(a.channel());
    showChosen();
  }

  /**
   * The model that is shown beside the chosen one: the one that was asked for, or a straight one.
   */
  private Optional<Fit> other(Fit of) {
    showing = true;
    List<String> keys = fits.stream().map(Fit::model).filter(m -> !m.equals(of.model())).toList();
    if (!beside.getItems().equals(keys)) {
      String before = beside.getValue();
      beside.getItems().setAll(keys);
      String usual = of.model().equals("line") ? "ends" : "line";
      beside.setValue(keys.contains(before) ? before : keys.contains(usual) ? usual : null);
    }
    showing = false;
    String key = beside.getValue();
    return fits.stream().filter(f -> f.model().equals(key)).findFirst();
  }

  private String besideTitle(String key) {
    return fits.stream()
        .filter(f -> f.model().equals(key))
        .findFirst()
        .map(f -> f.curve().title())
        .orElse("");
  }

  /** What a model leaves, as a line of a few pixels with the band of the tolerance. */
  private Node spark(int i) {
    if (i >= fits.size()) return null;
    return Spark.of(
        fits.get(i),
        desk.analysis().calibration().samples(),
        desk.analysis().channel().definition().toleranceOrNaN());
  }

  private void showCandidates(Channel c) {
    if (fit().isEmpty() || !picked) {
      String adopted = c.calibration().adopted() == null ? "" : c.calibration().adopted().model();
      boolean there =
          fits.stream().anyMatch(f -> f.model().equals(adopted))
              || !many(desk.analysis()) && desk.analysis().calibration().fit(adopted).isPresent();
      String first = fits.isEmpty() ? "" : fits.getFirst().model();
      chosen = there ? adopted : advised.isEmpty() ? first : advised;
    }
    filling = true;
    grid.show(fits.size());
    grid.setPrefHeight(fits.isEmpty() ? 80 : 27 + 25.0 * Math.min(ROWS, fits.size()));
    for (int i = 0; i < fits.size(); i++) {
      if (fits.get(i).model().equals(chosen)) grid.table().getSelectionModel().select(i);
    }
    filling = false;
  }

  private void showChosen() {
    Analysis a = desk.analysis();
    Optional<Fit> f = fit();
    coefficients.show(f.map(x -> x.inRaw().size()).orElse(0));
    boolean adopted = f.map(this::isAdopted).orElse(a.channel().calibration().adopted() != null);
    adopt.setText(
        f.map(x -> "Adopt " + x.curve().title().toLowerCase(Locale.ROOT))
            .orElse("Adopt the design equation"));
    boolean turns = f.map(x -> !x.monotone()).orElse(false);
    adopt.setDisable(
        !desk.editable() || a.design().path().isEmpty() || turns || (adopted && !stale));
    residuals.setVisible(f.isPresent());
    against.setVisible(f.isPresent());
    plotPaper.note(f.isPresent() ? "" : "no points yet");
    if (f.isEmpty()) return;
    var plots = new FitPlots(a, f.get(), other(f.get()));
    FitLook wanted = seen;
    drawing.run(
        () -> FitPicture.of(a, plots, f.get(), wanted),
        d -> {
          residuals.show(d.main());
          against.show(d.design());
          pick.show(a, d.points());
          if (seen != FitLook.RESIDUALS) pick.forget();
          otherWay.setText(d.otherWay());
          otherWay.setVisible(!d.otherWay().isEmpty());
          otherWay.setManaged(!d.otherWay().isEmpty());
          probe();
        });
    designPaper.note(
        f.get().model().equals(Adopted.DESIGN_MODEL)
            ? "choose a fitted model"
            : "design less model");
  }

  @Override
  public void probe() {
    residuals.dark(desk.dark());
    against.dark(desk.dark());
    residuals.probe(seen == FitLook.CURVE ? Double.NaN : desk.probe(), x -> Double.NaN);
    against.probe(desk.probe(), x -> Double.NaN);
  }
}
