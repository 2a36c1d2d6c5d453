package nocking.fit;

import java.util.ArrayList;
import java.util.List;

/** All kinds of curves; a new one is a file and a line here. */
final class FitModels {
  /** Highest degree that is tried without being asked for. */
  private static final int USUAL_DEGREE = 9;

  static final List<FitModel> USUAL = list();

  private FitModels() {}

  private static List<FitModel> list() {
    var list = new ArrayList<FitModel>();
    list.add(new LineThroughZero());
    list.add(new EndPointLine());
    list.add(new LeastSquaresLine());
    list.add(new Minimax(1));
    list.add(new LogarithmicModel());
    for (int degree = 2; degree <= USUAL_DEGREE; degree++) list.add(new Polynomial(degree));
    list.add(new Exponential());
    list.add(new PowerLaw());
    for (int order = 2; order <= 2 * Rational.MOST; order++) {
      for (int above = 0; above <= Rational.MOST; above++) {
        int below = order - above;
        // One power more above or below bends as sensors do; the rest comes only when asked for.
        boolean bends = below >= 1 && below <= Rational.MOST && Math.abs(above - below) <= 1;
        if (bends) list.add(new Rational(above, below));
      }
    }
    for (ThroughPoints.Join join : ThroughPoints.Join.values()) list.add(new ThroughPoints(join));
    return List.copyOf(list);
  }
}
