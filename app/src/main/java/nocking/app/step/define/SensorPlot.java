package nocking.app.step.define;

import java.util.ArrayList;
import java.util.Arrays;
import nocking.app.step.Curves;
import nocking.channel.Channel;
import nocking.path.SensorCurve;
import nocking.quantity.Span;
import nocking.report.plot.Axis;
import nocking.report.plot.Layer;
import nocking.report.plot.Plot;
import nocking.report.plot.Role;
import nocking.sensor.TableSensor;

/** The sensor's output over its range, with the working range shaded. */
final class SensorPlot {
  /** A sensor whose range is so many times the job is drawn around the job only. */
  private static final double LAVISH = 12;

  private SensorPlot() {}

  static Plot of(Channel c, SensorCurve s, Span working, Span rated) {
    Span all =
        new Span(Math.min(working.low(), rated.low()), Math.max(working.high(), rated.high()));
    // A sensor rated far beyond the job is drawn where the job is.
    Span drawn =
        rated.width() > LAVISH * working.width()
            ? new Span(
                Math.max(rated.low(), working.low() - working.width()),
                Math.min(rated.high(), working.high() + working.width()))
            : rated;
    Span shown = drawn == rated ? all : drawn;
    double[] x = Curves.along(drawn);
    double[] y = Curves.of(s::at, x);
    double low = Arrays.stream(y).min().orElse(0);
    double high = Arrays.stream(y).max().orElse(1);
    Span ySpan = low >= 0 ? new Span(0, high * 1.08) : Axis.padded(low, high, 0.05);
    String unit = s.outputUnit().symbol();
    double factor = scaleOf(s);
    String prefix = factor == 1e3 ? "m" : factor == 1e-3 ? "k" : "";
    double[] shownY = Arrays.stream(y).map(v -> v * factor).toArray();
    var layers = new ArrayList<Layer>();
    layers.add(new Layer.Upright(Role.SHADE, working));
    layers.add(new Layer.Line(Role.CURVE, x, shownY, 0));
    double[][] marks = marks(c, x, y);
    double[] markY = Arrays.stream(marks[1]).map(v -> v * factor).toArray();
    layers.add(new Layer.Points(Role.POINT, marks[0], markY));
    return new Plot(
        new Axis(
            "%s, %s".formatted(c.definition().kind().title(), c.definition().unit()),
            Axis.padded(shown.low(), shown.high(), 0.02)),
        new Axis("TP1, " + prefix + unit, new Span(ySpan.low() * factor, ySpan.high() * factor)),
        layers);
  }

  /** Rows of a table, or the ends of the drawn curve. */
  private static double[][] marks(Channel c, double[] x, double[] y) {
    if (c.design().sensor() instanceof TableSensor t) {
      return new double[][] {
        t.points().stream().mapToDouble(p -> p.at().number()).toArray(),
        t.points().stream().mapToDouble(p -> p.output().number()).toArray()
      };
    }
    return new double[][] {{x[0], x[x.length - 1]}, {y[0], y[y.length - 1]}};
  }

  /** Millivolts, milliamperes or kilohms where the numbers on the axis would be unwieldy. */
  static double scaleOf(SensorCurve s) {
    String unit = s.outputUnit().symbol();
    Span rated = s.rated();
    double high = Math.max(Math.abs(s.at(rated.low())), Math.abs(s.at(rated.high())));
    if (unit.equals("A")) return 1e3;
    return unit.equals("V") && high < 0.5 ? 1e3 : unit.equals("Ω") && high > 5e3 ? 1e-3 : 1;
  }
}
