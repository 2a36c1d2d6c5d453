package nocking.benchmarks;

import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.function.DoubleUnaryOperator;
import nocking.algebra.Compiled;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.demo.Hatchery;
import nocking.path.SignalPath;
import nocking.quantity.Value;
import nocking.stage.Divider;
import nocking.view.ProbeState;
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
 * What one move of the probe costs in the core, and what one edit costs, beside evaluating the
 * closed form of the same path a thousand times.
 */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 3, time = 1)
@Measurement(iterations = 5, time = 1)
@Fork(1)
public class ProbeBenchmark {
  private Channel channel;
  private Analysis analysis;
  private DoubleUnaryOperator closedForm;
  private double x;

  /** Makes a channel of six elements with points, fits and checks. */
  @Setup
  public void channel() {
    Channel incubator = Hatchery.book(Hatchery.SEED).byTag("IN-T2").orElseThrow();
    var divider = new Divider(Value.of(100), Value.of(1e6));
    channel =
        incubator.design(
            d ->
                d.withStages(
                    List.of(divider, divider, incubator.design().stages().getFirst(), divider)));
    analysis = Analysis.of(channel);
    SignalPath path = analysis.design().path().orElseThrow();
    closedForm = Compiled.of(path.forward(), path.quantitySymbol(), path.constants());
    x = 4;
  }

  /** All nodes, code, reading and error at the next probe position. */
  @Benchmark
  public ProbeState probeMove() {
    x = x > 14 ? 4 : x + 0.01;
    return analysis.at(x).orElseThrow();
  }

  /** Everything anew after an edit: path, derivation, fits, table, check, findings. */
  @Benchmark
  public int wholeAnalysis() {
    Analysis a = Analysis.of(channel);
    return a.at(9).hashCode()
        + a.calibration().fits().size()
        + a.acceptance().rows().size()
        + a.findings().size()
        + a.receiver().table().hashCode()
        + a.design().path().orElseThrow().derivation().size();
  }

  /** The known thing: the closed form of the same path, a thousand times. */
  @Benchmark
  public double closedFormThousandTimes() {
    double sum = 0;
    for (int i = 0; i < 1000; i++) sum += closedForm.applyAsDouble(4 + i * 0.01);
    return sum;
  }
}
