package nocking.app.step.table;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import nocking.analysis.Analysis;
import nocking.quantity.Span;
import nocking.report.plot.Axis;
import nocking.report.plot.Layer;
import nocking.report.plot.Plot;
import nocking.report.plot.Role;
import nocking.report.plot.Thinned;
import nocking.table.Cell;
import nocking.table.HeldCopy;
import nocking.table.RawAxis;
import nocking.table.StepTable;
import nocking.table.Transfer;
import nocking.table.Truth;
import nocking.view.TableResult;

/** What is left without a table and with it, over the true quantity. */
final class TablePlots {
  private TablePlots() {}

  private static Axis quantity(Analysis a, TableResult t) {
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (double y : t.truth().mean()) {
      if (Double.isNaN(y)) continue;
      low = Math.min(low, t.output().quantity(y));
      high = Math.max(high, t.output().quantity(y));
    }
    String of = a.channel().definition().kind().title().toLowerCase(Locale.ROOT);
    return new Axis(
        "true " + of + ", " + a.channel().definition().unit(), Axis.padded(low, high, 0.02));
  }

  /** How far the true value at a raw step is from a straight line between the ends of the data. */
  private static double bent(Truth truth, int step, double out) {
    RawAxis x = truth.axis();
    double low = truth.at(x.first());
    double high = truth.at(x.last());
    double line =
        low + (high - low) * ((double) step - x.first()) / ((double) x.last() - x.first());
    return line - out;
  }

  /** What a straight line between the ends would leave, with the break-points on it. */
  static Plot before(Analysis a, TableResult t) {
    Truth truth = t.truth();
    var line = new Thinned();
    for (int i = 0; i < truth.axis().size(); i++) {
      double y = truth.mean()[i];
      if (Double.isNaN(y)) continue;
      line.add(t.output().quantity(y), bent(truth, truth.axis().first() + i, y));
    }
    StepTable table = t.table();
    double[] x = new double[table.count()];
    double[] y = new double[table.count()];
    for (int i = 0; i < x.length; i++) {
      x[i] = t.output().quantity(table.outOf(i));
      y[i] = bent(truth, table.raw()[i], table.outOf(i));
    }
    double half = 1.12 * Math.max(line.largest(), largest(y, x, quantity(a, t).span()));
    // The axis below is that of the other plot.
    return new Plot(
        new Axis("", quantity(a, t).span()),
        new Axis("without, " + t.output().errorUnit(), symmetric(half)),
        List.of(
            zero(quantity(a, t)),
            new Layer.Line(Role.OTHER, line.x(), line.y(), 0),
            new Layer.Points(Role.POINT, x, y)));
  }

  private static double largest(double[] y, double[] x, Span seen) {
    double most = 0;
    for (int i = 0; i < y.length; i++)
      if (seen.contains(x[i])) most = Math.max(most, Math.abs(y[i]));
    return most;
  }

  private static Span symmetric(double half) {
    return half > 0 ? new Span(-half, half) : new Span(-1e-9, 1e-9);
  }

  private static Layer zero(Axis x) {
    return new Layer.Line(
        Role.QUIET, new double[] {x.span().low(), x.span().high()}, new double[] {0, 0}, 0);
  }

  /**
   * What the table leaves at every raw step, the tolerance, and what the receiver's copy leaves.
   */
  static Plot after(Analysis a, TableResult t) {
    Axis x = quantity(a, t);
    Truth truth = t.truth();
    var left = new Thinned();
    var copy = new Thinned();
    List<Cell> held = held(a, t);
    for (int i = 0; i < truth.axis().size(); i++) {
      if (Double.isNaN(truth.mean()[i])) continue;
      int step = truth.axis().first() + i;
      double at = t.output().quantity(truth.mean()[i]);
      left.add(at, worst(t.table().read(step), truth, i));
      double raw = truth.axis().at(step);
      if (!held.isEmpty()) {
        copy.add(at, worst(HeldCopy.at(held, raw, t.table().rounding()), truth, i));
      }
    }
    // A table far better than its tolerance is drawn on its own scale: the band would hide its
    // shape.
    boolean band = !Double.isNaN(t.tolerance()) && left.largest() > 0.08 * t.tolerance();
    double half = 1.3 * Math.max(left.largest(), band ? t.tolerance() : 0);
    var layers = new ArrayList<Layer>();
    if (band) layers.add(new Layer.Across(Role.TOLERANCE, new Span(-t.tolerance(), t.tolerance())));
    layers.add(zero(x));
    if (!held.isEmpty()) layers.add(new Layer.Line(Role.OTHER, copy.x(), copy.y(), 1));
    layers.add(new Layer.Line(Role.CURVE, left.x(), left.y(), 0));
    if (!held.isEmpty()) {
      layers.add(
          new Layer.Label(
              Role.OTHER,
              x.span().at(0.99),
              -0.86 * half,
              "dashed: what the receiver holds",
              true));
    }
    return new Plot(x, new Axis("with, " + t.output().errorUnit(), symmetric(half)), layers);
  }

  private static double worst(double read, Truth truth, int i) {
    double below = read - truth.most()[i];
    double above = read - truth.least()[i];
    return Math.abs(below) > Math.abs(above) ? below : above;
  }

  /** The receiver's copy, rising; empty where it has none of this kind, or the very same. */
  private static List<Cell> held(Analysis a, TableResult t) {
    List<Transfer> all = a.channel().receiver().transfers();
    Optional<Transfer> last = all.isEmpty() ? Optional.empty() : Optional.of(all.getLast());
    return last.filter(k -> k.axis() == t.spec().axis() && k.unit().equals(t.output().unit()))
        .map(k -> k.held().stream().sorted(Comparator.comparingDouble(Cell::raw)).toList())
        .filter(k -> !k.equals(t.cells()))
        .orElse(List.of());
  }
}
