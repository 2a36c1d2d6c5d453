package nocking.tolerance;

/**
 * The budget at one input.
 *
 * @param before with the parts as they come
 * @param after with a calibration at both ends of the working range
 */
public record BudgetPoint(double quantity, Errors before, Errors after) {}
