package nocking.app.step.condition;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.control.Button;
import javafx.scene.control.ComboBox;
import javafx.scene.control.Label;
import javafx.scene.layout.FlowPane;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import javafx.util.StringConverter;
import nocking.algebra.Notation;
import nocking.analysis.Analysis;
import nocking.analysis.WhatIf;
import nocking.app.control.Column;
import nocking.app.control.DropDown;
import nocking.app.control.EntryField;
import nocking.app.control.Grid;
import nocking.app.desk.Desk;
import nocking.channel.Channel;
import nocking.path.ParameterRef;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * What if this one constant were another, on the board or in the sheet alone? Both equations, the
 * shift of the pivot, and what the reading would be off by.
 */
final class WhatIfPanel extends VBox {

  private final Desk desk;
  private final ComboBox<String> symbol = new DropDown<>();
  private final EntryField value;
  private final Label now = line("whatif-now");
  private final Label then = line("whatif-then");
  private final Label shift = new Label();
  private final Button change = new Button("Change it");
  private final Grid grid;
  private List<WhatIf.Row> rows = List.of();
  private Value other;

  WhatIfPanel(Desk desk) {
    this.desk = desk;
    setSpacing(6);
    symbol.setId("whatif-symbol");
    symbol.setAccessibleText("Constant");
    symbol.setPromptText("constant");
    symbol.setConverter(new GreekNames());
    symbol
        .valueProperty()
        .addListener(
            (o, before, s) -> {
              other = null;
              start();
            });
    value =
        new EntryField("whatif-value", "is", true, this::take, () -> {})
            .help("The value that the constant might have instead; nothing changes yet.");
    value.bare();
    value.setPrefWidth(170);
    value.field().setMaxWidth(110);
    value.field().setPrefColumnCount(10);
    symbol.setMinWidth(92);
    change.setId("whatif-change");
    change.setOnAction(e -> apply());
    var top = new FlowPane(8, 6, new Label("What if"), symbol, new Label("is"), value, change);
    top.setAlignment(Pos.CENTER_LEFT);
    shift.setId("whatif-shift");
    shift.setWrapText(true);
    grid =
        new Grid(
            "whatif-grid",
            "Choose a constant and another value for it: what the board would give, read by the present equation.",
            List.of(
                Column.shown("applied", 80, true, i -> fixed(rows.get(i).applied(), 0)),
                Column.shown("Vout now", 90, true, i -> Numbers.fixed(rows.get(i).now(), 4)),
                Column.shown("Vout then", 90, true, i -> Numbers.fixed(rows.get(i).then(), 4)),
                Column.shown("reads", 90, true, i -> fixed(rows.get(i).reading(), 0)),
                Column.shown(
                    "off by",
                    90,
                    true,
                    i ->
                        Numbers.signed(
                            rows.get(i).off(), desk.analysis().design().decimals() + 1))),
            i -> false);
    VBox.setVgrow(grid, Priority.ALWAYS);
    grid.setMinHeight(105);
    getChildren().addAll(top, now, then, shift, grid);
  }

  /** Symbols as they stand in the equation, β for beta. */
  private static final class GreekNames extends StringConverter<String> {
    @Override
    public String toString(String symbol) {
      return symbol == null ? "" : Notation.greek(symbol);
    }

    @Override
    public String fromString(String text) {
      throw new UnsupportedOperationException("the box is not editable");
    }
  }

  private static Label line(String id) {
    var l = new Label();
    l.setId(id);
    l.getStyleClass().add("result-line");
    l.setMaxWidth(Double.MAX_VALUE);
    return l;
  }

  private String fixed(double v, int more) {
    return Numbers.fixed(v, desk.analysis().design().decimals() + more);
  }

  void switched() {
    symbol.setValue(null);
    other = null;
  }

  void refresh() {
    List<String> symbols = new ArrayList<>();
    desk.analysis()
        .design()
        .path()
        .ifPresent(
            p ->
                p.forward().symbols().stream()
                    .filter(s -> p.owners().containsKey(s))
                    .forEach(symbols::add));
    if (!symbol.getItems().equals(symbols)) {
      String kept = symbol.getValue();
      symbol.getItems().setAll(symbols);
      symbol.setValue(symbols.contains(kept) ? kept : null);
    }
    compare();
  }

  private Optional<ParameterRef> owner() {
    return desk.analysis().design().path().map(p -> p.owners().get(symbol.getValue()));
  }

  private Optional<Unit> unit() {
    return owner().map(o -> o.field().unit(desk.channel().orElseThrow().unit()));
  }

  /** The present value stands in the field to begin with. */
  private void start() {
    if (symbol.getValue() == null || owner().isEmpty()) {
      value.show("", "");
    } else {
      ParameterRef o = owner().get();
      Value present = desk.channel().orElseThrow().design().element(o.element()).value(o.field());
      value.show(present, unit().orElseThrow());
    }
    compare();
  }

  private void take(String text) {
    ParameterRef o = owner().orElseThrow(() -> new QuantityException("choose a constant first"));
    Channel c = desk.channel().orElseThrow();
    Value v = o.field().read(text, c.unit());
    // An element that cannot have it says so now, and the last good value stays in force.
    c.design(d -> d.withParameter(o.element(), o.field(), v));
    other = v;
    compare();
  }

  private void compare() {
    Optional<ParameterRef> o = symbol.getValue() == null ? Optional.empty() : owner();
    change.setDisable(o.isEmpty() || other == null || !desk.editable());
    Analysis a = desk.analysis();
    if (a.design().path().isEmpty()) {
      rows = List.of();
      grid.show(0);
      now.setText("");
      then.setText("");
      shift.setText("");
      return;
    }
    now.setText("now   " + says(a, a.design().path().get()));
    Optional<WhatIf> compared =
        other == null ? Optional.empty() : o.flatMap(c -> WhatIf.of(a, c, other));
    then.setText(compared.map(w -> "then  " + says(a, w.then())).orElse("then  –"));
    shift.setText(compared.flatMap(WhatIf::shift).map(m -> says(a, m)).orElse(""));
    rows = compared.map(WhatIf::rows).orElse(List.of());
    grid.show(rows.size());
  }

  private static String says(Analysis a, SignalPath p) {
    String u = a.channel().definition().unit();
    return p.numbers(5)
        .map(n -> n.replace("·Vout", " " + u + "/V · Vout"))
        .orElse("not a straight line, one count is " + a.design().error(p.countsWorth(middle(a))));
  }

  private static double middle(Analysis a) {
    return a.channel().definition().working().middle();
  }

  private static String says(Analysis a, WhatIf.Shift m) {
    return "The pivot moves from %s to %s (%s %s); the slope by %s %%."
        .formatted(
            a.design().reading(m.from()),
            a.design().amount(m.to()),
            Numbers.signed(m.by(), a.design().decimals() + 1),
            a.channel().definition().unit(),
            Numbers.signed(100 * m.slope(), 2));
  }

  private void apply() {
    if (other == null) return;
    owner()
        .ifPresent(
            o -> {
              Value v = other;
              other = null;
              desk.edit(
                  "change " + symbol.getValue(),
                  "",
                  c -> c.design(d -> d.withParameter(o.element(), o.field(), v)));
            });
  }
}
