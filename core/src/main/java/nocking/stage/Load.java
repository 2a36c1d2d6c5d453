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
    return toGround(toGround).with(other);
  }

  /** Two loads on one node. */
  Load with(Optional<Load> other) {
    if (other.isEmpty()) return this;
    Load o = other.get();
    Expr sum = resistance.plus(o.resistance);
    Expr pull = towards.times(o.resistance).plus(o.towards.times(resistance)).over(sum);
    return new Load(resistance.parallel(o.resistance), pull);
  }

  /** This load seen through a series resistor. */
  Load behind(Expr series) {
    return new Load(series.plus(resistance), towards);
  }

  /** Voltage of a node that a source feeds through a resistor, with or without a load on it. */
  static Expr node(Expr source, Expr series, Optional<Load> load) {
    return load.map(l -> l.node(source, series)).orElse(source);
  }
}
