package nocking.tolerance;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.function.DoubleConsumer;
import java.util.random.RandomGenerator;
import java.util.random.RandomGeneratorFactory;
import nocking.algebra.BlockProgram;
import nocking.quantity.Distribution;
import nocking.quantity.QuantityException;

/**
 * Propagation of distributions (JCGM 101:2008): every draw is one set of parts, put through the
 * exact equation. The same seed gives the same draws.
 */
public final class MonteCarlo {
  /** Draws unless said otherwise (JCGM 101:2008, 7.2.2 asks for 10⁴/(1 − p) at p = 0.95). */
  public static final int DRAWS = 200_000;

  private static final String GENERATOR = "L64X128MixRandom";
  private static final int BLOCK = BlockProgram.BLOCK;

  /** What was drawn at one input. */
  public record Result(double quantity, Sampled before, Sampled after) {}

  private final ErrorModel model;
  private final double[] inputs;
  private final RandomGenerator random;
  private final BlockProgram forward;
  private final BlockProgram inverse;
  private final int parameters;
  private final boolean drifts;
  private final double[][] fixed;
  private final double[][] drifted;
  private final double[] ambient = new double[BLOCK];
  private final double[][] volts = new double[1][];
  private final double[] error = new double[BLOCK];
  private final double[] lowError = new double[BLOCK];
  private final double[] highError = new double[BLOCK];

  private MonteCarlo(ErrorModel model, double[] inputs, long seed) {
    this.model = model;
    this.inputs = inputs;
    random = RandomGeneratorFactory.of(GENERATOR).create(seed);
    forward = model.forward();
    inverse = model.inverse();
    parameters = model.uncertain().size();
    drifts = model.uncertain().stream().anyMatch(u -> u.drift() > 0);
    fixed = new double[parameters + 1][BLOCK];
    drifted = new double[parameters + 1][BLOCK];
  }

  /**
   * Draws sets of parts and reads the channel with each at some inputs.
   *
   * @param draws 2 to 10 million
   * @param progress told the share that is done, 0 to 1
   * @param cancelled asked between blocks; the result is empty when it says yes
   */
  public static List<Result> run(
      ErrorModel model,
      double[] inputs,
      int draws,
      long seed,
      DoubleConsumer progress,
      BooleanSupplier cancelled) {
    if (draws < 2 || draws > 10_000_000) {
      throw new QuantityException("draws must be 2 to 10 million; read " + draws);
    }
    return new MonteCarlo(model, inputs, seed).run(draws, progress, cancelled);
  }

  private List<Result> run(int draws, DoubleConsumer progress, BooleanSupplier cancelled) {
    double[][] before = new double[inputs.length][draws];
    double[][] after = new double[inputs.length][draws];
    for (int done = 0; done < draws; done += BLOCK) {
      if (cancelled.getAsBoolean()) return List.of();
      int n = Math.min(BLOCK, draws - done);
      draw(n);
      errors(fixed, model.working().low(), n, lowError);
      errors(fixed, model.working().high(), n, highError);
      reference(n);
      for (int k = 0; k < inputs.length; k++) read(inputs[k], n, before[k], after[k], done);
      progress.accept((double) (done + n) / draws);
    }
    var list = new ArrayList<Result>();
    for (int k = 0; k < inputs.length; k++) {
      list.add(new Result(inputs[k], Sampled.of(before[k]), Sampled.of(after[k])));
    }
    return list;
  }

  /** One block of parts: at the reference temperature, and at their ambient temperature. */
  private void draw(int n) {
    for (int j = 0; j < n; j++) ambient[j] = model.ambient().at(random.nextDouble());
    for (int i = 0; i < parameters; i++) {
      Uncertain u = model.uncertain().get(i);
      fill(fixed[i], n, u.distribution(), u.limit());
      for (int j = 0; j < n; j++) fixed[i][j] += u.nominal();
      if (!drifts) continue;
      if (u.drift() == 0) {
        System.arraycopy(fixed[i], 0, drifted[i], 0, n);
        continue;
      }
      for (int j = 0; j < n; j++) {
        drifted[i][j] = fixed[i][j] + u.drift() * (2 * random.nextDouble() - 1) * ambient[j];
      }
    }
  }

  private void fill(double[] out, int n, Distribution distribution, double limit) {
    switch (distribution) {
      case RECTANGULAR -> {
        for (int j = 0; j < n; j++) out[j] = limit * (2 * random.nextDouble() - 1);
      }
      case TRIANGULAR -> {
        for (int j = 0; j < n; j++) {
          out[j] = limit * (random.nextDouble() + random.nextDouble() - 1);
        }
      }
      case NORMAL -> {
        double sd = limit * distribution.standardPerLimit();
        for (int j = 0; j < n; j++) out[j] = sd * random.nextGaussian();
      }
      case ARCSINE -> {
        for (int j = 0; j < n; j++) {
          out[j] = limit * Math.sin(Math.PI * (random.nextDouble() - 0.5));
        }
      }
    }
  }

  private void errors(double[][] parts, double x, int n, double[] out) {
    Arrays.fill(parts[parameters], 0, n, x);
    volts[0] = forward.run(parts, n);
    double[] read = inverse.run(volts, n);
    for (int j = 0; j < n; j++) out[j] = read[j] - x;
  }

  /** The reference is off at each calibration point on its own. */
  private void reference(int n) {
    double u = model.referenceStandard();
    if (u == 0) return;
    for (int j = 0; j < n; j++) {
      lowError[j] += u * random.nextGaussian();
      highError[j] += u * random.nextGaussian();
    }
  }

  private void read(double x, int n, double[] before, double[] after, int from) {
    errors(drifts ? drifted : fixed, x, n, error);
    double t = model.along(x);
    double half = model.halfCount(x);
    double inl = model.nonLinearity(x);
    double fixedLimit = model.converterStatic(x);
    double klass = model.classLimit().applyAsDouble(x);
    double bow = model.classBow(x);
    for (int j = 0; j < n; j++) {
      double small = half * (2 * random.nextDouble() - 1);
      if (inl > 0) small += inl * (2 * random.nextDouble() - 1);
      double own = error[j] + small;
      double left = own - (1 - t) * lowError[j] - t * highError[j];
      after[from + j] = bow > 0 ? left + bow * (2 * random.nextDouble() - 1) : left;
      if (fixedLimit > 0) own += fixedLimit * (2 * random.nextDouble() - 1);
      if (klass > 0) own += klass * (2 * random.nextDouble() - 1);
      before[from + j] = own;
    }
  }
}
