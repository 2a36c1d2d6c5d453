package nocking.app.step.table;

import java.util.List;
import java.util.Optional;
import javafx.scene.Node;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.DropDown;
import nocking.app.control.EntryField;
import nocking.app.control.Segments;
import nocking.app.desk.Desk;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Unit;
import nocking.table.Placement;
import nocking.table.TableGoal;
import nocking.table.TableSpec;
import nocking.view.TableResult;

/** What the table is made of, how far off it may be, and where its cells stand. */
final class GoalForm extends VBox {
  private final Desk desk;
  private final TableEdits edits;
  private final Segments<Boolean> source;
  private final Segments<Boolean> fewest;
  private final EntryField tolerance;
  private final EntryField every;
  private final DropDown<Placement> places = new DropDown<>();
  private final FormRow placesRow;
  private boolean showing;

  GoalForm(Desk desk, TableEdits edits) {
    super(8);
    this.desk = desk;
    this.edits = edits;
    source =
        new Segments<>(
            "table-source",
            List.of(false, true),
            b -> b ? "bench pairs" : "the curve",
            b -> edits.choose("what it is made of", s -> s.with(s.goal().withBench(b))));
    fewest =
        new Segments<>(
            "table-goal",
            List.of(true, false),
            f -> f ? "fewest cells" : "all cells",
            f -> edits.choose("how many cells", s -> s.with(s.goal().withFewest(f))));
    tolerance =
        new EntryField("table-tolerance", "Worst error", true, this::tolerance, desk::seal)
            .help(
                "In the quantity, in % of what the data span, or in steps of the output: 1.5 LSB."
                    + " Empty takes the tolerance of the channel.");
    places.setId("table-placement");
    places.setAccessibleText("Where the cells stand");
    places.titled(Placement::title);
    places.getItems().setAll(Placement.values());
    places.setMaxWidth(Double.MAX_VALUE);
    HBox.setHgrow(places, Priority.ALWAYS);
    places
        .valueProperty()
        .addListener(
            (o, before, now) -> {
              if (!showing && now != null) {
                edits.choose("placement", s -> s.with(s.goal().withPlacement(now)));
              }
            });
    every =
        new EntryField(
            "table-every",
            "Every k-th, k",
            true,
            t -> {
              double v = QuantityParser.value(t, Unit.ONE);
              if (v != Math.rint(v)) {
                throw new QuantityException("read " + t + ", expected a whole number");
              }
              edits.goal("rows", g -> g.withEvery((int) Math.clamp(v, 0, 100_000)));
            },
            desk::seal);
    placesRow = new FormRow("Places", places);
    getChildren()
        .addAll(
            new FormRow("Made of", source),
            new FormRow("With", fewest),
            tolerance,
            placesRow,
            every);
  }

  private void tolerance(String text) {
    if (!edits.asked()) return;
    if (text.isBlank()) {
      edits.goal("tolerance", g -> g.withTolerance(null));
      return;
    }
    Optional<TableResult> last = desk.analysis().receiver().tableIfKnown().flatMap(t -> t.result());
    double span = last.map(t -> t.truth().span() * t.output().worth()).orElse(1.0);
    double step = last.map(t -> edits.spec().step() * t.output().worth()).orElse(1.0);
    // Refused here and now, before it is in the document.
    TableGoal.tolerance(text, desk.channel().orElseThrow().unit(), span, step);
    edits.goal("tolerance", g -> g.withTolerance(text.strip()));
  }

  void refresh(Analysis a) {
    TableSpec s = edits.spec();
    TableGoal g = s.goal();
    boolean editable = desk.editable();
    source.show(g.bench());
    fewest.show(g.fewest());
    double own = a.channel().definition().toleranceOrNaN();
    tolerance.prompt(Double.isNaN(own) ? "none" : Numbers.trimmed(own, 4));
    boolean typed = g.tolerance() != null;
    boolean bare = !typed || g.tolerance().matches("[-+*/().0-9eE\\s]+");
    tolerance.show(typed ? g.tolerance() : "", bare ? a.channel().definition().unit() : "");
    showing = true;
    places.setValue(g.placement());
    showing = false;
    boolean all = !g.fewest();
    placesRow.setVisible(all);
    placesRow.setManaged(all);
    boolean rows = all && g.placement() == Placement.EVERY;
    every.setVisible(rows);
    every.setManaged(rows);
    every.show(String.valueOf(g.every()), "");
    for (Node n : List.of(source, fewest, places)) n.setDisable(!editable);
    tolerance.field().setEditable(editable);
    every.field().setEditable(editable);
  }
}
