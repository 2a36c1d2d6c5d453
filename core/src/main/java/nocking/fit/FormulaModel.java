package nocking.fit;

import java.util.List;
import java.util.TreeSet;
import nocking.algebra.Expr;
import nocking.quantity.QuantityException;

/** A model that is one formula with a fixed number of constants. */
public interface FormulaModel extends FitModel {

  /** The quantity in the raw symbol and the constants' names. */
  Expr equation();

  @Override
  default Curve curve(List<Coefficient> coefficients) {
    var needed = new TreeSet<>(equation().symbols());
    needed.remove(Curve.RAW);
    var given = new TreeSet<>(coefficients.stream().map(Coefficient::name).toList());
    if (!given.equals(needed)) {
      throw new QuantityException(
          "the model '%s' has the constants %s; it needs %s"
              .formatted(key(), String.join(", ", given), String.join(", ", needed)));
    }
    return Curve.of(title(), equation(), coefficients);
  }
}
