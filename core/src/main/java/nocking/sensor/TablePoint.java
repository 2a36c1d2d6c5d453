package nocking.sensor;

import nocking.quantity.QuantityException;
import nocking.quantity.Value;

/**
 * One row of a datasheet table.
 *
 * @param at channel's unit
 * @param output V, Ω or A as the table says
 */
public record TablePoint(Value at, Value output) {
  public TablePoint {
    if (at == null || output == null) {
      throw new QuantityException("a row of a table needs its input and its output");
    }
  }

  public static TablePoint of(double at, double output) {
    return new TablePoint(Value.of(at), Value.of(output));
  }
}
