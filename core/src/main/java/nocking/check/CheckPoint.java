package nocking.check;

import nocking.quantity.Value;

/**
 * A check input.
 *
 * @param applied in the channel's unit
 * @param measured in the sheet's unit; null until it is entered
 */
public record CheckPoint(Value applied, Value measured) {}
