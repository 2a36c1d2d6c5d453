package nocking.run;

/**
 * A set point in its turn.
 *
 * @param setPoint in the unit of the plan
 * @param down true where it is reached from above
 */
public record Target(double setPoint, boolean down) {}
