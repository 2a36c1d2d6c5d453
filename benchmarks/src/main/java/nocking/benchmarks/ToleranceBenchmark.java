package nocking.benchmarks;

import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.demo.Hatchery;
import nocking.quantity.Distribution;
import nocking.quantity.Spread;
import nocking.quantity.Value;
import nocking.stage.DifferenceAmp;
import nocking.stage.Divider;
import nocking.tolerance.Budget;
import nocking.tolerance.BudgetPoint;
import nocking.tolerance.ErrorModel;
import nocking.tolerance.MonteCarlo;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/**
 * 200 000 draws of a path of six elements, ten of whose values are normal, beside drawing as many
 * normal variates with the same generator; and the first-order budget with every corner.
 */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(1)
public class ToleranceBenchmark {
  private static final int DRAWS = 200_000;
  private ErrorModel model;
  private int variates;

  private static Value normal(double v) {
    return Value.of(v).withSpread(Spread.percent(0.1).withDistribution(Distribution.NORMAL));
  }

  /** A sensor, four stages and the converter. */
  @Setup
  public void channel() {
    Channel incubator = Hatchery.book(Hatchery.SEED).byTag("IN-T2").orElseThrow();
    var divider = new Divider(normal(100), normal(1e6));
    var amp =
        new DifferenceAmp(
            normal(135e3), normal(10e3), normal(0.53), normal(1.65), Value.of(0), Value.of(3.3));
    Channel c = incubator.design(d -> d.withStages(List.of(divider, divider, amp, divider)));
    model = Analysis.of(c).design().errorModel().orElseThrow();
    variates = DRAWS * model.uncertain().size();
  }

  /** The draws at one input: parts, path, reading, statistics. */
  @Benchmark
  public List<MonteCarlo.Result> monteCarlo() {
    return MonteCarlo.run(model, new double[] {9}, DRAWS, 1, p -> {}, () -> false);
  }

  /** The known thing: as many normal variates. */
  @Benchmark
  public double normalVariates() {
    RandomGenerator random = RandomGeneratorFactory.of("L64X128MixRandom").create(1);
    double sum = 0;
    for (int i = 0; i < variates; i++) sum += random.nextGaussian();
    return sum;
  }

  /** First order and worst case at both ends and the middle, as the findings ask for them. */
  @Benchmark
  public List<BudgetPoint> budget() {
    return Budget.at(model, new double[] {4, 9, 14});
  }
}
