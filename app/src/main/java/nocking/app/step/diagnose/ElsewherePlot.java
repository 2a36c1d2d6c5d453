package nocking.app.step.diagnose;

import java.util.ArrayList;
import java.util.List;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.diagnosis.Diagnostician;
import nocking.diagnosis.Explanation;
import nocking.diagnosis.MeasuredValue;
import nocking.fault.Fault;
import nocking.prior.FaultKind;
import nocking.quantity.Span;
import nocking.report.plot.Axis;
import nocking.report.plot.Layer;
import nocking.report.plot.Plot;
import nocking.report.plot.Role;
import nocking.wiring.Place;

/** What the display would show over the range under the leading explanations. */
final class ElsewherePlot {
  private static final int STEPS = 24;
  private static final int CURVES = 3;

  private ElsewherePlot() {}

  /**
   * @return null while there is nothing to compare
   */
  static Plot of(
      Diagnostician engine, List<Explanation> leading, List<MeasuredValue> seen, Analysis a) {
    if (leading.isEmpty()) return null;
    Channel c = a.channel();
    Span working = c.definition().working();
    double[] x = new double[STEPS + 1];
    for (int i = 0; i <= STEPS; i++) x[i] = working.at((double) i / STEPS);
    var layers = new ArrayList<Layer>();
    double low = working.low();
    double high = working.high();
    double[] sound = along(engine, Fault.NONE, x);
    layers.add(new Layer.Line(Role.QUIET, x, sound, 2));
    layers.add(
        new Layer.Label(
            Role.QUIET,
            x[STEPS / 2],
            sound[STEPS / 2] - 0.16 * working.width(),
            "as it should be",
            false));
    int drawn = 0;
    for (Explanation e : leading) {
      if (drawn == CURVES) break;
      // What is no circuit of its own has no curve.
      if (e.fault().kind() == FaultKind.NONE || e.fault().kind().loose()) continue;
      double[] y = along(engine, e.fault(), x);
      if (Double.isNaN(y[STEPS / 2])) continue;
      Role role = drawn == 0 ? Role.CURVE : Role.OTHER;
      layers.add(new Layer.Line(role, x, y, drawn));
      int at = STEPS * (5 - drawn) / 6;
      layers.add(new Layer.Label(role, x[at], y[at], e.says(), true));
      for (double v : y) {
        if (Double.isNaN(v)) continue;
        low = Math.min(low, v);
        high = Math.max(high, v);
      }
      drawn++;
    }
    for (MeasuredValue o : seen) {
      if (!o.place().equals(Place.DISPLAY) || !o.inputKnown()) continue;
      layers.add(new Layer.Points(Role.POINT, new double[] {o.at()}, new double[] {o.value()}));
      low = Math.min(low, o.value());
      high = Math.max(high, o.value());
    }
    // A slip by a thousand must not flatten everything else.
    double most = 4 * working.width();
    Span span =
        Axis.padded(
            Math.max(low, working.low() - most), Math.min(high, working.high() + most), 0.06);
    String unit = c.definition().unit().isEmpty() ? "" : ", " + c.definition().unit();
    return new Plot(
        new Axis("true " + c.definition().kind().title() + unit, working),
        new Axis("display" + unit, span),
        layers);
  }

  private static double[] along(Diagnostician engine, Fault f, double[] x) {
    double[] y = new double[x.length];
    for (int i = 0; i < x.length; i++) y[i] = engine.reading(f, Place.DISPLAY, x[i]);
    return y;
  }
}
