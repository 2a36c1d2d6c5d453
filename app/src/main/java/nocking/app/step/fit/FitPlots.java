package nocking.app.step.fit;

import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.function.DoubleUnaryOperator;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.fit.Fit;
import nocking.path.SignalPath;
import nocking.points.ReferencePoint;
import nocking.quantity.Span;
import nocking.report.plot.Axis;
import nocking.report.plot.Layer;
import nocking.report.plot.Plot;
import nocking.report.plot.Role;
import nocking.report.plot.Thinned;

/** The plots of a fit: what it leaves, itself, and the design beside it. */
final class FitPlots {
  private static final int SAMPLES = 81;

  private final Analysis a;
  private final Fit fit;
  private final Optional<Fit> beside;
  private final double tolerance;
  private final String unit;

  /**
   * @param beside another candidate to compare with
   */
  FitPlots(Analysis a, Fit fit, Optional<Fit> beside) {
    this.a = a;
    this.fit = fit;
    this.beside = beside;
    tolerance = a.channel().definition().toleranceOrNaN();
    unit = a.channel().definition().unit();
  }

  /** A point as the plots show it. */
  record Shown(double x, double y, int index, boolean leftOut) {}

  /** All points, those left out among them, at what a model makes of them less what was applied. */
  List<Shown> errors(Fit of) {
    var f = of.curve().function();
    List<ReferencePoint> all = a.channel().calibration().points().points();
    var list = new ArrayList<Shown>();
    for (int i = 0; i < all.size(); i++) {
      ReferencePoint p = all.get(i);
      if (p.readings().isEmpty()) continue;
      double x = p.applied().number();
      list.add(new Shown(x, f.applyAsDouble(a.calibration().volts(p)) - x, i, p.leftOut() != null));
    }
    return list;
  }

  private Axis applied() {
    Channel c = a.channel();
    double[] x = a.calibration().samples().quantity();
    Span working = c.definition().working();
    double low = working.low();
    double high = working.high();
    for (double v : x) {
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
    return new Axis("reference, " + unit, Axis.padded(low, high, 0.02));
  }

  private Axis errorAxis(double worst) {
    double half = 1.15 * Math.max(worst, Double.isNaN(tolerance) ? 0 : 1.4 * tolerance);
    if (!(half > 0)) half = 1e-6;
    return new Axis("reading − reference, " + unit, new Span(-half, half));
  }

  private void band(List<Layer> layers) {
    if (Double.isNaN(tolerance)) return;
    layers.add(new Layer.Across(Role.TOLERANCE, new Span(-tolerance, tolerance)));
  }

  private static Layer zero(Axis x, Role role) {
    return new Layer.Line(
        role, new double[] {x.span().low(), x.span().high()}, new double[] {0, 0}, 0);
  }

  private static void points(List<Layer> layers, List<Shown> shown, boolean leftOut, Role role) {
    var some = new Thinned();
    for (Shown p : shown) if (p.leftOut == leftOut) some.add(p.x, p.y);
    if (some.x().length > 0) layers.add(new Layer.Points(role, some.x(), some.y()));
  }

  /** Volts along the points, with a little beyond them. */
  private double[] volts() {
    Span raw = a.calibration().samples().rawSpan();
    double[] v = new double[SAMPLES];
    for (int i = 0; i < v.length; i++) v[i] = raw.at(i / (SAMPLES - 1.0));
    return v;
  }

  /** What the model leaves at the points, how sure its curve is, and another one beside it. */
  Plot residuals() {
    Axis x = applied();
    var layers = new ArrayList<Layer>();
    band(layers);
    layers.add(zero(x, Role.QUIET));
    double worst = fit.worstError();
    DoubleUnaryOperator sure = fit.uncertainty();
    var f = fit.curve().function();
    double[] volts = volts();
    double[] at = new double[volts.length];
    double[] up = new double[volts.length];
    double[] down = new double[volts.length];
    boolean known = true;
    for (int i = 0; i < volts.length; i++) {
      at[i] = f.applyAsDouble(volts[i]);
      up[i] = sure.applyAsDouble(volts[i]);
      down[i] = -up[i];
      known &= Double.isFinite(up[i]);
    }
    if (known) {
      layers.add(new Layer.Line(Role.CURVE, at, up, 2));
      layers.add(new Layer.Line(Role.CURVE, at, down, 2));
      for (double u : up) worst = Math.max(worst, Math.min(u, 3 * fit.worstError()));
    }
    if (beside.isPresent()) {
      var other = new Thinned();
      double[] q = a.calibration().samples().quantity();
      for (int i = 0; i < q.length; i++) other.add(q[i], beside.get().errors()[i]);
      layers.add(new Layer.Points(Role.OTHER, other.x(), other.y()));
      worst = Math.max(worst, beside.get().worstError());
    }
    List<Shown> shown = errors(fit);
    points(layers, shown, true, Role.LEFT_OUT);
    points(layers, shown, false, Role.POINT);
    Axis y = errorAxis(worst);
    legend(layers, x, y.span(), known);
    return new Plot(x, y, layers);
  }

  private void legend(List<Layer> layers, Axis x, Span y, boolean sure) {
    String dark = beside.map(b -> "dark: " + b.curve().title().toLowerCase(Locale.ROOT)).orElse("");
    String dotted = sure ? "dotted: the curve, 95 %" : "";
    String text = dark + (dark.isEmpty() || dotted.isEmpty() ? "" : " · ") + dotted;
    if (text.isEmpty()) return;
    layers.add(
        new Layer.Label(Role.QUIET, x.span().at(0.99), y.low() + 0.03 * y.width(), text, true));
  }

  /** What the model leaves when raw is made of the quantity, in millivolts. */
  Plot otherWay(Fit other) {
    Axis x = applied();
    var points = new Thinned();
    double[] q = a.calibration().samples().quantity();
    for (int i = 0; i < q.length; i++) points.add(q[i], 1000 * other.errors()[i]);
    double half = 1.3 * points.largest();
    if (!(half > 0)) half = 1e-6;
    return new Plot(
        x,
        new Axis("curve − raw, mV", new Span(-half, half)),
        List.of(zero(x, Role.QUIET), new Layer.Points(Role.POINT, points.x(), points.y())));
  }

  /** The model itself with its points, the design dotted, another candidate dashed. */
  Plot curve() {
    var layers = new ArrayList<Layer>();
    double[] volts = volts();
    double[] own = new double[volts.length];
    var f = fit.curve().function();
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (int i = 0; i < volts.length; i++) {
      own[i] = f.applyAsDouble(volts[i]);
      low = Math.min(low, own[i]);
      high = Math.max(high, own[i]);
    }
    DoubleUnaryOperator sure = fit.uncertainty();
    if (Double.isFinite(sure.applyAsDouble(volts[0]))) {
      for (int side : new int[] {-1, 1}) {
        double[] edge = new double[volts.length];
        for (int i = 0; i < edge.length; i++) {
          edge[i] = own[i] + side * sure.applyAsDouble(volts[i]);
        }
        layers.add(new Layer.Line(Role.CURVE, volts, edge, 2));
      }
    }
    a.design()
        .equation()
        .ifPresent(d -> layers.add(new Layer.Line(Role.QUIET, volts, of(d.function(), volts), 1)));
    beside.ifPresent(
        b -> layers.add(new Layer.Line(Role.OTHER, volts, of(b.curve().function(), volts), 1)));
    layers.add(new Layer.Line(Role.CURVE, volts, own, 0));
    var counting = new Thinned();
    var out = new Thinned();
    for (ReferencePoint p : a.channel().calibration().points().points()) {
      if (p.readings().isEmpty()) continue;
      double x = p.applied().number();
      low = Math.min(low, x);
      high = Math.max(high, x);
      (p.leftOut() == null ? counting : out).add(a.calibration().volts(p), x);
    }
    if (out.x().length > 0) layers.add(new Layer.Points(Role.LEFT_OUT, out.x(), out.y()));
    layers.add(new Layer.Points(Role.POINT, counting.x(), counting.y()));
    Axis x = new Axis("raw, V", Axis.padded(volts[0], volts[volts.length - 1], 0.03));
    Axis y = new Axis(axis(), Axis.padded(low, high, 0.06));
    layers.add(
        new Layer.Label(
            Role.QUIET,
            // In the corner where a curve that rises or falls does not come.
            x.span().at(own[0] > own[own.length - 1] ? 0.01 : 0.99),
            y.span().at(0.03),
            "grey: design"
                + beside
                    .map(b -> " · dark: " + b.curve().title().toLowerCase(Locale.ROOT))
                    .orElse(""),
            own[0] <= own[own.length - 1]));
    return new Plot(x, y, layers);
  }

  private String axis() {
    return (a.channel().definition().kind().title() + (unit.isEmpty() ? "" : ", " + unit));
  }

  private static double[] of(DoubleUnaryOperator f, double[] x) {
    double[] y = new double[x.length];
    for (int i = 0; i < x.length; i++) y[i] = f.applyAsDouble(x[i]);
    return y;
  }

  /** How far the design is from the model over the range. */
  Plot againstDesign() {
    Axis x = applied();
    var layers = new ArrayList<Layer>();
    band(layers);
    double worst = 0;
    double[] xs = new double[SAMPLES];
    double[] ys = new double[SAMPLES];
    var model = fit.curve().function();
    Optional<SignalPath> path = a.design().path();
    for (int i = 0; i < SAMPLES; i++) {
      // At the volts that the design gives there: a model need not be turned round for it.
      double designed = x.span().at(i / (SAMPLES - 1.0));
      double volts = path.map(p -> p.output(designed)).orElse(Double.NaN);
      xs[i] = model.applyAsDouble(volts);
      ys[i] = designed - xs[i];
      if (Double.isFinite(ys[i])) worst = Math.max(worst, Math.abs(ys[i]));
    }
    layers.add(zero(x, Role.OTHER));
    layers.add(new Layer.Line(Role.CURVE, xs, ys, 2));
    Axis y = errorAxis(worst);
    double at = ys[SAMPLES / 2];
    layers.add(
        new Layer.Label(
            Role.CURVE, x.span().at(0.5), at + 0.06 * y.span().high(), "design", false));
    return new Plot(x, new Axis("difference, " + unit, y.span()), layers);
  }
}
