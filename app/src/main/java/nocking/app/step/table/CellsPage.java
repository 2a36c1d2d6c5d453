package nocking.app.step.table;

import java.util.List;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.Priority;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.Column;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.control.PlotView;
import nocking.app.desk.Desk;
import nocking.app.desk.Latest;
import nocking.app.step.BlockPaste;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityParser;
import nocking.quantity.Unit;
import nocking.table.Cell;
import nocking.view.TableResult;

/** The cells in the receiver's order; an output that is typed over holds, is marked and costs. */
final class CellsPage implements TablePage {
  private final Desk desk;
  private final TableEdits edits;
  private final Grid grid;
  private final PlotView plot = new PlotView("cells-plot", "What is left with these cells");
  private final Label beyond = Paper.caption("");
  private final VBox root;
  private final Latest drawing = new Latest();
  private TableResult table;
  private List<Cell> rows = List.of();

  CellsPage(Desk desk, TableEdits edits) {
    this.desk = desk;
    this.edits = edits;
    grid =
        new Grid(
            "cells",
            "No table yet. Say how many cells the receiver holds.",
            List.of(
                Column.shown("cell", 40, true, i -> String.valueOf(i + 1)),
                Column.shown("raw", 90, true, i -> raw(rows.get(i))),
                Column.typed("output", 90, true, i -> out(rows.get(i)), this::take),
                Column.shown("off there", 90, true, this::off),
                Column.shown("", 90, false, i -> byHand(i) ? "by hand" : "")),
            i -> false);
    grid.onDelete(this::asWorkedOut);
    BlockPaste.into(grid, desk);
    VBox.setVgrow(grid, Priority.ALWAYS);
    plot.setPrefHeight(150);
    plot.setMinHeight(120);
    root =
        new VBox(
            6,
            grid,
            beyond,
            Paper.caption(
                "An output that is typed over holds; Delete takes it as it was worked out."),
            plot);
  }

  @Override
  public Node node() {
    return root;
  }

  private String raw(Cell c) {
    return Numbers.fixed(c.raw(), table.spec().rawDecimals());
  }

  private String out(Cell c) {
    return table.output().text(c.out()).replace('-', '−');
  }

  private String off(int i) {
    double off = table.offAt(rows.get(i));
    return Double.isNaN(off) ? "beyond" : Numbers.significant(off, 2);
  }

  private boolean byHand(int i) {
    return table.byHand().get(table.cell(i));
  }

  private void take(int i, String text) {
    Unit unit = table.output().plain() ? desk.channel().orElseThrow().unit() : Unit.ONE;
    double v = QuantityParser.value(text.replace('−', '-'), unit);
    double raw = rows.get(i).raw();
    edits.change("cell %d by hand".formatted(i + 1), s -> s.withHand(new Cell(raw, v)));
    desk.seal();
  }

  private boolean asWorkedOut(int i) {
    if (table == null || !byHand(i)) return false;
    double raw = rows.get(i).raw();
    edits.change("cell %d as worked out".formatted(i + 1), s -> s.withoutHand(raw));
    return true;
  }

  @Override
  public void show(Analysis a, TableResult t) {
    table = t;
    rows = t.ordered();
    grid.editable(desk.editable());
    grid.table().getColumns().get(1).setText("raw " + t.spec().axis().unit().symbol());
    grid.table().getColumns().get(2).setText(("output " + t.output().unit()).strip());
    grid.show(rows.size());
    beyond.setText(t.beyondSays());
    plot.setVisible(true);
    plot.dark(desk.dark());
    drawing.run(() -> TablePlots.after(a, t), plot::show);
  }

  @Override
  public void none(String why) {
    table = null;
    rows = List.of();
    grid.show(0);
    beyond.setText("");
    plot.setVisible(false);
  }

  @Override
  public void switched() {
    grid.clearWrong();
  }
}
