package nocking.app.step.condition;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Consumer;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
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
import nocking.app.control.Segments;
import nocking.app.desk.Desk;
import nocking.channel.Channel;
import nocking.channel.WorkStep;
import nocking.path.DerivationStep;
import nocking.path.GeneratedEquation;
import nocking.path.LinearForm;
import nocking.path.ParameterRef;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.report.typeset.EquationLayout;
import nocking.report.typeset.Typesetter;

/**
 * The transfer equation of a channel: what it comes to on top, the steps that lead to it below, or
 * the same as text, LaTeX, C, Python or a sheet formula.
 */
final class EquationPanel {
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

  private final Desk desk;
  private final Consumer<ParameterRef> open;
  private final Button earlier = new Button("‹");
  private final Button later = new Button("›");
  private final VBox result = new VBox();
  private final ScrollPane resultPane = new ScrollPane(result);
  private final VBox steps = new VBox(4);
  private final ScrollPane stepsPane = new ScrollPane(steps);
  private final TextArea code = new TextArea();
  private final Label numbers = new Label();
  private final Segments<Form> forms;
  private final Paper paper;
  private Form shown = Form.STEPS;
  private int upTo = Integer.MAX_VALUE;
  private List<DerivationStep> typeset = List.of();

  /**
   * @param open told whose symbol was clicked
   */
  EquationPanel(Desk desk, Consumer<ParameterRef> open) {
    this.desk = desk;
    this.open = open;
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
    paper = new Paper("", resultPane, numbers, stepsPane).head(forms, earlier, later, copy);
    for (Button b : List.of(earlier, later, copy)) b.getStyleClass().add("tiny");
    forms.getStyleClass().add("tight");
  }

  Paper paper() {
    return paper;
  }

  /** Nothing is known of another channel yet. */
  void switched() {
    typeset = List.of();
    upTo = Integer.MAX_VALUE;
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

  private void showForm(Form f) {
    shown = f;
    show(desk.analysis());
  }

  /** Shows the equation of a channel, or why there is none. */
  void show(Analysis a) {
    Optional<SignalPath> path = a.design().path();
    numbers.setVisible(path.isPresent());
    if (path.isEmpty()) {
      typeset = List.of();
      result.getChildren().clear();
      steps.getChildren().setAll(empty(a));
      put(stepsPane);
      return;
    }
    SignalPath p = path.get();
    if (shown == Form.STEPS) {
      typeset(p);
      put(stepsPane);
    } else {
      code.setText(written(p));
      put(code);
    }
    numbers.setText(line(a, p));
    emphasise();
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

  private void put(Node body) {
    var children = paper.getChildren();
    Node other = body == code ? stepsPane : code;
    boolean solved = body == stepsPane && !result.getChildren().isEmpty();
    resultPane.setVisible(solved);
    resultPane.setManaged(solved);
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
    if (owner != null) open.accept(owner);
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
}
