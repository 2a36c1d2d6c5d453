package nocking.fit;

import java.util.Arrays;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import nocking.quantity.Span;

/** The figures by which a curve is judged against points. */
public final class Judgement {
  private static final int MONOTONE_SAMPLES = 256;

  private Judgement() {}

  /** Judges a curve that was not fitted to the points, such as the design equation as it is. */
  public static Fit asItIs(String model, Curve curve, Samples samples) {
    DoubleUnaryOperator f = curve.function();
    double[] errors = new double[samples.size()];
    for (int i = 0; i < errors.length; i++) {
      errors[i] = f.applyAsDouble(samples.raw()[i]) - samples.quantity()[i];
    }
    return of(model, curve, Estimate.plain(List.of()), samples, errors);
  }

  static Fit of(String model, Curve curve, Estimate estimate, Samples samples, double[] unseen) {
    int n = samples.size();
    int p = (int) estimate.coefficients().stream().filter(c -> !Scaling.chosen(c)).count();
    DoubleUnaryOperator f = curve.function();
    double[] errors = new double[n];
    double squares = 0;
    double weighted = 0;
    int worst = 0;
    for (int i = 0; i < n; i++) {
      errors[i] = f.applyAsDouble(samples.raw()[i]) - samples.quantity()[i];
      squares += errors[i] * errors[i];
      weighted += samples.weights()[i] * errors[i] * errors[i];
      if (Math.abs(errors[i]) > Math.abs(errors[worst])) worst = i;
    }
    return new Fit(
        model,
        curve,
        estimate.coefficients(),
        estimate.inRaw(),
        p,
        errors,
        unseen,
        n == 0 ? Double.NaN : Math.abs(errors[worst]),
        n == 0 ? Double.NaN : samples.quantity()[worst],
        Math.sqrt(squares / n),
        n > p ? Math.sqrt(weighted / (n - p)) : Double.NaN,
        1 - squares / total(samples.quantity(), model.equals("line-zero")),
        Arrays.stream(unseen).map(Math::abs).max().orElse(Double.NaN),
        unseenAt(unseen, samples),
        n == 0 ? 0 : samples.quantitySpan().width(),
        aicc(weighted, n, p),
        n == 0 || monotone(f, samples.rawSpan()),
        estimate.covariance(),
        estimate.standardError());
  }

  private static double unseenAt(double[] unseen, Samples samples) {
    int worst = 0;
    for (int i = 1; i < unseen.length; i++) {
      if (Math.abs(unseen[i]) > Math.abs(unseen[worst])) worst = i;
    }
    return unseen.length == 0 ? Double.NaN : samples.quantity()[worst];
  }

  private static double total(double[] y, boolean aboutZero) {
    double centre = aboutZero ? 0 : Arrays.stream(y).average().orElse(0);
    return Arrays.stream(y).map(v -> (v - centre) * (v - centre)).sum();
  }

  /** AICc = n·ln(Σe²/n) + 2k + 2k(k + 1)/(n − k − 1), with k counting the variance too. */
  private static double aicc(double squares, int n, int p) {
    int k = p + 1;
    if (n - k - 1 <= 0 || squares == 0) return Double.NaN;
    return n * Math.log(squares / n) + 2.0 * k + 2.0 * k * (k + 1) / (n - k - 1);
  }

  private static boolean monotone(DoubleUnaryOperator f, Span raw) {
    double before = f.applyAsDouble(raw.low());
    int direction = 0;
    for (int i = 1; i <= MONOTONE_SAMPLES; i++) {
      double now = f.applyAsDouble(raw.at((double) i / MONOTONE_SAMPLES));
      int sign = (int) Math.signum(now - before);
      if (sign * direction < 0) return false;
      if (sign != 0) direction = sign;
      before = now;
    }
    return true;
  }
}
