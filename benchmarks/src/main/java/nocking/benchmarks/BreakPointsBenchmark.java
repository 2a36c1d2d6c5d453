package nocking.benchmarks;

import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Random;
import java.util.concurrent.TimeUnit;
import nocking.fit.Samples;
import nocking.table.FewestBreakPoints;
import nocking.table.Truth;
import org.openjdk.jmh.annotations.Benchmark;
import org.openjdk.jmh.annotations.BenchmarkMode;
import org.openjdk.jmh.annotations.Fork;
import org.openjdk.jmh.annotations.Measurement;
import org.openjdk.jmh.annotations.Mode;
import org.openjdk.jmh.annotations.OutputTimeUnit;
import org.openjdk.jmh.annotations.Param;
import org.openjdk.jmh.annotations.Scope;
import org.openjdk.jmh.annotations.Setup;
import org.openjdk.jmh.annotations.State;
import org.openjdk.jmh.annotations.Warmup;

/**
 * The smallest table of a million bench pairs on 16-bit codes, beside sorting them, and beside the
 * usual thinning of a curve (Ramer 1972; Douglas and Peucker 1973), whose cells are counted in the
 * set-up.
 */
@State(Scope.Thread)
@BenchmarkMode(Mode.AverageTime)
@OutputTimeUnit(TimeUnit.MILLISECONDS)
@Warmup(iterations = 3, time = 3)
@Measurement(iterations = 5, time = 3)
@Fork(1)
public class BreakPointsBenchmark {
  private static final int CODES = 1 << 16;
  private static final double TOLERANCE = 6;

  @Param({"1000000"})
  int pairs;

  private double[] raw;
  private double[] truth;
  private Samples samples;

  /** A curved sensor with noise, read in any order. */
  @Setup
  public void read() {
    var r = new Random(20260401);
    raw = new double[pairs];
    truth = new double[pairs];
    for (int i = 0; i < pairs; i++) {
      int code = r.nextInt(CODES);
      double t = (double) code / CODES;
      raw[i] = code;
      truth[i] =
          4000 * (t + 0.15 * Math.sin(3 * t) + 0.02 * Math.sin(20 * t)) + r.nextDouble() - 0.5;
    }
    samples = new Samples(raw, truth);
    FewestBreakPoints fewest = fewestBreakPoints();
    System.out.printf(
        "cells: fewest %d (bound %d), thinned %d%n",
        fewest.table().count(), fewest.bound(), thinned());
  }

  @Benchmark
  public FewestBreakPoints fewestBreakPoints() {
    return FewestBreakPoints.of(Truth.of(samples, 0), TOLERANCE, 0, true);
  }

  /** The pairs in the order of their raw values. */
  @Benchmark
  public long[] sortedPairs() {
    long[] keys = new long[pairs];
    for (int i = 0; i < pairs; i++) keys[i] = (long) raw[i] << 32 | i;
    Arrays.sort(keys);
    return keys;
  }

  /** Cells that thinning leaves of the mean of each code; its noise is within the tolerance too. */
  @Benchmark
  public int thinned() {
    Truth t = Truth.of(samples, 0);
    double[] y = t.mean();
    var kept = new BitSet(y.length);
    kept.set(0);
    kept.set(y.length - 1);
    var parts = new ArrayDeque<int[]>();
    parts.push(new int[] {0, y.length - 1});
    while (!parts.isEmpty()) {
      int[] p = parts.pop();
      double slope = (y[p[1]] - y[p[0]]) / (p[1] - p[0]);
      int worst = -1;
      double most = TOLERANCE - 0.5;
      for (int i = p[0] + 1; i < p[1]; i++) {
        if (Double.isNaN(y[i])) continue;
        double e = Math.abs(y[p[0]] + slope * (i - p[0]) - y[i]);
        if (e > most) {
          most = e;
          worst = i;
        }
      }
      if (worst < 0) continue;
      kept.set(worst);
      parts.push(new int[] {p[0], worst});
      parts.push(new int[] {worst, p[1]});
    }
    return kept.cardinality();
  }
}
