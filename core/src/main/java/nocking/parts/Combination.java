package nocking.parts;

import java.util.List;
import java.util.function.IntPredicate;
import nocking.quantity.QuantityException;

/**
 * Resistors in series and parallel for one value. Exact up to four parts: a network of three is one
 * joined to a pair, one of four is two joined to a pair in one of six ways; for each of them the
 * pair that would be right is known, and the nearest ones are found by bisection.
 */
public final class Combination {
  /** Up to this many parts nothing better exists than what is found. */
  public static final int EXACT = 4;

  /** Most parts that a search takes. */
  public static final int MOST = 6;

  private static final int BEGINNINGS = 24;

  private final Assortment assortment;
  private final Pairs pairs;
  private final double target;
  private final PartLimit limit;
  private final double amperes;
  private final Candidates.Best best = new Candidates.Best();

  private Combination(
      Assortment assortment, Pairs pairs, double target, PartLimit limit, double amperes) {
    this.assortment = assortment;
    this.pairs = pairs;
    this.target = target;
    this.limit = limit;
    this.amperes = amperes;
  }

  /**
   * The best networks for a resistance.
   *
   * @param target ohms, above 0
   * @param most parts that may be used, 1 to 6
   */
  public static Candidates search(Assortment assortment, double target, int most) {
    return search(assortment, target, most, PartLimit.NONE, 0);
  }

  /**
   * The best networks of which no part bears more than it may; with a limit the search is exact for
   * one part and for two.
   *
   * @param amperes through the whole
   */
  public static Candidates search(
      Assortment assortment, double target, int most, PartLimit limit, double amperes) {
    if (!(target > 0)) throw new QuantityException("the resistance wanted must be above 0");
    requireCount(most);
    if (most > 2 && assortment.size() > 1500) {
      throw new QuantityException(
          "the assortment has %d values; combinations of more than two take at most 1500"
              .formatted(assortment.size()));
    }
    return new Combination(assortment, Pairs.of(assortment), target, limit, amperes).search(most);
  }

  private Candidates search(int most) {
    one();
    if (most >= 2) two();
    if (most >= 3) three();
    if (most >= 4) four();
    if (most > EXACT) more(most);
    return best.candidates(most <= (limit.isNone() ? EXACT : 2));
  }

  static void requireCount(int parts) {
    if (parts < 1 || parts > MOST) {
      throw new QuantityException("a search takes 1 to 6 parts, not " + parts);
    }
  }

  private void offer(Network n) {
    double error = n.ohms() / target - 1;
    if (!best.wants(error) || !bears(n)) return;
    double low = n.limit(-1) / target - 1;
    double high = n.limit(1) / target - 1;
    best.offer(
        new Solution(
            List.of(new Solution.Named("R", n)),
            n.ohms(),
            error,
            Math.max(Math.abs(low), Math.abs(high)),
            amperes == 0 ? Double.NaN : PartLimit.hottest(n, amperes),
            "",
            List.of()));
  }

  private boolean bears(Network n) {
    return limit.isNone() || limit.holds(n, amperes);
  }

  private void one() {
    IntPredicate borne = i -> bears(Network.of(assortment.part(i)));
    for (int i : beside(assortment.atLeast(target), assortment.size(), borne)) {
      offer(Network.of(assortment.part(i)));
    }
  }

  private void two() {
    IntPredicate borne = k -> bears(pairs.network(k));
    for (int k : beside(pairs.atLeast(target), pairs.size(), borne)) offer(pairs.network(k));
  }

  private void three() {
    for (int i = 0; i < assortment.size(); i++) {
      double r = assortment.ohms(i);
      Network one = Network.of(assortment.part(i));
      int index = i;
      nearest(target - r, new int[] {index}, p -> offer(Network.series(one, p)), x -> r + x);
      nearest(
          beside(r, target),
          new int[] {index},
          p -> offer(Network.parallel(one, p)),
          x -> r * x / (r + x));
    }
  }

  @FunctionalInterface
  private interface Taker {
    void take(Network pair);
  }

  @FunctionalInterface
  private interface Joined {
    double ohms(double pair);
  }

  private void four() {
    int n = assortment.size();
    for (int i = 0; i < n; i++) {
      for (int j = 0; j < n; j++) {
        if (!assortment.enough(i, j)) continue;
        if (j >= i) alike(i, j);
        unlike(i, j);
      }
    }
  }

  /** Both parts in the same place: the pair stands in series or parallel with the two. */
  private void alike(int i, int j) {
    double a = assortment.ohms(i);
    double b = assortment.ohms(j);
    double s = a + b;
    double p = a * b / s;
    int[] used = {i, j};
    nearest(target - s, used, x -> offer(join(i, j, true, x, true)), x -> s + x);
    nearest(target - p, used, x -> offer(join(i, j, false, x, true)), x -> p + x);
    nearest(beside(s, target), used, x -> offer(join(i, j, true, x, false)), x -> s * x / (s + x));
    nearest(beside(p, target), used, x -> offer(join(i, j, false, x, false)), x -> p * x / (p + x));
  }

  private Network join(int i, int j, boolean series, Network pair, boolean inSeries) {
    Network a = Network.of(assortment.part(i));
    Network b = Network.of(assortment.part(j));
    Network two = series ? Network.series(a, b) : Network.parallel(a, b);
    return inSeries ? Network.series(two, pair) : Network.parallel(two, pair);
  }

  /** i + (j ‖ pair) and i ‖ (j + pair). */
  private void unlike(int i, int j) {
    double a = assortment.ohms(i);
    double b = assortment.ohms(j);
    int[] used = {i, j};
    double rest = target - a;
    if (rest > 0) {
      nearest(
          beside(b, rest),
          used,
          x ->
              offer(
                  Network.series(
                      Network.of(assortment.part(i)),
                      Network.parallel(Network.of(assortment.part(j)), x))),
          x -> a + b * x / (b + x));
    }
    double branch = target * a / (a - target);
    if (branch > 0) {
      nearest(
          branch - b,
          used,
          x ->
              offer(
                  Network.parallel(
                      Network.of(assortment.part(i)),
                      Network.series(Network.of(assortment.part(j)), x))),
          x -> a * (b + x) / (a + b + x));
    }
  }

  /**
   * The pairs on both sides of a resistance. What a network becomes rises with its pair, so no
   * other pair can do better. A resistance that no pair has still has a nearest one, at the end.
   */
  private void nearest(double wanted, int[] used, Taker taker, Joined joined) {
    int at = pairs.atLeast(wanted);
    for (int k : beside(at, pairs.size(), i -> pairs.enough(i, used))) {
      double error = joined.ohms(pairs.ohms(k)) / target - 1;
      if (best.wants(error)) taker.take(pairs.network(k));
    }
  }

  /** What has to stand beside r to make a smaller resistance; a larger one is never reached. */
  private static double beside(double r, double wanted) {
    return r > wanted ? wanted * r / (r - wanted) : Double.POSITIVE_INFINITY;
  }

  /** Indices of the nearest usable entries below and above a place in a sorted list. */
  static int[] beside(int at, int size, IntPredicate usable) {
    int below = at - 1;
    while (below >= 0 && !usable.test(below)) below--;
    int above = at;
    while (above < size && !usable.test(above)) above++;
    if (below < 0) return above < size ? new int[] {above} : new int[0];
    return above < size ? new int[] {below, above} : new int[] {below};
  }

  /**
   * Five and six parts: what is left after one that comes close is made by the others. Good, but
   * not every network is looked at.
   */
  private void more(int most) {
    int beginnings = most > EXACT + 1 ? 1 : BEGINNINGS;
    int from = Math.max(0, assortment.atLeast(target) - (beginnings + 1) / 2);
    int to = Math.min(assortment.size(), from + beginnings);
    for (int i = from; i < to; i++) {
      double r = assortment.ohms(i);
      double rest = r < target ? target - r : beside(r, target);
      if (!Double.isFinite(rest)) continue;
      Network one = Network.of(assortment.part(i));
      for (Solution s : remainder(i, rest).search(most - 1).solutions()) {
        Network other = s.parts().getFirst().network();
        offer(r < target ? Network.series(one, other) : Network.parallel(one, other));
      }
    }
  }

  private Combination remainder(int taken, double rest) {
    if (!assortment.isStock()) return new Combination(assortment, pairs, rest, PartLimit.NONE, 0);
    Assortment left = assortment.without(taken);
    return new Combination(left, Pairs.of(left), rest, PartLimit.NONE, 0);
  }
}
