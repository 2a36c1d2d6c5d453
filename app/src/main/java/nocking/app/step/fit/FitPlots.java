package nocking.app.step.fit;

import java.util.ArrayList;
import java.util.Locale;
import java.util.Optional;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.fit.Fit;
import nocking.path.SignalPath;
import nocking.quantity.Span;
import nocking.report.plot.Axis;
import nocking.report.plot.Layer;
import nocking.report.plot.Plot;
import nocking.report.plot.Role;

/** The plots of a fit. */
final class FitPlots {
  private static final int SAMPLES = 81;

  private FitPlots() {}

  private static Axis applied(Analysis a) {
    Channel c = a.channel();
    double[] x = a.calibration().samples().quantity();
    Span working = c.definition().working();
    double low = working.low();
    double high = working.high();
    for (double v : x) {
      low = Math.min(low, v);
      high = Math.max(high, v);
    }
    return new Axis("reference, " + c.definition().unit(), Axis.padded(low, high, 0.02));
  }

  private static Axis errorAxis(Analysis a, double worst) {
    double tolerance = a.channel().definition().toleranceOrNaN();
    double half = 1.15 * Math.max(worst, Double.isNaN(tolerance) ? 0 : 1.4 * tolerance);
    if (!(half > 0)) half = 1e-6;
    return new Axis(
        "reading − reference, " + a.channel().definition().unit(), new Span(-half, half));
  }

  /** What a model leaves at the points, with another one beside it. */
  static Plot residuals(Analysis a, Fit f) {
    double tolerance = a.channel().definition().toleranceOrNaN();
    Axis x = applied(a);
    double[] zeroX = {x.span().low(), x.span().high()};
    var layers = new ArrayList<Layer>();
    if (!Double.isNaN(tolerance)) {
      layers.add(new Layer.Across(Role.TOLERANCE, new Span(-tolerance, tolerance)));
    }
    layers.add(new Layer.Line(Role.QUIET, zeroX, new double[] {0, 0}, 0));
    // What another candidate would leave, for comparison: the line beside the ends, the ends beside
    // it.
    double worst = f.worstError();
    String other = f.model().equals("line") ? "ends" : "line";
    Optional<Fit> compared = a.calibration().fit(other);
    if (compared.isPresent()) {
      layers.add(
          new Layer.Points(
              Role.LEFT_OUT, a.calibration().samples().quantity(), compared.get().errors()));
      worst = Math.max(worst, compared.get().worstError());
    }
    layers.add(new Layer.Points(Role.POINT, a.calibration().samples().quantity(), f.errors()));
    Axis y = errorAxis(a, worst);
    if (compared.isPresent()) {
      layers.add(
          new Layer.Label(
              Role.QUIET,
              x.span().at(0.99),
              -0.94 * y.span().high(),
              "open squares: " + compared.get().curve().title().toLowerCase(Locale.ROOT),
              true));
    }
    return new Plot(x, y, layers);
  }

  /** How far the design is from a model over the range. */
  static Plot againstDesign(Analysis a, Fit f) {
    double tolerance = a.channel().definition().toleranceOrNaN();
    Axis x = applied(a);
    var layers = new ArrayList<Layer>();
    if (!Double.isNaN(tolerance)) {
      layers.add(new Layer.Across(Role.TOLERANCE, new Span(-tolerance, tolerance)));
    }
    double worst = 0;
    double[] xs = new double[SAMPLES];
    double[] ys = new double[SAMPLES];
    var model = f.curve().function();
    Optional<SignalPath> path = a.design().path();
    for (int i = 0; i < SAMPLES; i++) {
      // At the volts that the design gives there: a model need not be turned round for it.
      double designed = x.span().at(i / (SAMPLES - 1.0));
      double volts = path.map(p -> p.output(designed)).orElse(Double.NaN);
      xs[i] = model.applyAsDouble(volts);
      ys[i] = designed - xs[i];
      if (Double.isFinite(ys[i])) worst = Math.max(worst, Math.abs(ys[i]));
    }
    layers.add(
        new Layer.Line(
            Role.OTHER, new double[] {x.span().low(), x.span().high()}, new double[] {0, 0}, 0));
    layers.add(new Layer.Line(Role.CURVE, xs, ys, 2));
    Axis y = errorAxis(a, worst);
    double at = ys[SAMPLES / 2];
    layers.add(
        new Layer.Label(
            Role.CURVE, x.span().at(0.5), at + 0.06 * y.span().high(), "design", false));
    return new Plot(
        x, new Axis("difference, " + a.channel().definition().unit(), y.span()), layers);
  }
}
