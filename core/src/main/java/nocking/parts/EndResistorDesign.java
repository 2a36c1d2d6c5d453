package nocking.parts;

import java.util.ArrayList;
import java.util.List;
import nocking.quantity.Numbers;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;

/**
 * Resistors above and below the track of a potentiometer that keep its band off both rails, so that
 * limits for a fault have room on either side.
 *
 * <p>Without load the wiper gives V·(R_b + k·R)/(R_t + R + R_b), which rises or falls evenly with
 * each of the three resistances: the corners of their tolerances are the worst cases. Of all pairs
 * that hold the band inside in every corner the one that keeps the most of the swing is the one
 * with the least resistance beside the track; every pair of the assortment is looked at.
 */
public final class EndResistorDesign {

  /**
   * What is wanted.
   *
   * @param supply volts, above 0
   * @param track R, ohms, above 0
   * @param trackTolerance as a fraction, 0 to below 1
   * @param wiper fraction of the track below the wiper at both ends of the travel, 0 to 1
   * @param inside volts in which the band must stay, inside the supply
   */
  public record Goal(double supply, double track, double trackTolerance, Span wiper, Span inside) {
    public Goal {
      if (!(supply > 0) || !(track > 0) || !(trackTolerance >= 0 && trackTolerance < 1)) {
        throw new QuantityException(
            "end resistors need a supply and a track above 0 and a tolerance from 0 to below 100 %");
      }
      if (!(wiper.low() >= 0 && wiper.high() <= 1 && wiper.width() > 0)) {
        throw new QuantityException(
            "the wiper runs between 0 and 1 of the track; read %s to %s"
                .formatted(Numbers.trimmed(wiper.low(), 4), Numbers.trimmed(wiper.high(), 4)));
      }
      if (!(inside.low() >= 0 && inside.high() <= supply && inside.width() > 0)) {
        throw new QuantityException(
            "the band must stay between 0 V and the supply of %s V; read %s V to %s V"
                .formatted(
                    Numbers.trimmed(supply, 4),
                    Numbers.trimmed(inside.low(), 4),
                    Numbers.trimmed(inside.high(), 4)));
      }
    }

    /** Volts at a fraction of the track. */
    double volts(double k, double top, double bottom, double r) {
      return supply * (bottom + k * r) / (top + r + bottom);
    }

    /**
     * The two resistances that put the nominal band exactly on the ends of what is allowed: R_t + R
     * + R_b = (k_2 − k_1)·R·V/(V_2 − V_1).
     *
     * @return top and bottom, ohms; negative where the track alone stays further off that rail
     */
    public double[] ideal() {
      double sum = wiper.width() * track * supply / inside.width();
      double bottom = inside.low() / supply * sum - wiper.low() * track;
      return new double[] {sum - track - bottom, bottom};
    }
  }

  /** One resistor, or none. */
  private record Choice(int index, double ohms, double tolerance) {
    double limit(int sign) {
      return ohms * (1 + sign * tolerance);
    }
  }

  private EndResistorDesign() {}

  /** The pairs that leave the most of the swing; empty when no pair of the assortment does it. */
  public static Candidates search(Assortment assortment, Goal goal) {
    var choices = new ArrayList<Choice>();
    choices.add(new Choice(-1, 0, 0));
    for (int i = 0; i < assortment.size(); i++) {
      choices.add(new Choice(i, assortment.ohms(i), assortment.part(i).tolerance() / 100));
    }
    var best = new Candidates.Best();
    double width = goal.inside.width();
    for (Choice top : choices) {
      for (Choice bottom : choices) {
        double kept = span(goal, top.ohms, bottom.ohms, goal.track);
        double error = kept / width - 1;
        if (!best.wants(error) || !holds(goal, top, bottom)) continue;
        if (top.index >= 0 && bottom.index >= 0 && !assortment.enough(top.index, bottom.index)) {
          continue;
        }
        best.offer(solution(assortment, goal, top, bottom, error));
      }
    }
    return best.candidates(true);
  }

  private static double span(Goal g, double top, double bottom, double r) {
    return g.volts(g.wiper.high(), top, bottom, r) - g.volts(g.wiper.low(), top, bottom, r);
  }

  private static boolean holds(Goal g, Choice top, Choice bottom) {
    Span band = worst(g, top, bottom);
    double slack = 1e-12 * g.supply;
    return band.low() >= g.inside.low() - slack && band.high() <= g.inside.high() + slack;
  }

  /** The band with every resistance at whichever limit is worse for that end. */
  private static Span worst(Goal g, Choice top, Choice bottom) {
    double low = Double.POSITIVE_INFINITY;
    double high = Double.NEGATIVE_INFINITY;
    for (int sign : new int[] {-1, 1}) {
      double r = g.track * (1 + sign * g.trackTolerance);
      low = Math.min(low, g.volts(g.wiper.low(), top.limit(1), bottom.limit(-1), r));
      high = Math.max(high, g.volts(g.wiper.high(), top.limit(-1), bottom.limit(1), r));
    }
    return new Span(low, high);
  }

  private static Solution solution(
      Assortment assortment, Goal g, Choice top, Choice bottom, double error) {
    var parts = new ArrayList<Solution.Named>();
    if (top.index >= 0) {
      parts.add(new Solution.Named("Rt", Network.of(assortment.part(top.index))));
    }
    if (bottom.index >= 0) {
      parts.add(new Solution.Named("Rb", Network.of(assortment.part(bottom.index))));
    }
    double kept = span(g, top.ohms, bottom.ohms, g.track);
    double changed = 0;
    for (int corner = 0; corner < 8; corner++) {
      double r = g.track * (1 + ((corner & 1) == 0 ? -1 : 1) * g.trackTolerance);
      double t = top.limit((corner & 2) == 0 ? -1 : 1);
      double b = bottom.limit((corner & 4) == 0 ? -1 : 1);
      changed = Math.max(changed, Math.abs(span(g, t, b, r) / g.inside.width() - 1));
    }
    double amperes = g.supply / (top.ohms + g.track + bottom.ohms);
    Span band = worst(g, top, bottom);
    return new Solution(
        parts,
        kept,
        error,
        changed,
        amperes * amperes * Math.max(top.ohms, bottom.ohms),
        "%s … %s V, at worst %s … %s V; %s through the track"
            .formatted(
                Numbers.fixed(g.volts(g.wiper.low(), top.ohms, bottom.ohms, g.track), 3),
                Numbers.fixed(g.volts(g.wiper.high(), top.ohms, bottom.ohms, g.track), 3),
                Numbers.fixed(band.low(), 3),
                Numbers.fixed(band.high(), 3),
                Numbers.engineering(amperes, "A", 3)),
        List.of());
  }
}
