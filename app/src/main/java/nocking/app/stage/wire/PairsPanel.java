package nocking.app.stage.wire;

import java.util.List;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.app.control.Grid;
import nocking.app.control.Grid.Column;
import nocking.app.control.Paper;
import nocking.app.desk.Desk;
import nocking.fault.PairExpectation;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Value;
import nocking.wiring.PairReading;
import nocking.wiring.WirePlan;

/** Resistance between each pair of pins before power, with the verdict at once. */
final class PairsPanel extends VBox {
  private final Desk desk;
  private final Grid grid;
  private List<PairExpectation> rows = List.of();

  PairsPanel(Desk desk) {
    this.desk = desk;
    grid =
        new Grid(
                "pairs",
                "Define the sensor first: what the meter must show follows from it.",
                List.of(
                    Column.shown("pins", 70, false, i -> rows.get(i).name()),
                    Column.shown("between", 170, false, this::between),
                    Column.shown("must read", 150, true, i -> rows.get(i).says()),
                    Column.shown("window", 150, true, this::window),
                    Column.typed("measured", 100, true, this::measured, this::take),
                    Column.shown("", 100, true, this::verdict).styled(this::style)),
                i -> false)
            .onPaste(
                (row, column, block) -> {
                  throw new QuantityException("type the readings one by one");
                });
    VBox.setVgrow(grid, Priority.ALWAYS);
    setSpacing(6);
    getChildren()
        .addAll(
            Paper.caption(
                "No supply, receiver unplugged, sensor at rest. Continuity of every wire first, the"
                    + " plug wiggled meanwhile. OL or open stands for no connection."),
            grid);
  }

  private WirePlan plan() {
    return desk.channel().orElseThrow().wiring();
  }

  private String between(int i) {
    PairExpectation e = rows.get(i);
    return plan().pins().get(e.first()).function().title()
        + " to "
        + plan().pins().get(e.second()).function().title();
  }

  private String window(int i) {
    PairExpectation e = rows.get(i);
    return Double.isNaN(e.ohms())
        ? ""
        : Numbers.compact(e.window().low(), "Ω", 3)
            + " … "
            + Numbers.compact(e.window().high(), "Ω", 3);
  }

  private String measured(int i) {
    return plan().pair(rows.get(i).first(), rows.get(i).second()).map(Value::typed).orElse("");
  }

  private void take(int i, String text) {
    PairExpectation e = rows.get(i);
    Value v = text.isBlank() ? null : PairReading.read(text);
    desk.edit(
        "enter resistance between pins",
        "",
        c -> c.withWiring(c.wiring().withPair(e.first(), e.second(), v)));
  }

  private String verdict(int i) {
    PairExpectation e = rows.get(i);
    return plan()
        .pair(e.first(), e.second())
        .map(v -> e.holds(v.number()) ? "in" : v.number() < PairExpectation.SHORT ? "short" : "out")
        .orElse("");
  }

  private String style(int i) {
    String v = verdict(i);
    return v.isEmpty() ? "" : v.equals("in") ? "text-pass" : "text-fail";
  }

  void refresh() {
    rows = desk.analysis().pairs();
    grid.editable(desk.editable());
    grid.show(rows.size());
  }

  void switched() {
    grid.clearWrong();
  }
}
