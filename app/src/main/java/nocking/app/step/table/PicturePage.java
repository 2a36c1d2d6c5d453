package nocking.app.step.table;

import java.util.List;
import java.util.Optional;
import java.util.function.DoubleConsumer;
import javafx.scene.Node;
import javafx.scene.control.Label;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.PlotView;
import nocking.app.desk.Desk;
import nocking.app.desk.Latest;
import nocking.quantity.Numbers;
import nocking.report.plot.Plot;
import nocking.table.Comparison;
import nocking.table.TableError;
import nocking.view.TableResult;

/** What is left without the table and with it, and what the other placements would leave. */
final class PicturePage implements TablePage {
  private static final double ROW = 25;
  private static final int ROWS = 4;

  private final Desk desk;
  private final PlotView before = new PlotView("table-before-plot", "What is left without a table");
  private final PlotView after = new PlotView("table-plot", "What is left with the table");
  private final Label worst = new Label();
  private final Label says = new Label();
  private final ComparisonGrid comparison = new ComparisonGrid();
  private final VBox root;
  private final Latest drawing = new Latest();
  private final Latest comparing = new Latest();

  /**
   * @param tolerance takes the height to which the band was dragged, in the unit of the output
   */
  PicturePage(Desk desk, DoubleConsumer tolerance) {
    this.desk = desk;
    after.grip("Tolerance of the table", tolerance, desk::seal);
    worst.getStyleClass().add("result-line");
    worst.setId("table-worst");
    says.setId("table-says");
    for (Label l : List.of(worst, says)) {
      l.setMaxWidth(Double.MAX_VALUE);
      l.setMinHeight(Region.USE_PREF_SIZE);
      l.setWrapText(true);
    }
    for (PlotView p : List.of(before, after)) {
      p.setPrefHeight(120);
      p.setMinHeight(86);
      VBox.setVgrow(p, Priority.ALWAYS);
    }
    comparison.node().setMinHeight(Region.USE_PREF_SIZE);
    comparison.node().setMaxHeight(Region.USE_PREF_SIZE);
    VBox.setVgrow(comparison.node(), Priority.NEVER);
    root = new VBox(6, before, after, worst, says, comparison.node());
  }

  @Override
  public Node node() {
    return root;
  }

  private record Drawn(Plot before, Plot after) {}

  /**
   * What the other placements leave.
   *
   * @param oneLess what the best table of one cell less leaves, where that means something
   */
  private record Beside(List<Comparison> placements, Optional<TableError> oneLess) {}

  private static String less(TableResult t, TableError e) {
    return "%d leave %s.".formatted(t.made().table().count() - 1, t.output().error(e.worst()));
  }

  @Override
  public void show(Analysis a, TableResult t) {
    drawing.run(
        () -> new Drawn(TablePlots.before(a, t), TablePlots.after(a, t)),
        d -> {
          before.show(d.before);
          after.show(d.after);
          after.gripAt(t.tolerance());
          shown(true);
          probe();
        });
    worst.setText(
        "worst %s at raw %s   RMS %s   %s"
            .formatted(
                t.output().error(t.error().worst()),
                Numbers.fixed(t.error().worstAt(), t.spec().rawDecimals()),
                Numbers.significant(t.error().rms(), 3),
                t.pairs()
                    .map(p -> "%d pairs".formatted(p.size()))
                    .orElse("%d raw steps".formatted(t.error().raw().length))));
    says.setText(t.says());
    says.getStyleClass().remove("text-fail");
    if (!t.holds()) says.getStyleClass().add("text-fail");
    says.setVisible(!says.getText().isEmpty());
    says.setManaged(!says.getText().isEmpty());
    height(1);
    comparing.run(
        () -> new Beside(t.beside(), t.withOneLess()),
        others -> {
          comparison.show(t, others.placements);
          height(others.placements.size());
          others.oneLess.ifPresent(e -> says.setText(t.says() + " " + less(t, e)));
        });
  }

  private void shown(boolean yes) {
    for (PlotView p : List.of(before, after)) {
      p.setVisible(yes);
      p.setManaged(yes);
    }
  }

  private void height(int rows) {
    comparison.node().setPrefHeight(27 + ROW * Math.clamp(rows, 3, ROWS));
    comparison.node().setVisible(true);
  }

  @Override
  public void none(String why) {
    shown(false);
    worst.setText(
        why.isEmpty()
            ? "No table is asked for yet. Make one of the channel's curve, or of raw and true values"
                + " that were read at a bench."
            : why);
    says.setVisible(false);
    says.setManaged(false);
    comparison.none();
    comparison.node().setVisible(false);
  }

  void probe() {
    for (PlotView p : List.of(before, after)) {
      p.dark(desk.dark());
      p.probe(desk.probe(), x -> Double.NaN);
    }
  }
}
