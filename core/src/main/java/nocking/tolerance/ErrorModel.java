package nocking.tolerance;

import java.util.ArrayList;
import java.util.List;
import java.util.function.DoubleUnaryOperator;
import nocking.algebra.BlockProgram;
import nocking.path.SignalPath;
import nocking.quantity.Span;

/**
 * A path with the parameters in it that may be off, and everything else that makes a reading wrong.
 *
 * @param path with the nominal values
 * @param uncertain its parameters that may be off
 * @param working range whose ends are the calibration points
 * @param ambient temperatures relative to the reference temperature, K
 * @param classLimit limit of the sensor's own class at an input, channel's unit
 * @param referenceStandard standard uncertainty of the calibration reference, channel's unit
 */
public record ErrorModel(
    SignalPath path,
    List<Uncertain> uncertain,
    Span working,
    Span ambient,
    DoubleUnaryOperator classLimit,
    double referenceStandard) {

  public ErrorModel {
    uncertain = List.copyOf(uncertain);
  }

  private List<String> symbols() {
    return uncertain.stream().map(Uncertain::symbol).toList();
  }

  /**
   * Volts at the converter for blocks of parameter values at one input: inputs in the order of
   * {@link #uncertain}, the quantity last.
   */
  BlockProgram forward() {
    var variables = new ArrayList<>(symbols());
    variables.add(path.quantitySymbol());
    return BlockProgram.of(path.forward(), variables, path.constants());
  }

  /** The quantity for blocks of volts, with the nominal parameters. */
  BlockProgram inverse() {
    return BlockProgram.of(path.inverse(), List.of(SignalPath.OUT), path.constants());
  }

  /** Largest distance of the ambient temperature from the reference temperature, K. */
  double farthest() {
    return Math.max(Math.abs(ambient.low()), Math.abs(ambient.high()));
  }

  /** Root mean square of the distance from the reference temperature, every one alike likely. */
  double meanSquareDistance() {
    double a = ambient.low();
    double b = ambient.high();
    return (a * a + a * b + b * b) / 3;
  }

  /** Share of the working range at which an input lies; the calibration line is drawn over it. */
  double along(double x) {
    return working.fraction(x);
  }

  /** Half a count in the quantity at an input. */
  double halfCount(double x) {
    return path.countsWorth(x) / 2;
  }

  /** Limits of the converter's gain and offset errors at an input, channel's unit. */
  double converterStatic(double x) {
    return (path.converter().errorLimit(path.output(x)) - nonLinearityVolts())
        / Math.abs(path.at(x).sensitivity());
  }

  /** Limit of the converter's non-linearity at an input, channel's unit. */
  double nonLinearity(double x) {
    return nonLinearityVolts() / Math.abs(path.at(x).sensitivity());
  }

  private double nonLinearityVolts() {
    var c = path.converter();
    return c.nonLinearity() == null ? 0 : c.nonLinearity().number() * c.ownStep();
  }

  /** The class limit has no shape of its own; what grows faster than a line stays. */
  double classBow(double x) {
    double t = along(x);
    double line =
        (1 - t) * classLimit.applyAsDouble(working.low())
            + t * classLimit.applyAsDouble(working.high());
    return Math.abs(classLimit.applyAsDouble(x) - line);
  }
}
