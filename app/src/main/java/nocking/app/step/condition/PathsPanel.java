package nocking.app.step.condition;

import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.app.control.Column;
import nocking.app.control.DropDown;
import nocking.app.control.EntryField;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.desk.Background;
import nocking.app.desk.Desk;
import nocking.channel.Channel;
import nocking.parts.Assortment;
import nocking.parts.PreferredSeries;
import nocking.proposal.PathProposal;
import nocking.proposal.PathProposals;
import nocking.proposal.Wanted;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Sentence;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.stage.Stage;

/** Whole conditionings proposed for the channel's sensor and converter; one key puts one in. */
final class PathsPanel extends VBox {
  private static final double FIELD_WIDTH = 226;

  private final Desk desk;
  private final EntryField supply;
  private final EntryField settling;
  private final EntryField current;
  private final ComboBox<PreferredSeries> series = new DropDown<>();
  private final DropDown<Wanted.Care> care = new DropDown<>();
  private final Button propose = new Button("Propose");
  private final Button stock = new Button("From the drawer");
  private final Button take = new Button("Put it in");
  private final Label note = Paper.caption("");
  private final Grid grid;
  private List<PathProposal> proposals = List.of();
  private double volts = 3.3;
  private double seconds = Double.NaN;
  private double amperes = Wanted.USUAL_CURRENT;
  private String channel = "";

  /** What was found, or the sentence why not. */
  private record Outcome(Optional<List<PathProposal>> found, String problem) {}

  PathsPanel(Desk desk) {
    this.desk = desk;
    setSpacing(6);
    supply =
        new EntryField("paths-supply", "Supply", true, this::takeSupply, () -> {})
            .help("Volts that are there for pull-ups, loops and amplifiers.");
    settling =
        new EntryField("paths-settling", "Settled in", true, this::takeSettling, () -> {})
            .prompt("no filter")
            .help("Time after which a step is inside half a count, for a filter; empty for none.");
    current =
        new EntryField("paths-current", "Sensor, most", true, this::takeCurrent, () -> {})
            .prompt("any")
            .help("Current through a resistive sensor; empty for any.");
    for (EntryField f : List.of(supply, settling, current)) {
      f.setPrefWidth(FIELD_WIDTH);
      f.setMaxWidth(FIELD_WIDTH);
      f.getStyleClass().add("short");
    }
    series.setId("paths-series");
    series.setAccessibleText("Preferred series");
    series.getItems().setAll(PreferredSeries.values());
    series.setValue(PreferredSeries.E24);
    care.setId("paths-care");
    care.setAccessibleText("What comes first");
    care.getItems().setAll(Wanted.Care.values());
    care.setValue(Wanted.Care.BALANCED);
    care.titled(Wanted.Care::title);
    propose.setId("paths-propose");
    propose.getStyleClass().add("primary");
    propose.setOnAction(e -> search(false));
    stock.setId("paths-stock");
    stock.setOnAction(e -> search(true));
    take.setId("paths-take");
    take.setOnAction(e -> take());
    grid =
        new Grid(
            "paths-grid",
            "From the sensor, the converter and what is said above, whole paths are proposed.",
            List.of(
                Column.shown("path", 198, false, i -> proposals.get(i).name()),
                Column.shown("parts", 38, true, i -> String.valueOf(proposals.get(i).parts())),
                Column.shown("share", 46, true, i -> share(proposals.get(i))),
                Column.shown("before", 52, true, i -> error(proposals.get(i).before())),
                Column.shown("after", 62, true, i -> error(proposals.get(i).after())),
                Column.shown("told", 58, true, i -> told(proposals.get(i)))),
            i -> !proposals.get(i).holds());
    VBox.setVgrow(grid, Priority.ALWAYS);
    grid.setMinHeight(120);
    grid.table()
        .getSelectionModel()
        .selectedIndexProperty()
        .addListener((o, before, now) -> describe(now.intValue()));
    note.setId("paths-note");
    note.setWrapText(true);
    care.setMaxWidth(Double.MAX_VALUE);
    HBox.setHgrow(care, Priority.ALWAYS);
    var first = new Label("First");
    first.setMinWidth(80);
    var what = new HBox(6, first, care);
    what.setAlignment(Pos.CENTER_LEFT);
    what.setPrefWidth(FIELD_WIDTH);
    var fields = new FlowPane(4, 4, supply, settling, current, what);
    var choices = new FlowPane(6, 6, new Label("Series"), series, propose, stock);
    choices.setAlignment(Pos.CENTER_LEFT);
    getChildren().addAll(fields, choices, grid, note, take);
  }

  private static String share(PathProposal p) {
    return Numbers.fixed(100 * p.share(), 0) + " %";
  }

  private static String error(double v) {
    return "±" + Numbers.significant(v, 2);
  }

  private static String told(PathProposal p) {
    return p.told() + " of " + p.wires();
  }

  private void takeSupply(String text) {
    double v = Value.typed(text, Unit.VOLT).number();
    if (!(v > 0)) throw new QuantityException("the supply must be above 0 V");
    volts = v;
  }

  private void takeSettling(String text) {
    double v = text.isBlank() ? Double.NaN : Value.typed(text, Unit.of("s")).number();
    if (v <= 0) throw new QuantityException("a settling time must be above 0 s");
    seconds = v;
  }

  private void takeCurrent(String text) {
    double v = text.isBlank() ? Double.POSITIVE_INFINITY : Value.typed(text, Unit.AMPERE).number();
    if (!(v > 0)) throw new QuantityException("a current must be above 0 A");
    amperes = v;
  }

  private void search(boolean fromStock) {
    Channel c = desk.channel().orElseThrow();
    PreferredSeries chosen = series.getValue();
    Wanted.Care first = care.getValue();
    var drawer = desk.book().stock();
    double onSupply = volts;
    double settled = seconds;
    double most = amperes;
    propose.setDisable(true);
    stock.setDisable(true);
    note.setText("Working out every circuit…");
    Background.run(
        () -> {
          try {
            Assortment parts =
                fromStock
                    ? Assortment.of(drawer)
                    : Assortment.of(chosen, 100, 1e6, chosen.usualTolerance());
            var wanted =
                new Wanted(parts, onSupply, Wanted.usualTotal(first), settled, most, first);
            return new Outcome(Optional.of(PathProposals.of(c, wanted)), "");
          } catch (QuantityException e) {
            return new Outcome(Optional.empty(), e.getMessage() + ".");
          }
        },
        outcome -> show(outcome, c));
  }

  private void show(Outcome outcome, Channel asked) {
    propose.setDisable(false);
    stock.setDisable(desk.book().stock().isEmpty());
    // Another channel may have been opened meanwhile.
    if (!asked.id().equals(channel)) return;
    proposals = outcome.found.orElse(List.of());
    grid.show(proposals.size());
    if (outcome.found.isEmpty()) {
      note.setText(Sentence.capital(outcome.problem));
    } else if (proposals.isEmpty()) {
      note.setText("No circuit can be made from these parts on this supply.");
    } else {
      grid.table().getSelectionModel().select(0);
      describe(0);
    }
    take.setDisable(proposals.isEmpty() || !desk.editable());
  }

  private void describe(int i) {
    if (i < 0 || i >= proposals.size()) return;
    PathProposal p = proposals.get(i);
    String parts =
        p.stages().isEmpty()
            ? "no part"
            : String.join(
                ", ", p.stages().stream().map(s -> s.title() + " " + s.summary()).toList());
    note.setText(
        "%s. %s … %s V at the converter%s. %s."
            .formatted(
                parts,
                Numbers.fixed(p.volts().low(), 3),
                Numbers.fixed(p.volts().high(), 3),
                p.amperes() == 0
                    ? ""
                    : ", " + Numbers.engineering(p.amperes(), "A", 3) + " from the sensor",
                Sentence.capital(p.why())));
  }

  private void take() {
    int i = grid.selectedRow();
    if (i < 0 || i >= proposals.size()) return;
    PathProposal p = proposals.get(i);
    if (desk.edit("put in the path " + p.name(), "", p::putInto)) {
      desk.say("In the path: %s. Undo takes it out again.".formatted(p.name()), false);
    }
  }

  /** Begins anew for another channel: its own supply, nothing proposed. */
  void refresh() {
    Channel c = desk.channel().orElseThrow();
    take.setDisable(proposals.isEmpty() || !desk.editable());
    stock.setDisable(desk.book().stock().isEmpty());
    if (c.id().equals(channel)) return;
    channel = c.id();
    proposals = List.of();
    grid.show(0);
    note.setText("");
    volts =
        desk.analysis()
            .wiring()
            .supply()
            .or(() -> c.design().stages().stream().findFirst().flatMap(Stage::ratiometricSupply))
            .orElse(c.design().converter().reference().number());
    supply.show(Numbers.trimmed(volts, 6), "V");
    settling.show(Double.isNaN(seconds) ? "" : Numbers.engineering(seconds, "s", 3), "s");
    current.show(Double.isInfinite(amperes) ? "" : Numbers.engineering(amperes, "A", 3), "A");
  }
}
