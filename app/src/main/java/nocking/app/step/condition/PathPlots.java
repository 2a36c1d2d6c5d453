package nocking.app.step.condition;

import java.util.ArrayList;
import java.util.Arrays;
import nocking.analysis.Analysis;
import nocking.app.step.Curves;
import nocking.channel.Channel;
import nocking.path.SignalPath;
import nocking.quantity.Numbers;
import nocking.quantity.Span;
import nocking.report.plot.Axis;
import nocking.report.plot.Layer;
import nocking.report.plot.Plot;
import nocking.report.plot.Role;

/** The path over the working range. */
final class PathPlots {
  private PathPlots() {}

  /** What one count is worth in the quantity; above the tolerance it is shaded. */
  static Plot counts(Analysis a, SignalPath p) {
    Channel c = a.channel();
    Span working = c.definition().working();
    double[] x = Curves.along(working);
    double[] y = Curves.of(p::countsWorth, x);
    double top = max(y) * 1.15;
    var layers = new ArrayList<Layer>();
    double tolerance = c.definition().toleranceOrNaN();
    if (tolerance < top) layers.add(new Layer.Across(Role.RAIL, new Span(tolerance, top)));
    layers.add(new Layer.Line(Role.CURVE, x, y, 0));
    String unit = c.definition().unit();
    return new Plot(
        new Axis("%s, %s".formatted(c.definition().kind().title(), unit), working),
        new Axis("1 count, " + unit, new Span(0, top)),
        layers);
  }

  /** Volts at the converter, with what it cannot reach shaded and the pivot marked. */
  static Plot output(Analysis a, SignalPath p, Span working) {
    Channel c = a.channel();
    double[] x = Curves.along(working);
    double[] y = Curves.of(v -> p.at(v).output(), x);
    double[] wanted = Curves.of(p::output, x);
    double top = Math.max(c.design().converter().reference().number(), max(y) * 1.02);
    double bottom = Math.min(0, min(y));
    var layers = new ArrayList<Layer>();
    Span usable = p.points().getLast().usable();
    if (usable.width() < 1e5) {
      if (usable.high() < top)
        layers.add(new Layer.Across(Role.RAIL, new Span(usable.high(), top)));
      if (usable.low() > bottom)
        layers.add(new Layer.Across(Role.RAIL, new Span(bottom, usable.low())));
    }
    boolean clips = false;
    for (int i = 0; i < x.length; i++) clips |= y[i] != wanted[i];
    if (clips) layers.add(new Layer.Line(Role.QUIET, x, wanted, 1));
    layers.add(new Layer.Line(Role.CURVE, x, y, 0));
    p.linear()
        .filter(f -> working.contains(f.pivot()))
        .ifPresent(
            f ->
                layers.add(
                    new Layer.Mark(
                        f.pivot(),
                        f.pivotVolts(),
                        "pivot %s %s at %s V"
                            .formatted(
                                Numbers.fixed(f.pivot(), a.design().decimals()),
                                c.definition().unit(),
                                Numbers.significant(f.pivotVolts(), 4)))));
    double step = c.design().converter().step();
    return new Plot(
            new Axis(
                "%s, %s".formatted(c.definition().kind().title(), c.definition().unit()), working),
            new Axis(p.points().getLast().name() + ", V", new Span(bottom, top)),
            layers)
        .withRight(new Axis("counts", new Span(bottom / step, top / step)));
  }

  private static double max(double[] y) {
    return Arrays.stream(y).max().orElse(1);
  }

  private static double min(double[] y) {
    return Arrays.stream(y).min().orElse(0);
  }
}
