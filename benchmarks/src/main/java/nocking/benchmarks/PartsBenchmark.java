package nocking.benchmarks;

import java.util.concurrent.TimeUnit;
import nocking.parts.Assortment;
import nocking.parts.Candidates;
import nocking.parts.Combination;
import nocking.parts.DividerDesign;
import nocking.parts.PreferredSeries;
import nocking.quantity.Span;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/** The search for an E96 divider beside a plain double loop over the same pairs. */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class PartsBenchmark {
  private static final double RATIO = 0.6607;
  private static final Span TOTAL = new Span(10e3, 50e3);
  private final Assortment e96 = Assortment.of(PreferredSeries.E96);
  private final Assortment e24 = Assortment.of(PreferredSeries.E24);

  /** The best twelve of all pairs. */
  @Benchmark
  public Candidates dividerSearch() {
    return DividerDesign.search(
        e96, new DividerDesign.Goal(1, RATIO, TOTAL, Double.POSITIVE_INFINITY), 2);
  }

  /** The known thing: every pair looked at, the best one kept. */
  @Benchmark
  public double doubleLoop() {
    double best = Double.POSITIVE_INFINITY;
    for (int i = 0; i < e96.size(); i++) {
      for (int j = 0; j < e96.size(); j++) {
        double total = e96.ohms(i) + e96.ohms(j);
        if (!TOTAL.contains(total)) continue;
        best = Math.min(best, Math.abs(e96.ohms(j) / total / RATIO - 1));
      }
    }
    return best;
  }

  /** Four resistors of E24 for one value, exact. */
  @Benchmark
  public Candidates fourResistors() {
    return Combination.search(e24, 4321, 4);
  }
}
