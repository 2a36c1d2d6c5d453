package nocking.element;

import nocking.algebra.Expr;
import nocking.quantity.QuantityException;
import nocking.quantity.Unit;

/**
 * The quantity as a sensor's equation sees it: a symbol counted in the channel's own unit.
 *
 * @param symbol for example {@code T}
 * @param unit the channel's unit
 */
public record Measurand(String symbol, Unit unit) {

  /** The quantity in the channel's unit. */
  public Expr expr() {
    return Expr.sym(symbol);
  }

  /**
   * The quantity written in another unit of the same dimension; a channel in °C gives T + 273.15
   * for K.
   *
   * @throws QuantityException when the channel measures something else
   */
  public Expr in(Unit other) {
    if (!unit.dimension().equals(other.dimension())) {
      throw new QuantityException(
          "this sensor measures %s and the channel's unit is %s"
              .formatted(
                  other.dimension().says(),
                  unit.symbol().isEmpty() ? "a plain number" : unit.symbol()));
    }
    if (unit.factor() == other.factor()) {
      return expr().plus(Expr.num(unit.offset() - other.offset()));
    }
    return expr()
        .times(Expr.num(unit.factor()))
        .plus(Expr.num(unit.offset() - other.offset()))
        .over(Expr.num(other.factor()));
  }
}
