package nocking.element;

import nocking.quantity.QuantityException;
import nocking.quantity.Unit;
import nocking.quantity.Value;

/**
 * A parameter of an element's class: its name in the record and what its annotation states.
 *
 * @param name record component, which is also the key in the JSON document
 */
public record Field(String name, Parameter parameter) {

  public String symbol() {
    return parameter.symbol();
  }

  public String label() {
    return parameter.label();
  }

  /** The field's unit on a channel that measures in {@code quantity}. */
  public Unit unit(Unit quantity) {
    String u = parameter.unit();
    if (u.equals(Parameter.QUANTITY)) return quantity;
    if (u.endsWith("/" + Parameter.QUANTITY)) {
      return Unit.of(u.substring(0, u.length() - 2)).over(quantity.difference());
    }
    return Unit.of(u);
  }

  /** True when the value is counted in the channel's own unit. */
  public boolean followsQuantity() {
    return parameter.unit().equals(Parameter.QUANTITY)
        || parameter.unit().endsWith("/" + Parameter.QUANTITY);
  }

  /**
   * Reads what was typed into this field.
   *
   * @return null when the field is optional and the text is blank
   * @throws QuantityException one sentence, when it is no number of this unit or outside the range
   */
  public Value read(String text, Unit quantity) {
    if (text.isBlank() && optional()) return null;
    Value value = Value.typed(text, unit(quantity));
    require(value, quantity);
    return value;
  }

  /** True when the field may stay empty. */
  public boolean optional() {
    return !parameter.whenEmpty().isEmpty();
  }

  /**
   * @throws QuantityException when the value is missing or outside the valid range
   */
  public void require(Value value, Unit quantity) {
    if (value == null) {
      if (optional()) return;
      throw new QuantityException("%s (%s) is missing".formatted(label(), symbol()));
    }
    double v = value.number();
    String unit = unit(quantity).symbol();
    if (!(v > parameter.above())) throw outside("above " + bound(parameter.above(), unit), value);
    if (v < parameter.least()) throw outside("at least " + bound(parameter.least(), unit), value);
    if (v > parameter.most()) throw outside("at most " + bound(parameter.most(), unit), value);
    if (parameter.whole() && v != Math.rint(v)) throw outside("a whole number", value);
  }

  private static String bound(double v, String unit) {
    return Value.of(v).typed() + (unit.isEmpty() ? "" : " " + unit);
  }

  private QuantityException outside(String expected, Value value) {
    return new QuantityException(
        "%s (%s) must be %s; read %s".formatted(label(), symbol(), expected, value.typed()));
  }
}
