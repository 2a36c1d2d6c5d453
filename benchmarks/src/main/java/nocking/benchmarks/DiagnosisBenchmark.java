package nocking.benchmarks;

import java.util.List;
import java.util.concurrent.TimeUnit;
import nocking.analysis.Analysis;
import nocking.channel.Channel;
import nocking.channel.QuantityKind;
import nocking.converter.Converter;
import nocking.diagnosis.Diagnostician;
import nocking.diagnosis.MeasuredValue;
import nocking.diagnosis.NextMeasurement;
import nocking.diagnosis.Ranking;
import nocking.fault.Fault;
import nocking.fault.FaultMatrix;
import nocking.fault.FaultyPath;
import nocking.fault.Subject;
import nocking.prior.PriorWeights;
import nocking.quantity.Value;
import nocking.sensor.RatiometricSensor;
import nocking.stage.DifferenceAmp;
import nocking.stage.Divider;
import nocking.stage.InputPull;
import nocking.stage.NonInvertingAmp;
import nocking.stage.OffsetAdder;
import nocking.stage.RcFilter;
import nocking.wiring.Place;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Level;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/**
 * Ranking the faults of a channel of ten elements after one more observation, beside the solving of
 * one of its circuits. A frame is 16.7 ms.
 */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MICROSECONDS)
@Warmup(iterations = 3, time = 2)
@Measurement(iterations = 5, time = 2)
@Fork(1)
public class DiagnosisBenchmark {
  private static final MeasuredValue COMPLAINT = new MeasuredValue(Place.DISPLAY, 30, 31.4, 0.1);
  private static final MeasuredValue SENSOR =
      MeasuredValue.of(Place.of(Place.Kind.SIGNAL_AT_SENSOR), 30, 1.66);
  private static final MeasuredValue SAME_INPUT =
      MeasuredValue.of(Place.of(Place.Kind.SIGNAL_AT_RECEIVER), 30, 1.72);
  private static final MeasuredValue OTHER_INPUT =
      MeasuredValue.of(Place.of(Place.Kind.SIGNAL_AT_RECEIVER), 50, 2.56);

  private Subject subject;
  private Diagnostician engine;
  private Ranking ranked;

  private static Value v(double number) {
    return Value.of(number);
  }

  /** Sensor, eight stages and the converter. */
  private static Channel channel() {
    return Channel.blank("bench", "BE-N1")
        .define(
            d ->
                d.withKind(QuantityKind.PRESSURE)
                    .withUnit("kPa")
                    .withRange(v(0), v(60))
                    .withTolerance(v(0.5)))
        .design(
            d ->
                d.withSensor(new RatiometricSensor(v(0), v(8), v(100), v(92), v(5), v(50)))
                    .withStages(
                        List.of(
                            InputPull.toGround(v(470e3)),
                            new Divider(v(5.1e3), v(10e3)),
                            new NonInvertingAmp(v(5e3), v(10e3), v(0), v(0), v(5)),
                            new RcFilter(v(1e3), v(100e-9)),
                            new OffsetAdder(v(10e3), v(100e3), v(0)),
                            new DifferenceAmp(v(11e3), v(10e3), v(0.2), v(0.3), v(0), v(5)),
                            new Divider(v(4.7e3), v(10e3)),
                            new RcFilter(v(100), v(1e-6))))
                    .withConverter(Converter.of(v(12), v(3.3), v(1e6))));
  }

  /** An engine that has ranked the complaint and one measurement. */
  @Setup(Level.Invocation)
  public void measureTwice() {
    subject = Analysis.of(channel()).wiring().subject().orElseThrow();
    engine = Diagnostician.of(subject, PriorWeights.USUAL);
    ranked = engine.rank(List.of(COMPLAINT, SENSOR));
  }

  /** One more place at the same input. */
  @Benchmark
  public Ranking rankAfterObservation() {
    return engine.rank(List.of(COMPLAINT, SENSOR, SAME_INPUT));
  }

  /** One more place at another input: every circuit is solved anew. */
  @Benchmark
  public Ranking rankAtAnotherInput() {
    return engine.rank(List.of(COMPLAINT, SENSOR, OTHER_INPUT));
  }

  /** What to measure next, in the background. */
  @Benchmark
  public NextMeasurement nextMeasurement() {
    return engine.next(ranked).orElseThrow();
  }

  /** The whole fault matrix over the range, in the background. */
  @Benchmark
  public FaultMatrix matrix() {
    return FaultMatrix.of(subject);
  }

  /** The known thing: one circuit with one fault, built and solved once. */
  @Benchmark
  public double oneCircuit() {
    return FaultyPath.of(subject, Fault.NONE, 30).converter().value();
  }
}
