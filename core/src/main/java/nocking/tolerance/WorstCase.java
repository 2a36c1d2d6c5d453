package nocking.tolerance;

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
  private final double[][] volts;
  private final int parameters;

  WorstCase(ErrorModel model) {
    this.model = model;
    forward = model.forward();
    inverse = model.inverse();
    parameters = model.uncertain().size();
    block = new double[parameters + 1][BlockProgram.BLOCK];
    volts = new double[1][BlockProgram.BLOCK];
  }

  /** Largest error before calibration, tolerance and drift together. */
  double before(double x, double[] sensitivities) {
    if (parameters == 0) return 0;
    return largest(sensitivities, corner -> error(x, corner, true));
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
            corner ->
                error(x, corner, false)
                    - (1 - t) * error(model.working().low(), corner, false)
                    - t * error(model.working().high(), corner, false));
    return bow + drift;
  }

  @FunctionalInterface
  private interface Error {
    double of(double[] corner);
  }

  private double largest(double[] sensitivities, Error error) {
    double worst = 0;
    if (parameters <= ALL_CORNERS) {
      double[] corner = new double[parameters];
      for (int c = 0; c < 1 << parameters; c++) {
        for (int i = 0; i < parameters; i++) corner[i] = (c >> i & 1) == 1 ? 1 : -1;
        worst = Math.max(worst, Math.abs(error.of(corner)));
      }
      return worst;
    }
    for (int sign : new int[] {-1, 1}) {
      double[] corner = new double[parameters];
      for (int i = 0; i < parameters; i++) corner[i] = sign * Math.signum(sensitivities[i]);
      worst = Math.max(worst, climbed(corner, error));
    }
    return worst;
  }

  private double climbed(double[] corner, Error error) {
    double best = Math.abs(error.of(corner));
    boolean moved = true;
    for (int round = 0; moved && round < MOST_ROUNDS; round++) {
      moved = false;
      for (int i = 0; i < parameters; i++) {
        double kept = corner[i];
        for (double place : PLACES) {
          corner[i] = place;
          double e = Math.abs(error.of(corner));
          if (e > best * (1 + 1e-12)) {
            best = e;
            kept = place;
            moved = true;
          }
        }
        corner[i] = kept;
      }
    }
    return best;
  }

  private double error(double x, double[] corner, boolean withDrift) {
    List<Uncertain> list = model.uncertain();
    for (int i = 0; i < parameters; i++) {
      Uncertain u = list.get(i);
      double limit = u.limit() + (withDrift ? u.drift() * model.farthest() : 0);
      block[i][0] = u.nominal() + corner[i] * limit;
    }
    block[parameters][0] = x;
    volts[0][0] = forward.run(block, 1)[0];
    return inverse.run(volts, 1)[0] - x;
  }
}
