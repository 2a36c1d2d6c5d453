package nocking.stage;

import java.util.Optional;
import nocking.algebra.Expr;

/**
 * What hangs on a node: a resistance (ohms) towards a voltage (volts).
 *
 * @param resistance ohms, above 0
 * @param towards volts; {@link Expr#ZERO} for ground
 */
public record Load(Expr resistance, Expr towards) {

  public static Load toGround(Expr resistance) {
    return new Load(resistance, Expr.ZERO);
  }

  /** Voltage of a node that {@code source} feeds through {@code series} and this load pulls on. */
  public Expr node(Expr source, Expr series) {
    Expr pulled =
        towards.equals(Expr.ZERO)
            ? source.times(resistance)
            : source.times(resistance).plus(towards.times(series));
    return pulled.over(series.plus(resistance));
  }

  /** This load with another resistor from the same node to ground beside it. */
  static Load beside(Expr toGround, Optional<Load> other) {
    if (other.isEmpty()) return toGround(toGround);
    Load o = other.get();
    Expr pull = o.towards.times(toGround).over(toGround.plus(o.resistance));
    return new Load(toGround.parallel(o.resistance), pull);
  }

  /** This load seen through a series resistor. */
  Load behind(Expr series) {
    return new Load(series.plus(resistance), towards);
  }
}
