package nocking.fit;

import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.IntStream;
import nocking.quantity.QuantityException;

/** A kind of curve that can be fitted to points. */
public interface FitModel {
  /** Most points for which a model without leverages is fitted anew without each of them. */
  int REFITTED = 300;

  Pattern NUMBERED = Pattern.compile("(poly|minimax|rational):(\\d{1,2})(?:/(\\d{1,2}))?");

  /** Models that are tried without being asked for, in order of simplicity. */
  static List<FitModel> all() {
    return FitModels.USUAL;
  }

  /** The model with a key; empty where none is known. */
  static Optional<FitModel> of(String key) {
    Optional<FitModel> usual = all().stream().filter(m -> m.key().equals(key)).findFirst();
    if (usual.isPresent()) return usual;
    if (key.equals("steinhart")) return Optional.of(new SteinhartHart());
    if (key.equals("beta")) return Optional.of(new BetaEquation());
    Matcher m = NUMBERED.matcher(key);
    if (!m.matches() || (m.group(3) != null) != m.group(1).equals("rational")) {
      return Optional.empty();
    }
    int n = Integer.parseInt(m.group(2));
    return switch (m.group(1)) {
      case "poly" -> n == 1 ? of("line") : between(1, n, Polynomial.MOST, new Polynomial(n));
      case "minimax" -> between(1, n, Minimax.MOST, new Minimax(n));
      default -> {
        int q = Integer.parseInt(m.group(3));
        boolean known = n <= Rational.MOST && q >= 1 && q <= Rational.MOST;
        yield known ? Optional.of(new Rational(n, q)) : Optional.empty();
      }
    };
  }

  private static Optional<FitModel> between(int low, int n, int high, FitModel model) {
    return n >= low && n <= high ? Optional.of(model) : Optional.empty();
  }

  /** Key on the command line and in the document. */
  String key();

  /** What a technician calls it. */
  String title();

  /** Fewest points that determine it. */
  int fewestPoints();

  /**
   * @throws FitException with too few points or equal raw values
   */
  Estimate estimate(Samples samples);

  /**
   * The curve that has these constants.
   *
   * @throws QuantityException where the constants are not its own
   */
  Curve curve(List<Coefficient> coefficients);

  /** What becomes of the curve outside its points, in words. */
  default String outside() {
    return "goes on by its equation";
  }

  /**
   * Error at each point of the fit made without that point: of a least squares model from the
   * leverages, e_i/(1 − h_i), which is what fitting anew gives where the constants stand linear; of
   * all others by fitting anew, as long as the points are not too many for that.
   *
   * @return NaN where the rest does not determine the model
   */
  default double[] unseenErrors(Samples samples, Estimate estimate) {
    double[] errors = new double[samples.size()];
    double[] h = estimate.leverages();
    if (h.length == errors.length) {
      var f = curve(estimate.coefficients()).function();
      for (int i = 0; i < errors.length; i++) {
        double e = f.applyAsDouble(samples.raw()[i]) - samples.quantity()[i];
        errors[i] = 1 - h[i] < 1e-12 ? Double.NaN : e / (1 - h[i]);
      }
      return errors;
    }
    IntStream.range(0, errors.length)
        .parallel()
        .forEach(
            i -> errors[i] = errors.length > REFITTED ? Double.NaN : anew(samples, estimate, i));
    return errors;
  }

  /** The estimate for samples that differ little from those of another one. */
  default Estimate estimate(Samples samples, Estimate near) {
    return estimate(samples);
  }

  /** Error at a point of the fit made without it; NaN where the rest does not determine it. */
  private double anew(Samples samples, Estimate all, int point) {
    try {
      Curve rest = curve(estimate(samples.without(point), all).coefficients());
      return rest.quantity(samples.raw()[point]) - samples.quantity()[point];
    } catch (FitException e) {
      return Double.NaN;
    }
  }

  /**
   * Fits the model and judges it.
   *
   * @throws FitException with too few points or equal raw values
   */
  default Fit fit(Samples samples) {
    Estimate e = estimate(samples);
    Fit f = Judgement.of(key(), curve(e.coefficients()), e, samples, unseenErrors(samples, e));
    if (!Double.isFinite(f.rms())) {
      throw new FitException("%s has no finite constants on these points".formatted(title()));
    }
    return f;
  }
}
