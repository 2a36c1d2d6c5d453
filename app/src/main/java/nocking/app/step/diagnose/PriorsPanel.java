package nocking.app.step.diagnose;

import java.util.List;
import java.util.stream.Stream;
import javafx.scene.control.Button;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.app.control.Column;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.control.Row;
import nocking.app.desk.Desk;
import nocking.app.step.BlockPaste;
import nocking.prior.FaultKind;
import nocking.prior.PriorWeights;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityParser;
import nocking.quantity.Unit;

/** How common each kind of fault is taken to be, to be changed by whoever knows the plant. */
final class PriorsPanel extends VBox {
  private static final List<FaultKind> KINDS =
      Stream.of(FaultKind.values()).filter(k -> k != FaultKind.NONE).toList();

  private final Desk desk;
  private final Grid grid;
  private final Button usual = new Button("All as usual");

  PriorsPanel(Desk desk) {
    this.desk = desk;
    grid =
        new Grid(
            "priors",
            "",
            List.of(
                Column.shown("kind", 240, false, i -> KINDS.get(i).title()),
                Column.shown("where", 150, false, i -> KINDS.get(i).family().title()),
                Column.shown("usual", 60, true, i -> Numbers.trimmed(KINDS.get(i).prior(), 3)),
                Column.typed("weight here", 90, true, this::weight, this::take)),
            i -> false);
    BlockPaste.into(grid, desk);
    VBox.setVgrow(grid, Priority.ALWAYS);
    usual.setId("priors-usual");
    usual.getStyleClass().add("tiny");
    usual.setOnAction(
        e ->
            desk.editBook(
                "weigh faults as usual",
                "",
                b -> b.withPriorWeights(b.priorWeights().withUsualWeights())));
    setSpacing(6);
    getChildren()
        .addAll(
            new Row(
                Paper.caption(
                    "Weights against one another before anything is seen; 0 leaves a kind out."),
                usual),
            grid);
  }

  private String weight(int i) {
    return Numbers.trimmed(desk.book().priorWeights().weight(KINDS.get(i)), 4);
  }

  private void take(int i, String text) {
    double v = QuantityParser.value(text, Unit.ONE);
    PriorWeights next = desk.book().priorWeights().withWeight(KINDS.get(i), v);
    desk.editBook("weigh a kind of fault", "", b -> b.withPriorWeights(next));
  }

  void refresh() {
    usual.setDisable(!desk.writable());
    grid.editable(desk.writable());
    grid.show(KINDS.size());
  }
}
