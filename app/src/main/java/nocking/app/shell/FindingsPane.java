package nocking.app.shell;

import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import javafx.geometry.Insets;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.control.ScrollPane;
import javafx.scene.control.Tooltip;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.scene.text.Text;
import javafx.scene.text.TextFlow;
import nocking.analysis.Analysis;
import nocking.app.control.WheelScroll;
import nocking.app.desk.Aside;
import nocking.app.desk.Desk;
import nocking.app.desk.Latest;
import nocking.channel.WorkStep;
import nocking.finding.Finding;
import nocking.finding.Severity;

/** What the application thinks of the channel, the gravest first, with what would mend it. */
final class FindingsPane extends VBox {
  /** Findings about something that was measured and does not fit. */
  private static final Set<String> DIAGNOSED =
      Set.of("pin-reading", "ground-offset", "fault-reading", "check-fails", "constant-offset");

  private final Desk desk;
  private final VBox cards = new VBox(7);
  private final VBox counts = new VBox(6);
  private final Label title = new Label("FINDINGS");
  private final ScrollPane scroll;
  private final Rail rail;
  private final Latest work = new Latest();
  private List<Finding> shown = List.of();

  /** The analysis whose findings are being looked for; null for none. */
  private Analysis asked;

  /** Channel of the findings that are shown. */
  private String shownId = "";

  private WorkStep shownStep;
  private Optional<Aside> shownAside = Optional.empty();
  private boolean shownEditable;

  FindingsPane(Desk desk) {
    this.desk = desk;
    getStyleClass().add("findings");
    setId("findings");
    rail = new Rail(desk, "findings", this, true, this::folded);
    title.getStyleClass().add("section-title");
    title.setMaxWidth(Double.MAX_VALUE);
    HBox.setHgrow(title, Priority.ALWAYS);
    var head = new HBox(title, rail.button());
    head.setAlignment(Pos.CENTER_LEFT);
    cards.setPadding(new Insets(2, 10, 10, 10));
    scroll = WheelScroll.of(cards);
    VBox.setVgrow(scroll, Priority.ALWAYS);
    counts.setAlignment(Pos.TOP_CENTER);
    counts.setPadding(new Insets(6, 0, 0, 0));
    counts.setId("findings-counts");
    counts.setOnMouseClicked(e -> rail.toggle());
    getChildren().addAll(head, scroll, counts);
    folded();
  }

  /** Folds to the number of findings of each severity, or shows them again. */
  void toggle() {
    rail.toggle();
  }

  private void folded() {
    boolean narrow = rail.folded();
    for (Node n : List.of(title, scroll)) {
      n.setVisible(!narrow);
      n.setManaged(!narrow);
    }
    counts.setVisible(narrow);
    counts.setManaged(narrow);
  }

  /** One badge a severity, the gravest on top. */
  private void count() {
    counts.getChildren().clear();
    for (Severity s : Severity.values()) {
      long n = shown.stream().filter(f -> f.severity() == s).count();
      if (n == 0) continue;
      String word = s.name().toLowerCase(Locale.ROOT);
      var badge = new Label(String.valueOf(n));
      badge.getStyleClass().addAll("badge", word);
      badge.setAccessibleText("%d %s".formatted(n, n == 1 ? word : word + "s"));
      badge.setTooltip(new Tooltip(badge.getAccessibleText()));
      counts.getChildren().add(badge);
    }
  }

  /** Findings of the present stage first within each severity. */
  void refresh() {
    if (desk.channel().isEmpty()) {
      clear();
      return;
    }
    Analysis a = desk.analysis();
    if (a.findingsIfKnown().isEmpty()) {
      if (asked == a) return;
      asked = a;
      // What is said of another channel must not stand here meanwhile.
      if (!a.channel().id().equals(shownId)) clear();
      work.run(a::findings, found -> refresh());
      return;
    }
    asked = null;
    shownId = a.channel().id();
    List<Finding> now = a.findings();
    if (same(now)
        && desk.step() == shownStep
        && desk.aside().equals(shownAside)
        && desk.editable() == shownEditable) return;
    shown = now;
    shownStep = desk.step();
    shownAside = desk.aside();
    shownEditable = desk.editable();
    count();
    cards.getChildren().clear();
    if (now.isEmpty()) {
      var none =
          new Label(
              desk.channel().get().design().sensor() == null
                  ? "Nothing to judge yet. Define the sensor first."
                  : "Nothing stands out on this channel.");
      none.getStyleClass().add("quiet");
      none.setWrapText(true);
      none.setPadding(new Insets(0, 2, 0, 2));
      cards.getChildren().add(none);
    }
    now.stream()
        .sorted(
            Comparator.comparing(Finding::severity)
                .thenComparing(f -> f.step() == shownStep ? 0 : 1))
        .forEach(f -> cards.getChildren().add(card(f)));
  }

  private void clear() {
    cards.getChildren().clear();
    shown = List.of();
    shownStep = null;
    count();
  }

  private boolean same(List<Finding> now) {
    if (now.size() != shown.size()) return false;
    for (int i = 0; i < now.size(); i++) {
      Finding a = now.get(i);
      Finding b = shown.get(i);
      if (!a.text().equals(b.text()) || a.severity() != b.severity()) return false;
    }
    return true;
  }

  private VBox card(Finding f) {
    var headline = new Text(f.severity() == Severity.CAUTION ? "Caution. " : f.sentence() + " ");
    headline.getStyleClass().add("headline");
    var detail = new Text(f.detail());
    detail.getStyleClass().add("detail");
    var card = new VBox(new TextFlow(headline, detail));
    card.setId("finding-" + f.rule());
    card.getStyleClass().addAll("finding", f.severity().name().toLowerCase(Locale.ROOT));
    card.setAccessibleText(f.severity().name().toLowerCase(Locale.ROOT) + ": " + f.text());
    f.fix()
        .filter(x -> desk.editable())
        .ifPresent(
            fix -> {
              var button = link(fix.label(), "fix-" + f.rule());
              button.setOnAction(e -> desk.edit(lowerFirst(fix.label()), "", fix.apply()));
              card.getChildren().add(button);
            });
    if (DIAGNOSED.contains(f.rule()) && desk.aside().isEmpty()) {
      var button = link("Open Diagnose", "diagnose-" + f.rule());
      button.setOnAction(e -> desk.aside(Aside.DIAGNOSE));
      card.getChildren().add(button);
    }
    if (f.step() != desk.step() && f.severity() != Severity.CAUTION) {
      var button = link("Show in " + f.step().title(), "show-" + f.rule());
      button.setOnAction(e -> desk.step(f.step()));
      card.getChildren().add(button);
    }
    return card;
  }

  private static Button link(String text, String id) {
    var button = new Button(text);
    button.setId(id);
    button.getStyleClass().add("link");
    return button;
  }

  private static String lowerFirst(String s) {
    return Character.toLowerCase(s.charAt(0)) + s.substring(1);
  }
}
