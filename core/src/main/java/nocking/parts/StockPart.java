package nocking.parts;

import nocking.quantity.QuantityException;

/**
 * A kind of resistor in the drawer.
 *
 * @param name what stands on the drawer; may be empty
 * @param ohms above 0
 * @param tolerance percent, at least 0
 * @param watts rated power; 0 when not known
 * @param volts rated working voltage; 0 when not known
 * @param quantity how many there are, at least 0
 */
public record StockPart(
    String name, double ohms, double tolerance, double watts, double volts, int quantity) {
  public StockPart {
    if (!(ohms > 0)) throw new QuantityException("a part must be above 0 Ω");
    if (!(tolerance >= 0) || !(watts >= 0) || !(volts >= 0) || quantity < 0) {
      throw new QuantityException("tolerance, power, voltage and quantity must be at least 0");
    }
  }

  public StockPart withQuantity(int v) {
    return new StockPart(name, ohms, tolerance, watts, volts, v);
  }
}
