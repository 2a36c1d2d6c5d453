package nocking.parts;

import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * What a search found.
 *
 * @param solutions the best first; empty when nothing does it
 * @param exact true when nothing better exists in the assortment
 */
public record Candidates(List<Solution> solutions, boolean exact) {
  /** Solutions that a search lists. */
  public static final int SHOWN = 12;

  private static final Comparator<Solution> BEST =
      Comparator.<Solution>comparingDouble(s -> Math.abs(s.error()))
          .thenComparingInt(Solution::count)
          .thenComparing(Solution::text);

  public Candidates {
    solutions = List.copyOf(solutions);
  }

  public boolean found() {
    return !solutions.isEmpty();
  }

  /** Collects the best few different solutions. */
  static final class Best {
    private final Map<String, Solution> kept = new LinkedHashMap<>();
    private double worst = Double.POSITIVE_INFINITY;

    /** True when a solution with this error would be kept. */
    boolean wants(double error) {
      return kept.size() < SHOWN || Math.abs(error) <= worst;
    }

    void offer(Solution s) {
      if (!wants(s.error())) return;
      kept.putIfAbsent(s.text(), s);
      if (kept.size() > SHOWN) {
        Solution last = kept.values().stream().max(BEST).orElseThrow();
        kept.remove(last.text());
      }
      if (kept.size() == SHOWN) {
        worst = kept.values().stream().mapToDouble(k -> Math.abs(k.error())).max().orElseThrow();
      }
    }

    Candidates candidates(boolean exact) {
      return new Candidates(kept.values().stream().sorted(BEST).toList(), exact);
    }
  }
}
