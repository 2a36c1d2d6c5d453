package nocking.fit;

import java.util.List;
import java.util.Optional;
import nocking.algebra.Expr;

/** A kind of curve that can be fitted to points. */
public interface FitModel {

  /** Models in order of simplicity; a new one is a file and a line here. */
  static List<FitModel> all() {
    return List.of(new LineThroughZero(), new EndPointLine(), new LeastSquaresLine());
  }

  /** The model with a key; empty where none is known. */
  static Optional<FitModel> of(String key) {
    return all().stream().filter(m -> m.key().equals(key)).findFirst();
  }

  /** Key on the command line and in the document. */
  String key();

  /** What a technician calls it. */
  String title();

  /** Fewest points that determine it. */
  int fewestPoints();

  /** The quantity in the raw symbol and the coefficients' names. */
  Expr equation();

  /**
   * @throws FitException with too few points or equal raw values
   */
  List<Coefficient> coefficients(Samples samples);

  /**
   * Error at each point of the fit made without that point. The general way is to fit anew; a least
   * squares model knows it from the leverages.
   *
   * @return NaN where the rest does not determine the model
   */
  default double[] unseenErrors(Samples samples) {
    double[] errors = new double[samples.size()];
    for (int i = 0; i < errors.length; i++) {
      try {
        Curve rest = Curve.of(title(), equation(), coefficients(samples.without(i)));
        errors[i] = rest.quantity(samples.raw()[i]) - samples.quantity()[i];
      } catch (FitException e) {
        errors[i] = Double.NaN;
      }
    }
    return errors;
  }

  /**
   * Fits the model and judges it.
   *
   * @throws FitException with too few points or equal raw values
   */
  default Fit fit(Samples samples) {
    List<Coefficient> coefficients = coefficients(samples);
    return Judgement.of(
        key(),
        Curve.of(title(), equation(), coefficients),
        coefficients,
        samples,
        unseenErrors(samples));
  }
}
