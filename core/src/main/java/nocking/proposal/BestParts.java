package nocking.proposal;

import java.util.Optional;
import java.util.function.IntPredicate;
import nocking.parts.Assortment;

/**
 * The best one or two resistors of an assortment for a circuit, by looking at all of them: the
 * largest swing at the converter that no corner of the tolerances takes out of its limits, and
 * among those that are alike in it the most ohms, which draw the least.
 */
final class BestParts {
  private static final double SLACK = 1e-12;

  /** Output for an end of the range with two resistances; the second is not used by one part. */
  interface Circuit {
    double volts(boolean highEnd, double a, double b);
  }

  /**
   * @param second index of the second part; −1 where there is only one
   */
  record Chosen(int first, int second, double swing) {}

  private final Assortment parts;
  private final Circuit circuit;
  private final double least;
  private final double most;

  /**
   * @param least volts that no end may fall below in any corner
   * @param most volts that no end may rise above
   */
  BestParts(Assortment parts, Circuit circuit, double least, double most) {
    this.parts = parts;
    this.circuit = circuit;
    this.least = least;
    this.most = most;
  }

  Optional<Chosen> one(IntPredicate allowed) {
    Chosen best = null;
    for (int i = 0; i < parts.size(); i++) {
      if (!allowed.test(i)) continue;
      double swing = swing(parts.ohms(i), Double.NaN);
      if (!better(swing, parts.ohms(i), best)) continue;
      if (holds(i, -1)) best = new Chosen(i, -1, swing);
    }
    return Optional.ofNullable(best);
  }

  /** Which pairs may be looked at. */
  interface Pairs {
    boolean allowed(double a, double b);
  }

  Optional<Chosen> two(Pairs pairs) {
    Chosen best = null;
    for (int i = 0; i < parts.size(); i++) {
      for (int j = 0; j < parts.size(); j++) {
        if (!pairs.allowed(parts.ohms(i), parts.ohms(j))) continue;
        if (i == j && parts.isStock() && parts.part(i).quantity() < 2) continue;
        double swing = swing(parts.ohms(i), parts.ohms(j));
        if (!better(swing, parts.ohms(i) + parts.ohms(j), best)) continue;
        if (holds(i, j)) best = new Chosen(i, j, swing);
      }
    }
    return Optional.ofNullable(best);
  }

  private boolean better(double swing, double ohms, Chosen best) {
    if (best == null || swing > best.swing * (1 + SLACK)) return true;
    double before = parts.ohms(best.first) + (best.second < 0 ? 0 : parts.ohms(best.second));
    return swing >= best.swing * (1 - SLACK) && ohms > before;
  }

  private double swing(double a, double b) {
    return Math.abs(circuit.volts(true, a, b) - circuit.volts(false, a, b));
  }

  private boolean holds(int i, int j) {
    double ta = parts.part(i).tolerance() / 100;
    double tb = j < 0 ? 0 : parts.part(j).tolerance() / 100;
    for (int corner = 0; corner < (j < 0 ? 2 : 4); corner++) {
      double a = parts.ohms(i) * ((corner & 1) == 0 ? 1 - ta : 1 + ta);
      double b = j < 0 ? Double.NaN : parts.ohms(j) * ((corner & 2) == 0 ? 1 - tb : 1 + tb);
      for (boolean end : new boolean[] {false, true}) {
        double v = circuit.volts(end, a, b);
        if (!(v >= least - SLACK && v <= most + SLACK)) return false;
      }
    }
    return true;
  }
}
