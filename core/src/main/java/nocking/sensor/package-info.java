/**
 * Sensors: from the quantity to an electrical value, one file a model.
 *
 * <p>A model states its output once, as an expression in the quantity (counted in the channel's own
 * unit) and its own symbols. Everything electrical is in SI units. Outside the rated range a model
 * still evaluates; whether that may be trusted is judged by the findings, never hidden by a clamp.
 */
package nocking.sensor;
