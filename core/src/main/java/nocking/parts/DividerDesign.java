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
   * @param perPart watts that one part may take; infinite for no limit
   */
  public record Wish(double input, double output, Span total, double perPart) {
    public Wish {
      if (!(input > 0) || !(output > 0) || !(output < input)) {
        throw new QuantityException(
            "a divider makes a smaller voltage of the same sign: read %s V in and %s V out"
                .formatted(Value.of(input).typed(), Value.of(output).typed()));
      }
      if (!(total.low() >= 0)) throw new QuantityException("a total must be at least 0 Ω");
    }

    double ratio() {
      return output / input;
    }
  }

  private final Assortment assortment;
  private final Wish wish;
  private final Design.Best best = new Design.Best();

  private DividerDesign(Assortment assortment, Wish wish) {
    this.assortment = assortment;
    this.wish = wish;
  }

  /**
   * The best dividers.
   *
   * @param most parts of both legs together, 2 to 6
   */
  public static Design search(Assortment assortment, Wish wish, int most) {
    Combination.requireCount(most);
    if (most < 2) throw new QuantityException("a divider has at least 2 parts");
    var d = new DividerDesign(assortment, wish);
    d.two();
    if (most >= 3) d.more(most);
    return d.best.design(most == 2);
  }

  private void two() {
    double k = wish.ratio();
    for (int i = 0; i < assortment.size(); i++) {
      double upper = assortment.ohms(i);
      if (upper >= wish.total.high()) break;
      int from = assortment.atLeast(wish.total.low() - upper);
      int to = firstAbove(wish.total.high() - upper);
      if (from >= to) continue;
      int ideal = Math.clamp(assortment.atLeast(upper * k / (1 - k)), from, to);
      int index = i;
      int start = from;
      for (int j :
          Combination.beside(ideal - start, to - start, n -> assortment.enough(index, start + n))) {
        double error = ratio(upper, assortment.ohms(start + j)) / k - 1;
        if (best.wants(error)) {
          offer(Network.of(assortment.part(i)), Network.of(assortment.part(start + j)));
        }
      }
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
    double k = wish.ratio();
    double total = upper.ohms() + lower.ohms();
    if (!wish.total.contains(total)) return;
    double ratio = ratio(upper.ohms(), lower.ohms());
    if (!best.wants(ratio / k - 1)) return;
    double amperes = wish.input / total;
    double hottest =
        amperes
            * amperes
            * Math.max(upper.ohms() * upper.hottestShare(), lower.ohms() * lower.hottestShare());
    if (hottest > wish.perPart) return;
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
    double k = wish.ratio();
    for (int i = 0; i < legs.size(); i++) {
      double upper = legs.ohms(i);
      if (upper >= wish.total.high()) break;
      if (upper < wish.total.low() * (1 - k) * 0.9 || upper > wish.total.high() * (1 - k) * 1.1) {
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
    double k = wish.ratio();
    double middle = (1 - k) * Math.sqrt(Math.max(1, wish.total.low()) * wish.total.high());
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
}
