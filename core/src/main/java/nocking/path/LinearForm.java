package nocking.path;

/**
 * A transfer equation that is a straight line, solved for the quantity.
 *
 * @param slope quantity per volt at the converter
 * @param intercept quantity at 0 V
 * @param pivotName the voltage about which the pivot is stated, for example {@code Vr}
 * @param pivotVolts that voltage
 * @param pivot input at which the output equals it
 */
public record LinearForm(
    double slope, double intercept, String pivotName, double pivotVolts, double pivot) {}
