package nocking.app.step.wire;

import java.util.function.UnaryOperator;
import javafx.scene.control.CheckBox;
import javafx.scene.control.Label;
import javafx.scene.layout.VBox;
import nocking.app.control.EntryField;
import nocking.app.desk.Desk;
import nocking.quantity.Numbers;
import nocking.quantity.Unit;
import nocking.quantity.Value;
import nocking.wiring.Supplied;

/**
 * How the sensor stands on its supply: what a verdict on an open supply or ground wire hangs on.
 * What the datasheet does not say stays empty, and its usual value is shown.
 */
final class SupplyPanel extends VBox {
  private static final double WIDE = 460;

  private final Desk desk;
  private final EntryField current;
  private final EntryField dead;
  private final EntryField within;
  private final CheckBox shared = new CheckBox("It is the converter's reference too");
  private boolean showing;

  SupplyPanel(Desk desk) {
    this.desk = desk;
    setId("wire-on-supply");
    current =
        new EntryField(
                "wire-supply-current",
                "Sensor draws",
                true,
                t -> change(s -> new Supplied(value(t, Unit.AMPERE), s.dead(), s.within())),
                desk::seal)
            .prompt("usually " + Numbers.engineering(Supplied.CURRENT, "A", 1));
    dead =
        new EntryField(
                "wire-supply-dead",
                "Output without supply",
                true,
                t -> change(s -> new Supplied(s.current(), value(t, Unit.VOLT), s.within())),
                desk::seal)
            .prompt("usually 0 V");
    within =
        new EntryField(
                "wire-supply-within",
                "Supply may be off by",
                true,
                t -> change(s -> new Supplied(s.current(), s.dead(), percent(t))),
                desk::seal)
            .prompt("usually " + Numbers.trimmed(Supplied.WITHIN, 2) + " %");
    shared.setId("wire-shared-reference");
    shared
        .selectedProperty()
        .addListener(
            (o, before, now) -> {
              if (!showing) {
                desk.edit(
                    "change reference",
                    "wire.shared",
                    c -> c.wiring(w -> w.withPlan(w.plan().withSharedReference(now))));
              }
            });
    var why =
        new Label("A verdict on an open supply or ground wire hangs on these; the matrix says so.");
    why.setWrapText(true);
    why.getStyleClass().add("meaning");
    setSpacing(10);
    setMaxWidth(WIDE);
    getChildren().setAll(current, dead, within, shared, why);
  }

  private static Value value(String text, Unit unit) {
    return text.isBlank() ? null : Value.typed(text, unit);
  }

  private static Value percent(String text) {
    return text.isBlank() ? null : Value.typed(text.replace("%", "").strip(), Unit.ONE);
  }

  private void change(UnaryOperator<Supplied> next) {
    desk.edit(
        "change what stands on the supply",
        "wire.supplied",
        c ->
            c.wiring(
                w -> w.withPlan(w.plan().withSupplied(next.apply(c.wiring().plan().supplied())))));
  }

  void refresh() {
    showing = true;
    Supplied s = desk.channel().orElseThrow().wiring().plan().supplied();
    current.show(s.current(), Unit.AMPERE);
    dead.show(s.dead(), Unit.VOLT);
    within.show(s.within(), Unit.PERCENT);
    shared.setSelected(desk.channel().orElseThrow().wiring().plan().sharedReference());
    setDisable(!desk.editable());
    showing = false;
  }
}
