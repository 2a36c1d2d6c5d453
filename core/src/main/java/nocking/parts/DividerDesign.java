package nocking.parts;

import java.util.List;
import nocking.quantity.QuantityException;
import nocking.quantity.Span;
import nocking.quantity.Value;
import nocking.stage.Divider;

/**
 * Dividers V = V_in·R₂/(R₁ + R₂) for a ratio. With two parts the search is exact: for every R₁ the
 * R₂ that would be right is known, the ratio rises with R₂, and so only its neighbours inside the
 * window of total resistance can be best.
 */
public final class DividerDesign {
  private static final int BEGINNINGS = 12;

  /**
   * What is wanted.
   *
   * @param input volts
   * @param output volts, between 0 and the input
   * @param total R₁ + R₂, ohms
   * @param part what one part may bear
   * @param never volts that the output may not pass with any parts inside their tolerances;
   *     infinite for no limit
   */
  public record Goal(double input, double output, Span total, PartLimit part, double never) {
    public Goal {
      if (!(input > 0) || !(output > 0) || !(output < input)) {
        throw new QuantityException(
            "a divider makes a smaller voltage of the same sign: read %s V in and %s V out"
                .formatted(Value.of(input).typed(), Value.of(output).typed()));
      }
      if (!(total.low() >= 0)) throw new QuantityException("a total must be at least 0 Ω");
    }

    /**
     * Without a limit for the output.
     *
     * @param watts that one part may take; infinite for no limit
     */
    public Goal(double input, double output, Span total, double watts) {
      this(input, output, total, PartLimit.ofWatts(watts), Double.POSITIVE_INFINITY);
    }

    double ratio() {
      return output / input;
    }

    /** True where the parts at the limits that give the most stay below what must not be passed. */
    boolean below(double upperLeast, double lowerMost) {
      return input * lowerMost / (upperLeast + lowerMost) <= never * (1 + 1e-12);
    }
  }

  private final Assortment assortment;
  private final Goal goal;
  private final Candidates.Best best = new Candidates.Best();

  private DividerDesign(Assortment assortment, Goal goal) {
    this.assortment = assortment;
    this.goal = goal;
  }

  /**
   * The best dividers.
   *
   * @param most parts of both legs together, 2 to 6
   */
  public static Candidates search(Assortment assortment, Goal goal, int most) {
    Combination.requireCount(most);
    if (most < 2) throw new QuantityException("a divider has at least 2 parts");
    var d = new DividerDesign(assortment, goal);
    d.two();
    if (most >= 3) d.more(most);
    return d.best.candidates(most == 2);
  }

  /** The best few pairs, kept as indices: a solution is only made of those that are shown. */
  private void two() {
    double k = goal.ratio();
    var nearest = new Nearest();
    for (int i = 0; i < assortment.size(); i++) {
      double upper = assortment.ohms(i);
      if (upper >= goal.total.high()) break;
      int from = assortment.atLeast(goal.total.low() - upper);
      int to = firstAbove(goal.total.high() - upper);
      if (from >= to) continue;
      int ideal = Math.clamp(assortment.atLeast(upper * k / (1 - k)), from, to);
      int below = ideal - 1;
      while (below >= from && !usable(i, below)) below--;
      int above = ideal;
      while (above < to && !usable(i, above)) above++;
      if (below >= from) nearest.offer(error(upper, below), i, below);
      if (above < to) nearest.offer(error(upper, above), i, above);
    }
    for (int n = 0; n < nearest.count; n++) {
      offer(
          Network.of(assortment.part(nearest.upper[n])),
          Network.of(assortment.part(nearest.lower[n])));
    }
  }

  private double error(double upper, int lower) {
    return Math.abs(ratio(upper, assortment.ohms(lower)) / goal.ratio() - 1);
  }

  /** Enough parts, and none of them takes too much power. */
  private boolean usable(int upper, int lower) {
    if (!assortment.enough(upper, lower)) return false;
    double r1 = assortment.ohms(upper);
    double r2 = assortment.ohms(lower);
    double t1 = assortment.part(upper).tolerance() / 100;
    double t2 = assortment.part(lower).tolerance() / 100;
    if (!goal.below(r1 * (1 - t1), r2 * (1 + t2))) return false;
    return goal.part.isNone() || goal.part.holds(r1, r2, goal.input / (r1 + r2));
  }

  /** The pairs with the smallest errors so far, in rising order. */
  private static final class Nearest {
    private final double[] error = new double[Candidates.SHOWN];
    private final int[] upper = new int[Candidates.SHOWN];
    private final int[] lower = new int[Candidates.SHOWN];
    private int count;

    void offer(double e, int i, int j) {
      if (count == Candidates.SHOWN && e >= error[count - 1]) return;
      int at = count < Candidates.SHOWN ? count++ : count - 1;
      while (at > 0 && error[at - 1] > e) {
        error[at] = error[at - 1];
        upper[at] = upper[at - 1];
        lower[at] = lower[at - 1];
        at--;
      }
      error[at] = e;
      upper[at] = i;
      lower[at] = j;
    }
  }

  private int firstAbove(double ohms) {
    int i = assortment.atLeast(ohms);
    while (i < assortment.size() && assortment.ohms(i) <= ohms) i++;
    return i;
  }

  private static double ratio(double upper, double lower) {
    return lower / (upper + lower);
  }

  private void offer(Network upper, Network lower) {
    double k = goal.ratio();
    double total = upper.ohms() + lower.ohms();
    if (!goal.total.contains(total)) return;
    if (!goal.below(upper.limit(-1), lower.limit(1))) return;
    double ratio = ratio(upper.ohms(), lower.ohms());
    if (!best.wants(ratio / k - 1)) return;
    double amperes = goal.input / total;
    if (!goal.part.holds(upper, amperes) || !goal.part.holds(lower, amperes)) return;
    double hottest = Math.max(PartLimit.hottest(upper, amperes), PartLimit.hottest(lower, amperes));
    double low = ratio(upper.limit(1), lower.limit(-1)) / k - 1;
    double high = ratio(upper.limit(-1), lower.limit(1)) / k - 1;
    var stage =
        new Divider(new Value(upper.ohms(), upper.text()), new Value(lower.ohms(), lower.text()));
    best.offer(
        new Solution(
            List.of(new Solution.Named("R1", upper), new Solution.Named("R2", lower)),
            ratio,
            ratio / k - 1,
            Math.max(Math.abs(low), Math.abs(high)),
            hottest,
            "",
            List.of(stage)));
  }

  /**
   * Three parts and more: one leg from singles and pairs, the other the nearest single or pair, as
   * far as the number of parts allows; beyond four the second leg by the search for combinations.
   */
  private void more(int most) {
    if (assortment.size() > 600) {
      throw new QuantityException(
          "the assortment has %d values; dividers of more than two parts take at most 600"
              .formatted(assortment.size()));
    }
    Pairs legs = Pairs.withSingles(assortment);
    double k = goal.ratio();
    for (int i = 0; i < legs.size(); i++) {
      double upper = legs.ohms(i);
      if (upper >= goal.total.high()) break;
      if (upper < goal.total.low() * (1 - k) * 0.9 || upper > goal.total.high() * (1 - k) * 1.1) {
        continue;
      }
      int index = i;
      int ideal = legs.atLeast(upper * k / (1 - k));
      for (int j :
          Combination.beside(
              ideal,
              legs.size(),
              n -> legs.together(index, n) && legs.count(index) + legs.count(n) <= most)) {
        if (best.wants(ratio(upper, legs.ohms(j)) / k - 1)) {
          offer(legs.network(i), legs.network(j));
        }
      }
    }
    if (most > 4) oneAgainstFour(most);
  }

  private void oneAgainstFour(int most) {
    double k = goal.ratio();
    double middle = (1 - k) * Math.sqrt(Math.max(1, goal.total.low()) * goal.total.high());
    int from = Math.max(0, assortment.atLeast(middle) - BEGINNINGS / 2);
    for (int i = from; i < Math.min(assortment.size(), from + BEGINNINGS); i++) {
      Network upper = Network.of(assortment.part(i));
      Assortment rest = assortment.without(i);
      if (rest.size() == 0) return;
      double lower = upper.ohms() * k / (1 - k);
      for (Solution s : Combination.search(rest, lower, Math.min(4, most - 1)).solutions()) {
        offer(upper, s.parts().getFirst().network());
      }
    }
  }

  /**
   * What would do where the parts may not bear what is needed; empty where that is not why nothing
   * was found.
   */
  public static String instead(Assortment assortment, Goal goal, int most) {
    if (goal.part.isNone()) return "";
    var free = new Goal(goal.input, goal.output, goal.total, PartLimit.NONE, goal.never);
    return goal.part.instead(
        search(assortment, free, most).solutions(),
        s -> goal.input / s.parts().stream().mapToDouble(p -> p.network().ohms()).sum());
  }
}
