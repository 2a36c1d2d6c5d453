package nocking.tolerance;

import java.util.Arrays;
import java.util.List;
import nocking.algebra.BlockProgram;

/**
 * The largest error that the limits of the parameters allow, by the exact equation. With up to
 * twelve parameters every corner is looked at. With more the search starts from the corner that the
 * signs of the sensitivities name and moves one parameter at a time, over five places between its
 * limits, until nothing gets worse.
 */
final class WorstCase {
  private static final int ALL_CORNERS = 12;
  private static final double[] PLACES = {-1, -0.5, 0, 0.5, 1};
  private static final int MOST_ROUNDS = 20;

  private final ErrorModel model;
  private final BlockProgram forward;
  private final BlockProgram inverse;
  private final double[][] block;
  private final double[][] places;
  private final double[][] volts = new double[1][];
  private final double[] first = new double[BlockProgram.BLOCK];
  private final double[] second = new double[BlockProgram.BLOCK];
  private final int parameters;

  WorstCase(ErrorModel model) {
    this.model = model;
    forward = model.forward();
    inverse = model.inverse();
    parameters = model.uncertain().size();
    block = new double[parameters + 1][BlockProgram.BLOCK];
    places = new double[parameters][BlockProgram.BLOCK];
  }

  /** Largest error before calibration, tolerance and drift together. */
  double before(double x, double[] sensitivities) {
    if (parameters == 0) return 0;
    return largest(sensitivities, n -> errors(x, n, true, first));
  }

  /**
   * Largest error after calibration: what the tolerances leave beside the line through both ends,
   * and the whole drift.
   */
  double after(double x, double[] sensitivities) {
    if (parameters == 0) return 0;
    double t = model.along(x);
    double drift = 0;
    for (int i = 0; i < parameters; i++) {
      drift += Math.abs(sensitivities[i]) * model.uncertain().get(i).drift() * model.farthest();
    }
    double bow =
        largest(
            sensitivities,
            n -> {
              double[] here = errors(x, n, false, first);
              double[] low = errors(model.working().low(), n, false, second);
              for (int j = 0; j < n; j++) here[j] -= (1 - t) * low[j];
              double[] high = errors(model.working().high(), n, false, second);
              for (int j = 0; j < n; j++) here[j] -= t * high[j];
              return here;
            });
    return bow + drift;
  }

  /** Errors for the places that stand in the block, each parameter between −1 and 1. */
  @FunctionalInterface
  private interface Error {
    double[] of(int n);
  }

  private double largest(double[] sensitivities, Error error) {
    if (parameters <= ALL_CORNERS) return largestCorner(error);
    double worst = 0;
    for (int sign : new int[] {-1, 1}) {
      double[] corner = new double[parameters];
      for (int i = 0; i < parameters; i++) corner[i] = sign * Math.signum(sensitivities[i]);
      worst = Math.max(worst, climbed(corner, error));
    }
    return worst;
  }

  private double largestCorner(Error error) {
    double worst = 0;
    int corners = 1 << parameters;
    for (int from = 0; from < corners; from += BlockProgram.BLOCK) {
      int n = Math.min(BlockProgram.BLOCK, corners - from);
      for (int i = 0; i < parameters; i++) {
        for (int j = 0; j < n; j++) places[i][j] = (from + j >> i & 1) == 1 ? 1 : -1;
      }
      double[] e = error.of(n);
      for (int j = 0; j < n; j++) worst = Math.max(worst, Math.abs(e[j]));
    }
    return worst;
  }

  private double climbed(double[] corner, Error error) {
    double best = 0;
    boolean moved = true;
    for (int round = 0; moved && round < MOST_ROUNDS; round++) {
      moved = false;
      for (int i = 0; i < parameters; i++) {
        for (int k = 0; k < PLACES.length; k++) {
          for (int p = 0; p < parameters; p++) places[p][k] = p == i ? PLACES[k] : corner[p];
        }
        double[] e = error.of(PLACES.length);
        for (int k = 0; k < PLACES.length; k++) {
          if (Math.abs(e[k]) > best * (1 + 1e-12)) {
            best = Math.abs(e[k]);
            corner[i] = PLACES[k];
            moved = true;
          }
        }
      }
    }
    return best;
  }

  private double[] errors(double x, int n, boolean withDrift, double[] out) {
    List<Uncertain> list = model.uncertain();
    for (int i = 0; i < parameters; i++) {
      Uncertain u = list.get(i);
      double limit = u.limit() + (withDrift ? u.drift() * model.farthest() : 0);
      for (int j = 0; j < n; j++) block[i][j] = u.nominal() + places[i][j] * limit;
    }
    Arrays.fill(block[parameters], 0, n, x);
    volts[0] = forward.run(block, n);
    double[] read = inverse.run(volts, n);
    for (int j = 0; j < n; j++) out[j] = read[j] - x;
    return out;
  }
}
