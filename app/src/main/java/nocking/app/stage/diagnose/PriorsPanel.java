package nocking.app.stage.diagnose;

import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import javafx.scene.control.Button;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.app.control.Grid;
import nocking.app.control.Grid.Column;
import nocking.app.control.Paper;
import nocking.fault.FaultKind;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.QuantityParser;
import nocking.quantity.Unit;

/** How common each kind of fault is taken to be, to be changed by whoever knows the plant. */
final class PriorsPanel extends VBox {
  private static final List<FaultKind> KINDS =
      Stream.of(FaultKind.values()).filter(k -> k != FaultKind.NONE).toList();
  private static final double MOST = 1000;

  private final Map<FaultKind, Double> priors;
  private final Runnable changed;
  private final Grid grid;

  PriorsPanel(Map<FaultKind, Double> priors, Runnable changed) {
    this.priors = priors;
    this.changed = changed;
    grid =
        new Grid(
                "priors",
                "",
                List.of(
                    Column.shown("kind", 240, false, i -> KINDS.get(i).title()),
                    Column.shown("where", 150, false, i -> KINDS.get(i).family().title()),
                    Column.shown("usual", 60, true, i -> Numbers.trimmed(KINDS.get(i).prior(), 3)),
                    Column.typed("weight here", 90, true, this::weight, this::take)),
                i -> false)
            .onPaste(
                (row, column, block) -> {
                  throw new QuantityException("type the weights one by one");
                });
    VBox.setVgrow(grid, Priority.ALWAYS);
    var usual = new Button("All as usual");
    usual.setId("priors-usual");
    usual.getStyleClass().add("tiny");
    usual.setOnAction(
        e -> {
          priors.clear();
          refresh();
          changed.run();
        });
    setSpacing(6);
    getChildren()
        .addAll(
            DiagnoseView.row(
                Paper.caption(
                    "Weights against one another before anything is seen; 0 leaves a kind out."),
                usual),
            grid);
  }

  private String weight(int i) {
    FaultKind k = KINDS.get(i);
    return Numbers.trimmed(priors.getOrDefault(k, k.prior()), 4);
  }

  private void take(int i, String text) {
    FaultKind k = KINDS.get(i);
    double v = QuantityParser.value(text, Unit.ONE);
    if (!(v >= 0 && v <= MOST)) {
      throw new QuantityException("a weight must be 0 to 1000; read " + text);
    }
    if (v == k.prior()) priors.remove(k);
    else priors.put(k, v);
    changed.run();
  }

  void refresh() {
    grid.show(KINDS.size());
  }
}
