package nocking.tolerance;

import java.util.List;
import java.util.function.DoubleUnaryOperator;
import nocking.algebra.Calculus;
import nocking.algebra.Compiled;
import nocking.path.SignalPath;

/** First-order change of the reading for each parameter that may be off, (∂V/∂p)/(∂V/∂x). */
final class Sensitivities {
  private final SignalPath path;
  private final DoubleUnaryOperator[] partials;

  Sensitivities(ErrorModel model) {
    path = model.path();
    List<Uncertain> uncertain = model.uncertain();
    partials =
        uncertain.stream()
            .map(u -> Calculus.derivative(path.forward(), u.symbol()))
            .map(e -> Compiled.of(e, path.quantitySymbol(), path.constants()))
            .toArray(DoubleUnaryOperator[]::new);
  }

  /** In the channel's unit per unit of each parameter, in the order of the model. */
  double[] at(double x) {
    double slope = path.at(x).sensitivity();
    double[] s = new double[partials.length];
    for (int i = 0; i < s.length; i++) s[i] = partials[i].applyAsDouble(x) / slope;
    return s;
  }
}
