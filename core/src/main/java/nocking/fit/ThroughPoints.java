package nocking.fit;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;
import nocking.algebra.Expr;
import nocking.algebra.Piecewise;
import nocking.algebra.TabulatedFunction;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;

/**
 * A curve through every point: a raw value that came several times counts with the mean of the
 * quantity there. What it is worth shows only at points that it has not seen.
 */
public record ThroughPoints(Join join) implements FitModel {
  /** Most places it goes through: more are a table's business. */
  public static final int MOST = 256;

  private static final String RAW = "raw";
  private static final String OUT = "out";

  /** What stands between two points. */
  public enum Join {
    LINES("pwl", "Straight lines through the points", 2),
    MONOTONE_CUBIC("pchip", "Monotone cubic through the points", 2),
    NEAREST("nearest", "Nearest point", 2);

    private final String key;
    private final String title;
    private final int fewest;

    Join(String key, String title, int fewest) {
      this.key = key;
      this.title = title;
      this.fewest = fewest;
    }
  }

  @Override
  public String key() {
    return join.key;
  }

  @Override
  public String title() {
    return join.title;
  }

  @Override
  public int fewestPoints() {
    return join.fewest;
  }

  @Override
  public Estimate estimate(Samples s) {
    s.require(fewestPoints(), title());
    var sums = new TreeMap<Double, double[]>();
    for (int i = 0; i < s.size(); i++) {
      double[] sum = sums.computeIfAbsent(s.raw()[i], k -> new double[2]);
      sum[0] += s.weights()[i] * s.quantity()[i];
      sum[1] += s.weights()[i];
    }
    if (sums.size() > MOST) {
      throw new FitException(
          "%s: there are %d different raw values, and %d at most; make a table of them"
              .formatted(title(), sums.size(), MOST));
    }
    var list = new ArrayList<Coefficient>();
    sums.forEach(
        (raw, sum) -> {
          int n = 1 + list.size() / 2;
          list.add(new Coefficient(RAW + n, raw, Double.NaN));
          list.add(new Coefficient(OUT + n, sum[0] / sum[1], Double.NaN));
        });
    return Estimate.plain(list);
  }

  @Override
  public Curve curve(List<Coefficient> coefficients) {
    int n = coefficients.size() / 2;
    if (n < fewestPoints() || 2 * n != coefficients.size()) {
      throw new QuantityException(
          "the model '%s' needs %s1, %s1, %s2, %s2 and so on; it has %d constants"
              .formatted(key(), RAW, OUT, RAW, OUT, coefficients.size()));
    }
    double[] x = new double[n];
    double[] y = new double[n];
    for (int i = 0; i < n; i++) {
      Coefficient raw = coefficients.get(2 * i);
      Coefficient out = coefficients.get(2 * i + 1);
      if (!raw.name().equals(RAW + (i + 1)) || !out.name().equals(OUT + (i + 1))) {
        throw new QuantityException(
            "the model '%s' has the constants %s and %s where %s%d and %s%d belong"
                .formatted(key(), raw.name(), out.name(), RAW, i + 1, OUT, i + 1));
      }
      x[i] = raw.value();
      y[i] = out.value();
      if (i > 0 && !(x[i] > x[i - 1])) {
        throw new QuantityException(
            "the raw values of '%s' must rise; %s stands after %s"
                .formatted(key(), Numbers.plain(x[i]), Numbers.plain(x[i - 1])));
      }
    }
    Expr raw = Expr.sym(Curve.RAW);
    if (n == 1) return new Curve(title(), Expr.num(y[0]), java.util.Map.of());
    return new Curve(
        title(), new Expr.Through(graph(x, y), Expr.Mode.VALUE, raw), java.util.Map.of());
  }

  private TabulatedFunction graph(double[] x, double[] y) {
    return switch (join) {
      case LINES -> Piecewise.lines("points", x, y);
      case MONOTONE_CUBIC -> Piecewise.monotoneCubic("points", x, y);
      case NEAREST -> steps(x, y);
    };
  }

  private static Piecewise steps(double[] x, double[] y) {
    var pieces = new ArrayList<Piecewise.Piece>();
    double from = x[0];
    for (int i = 0; i < x.length; i++) {
      double to = i == x.length - 1 ? x[i] : (x[i] + x[i + 1]) / 2;
      if (to > from) pieces.add(Piecewise.Piece.polynomial(from, to, y[i]));
      from = Math.max(from, to);
    }
    return Piecewise.of("points", pieces);
  }

  @Override
  public String outside() {
    return join == Join.NEAREST ? "stands still" : "goes on for a little with the slope of its end";
  }
}
