package nocking.app.step.condition;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.IntConsumer;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.Paper;
import nocking.app.control.PlotView;
import nocking.app.control.Segments;
import nocking.app.control.WheelScroll;
import nocking.app.desk.Desk;
import nocking.app.step.ElementForm;
import nocking.app.step.Sheet;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.converter.Converter;
import nocking.element.Signal;
import nocking.path.ParameterRef;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.stage.RcFilter;
import nocking.stage.Stage;
import nocking.view.DesignView;

/** The view of the second stage. */
public final class ConditionSheet implements Sheet {

  /** What the lower sheet shows. */
  private enum View {
    OUTPUT("Output"),
    SPANS("Spans"),
    COUNT("One count"),
    ERROR("Error"),
    WHAT_IF("What if"),
    PARTS("Parts"),
    PATHS("Paths"),
    RECEIVER("Receiver");

    private final String title;

    View(String title) {
      this.title = title;
    }
  }

  private final Desk desk;
  private final IntConsumer chosen;
  private final Paper elementPaper = new Paper("");
  private final ElementForm form;
  private final Label gain = new Label();
  private final HBox actions = new HBox(6);
  private final MenuButton add = new MenuButton("Insert a stage");
  private final Schematic schematic = new Schematic();
  private final EquationPanel equation;
  private final PartsPanel parts;
  private final PathsPanel paths;
  private final ReceiverPanel receiver;
  private final SpansPicture spans = new SpansPicture();
  private final PlotView counts =
      new PlotView("counts-plot", "Resolution: what one count is worth");
  private final ErrorPanel errors;
  private final WhatIfPanel whatIf;
  private final Segments<View> views;
  private View view = View.OUTPUT;
  private final PlotView plot = new PlotView("condition-plot", "Output over the range");
  private final Paper plotPaper;
  private final HBox root;
  private int element = 1;

  /**
   * @param chosen told which element is open
   * @param openDrawer shows the drawer of parts
   */
  public ConditionSheet(Desk desk, IntConsumer chosen, Runnable openDrawer) {
    this.desk = desk;
    this.chosen = chosen;
    form = new ElementForm(desk, "element");
    gain.getStyleClass().addAll("result-line");
    gain.setMaxWidth(Double.MAX_VALUE);
    add.setId("condition-insert");
    parts = new PartsPanel(desk, openDrawer);
    errors = new ErrorPanel(desk, this::open);
    whatIf = new WhatIfPanel(desk);
    paths = new PathsPanel(desk);
    receiver = new ReceiverPanel(desk);
    elementPaper.getChildren().addAll(schematic, form, gain, actions, add);
    var leftScroll = WheelScroll.of(elementPaper);
    leftScroll.setMinWidth(296);
    leftScroll.setPrefWidth(296);
    leftScroll.setMaxWidth(296);

    equation = new EquationPanel(desk, this::open);
    views = new Segments<>("condition-view", List.of(View.values()), v -> v.title, this::showView);
    views.show(view);
    views.getStyleClass().add("tight");
    plotPaper = new Paper("", plot).head(views);
    VBox.setVgrow(plot, Priority.ALWAYS);
    VBox.setVgrow(plotPaper, Priority.ALWAYS);
    var middle = new VBox(12, equation.paper(), plotPaper);
    plotPaper.setMinHeight(196);
    plotPaper.setPrefHeight(196);
    var middleScroll = WheelScroll.of(middle);
    middleScroll.setFitToHeight(true);
    HBox.setHgrow(middleScroll, Priority.ALWAYS);
    root = new HBox(12, leftScroll, middleScroll);
  }

  /** What can stand behind the element that is open, in its groups. */
  private void offerStages(Channel c) {
    var items = new ArrayList<MenuItem>();
    for (List<Stage> group : c.design().stagesThatFit(place(c))) {
      if (!items.isEmpty()) items.add(new SeparatorMenuItem());
      for (Stage kind : group) {
        var item = new MenuItem(kind.title());
        item.setId("condition-insert-" + kind.title().toLowerCase(Locale.ROOT).replace(' ', '-'));
        item.setOnAction(e -> insert(kind));
        items.add(item);
      }
    }
    add.getItems().setAll(items);
    add.setDisable(!desk.editable() || items.isEmpty());
  }

  private int place(Channel c) {
    return Math.clamp(element, 0, c.design().stages().size());
  }

  private void insert(Stage kind) {
    int place = place(desk.channel().orElseThrow());
    String what = "insert " + kind.title().toLowerCase(Locale.ROOT);
    if (desk.edit(what, "", ch -> ch.design(d -> d.insertStage(place, kind)))) element(place + 1);
  }

  private void showView(View v) {
    view = v;
    views.show(v);
    Node body =
        switch (v) {
          case OUTPUT -> plot;
          case SPANS -> spans;
          case COUNT -> counts;
          case ERROR -> errors;
          case WHAT_IF -> whatIf;
          case PARTS -> parts;
          case PATHS -> paths;
          case RECEIVER -> receiver;
        };
    // What is chosen from needs the height; the equation comes back with any other view.
    boolean alone = v == View.PARTS || v == View.PATHS || v == View.RECEIVER;
    equation.paper().setVisible(!alone);
    equation.paper().setManaged(!alone);
    VBox.setVgrow(body, Priority.ALWAYS);
    plotPaper.getChildren().set(plotPaper.getChildren().size() - 1, body);
    double room = v == View.ERROR || v == View.WHAT_IF ? 312 : 196;
    plotPaper.setMinHeight(room);
    plotPaper.setPrefHeight(room);
    drawView(desk.analysis());
    probe();
  }

  private void open(ParameterRef owner) {
    if (owner.element() == 0) desk.step(WorkStep.DEFINE);
    else element(owner.element());
  }

  @Override
  public Node node() {
    return root;
  }

  @Override
  public void switched() {
    element = 1;
    form.clear();
    equation.switched();
    parts.switched();
    whatIf.switched();
  }

  @Override
  public void element(int index) {
    element = index;
    refresh();
  }

  @Override
  public void refresh() {
    Channel c = desk.channel().orElseThrow();
    int n = c.design().stages().size();
    // The sensor has its own stage of the work; without a stage the converter is open.
    element = Math.clamp(element, 1, n + 1);
    chosen.accept(element);
    boolean converter = element == n + 1;
    if (converter) showConverter(c);
    else showStage(c);
    offerStages(c);
    equation.show(desk.analysis());
    drawView(desk.analysis());
    probe();
  }

  private void showConverter(Channel c) {
    elementPaper.title("Converter");
    elementPaper.note("end of the path");
    form.show(
        c.design().converter(),
        c.id() + ".converter",
        () -> desk.channel().orElseThrow().design().converter(),
        e -> ch -> ch.design(d -> d.withConverter((Converter) e)));
    schematic.setVisible(false);
    schematic.setManaged(false);
    gain.setText(
        "1 count = %s, %d bits"
            .formatted(
                Numbers.engineering(c.design().converter().step(), "V", 4),
                c.design().converter().effectiveBits()));
    actions.getChildren().clear();
  }

  private void showStage(Channel c) {
    int index = element - 1;
    Stage stage = c.design().stages().get(index);
    elementPaper.title(stage.title());
    elementPaper.note("stage %d of %d".formatted(element, c.design().stages().size()));
    form.show(
        stage,
        c.id() + ".stage" + index,
        () -> desk.channel().orElseThrow().design().stages().get(index),
        e -> ch -> ch.design(d -> d.withStage(index, (Stage) e)));
    schematic.setVisible(true);
    schematic.setManaged(true);
    schematic.show(stage);
    gain.setText(says(desk.analysis().design(), c, index, stage));
    gain.setWrapText(true);
    var out = new Button("Take out");
    out.setId("stage-remove");
    out.setOnAction(
        e ->
            desk.edit(
                "take out " + stage.title().toLowerCase(Locale.ROOT),
                "",
                ch -> ch.design(d -> d.removeStage(index))));
    var before = move("◀", "Move towards the sensor", "stage-left", index, index - 1);
    var after = move("▶", "Move towards the converter", "stage-right", index, index + 1);
    out.setDisable(!desk.editable());
    actions.getChildren().setAll(out, before, after);
  }

  /** The gain, what the stage looks like from outside, and how long a step takes to settle. */
  private static String says(DesignView design, Channel c, int index, Stage stage) {
    var words = new StringBuilder(stage.gain());
    if (stage instanceof RcFilter f) {
      double seconds = design.settling(f, index);
      if (Double.isFinite(seconds)) {
        words.append(
            ", within ½ count in %s with what feeds it"
                .formatted(Numbers.engineering(seconds, "s", 3)));
      }
    }
    words.append(
        stage.outputResistance() == 0
            ? ", stiff output"
            : ", output "
                + Numbers.compact(stage.outputResistance(), "Ω", 3)
                + (index == 0
                        && c.design().sensor() != null
                        && c.design().sensor().signal() == Signal.RESISTANCE
                    ? " at most"
                    : ""));
    return words.toString();
  }

  private Button move(String sign, String says, String id, int from, int to) {
    var b = new Button(sign);
    b.setId(id);
    b.setAccessibleText(says);
    int n = desk.channel().orElseThrow().design().stages().size();
    b.setDisable(!desk.editable() || to < 0 || to >= n);
    b.setOnAction(
        e -> {
          if (desk.edit("move stage", "", ch -> ch.design(d -> d.moveStage(from, to))))
            element(to + 1);
        });
    return b;
  }

  private void drawView(Analysis a) {
    Optional<SignalPath> path = a.design().path();
    plot.setVisible(path.isPresent());
    counts.setVisible(path.isPresent());
    spans.setVisible(path.isPresent());
    boolean drawn = view == View.OUTPUT || view == View.SPANS || view == View.COUNT;
    plotPaper.note(
        path.map(p -> note(a, p))
            .orElse(drawn ? "there is nothing to draw before there is a sensor" : ""));
    switch (view) {
      case OUTPUT ->
          path.ifPresent(
              p -> plot.show(PathPlots.output(a, p, a.channel().definition().working())));
      case SPANS -> spans.show(a);
      case COUNT -> path.ifPresent(p -> counts.show(PathPlots.counts(a, p)));
      case ERROR -> errors.refresh();
      case WHAT_IF -> whatIf.refresh();
      case PARTS -> parts.refresh(element - 1);
      case PATHS -> paths.refresh();
      case RECEIVER -> receiver.refresh();
    }
  }

  private String note(Analysis a, SignalPath p) {
    if (view != View.COUNT) return "";
    Span w = a.channel().definition().working();
    return "%s … %s"
        .formatted(
            a.design().error(p.countsWorth(w.low())), a.design().error(p.countsWorth(w.high())));
  }

  @Override
  public void probe() {
    Analysis a = desk.analysis();
    plot.dark(desk.dark());
    counts.dark(desk.dark());
    switch (view) {
      case OUTPUT ->
          plot.probe(
              desk.probe(), x -> a.design().path().map(p -> p.at(x).output()).orElse(Double.NaN));
      case SPANS -> spans.probe(desk.probe());
      case COUNT ->
          counts.probe(
              desk.probe(), x -> a.design().path().map(p -> p.countsWorth(x)).orElse(Double.NaN));
      case ERROR -> errors.probe();
      case PARTS -> parts.dark(desk.dark());
      case RECEIVER -> receiver.probe();
      case WHAT_IF, PATHS -> {}
    }
  }
}
