package nocking.datasheet;

import java.util.Optional;
import nocking.quantity.Unit;

/**
 * A fact with the line that says it.
 *
 * @param at what the label says it holds at, for example 25 °C; empty where it says nothing
 * @param ofSupply true where the line says that it is a share of the supply
 */
record Said(int line, Amount amount, Optional<Amount> at, boolean ofSupply) {
  Unit unit() {
    return amount.unit().orElse(Unit.ONE);
  }
}
