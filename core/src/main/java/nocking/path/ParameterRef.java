package nocking.path;

import nocking.element.Field;

/**
 * Where a symbol of the equation comes from.
 *
 * @param element 0 for the sensor, 1 … n for the stages, n + 1 for the converter
 */
public record ParameterRef(int element, Field field) {}
