package nocking.app.step.condition;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.function.IntConsumer;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.MenuButton;
import javafx.scene.control.MenuItem;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.SeparatorMenuItem;
import javafx.scene.control.TextArea;
import javafx.scene.input.Clipboard;
import javafx.scene.input.ClipboardContent;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.algebra.Notation;
import nocking.analysis.Analysis;
import nocking.app.control.EquationView;
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
import nocking.path.DerivationStep;
import nocking.path.GeneratedEquation;
import nocking.path.LinearForm;
import nocking.path.ParameterRef;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.report.typeset.EquationLayout;
import nocking.report.typeset.Typesetter;
import nocking.stage.RcFilter;
import nocking.stage.Stage;

/** The view of the second stage. */
public final class ConditionSheet implements Sheet {
  private static final double[] EQUATION_SIZES = {18, 16, 14};
  private static final double EQUATION_ROOM = 340;

  /** Height for the steps; longer derivations scroll. */
  private static final double STEPS_ROOM = 150;

  /** Room below the solved equation for the bar that moves it sideways. */
  private static final double BAR_ROOM = 10;

  /** Forms in which the equation is shown. */
  private enum Form {
    STEPS("Steps", null),
    TEXT("Text", Notation.TEXT),
    LATEX("LaTeX", Notation.LATEX),
    C("C", Notation.C),
    PYTHON("Python", Notation.PYTHON),
    SHEET("Sheet", Notation.SHEET);

    private final String title;
    private final Notation notation;

    Form(String title, Notation notation) {
      this.title = title;
      this.notation = notation;
    }
  }

  /** What the lower sheet shows. */
  private enum View {
    OUTPUT("Output"),
    SPANS("Spans"),
    COUNT("One count"),
    ERROR("Error"),
    WHAT_IF("What if"),
    PARTS("Parts"),
    PATHS("Paths");

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
  private final PartsPanel parts;
  private final PathsPanel paths;
  private final SpansPicture spans = new SpansPicture();
  private final PlotView counts =
      new PlotView("counts-plot", "Resolution: what one count is worth");
  private final ErrorPanel errors;
  private final WhatIfPanel whatIf;
  private final Segments<View> views;
  private final Button earlier = new Button("‹");
  private final Button later = new Button("›");
  private View view = View.OUTPUT;
  private int upTo = Integer.MAX_VALUE;
  private final VBox result = new VBox();
  private final ScrollPane resultPane = new ScrollPane(result);
  private final VBox steps = new VBox(4);
  private final ScrollPane stepsPane = new ScrollPane(steps);
  private final TextArea code = new TextArea();
  private final Label numbers = new Label();
  private final Segments<Form> forms;
  private final PlotView plot = new PlotView("condition-plot", "Output over the range");
  private final Paper plotPaper;
  private final Paper equationPaper;
  private final HBox root;
  private Form shown = Form.STEPS;
  private int element = 1;
  private List<DerivationStep> typeset = List.of();

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
    elementPaper.getChildren().addAll(schematic, form, gain, actions, add);
    var leftScroll = WheelScroll.of(elementPaper);
    leftScroll.setMinWidth(296);
    leftScroll.setPrefWidth(296);
    leftScroll.setMaxWidth(296);

    forms = new Segments<>("form", List.of(Form.values()), f -> f.title, this::showForm);
    forms.show(Form.STEPS);
    var copy = new Button("Copy");
    copy.setId("equation-copy");
    copy.setOnAction(e -> copy());
    code.setEditable(false);
    code.getStyleClass().add("code-text");
    code.setId("equation-text");
    code.setPrefRowCount(8);
    numbers.getStyleClass().add("result-line");
    numbers.setId("equation-numbers");
    numbers.setMaxWidth(Double.MAX_VALUE);
    numbers.setMinHeight(Region.USE_PREF_SIZE);
    numbers.setWrapText(true);
    result.setId("equation-result");
    steps.setId("equation-steps");
    steps.setPadding(new Insets(0, 14, 0, 0));
    stepsPane.setFitToWidth(true);
    stepsPane.setFocusTraversable(false);
    stepsPane.setMinWidth(0);
    stepsPane.setMinHeight(44);
    steps
        .heightProperty()
        .addListener(
            (o, b, h) -> stepsPane.setPrefHeight(Math.min(h.doubleValue() + 2, STEPS_ROOM)));
    earlier.setId("equation-earlier");
    earlier.setAccessibleText("One step of the derivation less");
    earlier.setOnAction(e -> step(-1));
    later.setId("equation-later");
    later.setAccessibleText("One step of the derivation more");
    later.setOnAction(e -> step(1));
    // A long equation scrolls sideways instead of widening the sheet.
    resultPane.setVbarPolicy(ScrollPane.ScrollBarPolicy.NEVER);
    resultPane.setFitToWidth(true);
    resultPane.setFocusTraversable(false);
    resultPane.setMinWidth(0);
    resultPane.setMinHeight(Region.USE_PREF_SIZE);
    result
        .heightProperty()
        .addListener((o, b, h) -> resultPane.setPrefHeight(h.doubleValue() + BAR_ROOM));
    equationPaper = new Paper("", resultPane, numbers, stepsPane).head(forms, earlier, later, copy);
    for (Button b : List.of(earlier, later, copy)) b.getStyleClass().add("tiny");
    views = new Segments<>("condition-view", List.of(View.values()), v -> v.title, this::showView);
    views.show(view);
    for (Segments<?> tight : List.of(forms, views)) tight.getStyleClass().add("tight");
    plotPaper = new Paper("", plot).head(views);
    VBox.setVgrow(plot, Priority.ALWAYS);
    VBox.setVgrow(plotPaper, Priority.ALWAYS);
    var middle = new VBox(12, equationPaper, plotPaper);
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
        };
    // What is chosen from needs the height; the equation comes back with any other view.
    boolean alone = v == View.PARTS || v == View.PATHS;
    equationPaper.setVisible(!alone);
    equationPaper.setManaged(!alone);
    VBox.setVgrow(body, Priority.ALWAYS);
    plotPaper.getChildren().set(plotPaper.getChildren().size() - 1, body);
    double room = v == View.ERROR || v == View.WHAT_IF ? 312 : 196;
    plotPaper.setMinHeight(room);
    plotPaper.setPrefHeight(room);
    drawView(desk.analysis());
    probe();
  }

  /** Shows one step of the derivation more or less; beyond the last one it is the whole. */
  private void step(int by) {
    int all = typeset.size();
    upTo = Math.clamp(Math.min(upTo, all) + by, 1, Math.max(1, all));
    emphasise();
  }

  private void emphasise() {
    var rows = new ArrayList<Node>(steps.getChildren());
    rows.addAll(result.getChildren());
    int n = rows.size();
    int shownSteps = Math.min(upTo, n);
    for (int i = 0; i < n; i++) {
      rows.get(i).setVisible(i < shownSteps);
      rows.get(i).setOpacity(shownSteps == n || i == shownSteps - 1 ? 1 : 0.55);
    }
    earlier.setDisable(shown != Form.STEPS || shownSteps <= 1);
    later.setDisable(shown != Form.STEPS || shownSteps >= n);
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
    typeset = List.of();
    upTo = Integer.MAX_VALUE;
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
    draw(desk.analysis());
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
    gain.setText(says(c, index, stage));
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
  private static String says(Channel c, int index, Stage stage) {
    var words = new StringBuilder(stage.gain());
    if (stage instanceof RcFilter f) {
      int bits = c.design().converter().effectiveBits();
      words.setLength(0);
      words.append(
          "cut-off %s, within ½ count in %s"
              .formatted(
                  Numbers.engineering(f.cutOff(), "Hz", 3),
                  Numbers.engineering(f.settling(bits), "s", 3)));
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

  private void showForm(Form f) {
    shown = f;
    draw(desk.analysis());
  }

  private void draw(Analysis a) {
    Optional<SignalPath> path = a.design().path();
    numbers.setVisible(path.isPresent());
    drawView(a);
    if (path.isEmpty()) {
      typeset = List.of();
      result.getChildren().clear();
      resultPane.setManaged(false);
      steps.getChildren().setAll(empty(a));
      show(stepsPane);
      return;
    }
    SignalPath p = path.get();
    if (shown == Form.STEPS) {
      typeset(p);
      show(stepsPane);
    } else {
      code.setText(written(p));
      show(code);
    }
    numbers.setText(line(a, p));
    emphasise();
  }

  private void drawView(Analysis a) {
    Optional<SignalPath> path = a.design().path();
    plot.setVisible(path.isPresent());
    counts.setVisible(path.isPresent());
    spans.setVisible(path.isPresent());
    plotPaper.note(path.map(p -> note(a, p)).orElse(""));
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
    }
  }

  private String note(Analysis a, SignalPath p) {
    if (view != View.COUNT) return "";
    Span w = a.channel().definition().working();
    return "%s … %s"
        .formatted(
            a.design().error(p.countsWorth(w.low())), a.design().error(p.countsWorth(w.high())));
  }

  private Node empty(Analysis a) {
    var text =
        Paper.caption(
            a.channel().design().sensor() == null
                ? "There is no sensor yet. The equation follows from it."
                : "The path cannot be worked out: " + a.design().problem().orElse("") + ".");
    if (a.channel().design().sensor() != null) return text;
    var go = new Button("Define the sensor");
    go.setOnAction(e -> desk.step(WorkStep.DEFINE));
    return new VBox(8, text, go);
  }

  private void show(Node body) {
    var children = equationPaper.getChildren();
    Node other = body == code ? stepsPane : code;
    resultPane.setVisible(body == stepsPane);
    resultPane.setManaged(body == stepsPane);
    if (children.contains(other)) children.set(children.indexOf(other), body);
  }

  /** Lines are set anew only when an equation has changed, not for every number. */
  private void typeset(SignalPath p) {
    List<DerivationStep> now = p.derivation();
    if (now.equals(typeset)) return;
    typeset = now;
    upTo = Integer.MAX_VALUE;
    steps.getChildren().clear();
    result.getChildren().clear();
    for (DerivationStep s : now) {
      var number = new Label("(" + s.number() + ")");
      number.getStyleClass().add("caption");
      number.setMinWidth(26);
      var equation =
          new EquationView(
              layout(s),
              Notation.TEXT.write(s.left()) + " = " + Notation.TEXT.write(s.right()),
              this::open);
      var gap = new Region();
      HBox.setHgrow(gap, Priority.ALWAYS);
      var caption = new Label(s.caption());
      caption.getStyleClass().add("caption");
      caption.setMinWidth(Region.USE_PREF_SIZE);
      var row = new HBox(6, number, equation, gap, caption);
      row.setAlignment(Pos.CENTER_LEFT);
      // What it comes to stands on top; how it came about scrolls below.
      boolean last = s == now.getLast() && now.size() > 1;
      (last ? result : steps).getChildren().add(row);
    }
  }

  /** The largest of a few sizes at which a line fits; a longer one scrolls. */
  private static EquationLayout layout(DerivationStep s) {
    for (double size : EQUATION_SIZES) {
      EquationLayout layout = Typesetter.equation(s.left(), s.right(), size);
      if (layout.width() <= EQUATION_ROOM) return layout;
    }
    return Typesetter.equation(s.left(), s.right(), EQUATION_SIZES[EQUATION_SIZES.length - 1]);
  }

  /** A symbol that was clicked opens the element that it belongs to. */
  private void open(String symbol) {
    ParameterRef owner = desk.analysis().design().path().orElseThrow().owners().get(symbol);
    if (owner == null) return;
    if (owner.element() == 0) desk.step(WorkStep.DEFINE);
    else element(owner.element());
  }

  private String written(SignalPath p) {
    Channel c = desk.channel().orElseThrow();
    Map<String, Double> constants = p.constantsOf(p.inverse());
    String solved =
        GeneratedEquation.write(
            shown.notation,
            GeneratedEquation.identifier(c.tag()) + "_quantity",
            "Vout",
            p.quantitySymbol(),
            p.inverse(),
            constants);
    if (shown != Form.TEXT) return solved;
    String forward =
        GeneratedEquation.write(
            Notation.TEXT, "", p.quantitySymbol(), "Vout", p.forward(), constants);
    return forward + "\n" + solved;
  }

  private String line(Analysis a, SignalPath p) {
    String u = a.channel().definition().unit();
    Optional<LinearForm> linear = p.linear();
    if (linear.isEmpty()) {
      Span w = a.channel().definition().working();
      return "%s   1 count = %s … %s"
          .formatted(
              p.solvedInSymbols() ? "a curve, solved exactly" : "a curve, turned round numerically",
              a.design().error(p.countsWorth(w.low())),
              a.design().error(p.countsWorth(w.high())));
    }
    LinearForm f = linear.get();
    return "%s = %s %s/V · Vout %s %s %s   pivot %s %s ↔ %s V"
        .formatted(
            p.quantitySymbol(),
            Numbers.significant(f.slope(), 5).replace('-', '−'),
            u,
            f.intercept() < 0 ? "−" : "+",
            Numbers.significant(Math.abs(f.intercept()), 5),
            u,
            Numbers.fixed(f.pivot(), a.design().decimals()).replace('-', '−'),
            u,
            Numbers.significant(f.pivotVolts(), 4));
  }

  private void copy() {
    desk.analysis()
        .design()
        .path()
        .ifPresent(
            p -> {
              String text =
                  shown == Form.STEPS
                      ? String.join(
                              "\n",
                              p.derivation().stream()
                                  .map(
                                      s ->
                                          "(%d)  %s = %s"
                                              .formatted(
                                                  s.number(),
                                                  Notation.TEXT.write(s.left()),
                                                  Notation.TEXT.write(s.right())))
                                  .toList())
                          + "\n"
                          + numbers.getText()
                      : code.getText();
              var content = new ClipboardContent();
              content.putString(text);
              Clipboard.getSystemClipboard().setContent(content);
              desk.say("The equation is on the clipboard.", false);
            });
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
      case WHAT_IF, PATHS -> {}
    }
  }
}
