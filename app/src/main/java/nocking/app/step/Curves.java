package nocking.app.step;

import java.util.function.DoubleUnaryOperator;
import nocking.quantity.Span;

/** Points of a function for a plot. */
public final class Curves {
  private static final int POINTS = 161;

  private Curves() {}

  public static double[] along(Span span) {
    double[] x = new double[POINTS];
    for (int i = 0; i < POINTS; i++) x[i] = span.at((double) i / (POINTS - 1));
    return x;
  }

  public static double[] of(DoubleUnaryOperator f, double[] x) {
    double[] y = new double[x.length];
    for (int i = 0; i < x.length; i++) y[i] = f.applyAsDouble(x[i]);
    return y;
  }
}
