package nocking.sensor;

import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.util.List;
import java.util.Optional;
import nocking.algebra.Expr;
import nocking.element.Element;
import nocking.element.Symbols;
import nocking.quantity.Span;
import nocking.quantity.Value;

/** A sensor with a voltage output. */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "model")
public sealed interface Sensor extends Element
    permits LinearSensor, TwoPointSensor, RatiometricSensor {

  /** One of each model, in the order in which a form offers them. */
  static List<Sensor> models() {
    return List.of(TwoPointSensor.EXAMPLE, LinearSensor.EXAMPLE, RatiometricSensor.EXAMPLE);
  }

  /** Key of the model on the command line and in the document, for example {@code two-point}. */
  String model();

  /** What the technician has in hand, for example {@code two points}. */
  String inHand();

  /** Open-circuit output in volts for the quantity {@code x} in the channel's unit. */
  Expr output(Expr x, Symbols own);

  /** Resistance between the ideal source and the output terminal, in ohms; 0 for a stiff output. */
  Value sourceResistance();

  /** Rated range in the channel's unit, either way round. */
  Span rated();

  /** Volts that the output can reach at all; empty where the model sets no limit. */
  default Optional<Span> possibleOutput() {
    return ratiometricSupply().map(supply -> new Span(0, supply));
  }

  /** Supply voltage that the output is a fraction of, if it is. */
  default Optional<Double> ratiometricSupply() {
    return Optional.empty();
  }
}
