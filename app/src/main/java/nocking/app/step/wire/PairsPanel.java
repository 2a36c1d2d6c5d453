package nocking.app.step.wire;

import java.util.List;
import java.util.Optional;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.app.control.Column;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.desk.Desk;
import nocking.app.step.BlockPaste;
import nocking.fault.PairExpectation;
import nocking.quantity.Numbers;
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
                Column.shown("pins", 70, false, i -> wire(i) ? "" + (i + 1) : row(i).name()),
                Column.shown("between", 170, false, this::between),
                Column.shown("must read", 150, true, this::mustRead),
                Column.shown("window", 150, true, this::window),
                Column.typed("measured", 100, true, this::measured, this::take),
                Column.shown("verdict", 100, true, this::verdict).styled(this::style)),
            i -> false);
    BlockPaste.into(grid, desk);
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
    return desk.channel().orElseThrow().wiring().plan();
  }

  /** The wires from end to end come first, then the pairs. */
  private boolean wire(int i) {
    return i < plan().pins().size();
  }

  private PairExpectation row(int i) {
    return rows.get(i - plan().pins().size());
  }

  private String between(int i) {
    if (wire(i)) return plan().pins().get(i).function().title() + ", end to end";
    PairExpectation e = row(i);
    return plan().pins().get(e.first()).function().title()
        + " to "
        + plan().pins().get(e.second()).function().title();
  }

  private String mustRead(int i) {
    return wire(i) ? "continuity" : row(i).says();
  }

  private String window(int i) {
    if (wire(i)) {
      return "at most " + Numbers.engineering(plan().pins().get(i).mostContinuity(), "Ω", 2);
    }
    return row(i).windowSays();
  }

  private Optional<Value> value(int i) {
    return wire(i)
        ? Optional.ofNullable(plan().pins().get(i).continuity())
        : plan().pair(row(i).first(), row(i).second());
  }

  private String measured(int i) {
    return value(i).map(Value::typed).orElse("");
  }

  private void take(int i, String text) {
    Value v = text.isBlank() ? null : PairReading.read(text);
    if (wire(i)) {
      desk.edit(
          "enter continuity",
          "",
          c ->
              c.wiring(
                  w ->
                      w.withPlan(
                          w.plan().with(i, c.wiring().plan().pins().get(i).withContinuity(v)))));
      return;
    }
    PairExpectation e = row(i);
    desk.edit(
        "enter resistance between pins",
        "",
        c -> c.wiring(w -> w.withPlan(w.plan().withPair(e.first(), e.second(), v))));
  }

  private String verdict(int i) {
    if (value(i).isEmpty()) return "";
    double v = value(i).get().number();
    if (wire(i)) return v <= plan().pins().get(i).mostContinuity() ? "in" : "not through";
    return row(i).holds(v) ? "in" : v < PairExpectation.SHORT ? "short" : "out";
  }

  private String style(int i) {
    String v = verdict(i);
    return v.isEmpty() ? "" : v.equals("in") ? "text-pass" : "text-fail";
  }

  void refresh() {
    rows = desk.analysis().wiring().pairs();
    grid.editable(desk.editable());
    grid.show(rows.isEmpty() ? 0 : plan().pins().size() + rows.size());
  }

  void switched() {
    grid.clearWrong();
  }
}
