package nocking.app.step.table;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import javafx.geometry.Pos;
import javafx.scene.Node;
import javafx.scene.control.Button;
import javafx.scene.control.Label;
import javafx.scene.layout.HBox;
import javafx.scene.layout.Priority;
import javafx.scene.layout.Region;
import javafx.scene.layout.VBox;
import nocking.analysis.Analysis;
import nocking.app.control.Column;
import nocking.app.control.Grid;
import nocking.app.control.Paper;
import nocking.app.control.PlotView;
import nocking.app.desk.Desk;
import nocking.app.desk.Latest;
import nocking.bench.simulated.Sweep;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.report.plot.Axis;
import nocking.report.plot.Layer;
import nocking.report.plot.Plot;
import nocking.report.plot.Role;
import nocking.table.Rehearsal;
import nocking.view.TableResult;

/** The table in use before it is in the receiver: raw and linearised readings of a bench. */
final class RehearsalPage implements TablePage {
  private static final int PLACES = 46;

  private final Desk desk;
  private final Grid grid;
  private final PlotView plot =
      new PlotView("rehearsal-plot", "Readings with and without the table");
  private final Label says = new Label();
  private final Label from = Paper.caption("");
  private final Button again = new Button("Rehearse again");
  private final VBox root;
  private final Latest work = new Latest();
  private long seed = 1;
  private Analysis analysis;
  private TableResult table;
  private Rehearsal shown = Rehearsal.NONE;

  RehearsalPage(Desk desk) {
    this.desk = desk;
    grid =
        new Grid(
            "rehearsal",
            "There is no table to rehearse yet.",
            List.of(
                Column.shown("true", 66, true, i -> amount(shown.truth()[i])),
                Column.shown("raw", 66, true, i -> Numbers.fixed(shown.raw()[i], decimals())),
                Column.shown("by a line", 78, true, i -> amount(shown.straight()[i])),
                Column.shown("off", 66, true, i -> off(shown.straight()[i] - shown.truth()[i])),
                Column.shown("by the table", 88, true, i -> amount(shown.table()[i])),
                Column.shown("off", 66, true, i -> off(shown.table()[i] - shown.truth()[i]))
                    .styled(i -> verdict(shown.table()[i] - shown.truth()[i]))),
            i -> false);
    grid.editable(false);
    again.setId("rehearsal-again");
    again.setOnAction(
        e -> {
          seed++;
          rehearse();
        });
    says.getStyleClass().add("result-line");
    says.setId("rehearsal-says");
    says.setMaxWidth(Double.MAX_VALUE);
    says.setWrapText(true);
    says.setMinHeight(Region.USE_PREF_SIZE);
    plot.setPrefHeight(190);
    plot.setMinHeight(130);
    VBox.setVgrow(grid, Priority.ALWAYS);
    HBox.setHgrow(from, Priority.ALWAYS);
    from.setMinWidth(0);
    again.setMinWidth(Region.USE_PREF_SIZE);
    var head = new HBox(10, again, from);
    head.setAlignment(Pos.CENTER_LEFT);
    root = new VBox(8, head, plot, says, grid);
  }

  @Override
  public Node node() {
    return root;
  }

  private int decimals() {
    return table == null ? 0 : table.spec().rawDecimals();
  }

  private String amount(double v) {
    return Double.isNaN(v)
        ? "fault"
        : Numbers.fixed(v, analysis.design().decimals() + 1).replace('-', '−');
  }

  private String off(double v) {
    return Double.isNaN(v) ? "" : Numbers.signed(v, analysis.design().decimals() + 1);
  }

  private String verdict(double off) {
    return Math.abs(off) > table.tolerance() * table.output().worth() ? "text-fail" : "";
  }

  private static String amount(double v, String unit) {
    return (Numbers.significant(v, 2) + " " + unit).strip();
  }

  private record Shown(Rehearsal rehearsal, String from) {}

  private void rehearse() {
    Analysis a = analysis;
    TableResult t = table;
    if (a == null || t == null) return;
    long with = seed;
    work.run(() -> rehearsal(a, t, with), this::show);
  }

  private static Shown rehearsal(Analysis a, TableResult t, long seed) {
    Span range = a.channel().definition().working();
    Optional<Sweep> bench = Sweep.of(a.channel().tag(), range, PLACES, seed);
    List<Double> truth = new ArrayList<>();
    List<Double> volts = new ArrayList<>();
    if (bench.isPresent()) {
      truth = bench.get().reference();
      volts = bench.get().volts();
    } else if (a.design().path().isPresent()) {
      for (int i = 0; i < PLACES; i++) {
        double x = range.at(i / (PLACES - 1.0));
        truth.add(x);
        volts.add(a.at(x).orElseThrow().readOut().output());
      }
    }
    double[] raw = volts.stream().mapToDouble(a.receiver()::rawOf).toArray();
    double[] of = truth.stream().mapToDouble(x -> x).toArray();
    String from =
        bench.isPresent()
            ? "Up and down on the simulated bench, with its noise; every reading goes through the"
                + " receiver's own arithmetic."
            : "No simulated bench stands for this channel: volts by the design, without noise.";
    if (volts.isEmpty() && t.pairs().isPresent()) {
      raw = t.pairs().get().raw();
      of = Arrays.stream(t.pairs().get().quantity()).map(t.output()::quantity).toArray();
      from = "Nothing gives volts for this channel yet: its own bench pairs, one after the other.";
    }
    return new Shown(Rehearsal.of(t.table(), of, raw, t.output()::quantity, t::reading), from);
  }

  private void show(Shown s) {
    shown = s.rehearsal;
    from.setText(s.from);
    grid.show(shown.truth().length);
    double straight = shown.worst(shown.straight());
    if (Double.isNaN(straight)) {
      none("Nothing gives a raw value for this table yet");
      return;
    }
    double tabled = shown.worstWithin(table.table());
    double beyond = shown.worstBeyond(table.table());
    String u = analysis.channel().definition().unit();
    says.setText(
        Double.isNaN(tabled)
            ? "Nothing was read."
            : "worst by the line %s, by the table %s%s"
                .formatted(
                    amount(straight, u),
                    amount(tabled, u),
                    Double.isNaN(beyond) ? "" : ", beyond its ends " + amount(beyond, u)));
    double limit = table.tolerance() * table.output().worth();
    double half = 1.1 * Math.max(straight, Double.isNaN(limit) ? 0 : 1.5 * limit);
    var layers = new ArrayList<Layer>();
    if (!Double.isNaN(limit)) layers.add(new Layer.Across(Role.TOLERANCE, new Span(-limit, limit)));
    layers.add(new Layer.Line(Role.OTHER, shown.truth(), shown.off(shown.straight()), 1));
    layers.add(new Layer.Line(Role.CURVE, shown.truth(), shown.off(shown.table()), 0));
    Span x = analysis.channel().definition().working();
    Axis axis = new Axis("true, " + u, Axis.padded(x.low(), x.high(), 0.02));
    layers.add(
        new Layer.Label(
            Role.QUIET,
            axis.span().at(0.01),
            -0.88 * half,
            "dashed: a line between the ends",
            false));
    plot.show(
        new Plot(
            axis,
            new Axis("reading − true, " + u, half > 0 ? new Span(-half, half) : new Span(-1, 1)),
            layers));
    plot.dark(desk.dark());
    plot.setVisible(true);
    says.setVisible(true);
    again.setDisable(false);
  }

  @Override
  public void show(Analysis a, TableResult t) {
    analysis = a;
    table = t;
    rehearse();
  }

  @Override
  public void none(String why) {
    table = null;
    shown = Rehearsal.NONE;
    grid.show(0);
    from.setText(why.isEmpty() ? "" : why + ".");
    plot.setVisible(false);
    says.setVisible(false);
    again.setDisable(true);
  }
}
